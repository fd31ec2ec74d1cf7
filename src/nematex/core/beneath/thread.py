"""Thread by the ground colour: the nearest shade, of two as near the darker. Common practice, no source."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nematex.core.cloth.estimates import Cloth
from nematex.core.colour.difference import delta_e, lab_from_srgb, read_hex, to_hex
from nematex.core.colour.names import ColourName
from nematex.core.quantity.arrays import Floats

AS_NEAR = 2.0  # ΔE00: two shades so far apart from each other's distance count as equally near


@dataclass(frozen=True, slots=True)
class Thread:
    """A shade of thread, its distance from the ground in ΔE00, what it is spun of, and why."""

    shade: str
    colour: str
    off: float
    kind: str
    reason: str


def _kind(cloth: Cloth) -> str:
    if cloth.structure == "knit":
        return "polyester, sewn with a stretch stitch"
    if cloth.fibres and cloth.fibres.share("silk") >= 0.5:
        return "silk, or fine polyester"
    return "polyester all-purpose" if cloth.weight.best < 300 else "strong polyester, topstitching thread where it shows"


@lru_cache(maxsize=4)
def _labs(shades: tuple[tuple[int, int, int], ...]) -> Floats:
    """The shades in CIELAB, n × 3."""
    return np.array([lab_from_srgb(shade) for shade in shades], dtype=np.float64)


def thread(cloth: Cloth, ground: str, shades: Sequence[ColourName]) -> Thread:
    """The shade for a ground colour such as '#24404a'."""
    lab = lab_from_srgb(read_hex(ground))
    labs = _labs(tuple(shade.srgb for shade in shades))
    off = np.asarray(delta_e(labs, lab), dtype=np.float64)
    near = np.flatnonzero(off <= off.min() + AS_NEAR)
    dark = min(map(int, near), key=lambda at: float(labs[at][0]))
    nearest = int(np.argmin(off))
    chosen = shades[dark]
    reason = (
        f"{chosen.name} is nearest to the ground."
        if dark == nearest
        else f"{chosen.name} and {shades[nearest].name} are as near: the darker one shows less."
    )
    return Thread(chosen.name, to_hex(chosen.srgb), float(off[dark]), _kind(cloth), reason)
