"""What a pattern demands of the cloth: windows with the words they came from. Common practice, no source."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from math import inf
from typing import TypeVar, cast

from nematex.core.cloth.lexicon import ClothType
from nematex.core.errors import FieldFault
from nematex.core.judging.edge_fixes import with_fixes
from nematex.core.judging.list_windows import (
    bend_window,
    near_the_rest,
    of_structure,
    of_the_lists_weight,
    weight_window,
)
from nematex.core.judging.nouns import Noun, nouns, opened
from nematex.core.judging.stretch_windows import StretchWindows, stretch_windows
from nematex.core.judging.verdict import Origin, Window
from nematex.core.pattern.construction import Making, making
from nematex.core.pattern.envelope import Condition, Interpretation, NamedCloths, read_envelope
from nematex.core.pattern.envelope.clause import FIRM, PRACTISED
from nematex.core.pattern.facts import Pattern, Wish, is_for_view
from nematex.core.pattern.hacks import hacked, read_hacks
from nematex.core.pattern.interpretation_fixes import with_reading_fixes
from nematex.core.quantity.estimate import Range
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Detail, HandWord, Tables

FAMILIES = ("woven", "knit")
T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Elastane:
    """A share of elastane, in %, that the list sets for a cloth, in its words."""

    low: float
    high: float
    words: str


@dataclass(frozen=True)
class Demand:
    """One pattern, part, look and school, as windows per structure. g/m², cm, %."""

    pattern: Pattern
    wish: Wish
    made: Making
    interpretation: Interpretation
    structure: str
    weight: dict[str, Window]
    weight_by_number: dict[str, Window]
    bending_length: dict[str, Window]
    bending_length_by_word: dict[str, Window]  # what words rule out: of every cloth (""), or of wovens or knits alone
    stretch: StretchWindows
    nouns: tuple[tuple[Noun, ...], ...]  # whose condition, if any, is kept
    named: frozenset[int]
    meant: frozenset[int]  # those of its nouns before other words narrow them: an unweighed one may be what is meant
    alone: frozenset[int]  # those named by a noun that means no other cloth
    by_name: frozenset[int]  # and those named by their own name
    conditional: dict[int, str]
    elastane: dict[int, Elastane]  # what a cloth's label must say for the list to mean it
    excluded: frozenset[int]
    owes_the_list: bool  # whether what the list spans is asked of the part in hand
    stable: frozenset[int]
    has_list: bool
    unread: tuple[str, ...]
    asked: dict[object, object] = field(default_factory=dict, compare=False, repr=False)  # what was made of it, by its name

    def window(self, windows: dict[str, Window], structure: str) -> Window | None:
        """The window for a cloth's structure, or the other structure's where the envelope names only that."""
        return windows.get(_family(structure)) or next(iter(windows.values()), None)

    def outranks(self, detail: Detail) -> bool:
        """Whether the designer's list stands above what the detail usually asks: not above what only an option has."""
        return detail.name not in self.made.optional

    def opened(self, window: Window, structure: str, detail: Detail) -> Window:
        """A detail's window as the shop has set it, else opened to the cloths that the list names."""
        fixed = self.fixed(window)
        return fixed if fixed != window or not self.outranks(detail) else opened(window, self.nouns, structure)

    def once(self, name: object, make: Callable[[], T]) -> T:
        """What rests on this demand alone, made for the first cloth and kept for the others."""
        if name not in self.asked:
            self.asked[name] = make()
        return cast(T, self.asked[name])

    def fixed(self, window: Window) -> Window:
        """The window with the edges that the shop has set for this pattern."""
        return with_fixes(window, self.pattern.edge_fixes)


def _family(structure: str) -> str:
    """Nets and lace are judged by what wovens are."""
    return "knit" if structure == "knit" else "woven"


def _structure(pattern: Pattern, interpretation: Interpretation, types: list[ClothType]) -> str:
    if pattern.structure:
        return pattern.structure
    families = set(interpretation.structures) or {_family(kind.structure) for kind in types}
    families -= interpretation.avoid_structures
    if not families and interpretation.avoid_structures:
        families = set(FAMILIES) - interpretation.avoid_structures
    if not families and (pattern.min_stretch_cross_pct or interpretation.min_cross_pct):
        return "knit"
    if families:
        return next(iter(families)) if len(families) == 1 else "either"
    raise FieldFault(
        "pattern.structure", pattern.recommended or "", "does not say woven, knit or either, and neither does the list"
    )


