"""Made-up cloths to photograph: a print with known kind, direction, repeats and colours, drawn in cm.

For the demo's pictures and for holding the swatch reader against known truth. Nothing here is a real cloth.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from PIL import Image, ImageDraw

from nematex.core.colour.difference import linear_from_srgb

Points = list[tuple[float, float]]
Picture = npt.NDArray[np.float64]
FINE = 2  # drawn this much larger, then averaged down
TRIED, MOST_SPOTS = 400, 12  # places tried in a tile, and motifs that it holds at most


def _ellipse(cx: float, cy: float, rx: float, ry: float, turn: float = 0.0) -> Points:
    angles = np.linspace(0, 2 * math.pi, 28, endpoint=False)
    c, s = math.cos(turn), math.sin(turn)
    return [
        (cx + rx * math.cos(a) * c - ry * math.sin(a) * s, cy + rx * math.cos(a) * s + ry * math.sin(a) * c) for a in angles
    ]


def _petals(count: int, reach: float, size: float) -> list[Points]:
    around = [2 * math.pi * at / count - math.pi / 2 for at in range(count)]
    return [_ellipse(reach * math.cos(a), reach * math.sin(a), size, size * 0.62, a) for a in around]


# Each motif fits a box of side 1 about the origin, y down: (colour number, outline). Colour 0 is the print's first.
MOTIFS: dict[str, list[tuple[int, Points]]] = {
    "spot": [(0, _ellipse(0, 0, 0.5, 0.5))],
    "leaf": [
        (
            0,
            [
                (0, -0.5),
                (0.2, -0.15),
                (0.23, 0.12),
                (0.12, 0.34),
                (0.03, 0.4),
                (0.03, 0.5),
                (-0.03, 0.5),
                (-0.03, 0.4),
                (-0.12, 0.34),
                (-0.23, 0.12),
                (-0.2, -0.15),
            ],
        )
    ],
    "tree": [(0, [(0, -0.5), (0.34, 0.22), (-0.34, 0.22)]), (1, [(-0.07, 0.22), (0.07, 0.22), (0.07, 0.5), (-0.07, 0.5)])],
    "boat": [
        (0, [(-0.42, 0.14), (0.42, 0.14), (0.28, 0.42), (-0.28, 0.42)]),
        (1, [(0.02, -0.5), (0.36, 0.1), (0.02, 0.1)]),
        (1, [(-0.03, -0.34), (-0.03, 0.1), (-0.28, 0.1)]),
    ],
    "flower": [
        *((0, petal) for petal in _petals(5, 0.28, 0.22)),
        (1, _ellipse(0, 0, 0.14, 0.14)),
        (2, [(-0.035, 0.3), (0.035, 0.3), (0.035, 0.62), (-0.035, 0.62)]),
    ],
    "bird": [
        (0, _ellipse(0, 0.05, 0.36, 0.2, -0.25)),
        (0, _ellipse(0.3, -0.16, 0.14, 0.13)),
        (1, [(0.42, -0.2), (0.54, -0.14), (0.42, -0.1)]),
        (0, [(-0.3, 0.08), (-0.54, 0.02), (-0.5, 0.24)]),
        (1, [(0.0, 0.2), (0.05, 0.2), (0.05, 0.45), (0.0, 0.45)]),
    ],
    "shell": [
        (0, [(0, 0.45), (-0.48, -0.1), (-0.36, -0.36), (-0.12, -0.48), (0.12, -0.48), (0.36, -0.36), (0.48, -0.1)]),
        (1, [(0, 0.45), (-0.1, 0.3), (0.1, 0.3)]),
    ],
    "rosette": [*((0, petal) for petal in _petals(6, 0.3, 0.2)), (1, _ellipse(0, 0, 0.15, 0.15))],
    "lozenge": [(0, [(0, -0.5), (0.28, 0), (0, 0.5), (-0.28, 0)])],
}
POINTED = ("leaf", "tree", "boat", "flower", "bird", "shell")
EVEN = ("spot", "lozenge", "rosette")


@dataclass(frozen=True)
class Placed:
    """One motif in a tile: middle in cm from the tile's corner, turn in degrees, size in cm."""

    motif: str
    x: float
    y: float
    turn: float
    size: float


