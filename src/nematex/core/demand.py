"""What a pattern demands of the cloth: windows with the words they came from.

The list on the envelope is a sample: it tells weight and drape. The window of a list is the span of the cloths it
names, joined with its weight and hand words. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import inf, log
from statistics import median

from nematex.core.details import Making, making
from nematex.core.envelope import NamedCloths, Reading, read_envelope
from nematex.core.errors import FieldFault
from nematex.core.estimate import Range
from nematex.core.lexicon import ClothType, key
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
    widest_piece_cm: float | None
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


def _of_structure(named: Iterable[NamedCloths], structure: str, tables: Tables) -> list[NamedCloths]:
    """Of a group's cloths only those the pattern's structure allows ('velvet' in a knit pattern is a knit)."""
    kept = []
    for item in named:
        rows = [tables.lexicon.get(name) for name in item.types]
        fit = tuple(row.name for row in rows if structure == "either" or (row.structure == "knit") == (structure == "knit"))
        if not fit and structure == "knit" and len(item.types) > 1:
            # 'cotton' or 'rayon' among knits is no lawn and no challis: it is the jersey of that fibre, or nothing.
            fit = tables.lexicon.knits.get(key(item.words.removeprefix(f"{item.weight} ")), ())
        elif not fit:
            fit = item.types
        if fit:
            kept.append(NamedCloths(item.words, fit, item.weight, item.gsm, item.condition, item.part))
    return kept


def _general_weight(named: list[NamedCloths], reading: Reading, tables: Tables) -> list[NamedCloths]:
    """A weight word for the whole list narrows its group words ('lightweight wovens: cotton, crepe')."""
    if not reading.weights:
        return named
    fits = tables.judging["words"]["group_fits"]
    kept = []
    for item in named:
        fit = []
        for name in item.types:
            row = tables.lexicon.get(name)
            kind = "knit" if row.structure == "knit" else "woven"
            said = _span([tables.weight_word(word, kind).pattern_gsm for word in reading.weights_for(kind)])
            low, high = (said.low, said.high) if said else (0.0, inf)
            inside = min(high, row.weight_gsm.high) - max(low, row.weight_gsm.low)
            if inside >= fits * (row.weight_gsm.high - row.weight_gsm.low) or key(name) == key(item.words):
                fit.append(name)
        narrow = tuple(fit) if fit and len(item.types) > 1 and not item.weight else item.types
        kept.append(NamedCloths(item.words, narrow, item.weight, item.gsm, item.condition, item.part))
    return kept


def _near_the_rest(named: list[NamedCloths], tables: Tables) -> list[NamedCloths]:
    """Of a group word, the cloths that stand near the other nouns: 'satin' beside 'challis' is no duchess satin."""
    rule, get = tables.judging["list"], tables.lexicon.get
    weights = [median(get(name).weight_gsm.middle for name in item.types) for item in named]  # one vote for each noun
    bends = [median(get(name).bend_cm.middle for name in item.types) for item in named]
    kept = []
    for at, item in enumerate(named):
        if len(item.types) < 2 or item.weight or len(named) < 2:
            kept.append(item)
            continue
        weight, bend = median(weights[:at] + weights[at + 1 :]), median(bends[:at] + bends[at + 1 :])
        near = tuple(
            name
            for name in item.types
            for row in (tables.lexicon.get(name),)
            if key(name) == key(item.words)  # 'canvas' always means canvas
            or (
                abs(log(row.weight_gsm.middle / weight)) <= rule["group_weight_log"]
                and abs(row.bend_cm.middle - bend) <= rule["group_drape_cm"]
            )
        )
        kept.append(NamedCloths(item.words, near or item.types, None, item.gsm, item.condition, item.part))
    return kept


def _span(ranges: list[Range]) -> Range | None:
    return Range(min(item.low for item in ranges), max(item.high for item in ranges)) if ranges else None


def _weight_window(kind: str, named: list[NamedCloths], reading: Reading, tables: Tables) -> Window | None:
    rows = _rows(named, kind, tables)
    words = reading.weights_for(kind)
    said = [tables.weight_word(word, kind).pattern_gsm for word in words]
    ranges = said + [_own_range(item, row, _span(said)) for item in named for row in _rows([item], kind, tables)]
    ranges += [item.gsm for item in named if item.gsm]
    span = _span(ranges)
    high = inf
    for word in reading.avoid_weights:
        row = tables.weight_word(word, kind).cloth_gsm
        if word in ("heavy", "medium to heavy"):
            high = min(high, row.low)
        elif span is None or span.high > row.high:
            span = Range(max(row.high, span.low if span else 0.0), span.high if span else inf)
    if span is None and high == inf:
        return None
    low, high = (span.low if span else 0.0), min(span.high if span else inf, high)
    # A list without a weight word is a sample: a cloth a little lighter or heavier handles like it. The padding is taken
    # from the tolerance, so that what is tolerated in all stays the same.
    pad = tables.judging["list"]["pad_weight"] if rows and not words else 0.0
    over = tables.judging["tolerance"]["weight"] - pad
    return Window(
        low * (1 - pad),
        high * (1 + pad),
        low * over,
        high * over if high < inf else 0.0,
        _sources(words, named),
    )


def _sources(words: Iterable[str], named: list[NamedCloths]) -> tuple[str, ...]:
    return tuple(dict.fromkeys([*(f"“{word}”" for word in words), *(item.words for item in named)]))


def _own_range(item: NamedCloths, row: ClothType, said: Range | None) -> Range:
    """A named cloth's own range; of a group word's cloths only what the list's weight word leaves of it."""
    low, high = row.weight_gsm.low, row.weight_gsm.high
    if said is None or len(item.types) == 1 or key(row.name) == key(item.words) or low > said.high or high < said.low:
        return row.weight_gsm
    return Range(max(low, said.low), min(high, said.high))


