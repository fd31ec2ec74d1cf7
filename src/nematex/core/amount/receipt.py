"""What an amount is made of: each step with its rule in words, where the rule is from, and the length before and after."""

from __future__ import annotations

from dataclasses import dataclass, field

from nematex.core.quantity.said import Units
from nematex.core.quantity.units import CM_PER_INCH, CM_PER_YARD, eighths, trim
from nematex.core.sayings import Sayings

EIGHTH_YARD_CM = CM_PER_YARD / 8


@dataclass(frozen=True, slots=True)
class Step:
    """One line of a receipt; lengths in m, None before anything was known."""

    text: str
    source: str
    before_m: float | None
    after_m: float | None


@dataclass(frozen=True)
class Amount:
    """Length to buy in m, with each step that led to it; `cut_m` is what it takes once it is washed."""

    length_m: float
    steps: tuple[Step, ...]
    cut_m: float = 0.0

    @property
    def receipt(self) -> tuple[str, ...]:
        """The steps in words."""
        return tuple(step.text for step in self.steps)

    @property
    def washing_m(self) -> float:
        """What is bought for the wash alone, in m."""
        return self.length_m - self.cut_m


@dataclass
class Receipt:
    """A receipt while it is written, in the words of the sayings and the units that lead."""

    sayings: Sayings
    units: Units = Units.METRIC
    steps: list[Step] = field(default_factory=list)
    length_m: float | None = None
    silent: bool = False  # only the length is wanted

    def write(self, case: str, source: str, after_m: float | None = None, **blanks: object) -> None:
        """Add a step; `after_m` is the length from here on, which the blank {after} says."""
        after = self.length_m if after_m is None else after_m
        if self.silent:
            self.length_m = after
            return
        said = {"after": self.length(after) if after is not None else "", **blanks}
        text = self.sayings.cases["receipt"][case].reason.format_map(said)
        self.steps.append(Step(text, self.sayings.words[f"source_{source}"], self.length_m, after))
        self.length_m = after

    def length(self, metres: float) -> str:
        """'1.85 m', or in yards and eighths, rounded up."""
        if self.units is Units.METRIC:
            return f"{trim(metres, 2)} m"
        return f"{eighths(metres * 100 / CM_PER_YARD)} yd"

    def short(self, cm: float) -> str:
        """'25 cm', or in inches."""
        return f"{trim(cm)} cm" if self.units is Units.METRIC else f"{trim(cm / CM_PER_INCH)} in"

    def width(self, cm: float) -> str:
        return f"{cm:.0f} cm" if self.units is Units.METRIC else f"{cm / CM_PER_INCH:.0f} in"

    def cut(self, cm: float) -> str:
        """A step of the shop's cut in the system it is cut in, whichever leads: '10 cm', '1/8 yd'."""
        in_eighths = cm / EIGHTH_YARD_CM
        if abs(in_eighths - round(in_eighths)) < 1e-3:
            return f"{eighths(cm / CM_PER_YARD)} yd"
        return f"{cm:.0f} cm"