@dataclass(frozen=True)
class MadeCloth:
    """A made-up cloth and what is true of it. Lengths in cm; colours sRGB 0–255, the ground first."""

    kind: str
    direction: str
    colours: tuple[tuple[int, int, int], ...]
    repeat_length_cm: float | None = None
    repeat_width_cm: float | None = None
    scale_cm: float | None = None
    placed: tuple[Placed, ...] = ()
    warp: tuple[tuple[int, float], ...] = ()  # bands across the width: (colour number, cm)
    weft: tuple[tuple[int, float], ...] = ()
    border_at_cm: float = 0.0


def striped(
    colours: tuple[tuple[int, int, int], ...], warp: tuple[tuple[int, float], ...], lengthwise: bool = True
) -> MadeCloth:
    """Stripes of (colour number, cm); one-way where the order is not the same read backwards."""
    period = sum(width for _, width in warp)
    direction = "two-way" if _same_backwards(warp) else "one-way"
    if lengthwise:
        return MadeCloth("stripe", direction, colours, None, period, period, warp=warp)
    return MadeCloth("stripe", direction, colours, period, None, period, weft=warp)


def checked(
    colours: tuple[tuple[int, int, int], ...], warp: tuple[tuple[int, float], ...], weft: tuple[tuple[int, float], ...]
) -> MadeCloth:
    """A woven check: every crossing is the mean of its two yarns."""
    across, along = sum(width for _, width in warp), sum(width for _, width in weft)
    even = _same_backwards(warp) and _same_backwards(weft)
    return MadeCloth(
        "check", "two-way" if even else "one-way", colours, along, across, max(along, across), warp=warp, weft=weft
    )


def _same_backwards(bands: tuple[tuple[int, float], ...]) -> bool:
    """Whether a repeating order of bands reads the same from the other end."""
    back = bands[::-1]
    return any(back[at:] + back[:at] == bands for at in range(len(bands)))


def printed(
    direction: str,
    colours: tuple[tuple[int, int, int], ...],
    motifs: tuple[str, ...],
    length_cm: float,
    width_cm: float,
    size_cm: float,
    seed: int = 0,
) -> MadeCloth:
    """A print of motifs in a tile of length × width cm that is true to its direction."""
    rng = np.random.default_rng(seed)
    spots = _spread(rng, length_cm, width_cm, size_cm)
    placed = []
    if direction == "two-way" and not set(motifs) <= set(EVEN):
        spots = [spot for spot in spots if spot[1] < length_cm / 2 - size_cm * 0.55 and spot[1] > size_cm * 0.55] or [
            (width_cm / 4, length_cm / 4)
        ]
    for at, (x, y) in enumerate(spots):
        motif = motifs[at % len(motifs)]
        turn = float(rng.uniform(0, 360)) if direction == "all-over" else 0.0
        placed.append(Placed(motif, x, y, turn, size_cm))
        if direction == "two-way" and motif not in EVEN:
            placed.append(Placed(motif, width_cm - x, length_cm - y, 180.0, size_cm))
    if direction == "two-way" and set(motifs) <= set(EVEN):
        placed = [
            Placed(motifs[0], width_cm / 4, length_cm / 4, 0, size_cm),
            Placed(motifs[-1], width_cm * 3 / 4, length_cm * 3 / 4, 0, size_cm),
        ]
    return MadeCloth("motif", direction, colours, length_cm, width_cm, size_cm, tuple(placed))


def bordered(colours: tuple[tuple[int, int, int], ...], motif: str, width_cm: float, size_cm: float, at_cm: float) -> MadeCloth:
    """Motifs in one row over a band along the cloth's end, repeating across only."""
    placed = (Placed(motif, width_cm / 2, 0.0, 0.0, size_cm),)
    return MadeCloth("border", "one-way", colours, None, width_cm, size_cm, placed, border_at_cm=at_cm)


