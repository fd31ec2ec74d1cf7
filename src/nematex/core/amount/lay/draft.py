"""Pieces drafted from what is known of a pattern: its kind of garment, its details and the body's measurements.

A stated approximation, in cm, for laying out and not for sewing: quarter measurements with ease, darts left in, curves by
a few points. The proportions are common practice of flat pattern cutting, no source. x is the grain, y goes across.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import ceil, cos, pi, sin

from nematex.core.amount.lay.pieces import Piece, Point
from nematex.core.pattern.facts import Pattern, Size, Wish
from nematex.core.pattern.look import Look, look_of
from nematex.core.tables import Tables

SEAM_CM, HEM_CM = 1.5, 3.5
EASE_CM = {"close": 4.0, "semi": 9.0, "loose": 18.0, "free": 24.0}
MIDDLE = Size("", bust_cm=96.0, waist_cm=78.0, hip_cm=104.0)
TIERS, TIER_RATIO = 3, 1.6
WIDEST_STRIP_CM = 110.0
LEAST_ACROSS_CM = 40.0
NECK_RADIUS_CM = 12.0  # of a cape


@dataclass(frozen=True, slots=True)
class Body:
    """The measurements a draft needs, in cm, and the ease at the bust."""

    bust: float
    waist: float
    hip: float
    ease: float


def body_of(pattern: Pattern, size: str | None, look: Look) -> Body:
    """The body of a size, the largest where none is chosen; what the table leaves out stands as on a middle figure."""
    sizes = [each for each in pattern.sizes if each.bust_cm or each.hip_cm]
    found = next((each for each in sizes if each.label == size), sizes[-1] if sizes else MIDDLE)
    bust = found.bust_cm or (found.hip_cm or 104.0) - 8.0
    hip = found.hip_cm or bust + 8.0
    fit = next((part.fit for part in pattern.parts if part.name == "body"), "loose" if look.loose else "semi")
    knit = pattern.structure == "knit"
    return Body(bust, found.waist_cm or bust - 18.0, hip, EASE_CM[fit] * (0.3 if knit and fit in ("close", "semi") else 1.0))


def _box(length: float, across: float) -> tuple[Point, ...]:
    return ((0.0, 0.0), (length, 0.0), (length, across), (0.0, across))


def _bow(start: Point, end: Point, along: float, points: int = 6) -> list[Point]:
    """Points between two corners on a bow whose middle stands `along` cm further along the grain."""
    steps = [at / points for at in range(1, points)]
    return [
        (round(start[0] + (end[0] - start[0]) * t + along * sin(pi * t), 3), round(start[1] + (end[1] - start[1]) * t, 3))
        for t in steps
    ]


class Drafting:
    """The pieces of one garment, while they are drafted."""

    def __init__(self, look: Look, body: Body, across_cm: float) -> None:
        self.look, self.body, self.across_cm = look, body, across_cm
        self.pieces: list[Piece] = []

    @property
    def wraps(self) -> bool:
        return self.look.neck == "wrap"

    def add(self, name: str, outline: tuple[Point, ...], count: int = 1, kind: str = "single", free: bool = False) -> None:
        fold = 0.0 if kind == "fold" else None
        self.pieces.append(Piece(name, outline, count, kind, fold, free))  # type: ignore[arg-type]

    # -- above the waist -------------------------------------------------------------------------

    def bodice(self, length: float, open_front: bool) -> None:
        """Back on the fold; front on the fold, or a pair with a button stand. `length` from the shoulder to its hem."""
        half = self.body.bust / 4 + self.body.ease / 4 + SEAM_CM
        depth = self.body.bust / 8 + 12.0
        deep = length + SEAM_CM + HEM_CM
        hem = half if length <= 48 else max(half, self.body.hip / 4 + self.body.ease / 4 + SEAM_CM)
        for name, neck, drop in (("back", 8.5, 2.5), ("front", 8.5, 9.0)):
            pair = name == "front" and (open_front or self.wraps)
            stand = half * 0.55 if pair and self.wraps else 3.0 if pair else 0.0  # a wrap's fronts lie over one another
            armhole = [(depth, half), *_bow((depth, half), (4.5, half - 7.0), -2.5), (4.5, half - 7.0)]
            outline = [(drop, 0.0), (deep, 0.0), (deep, hem), *armhole, (0.0, neck), *_bow((0.0, neck), (drop, 0.0), 1.0, 4)]
            shifted = tuple((x, y + (stand if y > 0 else 0.0)) for x, y in outline)
            self.add(f"{name} bodice" if length < 60 else name, shifted, 2 if pair else 1, "pair" if pair else "fold")

    def sleeves(self) -> None:
        look = self.look
        if look.sleeve in ("none", "grown-on"):
            return
        fuller = {"full": 1.55, "bell": 1.25, "puff": 1.4, "flutter": 1.3}.get(look.sleeve, 1.0)
        width = (self.body.bust * 0.36 + self.body.ease / 4 + 2 * SEAM_CM) * fuller
        cap = 13.0 if look.sleeve_cm > 15 else 6.0
        deep = max(look.sleeve_cm, cap + 3.0) + SEAM_CM + 2.0
        narrow = width if fuller > 1.2 else max(26.0, width * (1 - 0.006 * max(0.0, look.sleeve_cm - 20)))
        inset = (width - narrow) / 2
        crown = _bow((cap, 0.0), (cap, width), -cap, 10)
        self.add("sleeve", ((cap, 0.0), *crown, (cap, width), (deep, width - inset), (deep, inset)), 2, "pair")
        if look.sleeve in ("long", "full") and look.kind in ("shirt", "dress", "coat"):
            self.add("cuff", _box(24.0, 13.0), 2, "pair")

    def collar(self) -> None:
        around = self.body.bust * 0.43
        if self.look.collar in ("shirt", "stand"):
            self.add("collar stand", _box(around, 6.0), 2)
        if self.look.collar == "shirt":
            self.add("collar", _box(around, 9.5), 2)
        elif self.look.collar == "hood":
            top = _bow((0.0, 0.0), (0.0, 26.0), -3.0)
            self.add("hood", ((0.0, 0.0), *top, (0.0, 26.0), (36.0, 24.0), (36.0, 2.0)), 4, "pair")
        elif self.look.collar == "ruffle":
            self.add("collar ruffle", _box(7.0, around * 1.6), 1)
        if self.look.neck == "lapels":
            self.add("facing", _box(70.0, 16.0), 2, "pair")

    # -- below the waist -------------------------------------------------------------------------

    def skirt(self, length: float, seamed: bool = True) -> None:
        """Panels by the kind of skirt; `seamed`: it is joined at the waist, so that it is cut for itself."""
        deep, waist = length + SEAM_CM + HEM_CM, self.body.waist / 4 + 3.0 + SEAM_CM
        hip = self.body.hip / 4 + 1.5 + SEAM_CM
        kind = self.look.skirt
        if kind == "tiered":
            self._tiers(length)
        elif kind in ("gathered", "pleated", "bubble"):
            ratio = 3.0 if kind == "pleated" else 1.7
            self._strips("skirt panel", self.body.waist * ratio, deep)
        else:
            hem = {"straight": hip + 1.0, "flared": hip + 24.0}.get(kind, hip + 9.0)
            outline = ((0.0, 0.0), (deep, 0.0), (deep - 2.0, hem), (20.0, hip), (1.0, waist))
            if self.wraps:
                over = tuple((x, y + waist * 0.55 if y else y) for x, y in outline)
                self.add("skirt front", over, 2, "pair")
            else:
                self.add("skirt front", outline, 1, "fold")
            self.add("skirt back", outline, 2 if seamed else 1, "pair" if seamed else "fold")
        if self.look.flounce:
            self._strips("ruffle", self.body.hip * 1.8, 16.0)

    def _tiers(self, length: float) -> None:
        around, depth = max(self.body.hip, self.body.waist * 1.3), length / TIERS
        for tier in range(TIERS):
            self._strips(f"tier {tier + 1}", around, depth + 2 * SEAM_CM + (HEM_CM if tier == TIERS - 1 else 0.0))
            around *= TIER_RATIO

    def _strips(self, name: str, around: float, deep: float) -> None:
        """A length to go round, from strips that lie across the cloth."""
        count = ceil(around / (self.across_cm - 2 * SEAM_CM))
        self.add(name, _box(round(deep, 2), round((around + 2 * SEAM_CM * count) / count, 2)), count)

    def trousers(self, length: float) -> None:
        hip, rise = self.body.hip / 4, 24.0 + self.body.hip / 20
        foot = {"wide": hip * 1.15, "flared": hip, "tapered": hip * 0.62, "close": hip * 0.5, "gathered in": hip * 0.75}.get(
            self.look.leg, hip * 0.85
        )
        full = 4.0 if self.look.waist == "elastic" or self.look.leg == "wide" else 1.5
        deep = length + SEAM_CM + HEM_CM
        for name, seat, more in (("front", hip * 0.28, 0.0), ("back", hip * 0.5, 2.5)):
            wide = hip + full + more + 2 * SEAM_CM
            inset = max((wide + seat - foot - 2 * SEAM_CM) / 2, 0.0)
            curve = _bow((rise, wide + seat), (2.0, wide - 1.0), 0.0, 4)
            bent = [(x + 3.0 * sin(pi * at / 4), y) for at, (x, y) in enumerate(curve, 1)]
            outline = ((0.0, 0.0), (rise, 0.0), (deep, inset), (deep, wide + seat - inset), (rise, wide + seat))
            self.add(f"{name} leg", (*outline, *bent, (2.0, wide - 1.0)), 2, "pair")

    def waistband(self) -> None:
        around = self.body.hip + 4.0 if self.look.waist == "elastic" else self.body.waist + 6.0
        pieces = ceil(around / self.across_cm)
        self.add("waistband", _box(8.0 + SEAM_CM * 2, round(around / pieces + 2 * SEAM_CM * (pieces > 1), 2)), pieces)

    def pockets(self) -> None:
        if self.look.pockets:
            self.add("pocket", _box(18.0, 17.0), 2, "pair")

    def ties(self) -> None:
        if self.look.neck == "wrap" or self.look.knot:
            self.add("tie", _box(100.0, 8.0), 2)


def _dress(draft: Drafting) -> None:
    look = draft.look
    if look.waist == "none":
        draft.bodice(look.length_cm + 38.0, look.closure == "buttons")
    else:
        draft.bodice({"empire": 30.0, "dropped": 58.0}.get(look.waist, 41.0), look.closure == "buttons")
        draft.skirt(look.length_cm)
    draft.sleeves()
    draft.collar()
    draft.ties()


def _top(draft: Drafting) -> None:
    draft.bodice(draft.look.length_cm, draft.look.closure in ("buttons", "zip") or draft.look.neck in ("wrap", "lapels"))
    draft.sleeves()
    draft.collar()
    draft.ties()


def _slip(draft: Drafting) -> None:
    draft.bodice(draft.look.length_cm, False)
    draft.add("binding", _box(140.0, 3.5), 2, free=True)


def _skirt(draft: Drafting) -> None:
    draft.skirt(draft.look.length_cm)
    draft.waistband()


def _trousers(draft: Drafting) -> None:
    draft.trousers(draft.look.length_cm)
    draft.waistband()


def _jumpsuit(draft: Drafting) -> None:
    draft.bodice(41.0, draft.look.closure == "buttons")
    draft.trousers(draft.look.length_cm)
    if draft.look.kind == "jumpsuit":
        draft.sleeves()
        draft.collar()


def _cape(draft: Drafting) -> None:
    """Half a circle in four panels, and what faces its front."""
    outer, inner = draft.look.length_cm + NECK_RADIUS_CM + HEM_CM, NECK_RADIUS_CM
    arc = [(outer * cos(pi / 4 * at / 8), outer * sin(pi / 4 * at / 8)) for at in range(9)]
    draft.add("cape panel", ((inner, 0.0), *arc, (inner * cos(pi / 4), inner * sin(pi / 4))), 4, "pair")
    draft.add("facing", _box(draft.look.length_cm, 12.0), 2, "pair")
    draft.collar()


def _kimono(draft: Drafting) -> None:
    """Straight pieces only: back, fronts, sleeves, and the band around neck and fronts."""
    half, deep = draft.body.hip / 4 + draft.body.ease / 4 + 6.0, draft.look.length_cm + SEAM_CM + HEM_CM
    draft.add("back", _box(deep, half), 1, "fold")
    draft.add("front", _box(deep, half - 4.0), 2, "pair")
    draft.add("sleeve", _box(42.0, 76.0), 2)
    draft.add("band", _box(deep + 12.0, 14.0), 2)


def _swimsuit(draft: Drafting) -> None:
    """Front and back to the crotch, and binding."""
    half = draft.body.hip / 4
    for name in ("front", "back"):
        draft.add(name, ((8.0, 0.0), (76.0, 0.0), (76.0, 4.0), (56.0, half), (24.0, half), (0.0, 12.0), (0.0, 8.0)), 1, "fold")
    draft.sleeves()
    draft.add("binding", _box(90.0, 4.0), 2, free=True)


def _apron(draft: Drafting) -> None:
    deep = draft.look.length_cm + 2 * HEM_CM
    draft.add("front", ((0.0, 0.0), (deep, 0.0), (deep, 38.0), (30.0, 38.0), (0.0, 14.0)), 1, "fold")
    draft.add("tie", _box(90.0, 8.0), 2)
    draft.add("strap", _box(62.0, 8.0))
    draft.add("pocket", _box(20.0, 30.0))


def _bag(draft: Drafting) -> None:
    draft.add("side", _box(draft.look.length_cm + HEM_CM, 42.0), 2)
    draft.add("strap", _box(66.0, 10.0), 2)


def _hat(draft: Drafting) -> None:
    """Crown, side and brim, each doubled by a lining of the same cloth."""
    draft.add("crown", _box(20.0, 18.0), 2)
    draft.add("side", _box(12.0, 32.0), 4)
    draft.add("brim", _box(24.0, 46.0), 4)


KINDS: dict[str, Callable[[Drafting], None]] = {
    "skirt": _skirt, "trousers": _trousers, "shorts": _trousers, "jumpsuit": _jumpsuit, "dungarees": _jumpsuit,
    "dress": _dress, "slip": _slip, "cape": _cape, "kimono": _kimono, "swimsuit": _swimsuit, "apron": _apron, "bag": _bag,
    "hat": _hat,
}  # fmt: skip


def drafted(pattern: Pattern, wish: Wish, tables: Tables, across_cm: float = WIDEST_STRIP_CM) -> list[Piece]:
    """The pieces of a garment in a size and view, as an approximation; long strips are as wide as `across_cm` allows."""
    look = look_of(pattern, tables, wish.view)
    draft = Drafting(look, body_of(pattern, wish.size, look), max(across_cm, LEAST_ACROSS_CM))
    KINDS.get(look.kind, _top)(draft)
    draft.pockets()
    return draft.pieces
