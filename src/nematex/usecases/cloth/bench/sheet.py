"""The sheet of one measurement: its boxes read as they are asked for, and what has come out so far."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.plausible import doubt
from nematex.core.cloth.readings import disagree, drifts, outliers, repeats
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.quantity.estimate import Known, Range
from nematex.core.quantity.reader import to_number
from nematex.core.tables import Tables
from nematex.store.records import ReadingRecord
from nematex.tables import properties
from nematex.usecases.cloth.bench.measures import Field, Method

SIMULATED = "simulated"  # the hidden box that says that a simulated instrument filled the others


@dataclass
class Outcome:
    """What a measurement comes to: readings to keep, lines of working, doubts to look at first."""

    readings: list[ReadingRecord] = field(default_factory=list)
    lines: list[str] = field(default_factory=list)
    doubts: list[str] = field(default_factory=list)


def _numbers(values: Mapping[str, str], box: Field) -> list[float]:
    """The filled boxes of a field as numbers; raises FieldFault naming the box."""
    found = []
    for at in range(box.count):
        text = values.get(f"{box.name}-{at}", "").strip() or (box.default if at == 0 else "")
        if text:
            found.append(to_number(text, box.label if box.count == 1 else f"{box.label}, {at + 1}"))
    return found


class Sheet:
    """The inputs of one measurement, read as they are asked for, and what has come out so far."""

    def __init__(self, method: Method, values: Mapping[str, str], cloth: Cloth, who: str, tables: Tables) -> None:
        self.method, self.values, self.cloth, self.who, self.tables = method, values, cloth, who, tables
        self.out = Outcome()
        self.boxes = {each.name: each for each in method.fields}

    def series(self, name: str, needed: bool = True) -> list[float]:
        """Repeats of one thing, with a doubt for each that stands out."""
        box = self.boxes[name]
        numbers = _numbers(self.values, box)
        if needed and not numbers:
            raise FieldFault(box.label, "", f"is missing; give a number{f' in {box.unit}' if box.unit else ''}")
        self.compare(box.label, numbers)
        return numbers

    def compare(self, label: str, numbers: list[float]) -> None:
        """A doubt for each of the repeats that stands out, for a drift, and for two that disagree."""
        for at in outliers(numbers):
            self.out.doubts.append(f"{label}: {numbers[at]:g} lies far from the others. Take it again, or empty its box.")
        if drifts(numbers):
            self.out.doubts.append(f"{label}: the readings run one way only. Zero the instrument and let the cloth rest.")
        if disagree(numbers):
            self.out.doubts.append(f"{label}: {numbers[0]:g} and {numbers[1]:g} disagree. Take a third to see which is right.")

    def one(self, name: str, needed: bool = True) -> float | None:
        numbers = self.series(name, needed)
        return numbers[0] if numbers else None

    def needed(self, name: str) -> float:
        value = self.one(name)
        assert value is not None  # series() has refused an empty box
        return value

    def word(self, name: str, needed: bool = True) -> str | None:
        text, box = self.values.get(f"{name}-0", ""), self.boxes[name]
        if not text and not needed:
            return None
        if text not in box.choices:
            raise UnknownChoice(box.label, text, box.choices, "choice")
        return text

    def keep(self, name: str, value: float | str, known: Known, of: list[float] | None = None, note: str = "") -> None:
        """A reading of a property, checked against what can be right."""
        number, word = (None, value) if isinstance(value, str) else (self.checked(name, value), None)
        spread = repeats(of).deviation if of and len(of) > 1 else None
        when = datetime.now().replace(microsecond=0)
        number = round(number, 3) if number is not None else None
        simulated = bool(self.values.get(SIMULATED))
        with_what = f"simulated {self.method.label}" if simulated else self.method.label
        how = Known.SIMULATED if simulated else known
        taken = (how.word, self.who, with_what, when, spread, tuple(of or ()), note)
        reading = ReadingRecord(0, name, number, word, *taken)
        self.out.readings.append(reading)

    def checked(self, name: str, value: float) -> float:
        """The number, with a doubt where such cloth commonly is otherwise; FieldFault where it cannot be right at all."""
        usual, label = usual_range(name, self.cloth, self.tables), properties()[name].label
        said = doubt(name, value, usual) if usual else None
        try:
            number = properties()[name].checked(value)
        except FieldFault as fault:
            raise FieldFault(fault.field, fault.value, f"{fault.rule}. {said or ''}".rstrip()) from None
        if said:
            self.out.doubts.append(f"{label}: {said}")
        return number

    def say(self, line: str) -> None:
        self.out.lines.append(line)


def mean_of(name: str, values: list[float], unit: str) -> str:
    """The mean of repeats with their scatter, as a line of working."""
    found = repeats(values)
    if found.count == 1:
        return f"{name}: {values[0]:.4g} {unit}, one reading."
    scatter = f"standard deviation {found.deviation:.2g} ({found.variation_pct:.1f} %)"
    return f"{name}: mean of {found.count}: {found.mean:.4g} {unit}, {scatter}."


def usual_range(name: str, cloth: Cloth, tables: Tables) -> Range | None:
    """What is usual for this kind of cloth."""
    kind = cloth.type
    if name == "width_cm":
        return Range(0.8 * cloth.width.best, 1.25 * cloth.width.best)
    if kind is None or kind.structure != cloth.structure:
        span = tables.judging.any[cloth.structure]
        ranges = {"weight_gsm": span.weight_gsm, "bending_length_cm": span.bend_cm}
        return ranges.get(name)
    return {"weight_gsm": kind.weight_gsm, "bending_length_cm": kind.bend_cm}.get(name)