def _rows(named: list[NamedCloths], kind: str, tables: Tables) -> list[ClothType]:
    rows = [tables.lexicon.get(name) for item in named for name in item.types]
    return [row for row in rows if (row.structure == "knit") == (kind == "knit")]


def _bend_window(kind: str, named: list[NamedCloths], reading: Reading, tables: Tables) -> Window | None:
    ranges = [row.bend_cm for row in _rows(named, kind, tables)]
    ranges += [hand.bend_cm for _, hand in reading.hands]
    span = _span(ranges)
    if span is None:
        return None
    tolerance = tables.judging["tolerance"]["drape_cm"]
    words = [word for word, _ in reading.hands]
    pad = 0.0 if reading.hands else tables.judging["list"]["pad_drape_cm"]
    # Softer than the list is forgiven (with care) for longer, unless a word asks for body; stiffer is not.
    softer = tolerance if any(hand.needs_body for _, hand in reading.hands) else tables.judging["tolerance"]["softer_cm"]
    return Window(span.low - pad, span.high + pad, softer - pad, tolerance - pad, _sources(words, named))


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
    named = _general_weight(_of_structure(chosen, "either" if for_part else structure, tables), reading, tables)
    named = _near_the_rest(named, tables)
    rows = [lexicon.get(name) for item in named for name in item.types]
    families = FAMILIES if structure == "either" else (structure,)
    present = [
        kind for kind in FAMILIES if kind in families or any((row.structure == "knit") == (kind == "knit") for row in rows)
    ]
    weight = {kind: _weight_window(kind, named, reading, tables) for kind in present}
    bend = {kind: _bend_window(kind, named, reading, tables) for kind in present}
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
            gsm.low, gsm.high, gsm.low * 0.1, gsm.high * 0.1 if gsm.high < inf else 0.0, ("the envelope's number",)
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
            tolerance_high=max(reading.max_cross_pct * tolerance["stretch"], 2.0),
            sources=("little or no stretch asked",),
        )
        if reading.max_cross_pct
        else None,
        named=frozenset(lexicon.index[row.name] for row in rows),
        conditional={lexicon.index[name]: words for name, words in broken.items()},
        excluded=frozenset(lexicon.index[name] for name in excluded - {row.name for row in rows}),
        stable=frozenset(lexicon.index[kind.name] for kind in lexicon.groups["stable knits"]),
        has_list=bool(named),
        widest_piece_cm=pattern.widest_piece_cm,
        unread=tuple(reading.unread) + made.unread,
    )