def _is_firm(item: NamedCloths) -> bool:
    """Whether a named cloth tells what the pattern is drafted for: of the garment itself, and not merely also possible."""
    return not item.part and item.standing in FIRM


def demand_structure(interpretation: Interpretation, tables: Tables) -> str:
    """What an envelope's words alone say of the structure: woven, knit, either, or "" where they say nothing."""
    types = [tables.lexicon.get(name) for item in interpretation.cloths if _is_firm(item) for name in item.types]
    try:
        return _structure(Pattern(), interpretation, types)
    except FieldFault:
        return ""


def _avoided_bends(interpretation: Interpretation, tables: Tables) -> dict[str, Window]:
    every = {"": interpretation.avoid_hands} | interpretation.avoid_hands_of
    return {family: _avoided_bend(hands, family, tables) for family, hands in every.items() if hands}


def _avoided_bend(hands: list[tuple[str, HandWord]], family: str, tables: Tables) -> Window:
    low_word, low = max(hands, key=lambda said: said[1].bend_cm.low)
    high_word, high = min(hands, key=lambda said: said[1].bend_cm.high)
    tolerance = tables.judging.tolerance.drape_cm
    return Window(
        low.bend_cm.low,
        high.bend_cm.high,
        tolerance,
        tolerance,
        tuple(f"not “{word}”" for word, _ in hands),
        f"drape ruled out {family}".strip(),
        Origin(f"not “{low_word}”", "hand words ruled out", low.word, "bend_lo_cm", low.bend_cm.low),
        Origin(f"not “{high_word}”", "hand words ruled out", high.word, "bend_hi_cm", high.bend_cm.high),
        Quantity.BENDING_LENGTH,
    )


def _number_windows(interpretation: Interpretation, tables: Tables) -> dict[str, Window | None]:
    """The weights that the envelope gives as numbers: for every cloth ("") or for wovens or knits alone."""
    spans = ({"": interpretation.gsm} if interpretation.gsm else {}) | interpretation.gsm_of
    return {family: _number_window(gsm, family, interpretation, tables) for family, gsm in spans.items()}


def _number_window(gsm: Range, family: str, interpretation: Interpretation, tables: Tables) -> Window:
    words, share = Origin(interpretation.gsm_words or "the envelope's number"), tables.judging.tolerance.number
    above = gsm.high * share if gsm.high < inf else 0.0
    sources = ("the envelope's number",)
    name = f"weight number {family}".strip()
    return Window(gsm.low, gsm.high, gsm.low * share, above, sources, name, words, words, Quantity.WEIGHT)


def _conditions(named: list[NamedCloths], made: Making, pattern: Pattern, wish: Wish) -> dict[str, str]:
    """Cloth names whose condition is not kept by what is being made, with the condition's words."""
    broken: dict[str, str] = {}
    free: set[str] = set()
    for item in named:
        words = [condition.words for condition in item.conditions if not _is_kept(condition, made, pattern, wish)]
        if item.standing == PRACTISED:
            words.append("for practised hands")
        if words:
            broken.update(dict.fromkeys(item.types, ", ".join(words)))
        elif not item.conditions:
            free.update(item.types)
    return {name: words for name, words in broken.items() if name not in free}


def _is_kept(condition: Condition, made: Making, pattern: Pattern, wish: Wish) -> bool:
    """Whether what is being made keeps to it; what cannot be told from here is not."""
    if condition.kind == "without":
        return not made.has(condition.what)
    if condition.kind == "lined":
        return pattern.lined
    if condition.kind == "view":
        return is_for_view(wish.view, condition.what.split("|"))
    # The first is said, the next have narrowed the cloths, and elastane is read from each cloth's label.
    return condition.kind in ("washed", "heavy", "light", "elastane")


def _elastane(named: list[NamedCloths], tables: Tables) -> dict[str, Elastane]:
    """What the labels of these cloths, and of the same with stretch, may say: 'denim with at most 3 % elastane'."""
    found: dict[str, Elastane] = {}
    for item in named:
        for condition in item.conditions:
            if condition.kind == "elastane":
                low, high = map(float, condition.what.split("-"))
                asked = Elastane(low, high, condition.words)
                found |= dict.fromkeys([*item.types, *_with_elastane(item.types, tables)], asked)
    return found


