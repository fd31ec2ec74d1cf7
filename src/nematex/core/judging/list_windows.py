"""The list on the envelope as windows: which cloths its nouns mean here, and what they span in weight and drape.

The list is a sample: it tells weight and drape. Common practice, no source; paddings are in data/judging.toml.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from math import inf, log
from statistics import median

from nematex.core.cloth.lexicon import ClothType, key
from nematex.core.judging.verdict import Origin, Window
from nematex.core.pattern.envelope import Interpretation, NamedCloths
from nematex.core.quantity.estimate import Range
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Tables


def of_structure(named: Iterable[NamedCloths], structure: str, tables: Tables) -> list[NamedCloths]:
    """Of a group's cloths only those the pattern's structure allows ('velvet' in a knit pattern is a knit)."""
    kept = []
    for item in named:
        rows = [tables.lexicon.get(name) for name in item.types]
        fit = tuple(row.name for row in rows if structure == "either" or (row.structure == "knit") == (structure == "knit"))
        if not fit and structure == "knit" and len(item.types) > 1:
            # 'cotton' or 'rayon' among knits is no lawn and no challis: it is the jersey of that fibre, or nothing.
            fit = tables.lexicon.knits.get(key(item.noun or item.words), ())
        elif not fit:
            fit = item.types
        if fit:
            kept.append(replace(item, types=fit))
    return kept


def of_the_lists_weight(named: list[NamedCloths], interpretation: Interpretation, tables: Tables) -> list[NamedCloths]:
    """A weight word for the whole list narrows its group words ('lightweight wovens: cotton, crepe')."""
    if not interpretation.weights:
        return named
    fits = tables.judging.words.group_fits
    kept = []
    for item in named:
        fit = []
        for name in item.types:
            row = tables.lexicon.get(name)
            kind = "knit" if row.structure == "knit" else "woven"
            said = _span([tables.weight_word(word, kind).pattern_gsm for word in interpretation.weights_for(kind)])
            low, high = (said.low, said.high) if said else (0.0, inf)
            inside = min(high, row.weight_gsm.high) - max(low, row.weight_gsm.low)
            if inside >= fits * (row.weight_gsm.high - row.weight_gsm.low) or key(name) == key(item.words):
                fit.append(name)
        narrow = tuple(fit) if fit and len(item.types) > 1 and not item.weight and not item.whole else item.types
        kept.append(replace(item, types=narrow))
    return kept


def near_the_rest(named: list[NamedCloths], tables: Tables) -> list[NamedCloths]:
    """Of a group word, the cloths that stand near the other nouns: 'satin' beside 'challis' is no duchess satin."""
    rule, get = tables.judging.list, tables.lexicon.get
    weights = [median(get(name).weight_gsm.middle for name in item.types) for item in named]  # one vote for each noun
    bends = [median(get(name).bend_cm.middle for name in item.types) for item in named]
    kept = []
    for at, item in enumerate(named):
        if len(item.types) < 2 or item.weight or item.whole or len(named) < 3:  # one other noun says too little
            kept.append(item)
            continue
        weight, bend = median(weights[:at] + weights[at + 1 :]), median(bends[:at] + bends[at + 1 :])
        near = tuple(
            name
            for name in item.types
            for row in (tables.lexicon.get(name),)
            if key(name) == key(item.words)  # 'canvas' always means canvas
            or (
                abs(log(row.weight_gsm.middle / weight)) <= rule.group_weight_log
                and abs(row.bend_cm.middle - bend) <= rule.group_drape_cm
            )
        )
        kept.append(replace(item, types=near or item.types))
    return kept


@dataclass(frozen=True, slots=True)
class Piece:
    """One range that the list contributes, with the words that each end came from."""

    range: Range
    low_from: Origin
    high_from: Origin


def _span(ranges: list[Range]) -> Range | None:
    return Range(min(item.low for item in ranges), max(item.high for item in ranges)) if ranges else None


def _hull(pieces: list[Piece]) -> Piece | None:
    """The pieces' outer edges, each with where it came from; of equals the first said."""
    if not pieces:
        return None
    low, high = min(pieces, key=lambda each: each.range.low), max(pieces, key=lambda each: each.range.high)
    return Piece(Range(low.range.low, high.range.high), low.low_from, high.high_from)


def _of_table(words: str, table: str, row: str, stem: str, unit: str, span: Range) -> Piece:
    """A piece read from a row of a table, whose columns are `stem`_lo_`unit` and `stem`_hi_`unit`."""
    low = Origin(words, table, row, f"{stem}_lo_{unit}", span.low)
    return Piece(span, low, Origin(words, table, row, f"{stem}_hi_{unit}", span.high))


