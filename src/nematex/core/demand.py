"""What a pattern demands of the cloth: windows with the words they came from. Common practice, no source."""

from __future__ import annotations

from dataclasses import dataclass
from math import inf

from nematex.core.details import Making, making
from nematex.core.ease import needed_stretch
from nematex.core.edge_fixes import with_fixes
from nematex.core.envelope import NamedCloths, Reading, read_envelope
from nematex.core.errors import FieldFault
from nematex.core.estimate import Range
from nematex.core.lexicon import ClothType
from nematex.core.list_windows import bend_window, near_the_rest, of_structure, of_the_lists_weight, weight_window
from nematex.core.pattern import Pattern, Wish
from nematex.core.reading_fixes import with_reading_fixes
from nematex.core.tables import Tables
from nematex.core.verdict import Origin, Window

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
    ease_cross: Window | None
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

    def fixed(self, window: Window) -> Window:
        """The window with the edges that the shop has set for this pattern."""
        return with_fixes(window, self.pattern.edge_fixes)


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
    low_word, low = max(reading.avoid_hands, key=lambda each: each[1].bend_cm.low)
    high_word, high = min(reading.avoid_hands, key=lambda each: each[1].bend_cm.high)
    tolerance = tables.judging["tolerance"]["drape_cm"]
    return Window(
        low.bend_cm.low,
        high.bend_cm.high,
        tolerance,
        tolerance,
        tuple(f"not “{word}”" for word, _ in reading.avoid_hands),
        "drape ruled out",
        Origin(f"not “{low_word}”", "hand words ruled out", low.word, "bend_lo_cm", low.bend_cm.low),
        Origin(f"not “{high_word}”", "hand words ruled out", high.word, "bend_hi_cm", high.bend_cm.high),
    )


def _least(value: float | None, share: float, source: str, name: str, words: str) -> Window | None:
    if not value:
        return None
    return Window(low=value, tolerance_low=value * share, sources=(source,), name=name, low_from=Origin(words))


def _by_ease(pattern: Pattern, wish: Wish, structure: str, tables: Tables) -> Window | None:
    """What a knit must give where the finished garment is smaller than the body: of all sizes the most."""
    if structure != "knit":
        return None
    rows = [row for row in needed_stretch(pattern, tables) if wish.size in (None, row.size) and row.needed_pct > 0]
    if not rows:
        return None
    most = max(rows, key=lambda row: row.needed_pct)
    share = tables.judging["tolerance"]["stretch"]
    return Window(
        low=most.needed_pct,
        tolerance_low=most.needed_pct * share,
        sources=("the finished measurements",),
        name="stretch by ease",
        low_from=Origin(most.words, "judging", "ease", "movement_pct", most.movement_pct),
    )


def _implied_cross(structure: str, named: list[NamedCloths], tables: Tables) -> Window | None:
    """Where a knit pattern names cloths but no number, about the least stretch among them is wanted."""
    rows = [(item.words, tables.lexicon.get(name)) for item in named for name in item.types]
    knits = [(words, row) for words, row in rows if row.structure == "knit"]
    if structure != "knit" or not knits:
        return None
    words, row = min(knits, key=lambda each: each[1].stretch_cross_pct.low)
    low = row.stretch_cross_pct.low
    return Window(
        low=low,
        tolerance_low=low * tables.judging["words"]["implied_tolerance"],
        sources=("the knits named",),
        name="stretch of the list",
        low_from=Origin(words, "cloth names", row.name, "stretch_cross_lo_pct", low),
    )


def _number_window(gsm: Range, share: float, reading: Reading) -> Window:
    words = Origin(reading.gsm_words or "the envelope's number")
    above = gsm.high * share if gsm.high < inf else 0.0
    return Window(gsm.low, gsm.high, gsm.low * share, above, ("the envelope's number",), "weight number", words, words)


def _stretch_words(field: float | None, asked: float | None, reading: Reading) -> str:
    """Where a least stretch was said: in the pattern's own field, as a number, or with a word such as “stretchy”."""
    if field:
        return f"least stretch on the envelope: {field:g} %"
    return reading.stretch_words or f"a stretch of {asked or 0:g} % asked"


def _most_stretch(reading: Reading, tables: Tables) -> Window | None:
    most, tolerance = reading.max_cross_pct, tables.judging["tolerance"]
    if not most:
        return None
    return Window(
        high=most,
        tolerance_high=max(most * tolerance["stretch"], tolerance["most_stretch_pct"]),
        sources=("little or no stretch asked",),
        name="most stretch",
        high_from=Origin(reading.most_stretch_words or "little or no stretch asked"),
    )


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
    reading = read_envelope(pattern.avoid, tables, avoid=True, into=reading)
    return with_reading_fixes(reading, pattern.reading_fixes, tables)


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
    weight = {kind: window for kind in present if (window := weight_window(kind, named, reading, tables))}
    bend = {kind: window for kind in present if (window := bend_window(kind, named, reading, tables))}
    tolerance = judging["tolerance"]
    asked_cross = pattern.min_stretch_cross_pct or reading.min_cross_pct
    if structure == "woven" and reading.stretchy and not pattern.min_stretch_cross_pct:
        asked_cross = judging["words"]["stretch_woven_least_pct"]  # of a woven, 'stretch' asks comfort stretch
    asked_length = pattern.min_stretch_length_pct or reading.min_length_pct
    gsm = reading.gsm

    def fix(window: Window) -> Window:
        return with_fixes(window, pattern.edge_fixes)

    def maybe(window: Window | None) -> Window | None:
        return fix(window) if window else None

    excluded = {name for item in reading.avoid_cloths for name in item.types}
    broken = _conditions(named, made, pattern, wish)
    return Demand(
        pattern=pattern,
        wish=wish,
        made=made,
        reading=reading,
        structure=structure,
        weight={kind: fix(window) for kind, window in weight.items()},
        weight_by_number=fix(_number_window(gsm, tolerance["number"], reading)) if gsm else None,
        bend={kind: fix(window) for kind, window in bend.items()},
        bend_by_word=maybe(_avoided_bend(reading, tables)),
        min_cross=maybe(
            _least(
                asked_cross,
                tolerance["stretch"],
                "the envelope's least stretch",
                "least stretch",
                _stretch_words(pattern.min_stretch_cross_pct, asked_cross, reading),
            )
        ),
        min_length=maybe(
            _least(
                asked_length,
                tolerance["stretch"],
                "the envelope's least stretch lengthwise",
                "least stretch along",
                _stretch_words(pattern.min_stretch_length_pct, asked_length, reading),
            )
        ),
        implied_cross=None if asked_cross else maybe(_implied_cross(structure, named, tables)),
        ease_cross=None if made.band else maybe(_by_ease(pattern, wish, structure, tables)),
        max_cross=maybe(_most_stretch(reading, tables)),
        named=frozenset(lexicon.index[row.name] for row in rows),
        conditional={lexicon.index[name]: words for name, words in broken.items()},
        excluded=frozenset(lexicon.index[name] for name in excluded - {row.name for row in rows}),
        stable=frozenset(lexicon.index[kind.name] for kind in lexicon.groups["stable knits"]),
        has_list=bool(named),
        unread=tuple(reading.unread) + made.unread,
    )