def _with_elastane(names: tuple[str, ...], tables: Tables) -> list[str]:
    """The cloths that share a noun with these and are usually made with elastane."""
    rows = [tables.lexicon.get(name) for name in names]
    nouns_of = {(row.structure, row.name.rsplit(maxsplit=1)[-1]) for row in rows}
    kin = [row for row in tables.lexicon.types if "elastane" in row.all_fibres]
    return [row.name for row in kin if (row.structure, row.name.rsplit(maxsplit=1)[-1]) in nouns_of]


def read_pattern(pattern: Pattern, tables: Tables) -> Interpretation:
    """Both texts of the envelope in one reading."""
    interpretation = read_envelope(pattern.recommended, tables)
    interpretation = read_envelope(pattern.avoid, tables, avoid=True, into=interpretation)
    return with_reading_fixes(interpretation, pattern.reading_fixes, tables)


@dataclass(frozen=True)
class _Named:
    """The cloths that the list names for what is made, and the structures that concern it."""

    structure: str
    cloths: list[NamedCloths]
    rows: list[ClothType]
    families: list[str]
    of_part: bool
    meant: list[ClothType]


def _named(pattern: Pattern, made: Making, interpretation: Interpretation, tables: Tables) -> _Named:
    """Of the list, what speaks of the part in hand and is of the pattern's structure; raises FieldFault."""
    kind = tables.parts.find(made.part) if made.part else None
    part = kind.name if kind else made.part
    for_part = [item for item in interpretation.cloths if item.part and item.part == part]
    general = [item for item in interpretation.cloths if not item.part]
    firm = [tables.lexicon.get(name) for item in general if _is_firm(item) for name in item.types]
    structure = _structure(pattern, interpretation, firm)
    fitting = of_structure(for_part or general, "either" if for_part else structure, tables)
    cloths = near_the_rest(of_the_lists_weight(fitting, interpretation, tables), tables)
    rows = [tables.lexicon.get(name) for item in cloths for name in item.types]
    meant = [tables.lexicon.get(name) for item in fitting for name in item.types]
    concerned = {*(FAMILIES if structure == "either" else (structure,)), *(_family(row.structure) for row in rows)}
    return _Named(structure, cloths, rows, [family for family in FAMILIES if family in concerned], bool(for_part), meant)


def demand(pattern: Pattern, wish: Wish, tables: Tables, interpretation: Interpretation | None = None) -> Demand:
    """Build the windows; raises FieldFault if nothing says woven, knit or either."""
    interpretation = interpretation or read_pattern(pattern, tables)
    pattern = hacked(pattern, read_hacks(wish.hacks, tables))
    index = tables.lexicon.index
    made = making(pattern, wish, tables)
    named = _named(pattern, made, interpretation, tables)
    weight = {family: weight_window(family, named.cloths, interpretation, tables) for family in named.families}
    bending_length = {family: bend_window(family, named.cloths, interpretation, tables) for family in named.families}

    def fixed_each(windows: Mapping[str, Window | None]) -> dict[str, Window]:
        return {family: with_fixes(window, pattern.edge_fixes) for family, window in windows.items() if window}

    names = {row.name for row in named.rows}
    out = [item for item in interpretation.avoid_cloths if not item.part or item.part == made.part]
    excluded = {name for item in out for name in item.types} - names
    broken = _conditions(named.cloths, made, pattern, wish)
    kept = nouns([item for item in named.cloths if not set(item.types) & set(broken)], tables)
    return Demand(
        pattern=pattern,
        wish=wish,
        made=made,
        interpretation=interpretation,
        structure=named.structure,
        weight=fixed_each(weight),
        weight_by_number=fixed_each(_number_windows(interpretation, tables)),
        bending_length=fixed_each(bending_length),
        bending_length_by_word=fixed_each(_avoided_bends(interpretation, tables)),
        stretch=stretch_windows(pattern, wish, made, interpretation, named.structure, named.cloths, tables),
        nouns=kept,
        named=frozenset(index[name] for name in names),
        meant=frozenset(index[row.name] for row in named.meant),
        alone=frozenset(index[each.row.name] for noun in kept for each in noun if each.alone),
        by_name=frozenset(index[each.row.name] for noun in kept for each in noun if each.alone or each.by_name),
        conditional={index[name]: words for name, words in broken.items()},
        elastane={index[name]: asked for name, asked in _elastane(named.cloths, tables).items()},
        excluded=frozenset(index[name] for name in excluded),
        owes_the_list=named.of_part or not (made.by_itself or made.fit == "free"),
        stable=frozenset(index[name] for name in tables.judging.knit_in_woven.stand_in),
        has_list=bool(named.cloths),
        unread=tuple(interpretation.unread) + made.unread,
    )
