"""What a pattern demands of the cloth: windows with the words they came from. Common practice, no source."""

from __future__ import annotations

from dataclasses import dataclass
from math import inf

from nematex.core.details import Making, making
from nematex.core.envelope import NamedCloths, Reading, read_envelope
from nematex.core.errors import FieldFault
from nematex.core.lexicon import ClothType
from nematex.core.list_windows import bend_window, near_the_rest, of_structure, of_the_lists_weight, weight_window
from nematex.core.pattern import Pattern, Wish
from nematex.core.tables import Tables
from nematex.core.verdict import Window

FAMILIES = ("woven", "knit")


@dataclass(frozen=True)
class Demand:
    """One pattern, part, look and school, as windows per structure. g/m², cm, %."""

    pattern: Pattern
    wish: Wish
    made: Making
    reading: Reading
    structure: str
    weight: dict[str, Window]
    weight_by_number: Window | None
    bend: dict[str, Window]
    bend_by_word: Window | None
    min_cross: Window | None
    min_length: Window | None
    implied_cross: Window | None
    max_cross: Window | None
    named: frozenset[int]
    conditional: dict[int, str]
    excluded: frozenset[int]
    stable: frozenset[int]
    has_list: bool
    unread: tuple[str, ...]

    def window(self, windows: dict[str, Window], structure: str) -> Window | None:
        """The window for a cloth's structure, or the other structure's where the envelope names only that."""
        kind = "knit" if structure == "knit" else "woven"
        return windows.get(kind) or next(iter(windows.values()), None)


def _structure(pattern: Pattern, reading: Reading, types: list[ClothType]) -> str:
    if pattern.structure:
        return pattern.structure
    found = set(reading.structures) or {"knit" if kind.structure == "knit" else "woven" for kind in types}
    found -= reading.avoid_structures
    if not found and reading.avoid_structures:
        found = set(FAMILIES) - reading.avoid_structures
    if not found and (pattern.min_stretch_cross_pct or reading.min_cross_pct):
        return "knit"
    if len(found) == 1:
        return next(iter(found))
    if found:
        return "either"
    raise FieldFault(
        "pattern.structure", pattern.recommended or "", "does not say woven, knit or either, and neither does the list"
    )


def _avoided_bend(reading: Reading, tables: Tables) -> Window | None:
    if not reading.avoid_hands:
        return None
    low = max(hand.bend_cm.low for _, hand in reading.avoid_hands)
    high = min(hand.bend_cm.high for _, hand in reading.avoid_hands)
    tolerance = tables.judging["tolerance"]["drape_cm"]
    return Window(low, high, tolerance, tolerance, tuple(f"not “{word}”" for word, _ in reading.avoid_hands))


def _least(value: float | None, share: float, source: str) -> Window | None:
    return Window(low=value, tolerance_low=value * share, sources=(source,)) if value else None


def _implied_cross(structure: str, rows: list[ClothType], tolerance: float) -> Window | None:
    """Where a knit pattern names cloths but no number, about the least stretch among them is wanted."""
    lows = [row.stretch_cross_pct.low for row in rows if row.structure == "knit"]
    if structure != "knit" or not lows:
        return None
    return Window(low=min(lows), tolerance_low=min(lows) * tolerance, sources=("the knits named",))


def _conditions(named: list[NamedCloths], made: Making, pattern: Pattern, wish: Wish) -> dict[str, str]:
    """Cloth names whose condition is not kept by what is being made, with the condition's words."""
    broken = {}
    for item in named:
        if item.condition is None:
            continue
        kept = {
            "without": not made.has(item.condition.what),
            "lined": pattern.lined,
            "view": not wish.view or wish.view.casefold() == item.condition.what.casefold(),
        }[item.condition.kind]
        if not kept:
            broken.update(dict.fromkeys(item.types, item.condition.words))
    free = {name for item in named if item.condition is None for name in item.types}
    return {name: words for name, words in broken.items() if name not in free}


def read_pattern(pattern: Pattern, tables: Tables) -> Reading:
    """Both texts of the envelope in one reading."""
    reading = read_envelope(pattern.recommended, tables)
    return read_envelope(pattern.avoid, tables, avoid=True, into=reading)


def demand(pattern: Pattern, wish: Wish, tables: Tables, reading: Reading | None = None) -> Demand:
    """Build the windows; raises FieldFault if nothing says woven, knit or either."""
    reading = reading or read_pattern(pattern, tables)
    lexicon, judging = tables.lexicon, tables.judging
    made = making(pattern, wish, tables)
    part_kind = tables.parts.find(made.part) if made.part else None
    part_name = part_kind.name if part_kind else made.part
    for_part = [item for item in reading.cloths if item.part and item.part == part_name]
    general = [item for item in reading.cloths if not item.part]
    types = [lexicon.get(name) for item in general for name in item.types]
    structure = _structure(pattern, reading, types)
    chosen = for_part or general
    named = of_the_lists_weight(of_structure(chosen, "either" if for_part else structure, tables), reading, tables)
    named = near_the_rest(named, tables)
    rows = [lexicon.get(name) for item in named for name in item.types]
    families = FAMILIES if structure == "either" else (structure,)
    present = [
        kind for kind in FAMILIES if kind in families or any((row.structure == "knit") == (kind == "knit") for row in rows)
    ]
    weight = {kind: weight_window(kind, named, reading, tables) for kind in present}
    bend = {kind: bend_window(kind, named, reading, tables) for kind in present}
    tolerance = judging["tolerance"]
    asked_cross = pattern.min_stretch_cross_pct or reading.min_cross_pct
    if structure == "woven" and reading.stretchy and not pattern.min_stretch_cross_pct:
        asked_cross = judging["words"]["stretch_woven_least_pct"]  # of a woven, 'stretch' asks comfort stretch
    asked_length = pattern.min_stretch_length_pct or reading.min_length_pct
    gsm = reading.gsm
    excluded = {name for item in reading.avoid_cloths for name in item.types}
    broken = _conditions(named, made, pattern, wish)
    return Demand(
        pattern=pattern,
        wish=wish,
        made=made,
        reading=reading,
        structure=structure,
        weight={kind: window for kind, window in weight.items() if window},
        weight_by_number=Window(
            gsm.low,
            gsm.high,
            gsm.low * tolerance["number"],
            gsm.high * tolerance["number"] if gsm.high < inf else 0.0,
            ("the envelope's number",),
        )
        if gsm
        else None,
        bend={kind: window for kind, window in bend.items() if window},
        bend_by_word=_avoided_bend(reading, tables),
        min_cross=_least(asked_cross, tolerance["stretch"], "the envelope's least stretch"),
        min_length=_least(asked_length, tolerance["stretch"], "the envelope's least stretch lengthwise"),
        implied_cross=None if asked_cross else _implied_cross(structure, rows, judging["words"]["implied_tolerance"]),
        max_cross=Window(
            high=reading.max_cross_pct,
            tolerance_high=max(reading.max_cross_pct * tolerance["stretch"], tolerance["most_stretch_pct"]),
            sources=("little or no stretch asked",),
        )
        if reading.max_cross_pct
        else None,
        named=frozenset(lexicon.index[row.name] for row in rows),
        conditional={lexicon.index[name]: words for name, words in broken.items()},
        excluded=frozenset(lexicon.index[name] for name in excluded - {row.name for row in rows}),
        stable=frozenset(lexicon.index[kind.name] for kind in lexicon.groups["stable knits"]),
        has_list=bool(named),
        unread=tuple(reading.unread) + made.unread,
    )
