"""The list on the envelope as windows: which cloths its nouns mean here, and what they span in weight and drape.

The list is a sample: it tells weight and drape. Common practice, no source; paddings are in data/judging.toml.
"""

from __future__ import annotations

from collections.abc import Iterable
from math import inf, log
from statistics import median

from nematex.core.envelope import NamedCloths, Reading
from nematex.core.estimate import Range
from nematex.core.lexicon import ClothType, key
from nematex.core.tables import Tables
from nematex.core.verdict import Window


def of_structure(named: Iterable[NamedCloths], structure: str, tables: Tables) -> list[NamedCloths]:
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


def of_the_lists_weight(named: list[NamedCloths], reading: Reading, tables: Tables) -> list[NamedCloths]:
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


def near_the_rest(named: list[NamedCloths], tables: Tables) -> list[NamedCloths]:
    """Of a group word, the cloths that stand near the other nouns: 'satin' beside 'challis' is no duchess satin."""
    rule, get = tables.judging["list"], tables.lexicon.get
    weights = [median(get(name).weight_gsm.middle for name in item.types) for item in named]  # one vote for each noun
    bends = [median(get(name).bend_cm.middle for name in item.types) for item in named]
    kept = []
    for at, item in enumerate(named):
        if len(item.types) < 2 or item.weight or len(named) < 3:  # one other noun says too little
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


def _own_range(item: NamedCloths, row: ClothType, said: Range | None) -> Range:
    """A named cloth's own range; of a group word's cloths only what the list's weight word leaves of it."""
    low, high = row.weight_gsm.low, row.weight_gsm.high
    if said is None or len(item.types) == 1 or key(row.name) == key(item.words) or low > said.high or high < said.low:
        return row.weight_gsm
    return Range(max(low, said.low), min(high, said.high))


def _rows(named: list[NamedCloths], kind: str, tables: Tables) -> list[ClothType]:
    rows = [tables.lexicon.get(name) for item in named for name in item.types]
    return [row for row in rows if (row.structure == "knit") == (kind == "knit")]


def weight_window(kind: str, named: list[NamedCloths], reading: Reading, tables: Tables) -> Window | None:
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


def bend_window(kind: str, named: list[NamedCloths], reading: Reading, tables: Tables) -> Window | None:
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