def _spread(rng: np.random.Generator, length_cm: float, width_cm: float, size_cm: float) -> list[tuple[float, float]]:
    """Places in a tile that keep clear of one another, also across its edges."""
    tried = rng.random((TRIED, 2)) * (width_cm, length_cm)
    free = np.ones(TRIED, dtype=np.bool_)
    found: list[tuple[float, float]] = []
    while free.any() and len(found) < MOST_SPOTS:
        spot = tried[int(np.argmax(free))]
        found.append((float(spot[0]), float(spot[1])))
        off = np.abs(tried - spot)
        off = np.minimum(off, (width_cm, length_cm) - off)
        free &= np.hypot(off[:, 0], off[:, 1]) >= size_cm * 1.25
    return found


def _bands_at(position: Picture, bands: tuple[tuple[int, float], ...], colours: Picture) -> Picture:
    """Linear colour of repeating bands at positions in cm."""
    edges = np.cumsum([width for _, width in bands])
    which = np.searchsorted(edges, np.mod(position, edges[-1]), side="right").clip(0, len(bands) - 1)
    return colours[np.array([colour for colour, _ in bands])[which]]


def _averaged(picture: Picture) -> Picture:
    height, width = picture.shape[0] // FINE, picture.shape[1] // FINE
    return picture.reshape(height, FINE, width, FINE, 3).mean(axis=(1, 3))


def flat_picture(cloth: MadeCloth, width_cm: float, height_cm: float, px_per_cm: float, skew_deg: float = 0.0) -> Picture:
    """The cloth without light, camera or texture: linear light (h, w, 3)."""
    height, width = round(height_cm * px_per_cm) * FINE, round(width_cm * px_per_cm) * FINE
    fine = px_per_cm * FINE
    colours = linear_from_srgb(np.array(cloth.colours, dtype=np.float64) / 255)
    turn = math.radians(skew_deg)
    if cloth.warp or cloth.weft:
        y, x = np.mgrid[0:height, 0:width] / fine
        along, across = y * math.cos(turn) + x * math.sin(turn), x * math.cos(turn) - y * math.sin(turn)
        if not cloth.weft:
            return _averaged(_bands_at(across, cloth.warp, colours))
        if not cloth.warp:
            return _averaged(_bands_at(along, cloth.weft, colours))
        return _averaged((_bands_at(across, cloth.warp, colours) + _bands_at(along, cloth.weft, colours)) / 2)
    image = Image.new("RGB", (width, height), cloth.colours[0])
    _draw(ImageDraw.Draw(image), cloth, width / fine, height / fine, fine, turn)
    return _averaged(linear_from_srgb(np.asarray(image, dtype=np.float64) / 255))


def _draw(pen: ImageDraw.ImageDraw, cloth: MadeCloth, width_cm: float, height_cm: float, fine: float, turn: float) -> None:
    reach = max(width_cm, height_cm)
    c, s = math.cos(turn), math.sin(turn)

    def place(x: float, y: float) -> tuple[float, float]:
        return ((x * c - y * s) * fine, (x * s + y * c) * fine)

    if cloth.kind == "border":
        top, low = cloth.border_at_cm, height_cm + reach
        far = cloth.border_at_cm + cloth.placed[0].size * 0.7
        band = [(-reach, far), (2 * reach, far), (2 * reach, low), (-reach, low)]
        pen.polygon([place(x, y) for x, y in band], fill=cloth.colours[-1])
        rows = [top]
    else:
        length = cloth.repeat_length_cm or reach
        rows = [length * row for row in range(-2, math.ceil(reach / length) + 2)]
    across = cloth.repeat_width_cm or reach
    for row in rows:
        for column in range(-2, math.ceil(reach / across) + 2):
            for each in cloth.placed:
                _draw_motif(pen, cloth, each, column * across, row, place)


def _draw_motif(pen, cloth: MadeCloth, each: Placed, left: float, top: float, place) -> None:  # type: ignore[no-untyped-def]
    c, s = math.cos(math.radians(each.turn)), math.sin(math.radians(each.turn))
    inks = len(cloth.colours) - 1
    for ink, outline in MOTIFS[each.motif]:
        points = [(each.x + left + each.size * (x * c - y * s), each.y + top + each.size * (x * s + y * c)) for x, y in outline]
        pen.polygon([place(x, y) for x, y in points], fill=cloth.colours[1 + ink % inks])
