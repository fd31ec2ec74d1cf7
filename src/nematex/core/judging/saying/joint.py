"""What was found between two cloths of one garment, in words."""

from __future__ import annotations

from nematex.core.judging.combination import Joint, PartCloth
from nematex.core.judging.saying.say import Words
from nematex.core.quantity.said import Units, amount, number
from nematex.core.tables import Tables

GSM = "g/m²"


def _side(name: str, side: PartCloth, units: Units, up_to: str) -> dict[str, str]:
    """The blanks of one side: {heavy}, {heavy_weight} …, by the name that the saying gives it."""
    cloth = side.cloth
    return {
        name: side.part,
        f"{name}_weight": amount(cloth.weight.best, GSM, 0, units),
        f"{name}_number": number(cloth.weight.best, GSM, 0, units),
        f"{name}_shrinks": f"{cloth.shrink.best:g} %",
        f"{name}_may_shrink": up_to.format(low=f"{cloth.shrink.low:.0f}", high=f"{cloth.shrink.high:.0f} %"),
        f"{name}_stretch": f"{cloth.stretch_cross.best:.0f} %",
    }


def blanks_of(joint: Joint, up_to: str, units: Units) -> dict[str, str]:
    """What the blanks of a saying about two cloths stand for."""
    sides = _side("first", joint.first, units, up_to) | _side("second", joint.second, units, up_to)
    return sides | {"times": f"{joint.times_as_heavy:.1f}"}


def say_joint(joint: Joint, tables: Tables, units: Units = Units.METRIC) -> Words:
    """The reason and what to do, in these units."""
    blanks = blanks_of(joint, tables.sayings.words["up_to"], units)
    saying = tables.sayings.cases[f"between_{joint.respect.split()[0]}"][joint.case]
    return Words(saying.reason.format_map(blanks), saying.remedy.format_map(blanks))
