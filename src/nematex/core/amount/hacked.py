"""What a change to the pattern adds to the cloth, or saves of it: each one line of the receipt.

Geometry of strips, rings and rectangles on the width; where only an area is known it is spread over the width at the share
that a lay uses. Proportions stand in data/judging.toml. Lengths in cm unless the name says m.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from math import ceil, floor, isfinite, pi, sqrt

from nematex.core.amount.receipt import Receipt
from nematex.core.pattern.hacks import Hack
from nematex.core.rules.reckoning import ChangeRules

SEAM, TOP, HEM = 1.5, 1.5, 3.0


def strips(gathered: float, depth: float, width: float, repeat: float = 0.0) -> tuple[int, float]:
    """(widths, length): a closed tube of strips cut across the width, joined with seams; matched where there is a repeat."""
    count = ceil(round(gathered / (width - 2 * SEAM), 9))
    if repeat:
        pitch = ceil(round(depth / repeat, 9)) * repeat
        return count, (count - 1) * pitch + depth
    return count, count * depth


def railroaded(gathered: float, depth: float, width: float) -> float:
    """Length of strips cut along the selvedge, as many side by side as the width holds; infinite where none is."""
    rows = floor(width / depth)
    return gathered / rows + 2 * SEAM if rows else float("inf")


def flounce(around: float, depth: float, fullness: float, width: float) -> tuple[float, float]:
    """(rings, length): ring sectors whose outer edge is so many times the inner one."""
    inner = depth / (fullness - 1)
    rings = around / (2 * pi * inner)
    side = 2 * (inner + depth + HEM)
    beside = max(1, floor(width / side))
    return rings, ceil(round(rings / beside, 9)) * side if side <= width else float("inf")


def bias_square(length: float, strip: float) -> float:
    """The side of the square that gives so much continuous bias strip: its area is length × width, and a seam is lost."""
    return sqrt(length * strip) + 2 * SEAM


def rectangles(count: float, length: float, across: float, width: float) -> float:
    """Length that so many rectangles take, laid along or across the cloth, whichever is less."""
    along = ceil(count / max(1, floor(width / across))) * length
    turned = ceil(count / max(1, floor(width / length))) * across if length <= width else float("inf")
    return min(along, turned)


@dataclass(frozen=True)
class Change:
    """One change on one cloth: its numbers, the usable width, whether all pieces lie one way, the length so far."""

    n: Mapping[str, float]
    width: float
    one_way: bool
    now_m: float
    rule: ChangeRules
    own_cm2: Callable[[str], float] = lambda _piece: 0.0  # what the pattern's own pieces of such a name cover

    def _of_area(self, cm2: float) -> float:
        return cm2 / (self.width * (self.rule.used_one_way if self.one_way else self.rule.used))

    def each_length(self) -> float:
        """So much for each garment length that lies in what it takes now."""
        return self.n["by_cm"] * max(1, round(self.now_m * 100 / self.rule.garment_length_cm))

    def less_each_length(self) -> float:
        return -self.each_length()

    def tier(self) -> float:
        return strips(self.n["around_cm"] * self.n["ratio"], self.n["depth_cm"] + TOP + HEM, self.width)[1]

    def railroaded_tier(self) -> float:
        return railroaded(self.n["around_cm"] * self.n["ratio"], self.n["depth_cm"] + TOP + HEM, self.width)

    def less_tier(self) -> float:
        return -strips(self.n["around_cm"], self.n["depth_cm"] + TOP + HEM, self.width)[1]

    def flounce(self) -> float:
        return flounce(self.n["around_cm"], self.n["depth_cm"], self.n["fullness"], self.width)[1]

    def longer_sleeve(self) -> float:
        return self._of_area(2 * self.n["by_cm"] * self.rule.sleeve_width_cm)

    def shorter_sleeve(self) -> float:
        return -self.longer_sleeve()

    def fuller_sleeve(self) -> float:
        return self._of_area(2 * self.rule.sleeve_length_cm * self.rule.sleeve_width_cm * self.n["by_pct"] / 100)

    def no_sleeve(self) -> float:
        return -self._of_area(2 * self.rule.sleeve_left_off_cm * self.rule.sleeve_width_cm)

    def cuff(self) -> float:
        return rectangles(2, self.rule.cuff_length_cm, 2 * self.n["depth_cm"] + 2 * SEAM, self.width)

    def belt(self) -> float:
        joined = ceil(self.n["length_cm"] / self.rule.belt_piece_cm)
        return rectangles(joined, self.n["length_cm"] / joined + 2 * SEAM, self.n["width_cm"] + 2 * SEAM, self.width)

    def ties(self) -> float:
        return rectangles(self.n["count"], self.n["length_cm"] + 2 * SEAM, self.n["width_cm"] + 2 * SEAM, self.width)

    def pocket(self) -> float:
        return rectangles(self.n["count"], self.n["length_cm"] + HEM + SEAM, self.n["width_cm"] + 2 * SEAM, self.width)

    def no_pocket(self) -> float:
        return -self._of_area(2 * self.rule.pocket_cm2)

    def bias_strip(self) -> float:
        return bias_square(self.n["length_cm"], self.n["width_cm"])

    def wider_leg(self) -> float:
        return self._of_area(self.rule.leg_pieces * self.rule.leg_length_cm * self.n["by_cm"] / 2 / 2)

    def tapered_leg(self) -> float:
        return -self.wider_leg()

    def tier_to_flounce(self) -> float:
        return self.flounce() - self.tier()

    def flounce_to_tier(self) -> float:
        gone = self.flounce()
        return self.tier() - (gone if isfinite(gone) else 0.0)  # a ring that is too wide was joined from pieces nobody knows

    def skirt_for_legs(self) -> float:
        """Two panels that widen from the hip to the hem, less the legs that were drafted."""
        return self._of_area(self._trapezoids(1) - self.own_cm2("leg"))

    def legs_for_skirt(self) -> float:
        """Each leg from half the hip and a fork to its hem, less the skirt that was drafted."""
        return self._of_area(self._trapezoids(2) - self.own_cm2("skirt") - self.own_cm2("tier"))

    def _trapezoids(self, legs: int) -> float:
        above = self.n["hip_cm"] * (1.0 if legs == 1 else self.rule.leg_above) / legs
        seams = 4 * SEAM
        return legs * (self.n["length_cm"] + HEM + SEAM) * ((above + self.n["hem_cm"]) / 2 + seams)


CHANGES: dict[str, Callable[[Change], float]] = {
    "lengthen": Change.each_length,
    "raise rise": Change.each_length,
    "shorten": Change.less_each_length,
    "tier": Change.tier,
    "railroaded tier": Change.railroaded_tier,
    "ruffle": Change.tier,
    "drop tier": Change.less_tier,
    "flounce": Change.flounce,
    "longer sleeve": Change.longer_sleeve,
    "short sleeve": Change.shorter_sleeve,
    "fuller sleeve": Change.fuller_sleeve,
    "no sleeve": Change.no_sleeve,
    "cuff": Change.cuff,
    "belt": Change.belt,
    "ties": Change.ties,
    "pocket": Change.pocket,
    "no pocket": Change.no_pocket,
    "bias strip": Change.bias_strip,
    "wider leg": Change.wider_leg,
    "tapered leg": Change.tapered_leg,
    "tier to flounce": Change.tier_to_flounce,
    "flounce to tier": Change.flounce_to_tier,
    "skirt for legs": Change.skirt_for_legs,
    "legs for skirt": Change.legs_for_skirt,
}


def add_hacks(
    hacks: tuple[Hack, ...],
    width_cm: float,
    one_way: bool,
    rule: ChangeRules,
    receipt: Receipt,
    own_cm2: Callable[[str], float],
) -> None:
    """Each change as a line of the receipt; never below a tenth of what the table says."""
    begun = receipt.length_m or 0.0
    for hack in hacks:
        change = CHANGES.get(hack.kind.name)
        now = receipt.length_m or 0.0
        if change is None:
            receipt.write("hack_same", "practice", said=hack.said)
            continue
        by_m = change(Change(hack.numbers, width_cm, one_way, now, rule, own_cm2)) / 100
        if not isfinite(by_m):
            receipt.write("hack_too_wide", "geometry", said=hack.said, width=receipt.width(width_cm))
            continue
        after = max(now + by_m, begun / 10)
        case = "hack_more" if by_m >= 0 else "hack_less"
        receipt.write(case, "geometry", after, said=hack.said, by=receipt.length(abs(after - now)))