def _weight_word_piece(word: str, kind: str, interpretation: Interpretation, tables: Tables) -> Piece:
    row = tables.weight_word(word, kind)
    return _of_table(
        f"“{interpretation.weight_said.get(word, word)}”",
        "weight words",
        f"{row.word} ({row.structure})",
        "pattern",
        "gsm",
        row.pattern_gsm,
    )


def _within_word(item: NamedCloths, row: ClothType, own: Piece, tables: Tables) -> Piece:
    """'Light stretch velvet': of its own range what the weight word before it leaves, or the end that lies nearest."""
    word = tables.weight_word(item.weight or "", row.structure)
    asked, end = word.pattern_gsm, tables.judging.hand.end_share * (own.range.high - own.range.low)
    low, high = max(own.range.low, asked.low), min(own.range.high, asked.high)
    if high - low < end:
        low, high = (
            (own.range.low, own.range.low + end) if asked.low < own.range.low else (own.range.high - end, own.range.high)
        )
    said = Origin(f"“{item.words}”", "cloth names", row.name, "", None)
    return Piece(
        Range(low, high),
        said if low > own.range.low else own.low_from,
        said if high < own.range.high else own.high_from,
    )


def own_piece(item: NamedCloths, row: ClothType, said: Piece | None, tables: Tables) -> Piece:
    """A named cloth's own range; of a group word's cloths only what the list's weight word leaves of it."""
    own = _within_number(item, _of_table(item.words, "cloth names", row.name, "weight", "gsm", row.weight_gsm))
    if item.weight:
        own = _within_word(item, row, own, tables)
    if said is None or len(item.types) == 1 or key(row.name) == key(item.words):
        return own
    low, high, limit = row.weight_gsm.low, row.weight_gsm.high, said.range
    if low > limit.high or high < limit.low:
        return own
    return Piece(
        Range(max(low, limit.low), min(high, limit.high)),
        said.low_from if limit.low > low else own.low_from,
        said.high_from if limit.high < high else own.high_from,
    )


def _closed(gsm: Range) -> bool:
    """Whether a number has two sides."""
    return gsm.low > 0 and gsm.high < inf


def _within_number(item: NamedCloths, own: Piece) -> Piece:
    """'Linen (no lighter than 150 g/m²)': of the cloth's own range what a number with one open side leaves."""
    gsm = item.gsm
    if gsm is None or _closed(gsm):
        return own
    number = Origin(item.words)
    if gsm.low >= own.range.high or gsm.high <= own.range.low:
        edge = Range(gsm.low, max(gsm.low, own.range.high)) if gsm.low > 0 else Range(min(gsm.high, own.range.low), gsm.high)
        return Piece(edge, number, number)
    return Piece(
        Range(max(own.range.low, gsm.low), min(own.range.high, gsm.high)),
        number if gsm.low > own.range.low else own.low_from,
        number if gsm.high < own.range.high else own.high_from,
    )


def _rows(named: list[NamedCloths], kind: str, tables: Tables) -> list[tuple[NamedCloths, ClothType]]:
    """The named cloths of one structure, each with the noun that named it."""
    rows = [(item, tables.lexicon.get(name)) for item in named for name in item.types]
    return [(item, row) for item, row in rows if (row.structure == "knit") == (kind == "knit")]


def _without_avoided(hull: Piece | None, kind: str, interpretation: Interpretation, tables: Tables) -> Piece | None:
    """What the weight words of "not suitable" leave; a cloth that the list itself names is never ruled out by one."""
    for word in interpretation.avoid_weights_for(kind):
        row = tables.weight_word(word, kind)
        of, said = f"{row.word} ({row.structure})", f"not “{interpretation.weight_said.get(word, word)}”"
        span = hull.range if hull else Range(0.0, inf)
        first = Origin("nothing heavier or lighter is named")
        low_from, high_from = (hull.low_from, hull.high_from) if hull else (first, first)
        if word in ("heavy", "medium to heavy"):
            limit = row.cloth_gsm.low
            if span.low < limit < span.high:
                from_words = Origin(said, "weight words", of, "cloth_lo_gsm", limit)
                hull = Piece(Range(span.low, limit), low_from, from_words)
        elif span.high > row.cloth_gsm.high > span.low:
            limit = row.cloth_gsm.high
            hull = Piece(Range(limit, span.high), Origin(said, "weight words", of, "cloth_hi_gsm", limit), high_from)
    return hull


