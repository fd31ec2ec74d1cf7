"""Changes to a pattern, each with its own numbers: what it adds to the details, what it takes away, how it is said.

The kinds are rows of data/hacks.csv. Written as 'tier(around_cm=100,ratio=1.6,depth_cm=30)'. Common practice, no source.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from nematex.core.cloth.lexicon import key
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.pattern.facts import Pattern
from nematex.core.quantity.units import trim
from nematex.core.tables import HackKind, Tables

MOST = 12
_WRITTEN = re.compile(r"\s*(?P<kind>[a-z][a-z ]{0,30})\s*(?:\((?P<numbers>[a-z_=0-9.,\s]{0,200})\))?\s*$")


@dataclass(frozen=True)
class Hack:
    """One change: its kind and its numbers, in the units that stand in their names."""

    kind: HackKind
    numbers: Mapping[str, float]

    def written(self) -> str:
        """As it stands in an address and in a pick."""
        inside = ",".join(f"{name}={trim(value, 2)}" for name, value in self.numbers.items())
        return f"{self.kind.name}({inside})" if inside else self.kind.name

    @property
    def said(self) -> str:
        """'a tier 30 cm deep, gathered 1.6 to 1, on 100 cm'."""
        return self.kind.says.format_map({name: _said(name, value) for name, value in self.numbers.items()})


def _said(name: str, value: float) -> str:
    unit = " cm" if name.endswith("_cm") else " %" if name.endswith("_pct") else ""
    return f"{trim(value, 2)}{unit}"


def read_hack(text: str, tables: Tables) -> Hack:
    """A change as it is written; raises FieldFault naming the number that does not do."""
    found = _WRITTEN.match(text[:300])
    if found is None:
        raise FieldFault("hack", text[:60], "is no change; write it like lengthen(by_cm=10)")
    kind = tables.hacks.get(found["kind"].strip())
    if kind is None:
        raise UnknownChoice("hack", found["kind"].strip(), list(tables.hacks), "change")
    given = dict(part.split("=", 1) for part in (found["numbers"] or "").replace(" ", "").split(",") if "=" in part)
    unknown = next((name for name in given if name not in {each.name for each in kind.fields}), None)
    if unknown is not None:
        raise UnknownChoice(f"hack {kind.name}", unknown, [each.name for each in kind.fields], "number of this change")
    numbers = {}
    for each in kind.fields:
        text_of = given.get(each.name, "")
        try:
            value = float(text_of) if text_of else each.usual
        except ValueError:
            raise FieldFault(f"{kind.label}, {each.label}", text_of, "is no number") from None
        if not each.low <= value <= each.high:
            raise FieldFault(f"{kind.label}, {each.label}", text_of, f"must be from {each.low:g} to {each.high:g}")
        numbers[each.name] = value
    return Hack(kind, numbers)


def read_hacks(texts: Iterable[str], tables: Tables) -> tuple[Hack, ...]:
    """All changes in their order; raises FieldFault."""
    found = tuple(read_hack(text, tables) for text in texts)
    if len(found) > MOST:
        raise FieldFault("hacks", len(found), f"changes are too many; at most {MOST}")
    return found


def hacked(pattern: Pattern, hacks: Iterable[Hack]) -> Pattern:
    """The pattern with its details changed, so that judging, drawing, hang and notes follow; its table stays."""
    for hack in hacks:
        pattern = _changed(pattern, hack)
    return pattern


def _changed(pattern: Pattern, hack: Hack) -> Pattern:
    gone = {key(word) for word in hack.kind.removes}

    def left(words: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(word for word in words if not any(each in key(word) for each in gone))

    options = [each for each in pattern.options if left((each.name,)) and not _off(each.part, hack)]
    by_cm = hack.numbers.get("by_cm", 0.0) * {"lengthen": 1, "shorten": -1}.get(hack.kind.name, 0)
    return replace(
        pattern,
        garment=_becomes(pattern.garment, hack),
        details=(*left(pattern.details), *hack.kind.adds),
        parts=tuple(replace(part, details=left(part.details)) for part in pattern.parts if not _off(part.name, hack)),
        options=tuple(replace(each, details=left(each.details)) for each in options),
        lined=pattern.lined or hack.kind.name == "full lining",
        notions="; ".join(filter(None, [pattern.notions, _notion(hack)])),
        longer_cm=pattern.longer_cm + by_cm,
    )


def _becomes(garment: str, hack: Hack) -> str:
    """The garment that a change makes of this one: 'wide trousers' become a skirt."""
    word = key(garment)
    return next((new for old, new in hack.kind.garments.items() if f" {word}".endswith(f" {key(old)}")), garment)


def _off(part: str, hack: Hack) -> bool:
    return hack.kind.name == "no sleeve" and key(part) == "sleeve"


def _notion(hack: Hack) -> str:
    if hack.kind.name == "zip":
        return f"zip {trim(hack.numbers['length_cm'])} cm"
    return ""
