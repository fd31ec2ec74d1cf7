"""How much cloth: the requirement table, the width chart, direction, repeat, shrinkage, and the cut.

The width chart is an extension-service handout (from memory, unverified). The order of the steps is common practice,
no source.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import UnknownChoice
from nematex.core.pattern.facts import Pattern, Requirement, Wish
from nematex.core.quantity.estimate import Known
from nematex.core.quantity.units import CM_PER_INCH, CM_PER_YARD, trim
from nematex.core.tables import Tables


@dataclass(frozen=True)
class Amount:
    """Length to buy in m, with each step that led to it; `cut_m` is what it takes once it is washed."""

    length_m: float
    receipt: tuple[str, ...]
    cut_m: float = 0.0

    @property
    def washing_m(self) -> float:
        """What is bought for the wash alone, in m."""
        return self.length_m - self.cut_m


def _pick(field: str, asked: str | None, values: list[str], receipt: list[str]) -> str:
    """The view or size asked for; with none asked, the last one of the table, so that it is never too little."""
    choices = list(dict.fromkeys(values))
    if asked is None:
        chosen = choices[-1] if field == "size" else choices[0]
        if len(choices) > 1:
            receipt.append(f"No {field} chosen: reckoned for {field} {chosen}.")
        return chosen
    for choice in choices:
        if choice.casefold() == asked.strip().casefold():
            return choice
    raise UnknownChoice(field, asked, choices, f"{field} of this pattern's table")


def convert_width(length_m: float, from_cm: float, to_cm: float, chart: dict[float, tuple[float, ...]]) -> float:
    """Length in m at `to_cm` of what takes `length_m` at `from_cm`, by the published chart, linear between its points."""
    widths = np.array(sorted(chart)) * CM_PER_INCH
    yards = np.array([chart[inches] for inches in sorted(chart)])  # widths × rows
    at_from = np.array([np.interp(from_cm, widths, yards[:, row]) for row in range(yards.shape[1])])
    at_to = np.array([np.interp(to_cm, widths, yards[:, row]) for row in range(yards.shape[1])])
    asked = length_m * 100 / CM_PER_YARD
    if asked <= at_from[0]:
        return float(length_m * at_to[0] / at_from[0])
    if asked >= at_from[-1]:
        return float(length_m * at_to[-1] / at_from[-1])
    return float(np.interp(asked, at_from, at_to)) * CM_PER_YARD / 100


def _said_row(row: Requirement) -> str:
    return f"view {row.view}, {trim(row.length_m, 2)} m at {row.width_cm:.0f} cm, {'with' if row.with_nap else 'without'} nap"


def _at_width(
    rows: list[Requirement], pattern: Pattern, cloth: Cloth, one_way: bool, tables: Tables, receipt: list[str]
) -> tuple[float, Requirement]:
    """The table's row for this width; between two rows what both bound; else the nearest one converted."""
    rule, width = tables.judging.width, cloth.width.best
    by_width: dict[float, Requirement] = {}
    for row in sorted(rows, key=lambda row: row.with_nap == one_way):
        by_width[row.width_cm] = row  # of two for one width the one that reckons with the nap as this cloth needs it
    narrower = [at for at in by_width if at <= width + rule.nominal_slack_cm]
    wider = [at for at in by_width if at > width + rule.nominal_slack_cm]
    row = by_width[max(narrower) if narrower else min(wider)]
    receipt.append(f"Table: {_said_row(row)}.")
    if abs(row.width_cm - width) <= rule.nominal_slack_cm:
        return row.length_m, row
    if narrower and wider:
        return _between(row, by_width[min(wider)], width, receipt), row
    return _converted(row, pattern, width, tables, receipt), row


def _between(low: Requirement, high: Requirement, width_cm: float, receipt: list[str]) -> float:
    """Between two rows of the table both bound the answer: in proportion to the width. Common practice, no source."""
    share = (width_cm - low.width_cm) / (high.width_cm - low.width_cm)
    length = low.length_m + share * (min(high.length_m, low.length_m) - low.length_m)
    receipt.append(f"And {_said_row(high)}: at {width_cm:.0f} cm between the two, {trim(length, 2)} m.")
    return length


