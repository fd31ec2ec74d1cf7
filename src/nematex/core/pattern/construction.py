"""Which details are made on the part in hand, and which of them say something about a given structure."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from nematex.core.cloth.lexicon import key
from nematex.core.errors import UnknownChoice
from nematex.core.pattern.chosen import part_meant
from nematex.core.pattern.facts import FITS, Option, Part, Pattern, Wish
from nematex.core.tables import Detail, Garment, Role, Tables


@dataclass(frozen=True, slots=True)
class Making:
    """What is being made: the part, its fit, its details, and the words that were not understood."""

    part: str | None
    fit: str
    band: bool
    by_itself: bool  # a part that the garment's list does not speak of
    around: bool
    loose_body: bool
    details: tuple[Detail, ...]
    implied: tuple[Detail, ...]
    bifurcated: bool
    below_waist: bool
    slides: bool
    over: bool
    end_uses: frozenset[str]
    unread: tuple[str, ...]
    optional: frozenset[str] = frozenset()  # details that only an option has: the list is for the views without it as well
    said: Mapping[str, str] = field(default_factory=dict)  # detail → the words that it was read from

    @property
    def all_details(self) -> tuple[Detail, ...]:
        """Those made and those the garment implies."""
        return (*self.details, *self.implied)

    def has(self, name: str) -> bool:
        return any(detail.name == name for detail in self.details)


def usual_fit(name: str, details: tuple[str, ...], tables: Tables) -> str:
    """How a part commonly sits where nobody says: a full sleeve or a frill is free of the body."""
    if any(Role.FREES in detail.roles for word in details if (detail := tables.details.find(word))):
        return "free"
    kind = tables.parts.find(name)
    return kind.fit if kind else "close"


def _chosen_part(pattern: Pattern, wish: Wish, tables: Tables) -> Part | None:
    if not wish.part:
        return None
    own = part_meant(wish.part, (part.name for part in pattern.parts))
    if own is not None:
        return next(part for part in pattern.parts if part.name == own)
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


def _words_and_fit(pattern: Pattern, part: Part | None) -> tuple[tuple[str, ...], str]:
    """The details written for the part, or of the whole; one cloth for all of it has every part's details and is close
    if any part is."""
    if part:
        return part.details, part.fit
    words = dict.fromkeys((*pattern.details, *(word for each in pattern.parts for word in each.details)))
    return tuple(words), min((each.fit for each in pattern.parts), key=FITS.index, default="close")


def _implied_names(pattern: Pattern, garment: Garment | None, tables: Tables) -> tuple[str, ...]:
    """The details that come with the garment's kind, and with being slept in."""
    names = garment.details if garment else ()
    slept_in = [detail.name for detail in tables.with_role(Role.SLEPT_IN)]
    if pattern.nightwear and not any(name in names for name in slept_in):
        names = (*names, *slept_in)
    return names


def _of_garment(word: str, detail: Detail | None, garment: Garment | None, tables: Tables) -> Detail | None:
    """What a detail's word means on this garment: the collar of a coat is no shirt collar, unless that is what it says."""
    other = garment.instead.get(detail.name) if garment and detail else None
    return tables.details.by_key[key(other)] if other and detail and detail.name.split()[0] not in word.casefold() else detail


def _loose_body(pattern: Pattern, details: tuple[Detail, ...], tables: Tables) -> bool:
    """Whether the garment's body is loose, so that its bands need not cling."""
    bodies = [part for part in pattern.parts if (kind := tables.parts.find(part.name)) and kind.main]
    if bodies:
        return bodies[0].fit in ("loose", "free")
    return any(Role.LOOSE in detail.roles for detail in details)


def making(pattern: Pattern, wish: Wish, tables: Tables) -> Making:
    """The part chosen, or the whole garment with the details of all its parts."""
    part = _chosen_part(pattern, wish, tables)
    kind = tables.parts.find(part.name) if part else None
    garment = tables.garments.find_within(pattern.garment)
    words, fit = _words_and_fit(pattern, part)
    implied_names = _implied_names(pattern, garment, tables)
    read = [(word, tables.details.find_within(word)) for word in words]
    named = tables.details.find(pattern.garment)  # 'wrap dress', 'tiered skirt': the garment's name is a detail
    if named and named.name not in (garment.details if garment else ()) and part is None:
        read.append((pattern.garment, named))
    of_options = [(word, tables.details.find_within(word)) for each in _options(pattern, wish, part) for word in each.details]
    always = {detail.name for _, detail in read if detail}
    read = [(word, _of_garment(word, detail, garment, tables)) for word, detail in (*read, *of_options)]
    details = tuple(dict.fromkeys(detail for _, detail in read if detail))
    legs = any(Role.LEGS in detail.roles for detail in details)
    implied = tuple(tables.details.by_key[name] for name in implied_names)
    if part and not (kind is None or kind.main):
        implied = tuple(detail for detail in implied if detail.breathes)
    return Making(
        part=part.name if part else None,
        fit=fit,
        band=bool(kind and kind.band),
        by_itself=bool(kind and not kind.listed),
        around=kind is None or kind.around,
        loose_body=_loose_body(pattern, (*details, *implied), tables),
        details=details,
        implied=tuple(detail for detail in implied if detail not in details),
        bifurcated=legs or bool(garment and garment.bifurcated),
        below_waist=garment.below_waist if garment else legs,
        slides=bool(garment and garment.slides),
        over=bool(garment and garment.over),
        end_uses=garment.end_uses if garment else frozenset(),
        unread=tuple(f"detail “{word}”" for word, detail in read if detail is None),
        optional=frozenset(detail.name for _, detail in of_options if detail and detail.name not in always),
        said={**dict.fromkeys(implied_names, pattern.garment), **{d.name: word for word, d in reversed(read) if d}},
    )