def weight_window(kind: str, named: list[NamedCloths], interpretation: Interpretation, tables: Tables) -> Window | None:
    """The span in g/m² of the weight words, the named cloths and the numbers bound to them."""
    rows = _rows(named, kind, tables)
    words = interpretation.weights_for(kind)
    said = [_weight_word_piece(word, kind, interpretation, tables) for word in words]
    pieces = said + [own_piece(item, row, _hull(said), tables) for item, row in rows]
    pieces += [Piece(item.gsm, Origin(item.words), Origin(item.words)) for item in named if item.gsm and _closed(item.gsm)]
    hull = _without_avoided(_hull(pieces), kind, interpretation, tables)
    if hull is None:
        return None
    low, high = hull.range.low, hull.range.high
    # A list without a weight word is a sample: a cloth a little lighter or heavier handles like it. The padding is taken
    # from the tolerance, so that what is tolerated in all stays the same.
    pad = tables.judging.list.pad_weight if rows and not words else 0.0
    over = tables.judging.tolerance.weight - pad
    return Window(
        low * (1 - pad),
        high * (1 + pad),
        low * over,
        high * over if high < inf else 0.0,
        _sources([interpretation.weight_said.get(word, word) for word in words], [item for item, _ in rows] or named),
        f"weight list {kind}",
        hull.low_from,
        hull.high_from,
        Quantity.WEIGHT,
    )


def weight_word_window(kind: str, interpretation: Interpretation, tables: Tables) -> Window | None:
    """The span in g/m² of the weight words alone; None where there are none."""
    words = interpretation.weights_for(kind)
    hull = _hull([_weight_word_piece(word, kind, interpretation, tables) for word in words])
    if hull is None:
        return None
    said = _sources([interpretation.weight_said.get(word, word) for word in words], [])
    over = tables.judging.tolerance.weight
    low, high = hull.range.low, hull.range.high
    return Window(
        low, high, low * over, high * over, said, f"weight words {kind}", hull.low_from, hull.high_from, Quantity.WEIGHT
    )


def _sources(words: Iterable[str], named: list[NamedCloths]) -> tuple[str, ...]:
    """What a window comes of: the words, and the cloths that are of its structure."""
    return tuple(dict.fromkeys([*(f"“{word}”" for word in words), *(item.words for item in named)]))


def own_bend(item: NamedCloths, row: ClothType) -> Piece:
    """A named cloth's own range, or the end of it that the hand word before its name means."""
    own = _of_table(item.words, "cloth names", row.name, "bend", "cm", row.bend_cm)
    if item.hand is None:
        return own
    low, high = max(row.bend_cm.low, item.hand.bend_cm.low), min(row.bend_cm.high, item.hand.bend_cm.high)
    if high <= low:
        return own  # a 'soft' cord is soft to touch
    said = Origin(f"“{item.hand.word} {item.words}”", "cloth names", row.name)
    return Piece(
        Range(low, high), said if low > row.bend_cm.low else own.low_from, said if high < row.bend_cm.high else own.high_from
    )


def _lifted(hull: Piece | None, interpretation: Interpretation) -> Piece | None:
    """'With a little more body': the softer end of what is named is no longer asked for."""
    words = [(word, hand) for word, hand in interpretation.hands if hand.needs_body and word in interpretation.lifting]
    if hull is None or not words or any(not hand.needs_body for _, hand in interpretation.hands):
        return hull  # where soft and crisp are both spoken of, both are right
    word, hand = max(words, key=lambda said: said[1].bend_cm.low)
    low = min(hand.bend_cm.low, hull.range.middle)
    if low <= hull.range.low:
        return hull
    origin = Origin(f"“{word}”", "hand words", hand.word, "bend_lo_cm", hand.bend_cm.low)
    return replace(hull, range=Range(low, hull.range.high), low_from=origin)


def bend_window(kind: str, named: list[NamedCloths], interpretation: Interpretation, tables: Tables) -> Window | None:
    """The span in cm of bending length of the named cloths and the hand words."""
    rows = _rows(named, kind, tables)
    pieces = [own_bend(item, row) for item, row in rows]
    pieces += [
        _of_table(f"“{word}”", "hand words", hand.word, "bend", "cm", hand.bend_cm) for word, hand in interpretation.hands
    ]
    hull = _lifted(_hull(pieces), interpretation)
    if hull is None:
        return None
    tolerance = tables.judging.tolerance.drape_cm
    words = [word for word, _ in interpretation.hands]
    pad = 0.0 if interpretation.hands else tables.judging.list.pad_drape_cm
    # Softer than the list is forgiven (with care) for longer, unless a word asks for body; stiffer is not.
    softer = tolerance if any(hand.needs_body for _, hand in interpretation.hands) else tables.judging.tolerance.softer_cm
    return Window(
        hull.range.low - pad,
        hull.range.high + pad,
        softer - pad,
        tolerance - pad,
        _sources(words, [item for item, _ in rows] or named),
        f"drape list {kind}",
        hull.low_from,
        hull.high_from,
        Quantity.BENDING_LENGTH,
    )
