"""What a pattern asks of a cloth's stretch, in %: numbers and words of the envelope, its knits, its finished measurements.

Common practice, no source; the numbers for words are in data/judging.toml.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, fields, replace

from nematex.core.cloth.lexicon import ClothType
from nematex.core.judging.edge_fixes import with_fixes
from nematex.core.judging.verdict import Origin, Window
from nematex.core.pattern.chosen import size_meant
from nematex.core.pattern.construction import Making
from nematex.core.pattern.ease import needed_stretch
from nematex.core.pattern.envelope import Interpretation, NamedCloths
from nematex.core.pattern.facts import EdgeFix, Pattern, Wish
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Tables


@dataclass(frozen=True, slots=True)
class StretchWindows:
    """Each is None where nothing is asked."""

    least_across: Window | None
    least_along: Window | None
    of_the_knits_named: Window | None
    by_ease: Window | None
    most_across: Window | None
    ruled_out: Mapping[str, Window]  # of wovens or of knits alone

    def fixed(self, fixes: tuple[EdgeFix, ...]) -> StretchWindows:
        """With the edges that the shop has set for this pattern."""
        windows = {each.name: getattr(self, each.name) for each in fields(self) if each.name != "ruled_out"}
        ruled_out = {family: with_fixes(window, fixes) for family, window in self.ruled_out.items()}
        fixed = {name: with_fixes(window, fixes) if window else None for name, window in windows.items()}
        return replace(self, ruled_out=ruled_out, **fixed)


def stretch_windows(
    pattern: Pattern,
    wish: Wish,
    made: Making,
    interpretation: Interpretation,
    structure: str,
    named: list[NamedCloths],
    tables: Tables,
) -> StretchWindows:
    """All that is asked of the stretch for what is being made."""
    share, words = tables.judging.tolerance.stretch, tables.judging.words
    across = pattern.min_stretch_cross_pct or interpretation.min_cross_pct
    if structure == "woven" and interpretation.stretchy and not pattern.min_stretch_cross_pct:
        across = words.stretch_woven_least_pct  # of a woven, 'stretch' asks comfort stretch
    along = pattern.min_stretch_length_pct or interpretation.min_length_pct
    across_said = _said(pattern.min_stretch_cross_pct, across, interpretation)
    along_said = _said(pattern.min_stretch_length_pct, along, interpretation)
    by_ease = None if made.band else _by_ease(pattern, wish, structure, tables)
    return StretchWindows(
        _least(across, share, Quantity.STRETCH_ACROSS, "least stretch", across_said),
        _least(along, share, Quantity.STRETCH_ALONG, "least stretch along", along_said),
        None if across or by_ease else _of_the_knits_named(structure, named, tables),
        by_ease,
        _most(interpretation.max_cross_pct, "most stretch", interpretation, tables),
        {
            family: window
            for family, most in interpretation.most_cross_of.items()
            if (window := _most(most, f"most stretch {family}", interpretation, tables))
        },
    ).fixed(tuple(pattern.edge_fixes))


def _least(value: float | None, share: float, quantity: Quantity, name: str, words: str) -> Window | None:
    if not value:
        return None
    along = " lengthwise" if quantity is Quantity.STRETCH_ALONG else ""
    source = f"the envelope's least stretch{along}"
    return Window(
        low=value, tolerance_low=value * share, sources=(source,), name=name, low_from=Origin(words), quantity=quantity
    )


def _said(field: float | None, asked: float | None, interpretation: Interpretation) -> str:
    """Where a least stretch was said: in the pattern's own field, as a number, or with a word such as “stretchy”."""
    if field:
        return f"least stretch on the envelope: {field:g} %"
    return interpretation.stretch_words or f"a stretch of {asked or 0:g} % asked"


def _by_ease(pattern: Pattern, wish: Wish, structure: str, tables: Tables) -> Window | None:
    """What a knit must give where the finished garment is smaller than the body: of all sizes the most."""
    if structure != "knit":
        return None
    rows = needed_stretch(pattern, tables)
    size = size_meant(wish.size, (row.size for row in rows)) if wish.size else None
    rows = [row for row in rows if (not wish.size or row.size == size) and row.needed_pct > 0]
    if not rows:
        return None
    most = max(rows, key=lambda row: row.needed_pct)
    return Window(
        low=most.needed_pct,
        tolerance_low=most.needed_pct * tables.judging.tolerance.stretch,
        sources=("the finished measurements",),
        name="stretch by ease",
        low_from=Origin(most.words, "judging", "ease", "movement_pct", most.movement_pct),
        quantity=Quantity.STRETCH_ACROSS,
    )


def _of_the_knits_named(structure: str, named: list[NamedCloths], tables: Tables) -> Window | None:
    """Where a knit pattern names cloths but no number, about the least stretch among them is wanted."""
    # Of a noun that means many the firmest do not tell: 'jersey' asks what jerseys give, and a crepe jersey gives less.
    common = [(item.words, _common(map(tables.lexicon.get, item.types))) for item in named]
    knits = [(words, row) for words, row in common if row]
    if structure != "knit" or not knits:
        return None
    words, row = min(knits, key=lambda each: each[1].stretch_cross_pct.low)
    low = row.stretch_cross_pct.low
    return Window(
        low=low,
        tolerance_low=low * tables.judging.words.implied_tolerance,
        sources=("the knits named",),
        name="stretch of the list",
        low_from=Origin(words, "cloth names", row.name, "stretch_cross_lo_pct", low),
        quantity=Quantity.STRETCH_ACROSS,
    )


def _common(rows: Iterable[ClothType]) -> ClothType | None:
    """Of the knits among these the one at the lower quarter, by the least that they stretch."""
    knits = sorted((row for row in rows if row.structure == "knit"), key=lambda row: row.stretch_cross_pct.low)
    return knits[(len(knits) - 1) // 4] if knits else None


def _most(most: float | None, name: str, interpretation: Interpretation, tables: Tables) -> Window | None:
    tolerance = tables.judging.tolerance
    if not most:
        return None
    return Window(
        high=most,
        tolerance_high=max(most * tolerance.stretch, tolerance.most_stretch_pct),
        sources=("little or no stretch asked",),
        name=name,
        high_from=Origin(interpretation.most_stretch_words or "little or no stretch asked"),
        quantity=Quantity.STRETCH_ACROSS,
    )