def _converted(row: Requirement, pattern: Pattern, width_cm: float, tables: Tables, receipt: list[str]) -> float:
    """One row at another width: by the chart as far as it reaches, beyond it by the area. Never more on a wider cloth."""
    rule = tables.judging.width
    target = min(width_cm, rule.extra_wide_cm)
    length = convert_width(row.length_m, row.width_cm, target, dict(tables.width_chart))
    if width_cm > row.width_cm:
        length = min(length, row.length_m)
    where = f"The cloth is {width_cm:.0f} cm wide"
    receipt.append(f"{where}: {trim(length, 2)} m by the width chart (extension-service handout, from memory).")
    if width_cm <= rule.extra_wide_cm:
        return length
    piece = pattern.widest_piece_cm
    if piece and 2 * piece > width_cm:
        receipt.append(f"Two of the widest piece, {piece:.0f} cm, do not lie side by side on it: no less.")
        return length
    reached = max(row.width_cm, max(tables.width_chart) * CM_PER_INCH)
    length = max(length * reached / width_cm, length * tables.judging.amount.least_of_wide)
    receipt.append(
        f"Beyond {rule.extra_wide_cm:.0f} cm the area decides, as long as the pieces lie side by side "
        f"(common practice): {trim(length, 2)} m. Lay them out before you cut; never below the longest piece."
    )
    return length


def round_up_to_cut(length_m: float, step_cm: float, least_cm: float) -> float:
    """Length in m up to the next step that the shop cuts, and not below its least cut."""
    steps = math.ceil(round(length_m * 100 / step_cm, 4))
    return max(steps * step_cm, least_cm) / 100


def least_length_m(pattern: Pattern) -> float:
    """The least that the cloth table asks for, in m; 1 where there is no table."""
    return min((row.length_m for row in pattern.requirements if row.use == "main"), default=1.0)


def _rows_asked(rows: list[Requirement], wish: Wish, receipt: list[str]) -> list[Requirement]:
    """The rows of the view and size asked for; a row that names no size is for every size."""
    view = _pick("view", wish.view, [row.view for row in rows], receipt)
    rows = [row for row in rows if row.view == view]
    sizes = [size for row in rows for size in row.sizes]
    if not sizes:
        return rows
    size = _pick("size", wish.size, sizes, receipt)
    return [row for row in rows if size in row.sizes or not row.sizes]


def _turned_one_way(length_m: float, cloth: Cloth, row: Requirement, tables: Tables, receipt: list[str]) -> float:
    """More where every piece must lie the same way up and the row did not reckon with it."""
    printed = cloth.print.direction == "one-way"
    if not (printed or cloth.nap) or row.with_nap:
        return length_m
    share = next(share for width, share in tables.judging.amount.one_way if cloth.width.best <= width)
    if share:
        length_m *= 1 + share
        why = "One-way print" if printed else "Nap"
        receipt.append(f"{why}, and the table is without nap: {share * 100:.0f} % more, {trim(length_m, 2)} m.")
    return length_m


def _matched(length_m: float, cloth: Cloth, tables: Tables, receipt: list[str]) -> float:
    """A repeat more where the print is large enough to be matched."""
    repeat = cloth.print.repeat_length_cm
    if repeat and repeat >= tables.judging.print.match_from_cm:
        length_m += repeat / 100
        receipt.append(f"Pattern repeat {repeat:.0f} cm: one repeat more to match, {trim(length_m, 2)} m.")
    return length_m


def _for_the_wash(length_m: float, cloth: Cloth, tables: Tables, receipt: list[str]) -> float:
    """More where the advice is to wash first: by what was measured, else by the middle of what its kind may shrink."""
    shrink = cloth.shrink
    measured = shrink.known >= Known.STATED
    if not (measured and shrink.best > 0) and shrink.high < tables.judging.cautions.shrinks_from_pct:
        return length_m
    length_m /= 1 - shrink.best / 100
    why = (
        f"Shrinks {trim(shrink.best)} % in length"
        if measured
        else f"Its kind may shrink up to {trim(shrink.high)} %, reckoned with {trim(shrink.best)} %"
    )
    receipt.append(f"Washed first, as it should be. {why}: {trim(length_m, 2)} m before the wash.")
    return length_m


def amount(cloth: Cloth, pattern: Pattern, wish: Wish, tables: Tables) -> Amount | None:
    """Metres of this cloth for one garment, or None without a requirement table; raises UnknownChoice."""
    table = [row for row in pattern.requirements if row.use == "main"]
    if not table or wish.part:
        return None
    receipt: list[str] = []
    rows = _rows_asked(table, wish, receipt)
    length_m, row = _at_width(rows, pattern, cloth, cloth.print.direction == "one-way" or cloth.nap, tables, receipt)
    length_m = _turned_one_way(length_m, cloth, row, tables, receipt)
    length_m = _matched(length_m, cloth, tables, receipt)
    washed_m = _for_the_wash(length_m, cloth, tables, receipt)
    step, least = tables.judging.amount.cut_step_cm, tables.judging.amount.least_cut_cm
    buy, cut = round_up_to_cut(washed_m, step, least), round_up_to_cut(length_m, step, least)
    said = f"Rounded up to what is cut ({step:.0f} cm steps, from {least:.0f} cm): {trim(buy, 2)} m"
    receipt.append(f"{said}{f'; {trim(cut, 2)} m if it is washed already' if buy > cut else ''}.")
    return Amount(buy, tuple(receipt), cut)
