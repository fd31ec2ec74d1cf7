"""The colours of a set: which cloths share one, which nearly do, and whether all of it is one tone.

Distances are CIEDE2000. Where people see "the same", "of one tone" and "almost, which looks like a mistake" stands in
data/judging.toml (common practice, no source).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nematex.core.colour.difference import delta_e, lab_from_srgb, read_hex
from nematex.core.quantity.arrays import Floats
from nematex.core.rules.reckoning import ColourRules


@dataclass(frozen=True)
class Coloured:
    """A cloth by its place in the set: its colours as "#rrggbb", the ground first, and whether it is printed."""

    place: int
    name: str
    colours: tuple[str, ...]
    printed: bool


@dataclass(frozen=True)
class Tone:
    """One colour of the set, and the cloths that have it on their ground or in their print."""

    colour: str
    grounds: tuple[Coloured, ...]
    prints: tuple[Coloured, ...]

    @property
    def cloths(self) -> tuple[Coloured, ...]:
        return self.grounds + self.prints


@dataclass(frozen=True)
class Tie:
    """Two cloths and their nearest colours, so far apart."""

    first: Coloured
    second: Coloured
    colours: tuple[str, str]
    off: float


def labs(colours: Sequence[str]) -> Floats:
    """CIELAB of colours, (n, 3)."""
    return lab_from_srgb([read_hex(each) for each in colours]).reshape(-1, 3) if colours else np.zeros((0, 3))


def palette(cloths: Sequence[Coloured], rule: ColourRules) -> list[Tone]:
    """The tones of a set, those of most cloths first: a colour joins the first tone that it is of."""
    tones: list[tuple[str, list[Coloured], list[Coloured]]] = []
    for order in (True, False):  # grounds first: they carry the set
        for cloth in cloths:
            for colour in cloth.colours[:1] if order else cloth.colours[1:]:
                tone = _tone_of(colour, tones, rule.tone)
                (tone[1] if order else tone[2]).append(cloth)
    found = [Tone(colour, tuple(grounds), _each(prints, grounds)) for colour, grounds, prints in tones]
    return sorted(found, key=lambda tone: (-len(tone.cloths), -len(tone.grounds)))


def _each(prints: list[Coloured], grounds: list[Coloured]) -> tuple[Coloured, ...]:
    return tuple(dict.fromkeys(each for each in prints if each not in grounds))


def _tone_of(
    colour: str, tones: list[tuple[str, list[Coloured], list[Coloured]]], within: float
) -> tuple[str, list[Coloured], list[Coloured]]:
    if tones:
        off = delta_e(labs([each[0] for each in tones]), labs([colour]))
        nearest = int(np.argmin(off))
        if off[nearest] <= within:
            return tones[nearest]
    tones.append((colour, [], []))
    return tones[-1]


def ties(cloths: Sequence[Coloured], most: float) -> list[Tie]:
    """The pairs of cloths that share a colour within so much, the closest first."""
    flat = [(cloth, colour) for cloth in cloths for colour in cloth.colours]
    best: dict[tuple[int, int], Tie] = {}
    for (first, one), (second, other), off in _pairs_within(flat, 0.0, most):
        if first is second:
            continue
        before = best.get((first.place, second.place))
        if before is None or off < before.off:
            best[first.place, second.place] = Tie(first, second, (one, other), off)
    return sorted(best.values(), key=lambda tie: tie.off)


def near_misses(cloths: Sequence[Coloured], rule: ColourRules) -> list[Tie]:
    """Pairs of plain grounds that are almost the same and not quite: side by side they look like a mistake."""
    plains = [(each, each.colours[0]) for each in cloths if each.colours and not each.printed]
    found = _pairs_within(plains, rule.hair + 1e-9, rule.near_miss)
    return sorted((Tie(first, second, (one, other), off) for (first, one), (second, other), off in found), key=_off)


def _off(tie: Tie) -> float:
    return tie.off


Patch = tuple[Coloured, str]


def _pairs_within(flat: Sequence[Patch], least: float, most: float) -> list[tuple[Patch, Patch, float]]:
    """The pairs of colours so far apart."""
    if not flat:
        return []
    lab = labs([colour for _, colour in flat])
    off = delta_e(lab[:, None, :], lab[None, :, :])
    found = np.argwhere(np.triu((off >= least) & (off <= most), 1)).tolist()
    return [(flat[row], flat[other], float(off[row, other])) for row, other in found]


def is_monotone(cloths: Sequence[Coloured], rule: ColourRules) -> bool:
    """Whether every ground of a set of three or more is within one family of tones."""
    grounds = [each.colours[0] for each in cloths if each.colours]
    if len(grounds) < rule.monotone_from:
        return False
    lab = labs(grounds)
    return bool(np.max(delta_e(lab[:, None, :], lab[None, :, :])) <= rule.monotone)
