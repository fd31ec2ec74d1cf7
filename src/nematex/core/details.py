"""Which details are made on the part in hand, and which of them say something about a given structure."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from nematex.core.errors import UnknownChoice
from nematex.core.pattern import FITS, Option, Part, Pattern, Wish
from nematex.core.tables import Detail, Tables


@dataclass(frozen=True, slots=True)
class Making:
    """What is being made: the part, its fit, its details, and the words that were not understood."""

    part: str | None
    fit: str
    band: bool
    details: tuple[Detail, ...]
    implied: tuple[Detail, ...]
    bifurcated: bool
    unread: tuple[str, ...]
    said: Mapping[str, str] = field(default_factory=dict)  # detail → the words that it was read from

    @property
    def all_details(self) -> tuple[Detail, ...]:
        """Those made and those the garment implies."""
        return (*self.details, *self.implied)

    def has(self, name: str) -> bool:
        return any(detail.name == name for detail in self.details)


def usual_fit(name: str, details: tuple[str, ...], tables: Tables) -> str:
    """How a part commonly sits where nobody says: a full sleeve or a frill is free of the body."""
    if any(detail.name == "full sleeve" for word in details if (detail := tables.details.find(word))):
        return "free"
    kind = tables.parts.find(name)
    return kind.fit if kind else "close"


def _chosen_part(pattern: Pattern, wish: Wish, tables: Tables) -> Part | None:
    if not wish.part:
        return None
    for part in pattern.parts:
        if part.name.casefold() == wish.part.casefold():
            return part
    kind = tables.parts.find(wish.part)
    if pattern.parts or kind is None:
        choices = [part.name for part in pattern.parts] or [kind.name for kind in tables.parts.rows]
        raise UnknownChoice("part", wish.part, choices, "part of this pattern")
    return Part(wish.part, usual_fit(wish.part, pattern.details, tables), pattern.details)


def _options(pattern: Pattern, wish: Wish, part: Part | None) -> list[Option]:
    """The options that are made, as chosen or as the view is drawn; of one part only its own."""
    if wish.options is None:
        chosen = list(pattern.usual_options(wish.view))
    else:
        known = {each.name.casefold(): each for each in pattern.options}
        unknown = next((name for name in wish.options if name.casefold() not in known), None)
        if unknown is not None:
            raise UnknownChoice("options", unknown, [each.name for each in pattern.options], "option of this pattern")
        chosen = [known[name.casefold()] for name in wish.options]
    return [each for each in chosen if part is None or each.part.casefold() == part.name.casefold()]


def making(pattern: Pattern, wish: Wish, tables: Tables) -> Making:
    """The part chosen, or the whole garment with the details of all its parts."""
    part = _chosen_part(pattern, wish, tables)
    if part:
        words, fit = part.details, part.fit
    else:
        # One cloth for the whole garment: the details of every part count, and it is close if any part is.
        words = tuple(dict.fromkeys((*pattern.details, *(word for each in pattern.parts for word in each.details))))
        fit = min((each.fit for each in pattern.parts), key=FITS.index, default="close")
    found = [(word, tables.details.find_within(word)) for word in words]
    kind = tables.parts.find(part.name) if part else None
    garment = tables.garments.find_within(pattern.garment)
    implied_names = garment.details if garment else ()
    named = tables.details.find(pattern.garment)  # 'wrap dress', 'tiered skirt': the garment's name is a detail
    if named and named.name not in implied_names and part is None:
        found.append((pattern.garment, named))
    found += [(word, tables.details.find_within(word)) for each in _options(pattern, wish, part) for word in each.details]
    details = tuple(dict.fromkeys(detail for _, detail in found if detail))
    if pattern.nightwear and "sleepwear" not in implied_names:
        implied_names = (*implied_names, "sleepwear")
    implied = tuple(tables.details.by_key[name] for name in implied_names)
    if part and not (kind is None or kind.name in ("body", "skirt", "yoke")):
        implied = tuple(detail for detail in implied if detail.breathes)
    return Making(
        part=part.name if part else None,
        fit=fit,
        band=bool(kind and kind.band),
        details=details,
        implied=tuple(detail for detail in implied if detail not in details),
        bifurcated=bool(garment and garment.bifurcated) or any(detail.name == "wide leg" for detail in details),
        unread=tuple(f"detail “{word}”" for word, detail in found if detail is None),
        said={**dict.fromkeys(implied_names, pattern.garment), **{d.name: word for word, d in reversed(found) if d}},
    )
