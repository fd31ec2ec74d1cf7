"""How much cloth: the requirement table, the width chart, direction, repeat, shrinkage, and the cut.

The order of the steps is common practice, no source. The words of the receipt are in the sayings.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from functools import partial

from nematex.core.amount.chart import convert_width
from nematex.core.amount.hacked import add_hacks
from nematex.core.amount.lay.draft import drafted
from nematex.core.amount.lay.pieces import area_cm2
from nematex.core.amount.receipt import Amount, Receipt
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import UnknownChoice
from nematex.core.pattern.chosen import size_meant, view_meant
from nematex.core.pattern.facts import Pattern, Requirement, Wish
from nematex.core.pattern.hacks import read_hacks
from nematex.core.quantity.estimate import Known
from nematex.core.quantity.said import Units
from nematex.core.quantity.units import CM_PER_INCH, trim
from nematex.core.tables import Tables


def _pick(field: str, asked: str | None, values: Sequence[str], receipt: Receipt) -> str:
    """The view or size asked for; with none asked, the last one of the table, so that it is never too little."""
    choices = list(dict.fromkeys(values))
    if asked is None:
        chosen = choices[-1] if field == "size" else choices[0]
        if len(choices) > 1:
            receipt.write("unchosen", "envelope", field=field, chosen=chosen)
        return chosen
    found = view_meant(asked, choices) if field == "view" else size_meant(asked, choices)
    if found is not None:
        return found
    raise UnknownChoice(field, asked, choices, f"{field} of this pattern's table")


def _row_blanks(row: Requirement, receipt: Receipt) -> dict[str, object]:
    nap = "with" if row.with_nap else "without"
    return {"view": row.view, "row": receipt.length(row.length_m), "width": receipt.width(row.width_cm), "nap": nap}


def at_width(
    rows: Sequence[Requirement], widest_cm: float | None, width: float, one_way: bool, tables: Tables, receipt: Receipt
) -> Requirement:
    """The table's row for a width in cm; between two rows what both bound; else the nearest one converted."""
    rule = tables.judging.width
    by_width: dict[float, Requirement] = {}
    for row in sorted(rows, key=lambda row: row.with_nap == one_way):
        by_width[row.width_cm] = row  # of two for one width the one that reckons with the nap as this cloth needs it
    narrower = [at for at in by_width if at <= width + rule.nominal_slack_cm]
    wider = [at for at in by_width if at > width + rule.nominal_slack_cm]
    row = by_width[max(narrower) if narrower else min(wider)]
    receipt.write("row", "envelope", row.length_m, **_row_blanks(row, receipt))
    if abs(row.width_cm - width) <= rule.nominal_slack_cm:
        return row
    if narrower and wider:
        _between(row, by_width[min(wider)], width, receipt)
    else:
        _converted(row, widest_cm, width, tables, receipt)
    return row


def _between(low: Requirement, high: Requirement, width_cm: float, receipt: Receipt) -> None:
    """Between two rows of the table both bound the answer: in proportion to the width. Common practice, no source."""
    share = (width_cm - low.width_cm) / (high.width_cm - low.width_cm)
    length = low.length_m + share * (min(high.length_m, low.length_m) - low.length_m)
    receipt.write("between", "practice", length, cloth_width=receipt.width(width_cm), **_row_blanks(high, receipt))


def _converted(row: Requirement, piece: float | None, width_cm: float, tables: Tables, receipt: Receipt) -> None:
    """One row at another width: by the chart as far as it reaches, beyond it by the area. Never more on a wider cloth."""
    rule = tables.judging.width
    target = min(width_cm, rule.extra_wide_cm)
    length = convert_width(row.length_m, row.width_cm, target, tables.width_chart)
    if width_cm > row.width_cm:
        length = min(length, row.length_m)
    receipt.write("by_chart", "chart", length, width=receipt.width(width_cm))
    if width_cm <= rule.extra_wide_cm:
        return
    if piece and 2 * piece > width_cm:
        receipt.write("not_side_by_side", "practice", piece=receipt.width(piece))
        return
    reached = max(row.width_cm, max(tables.width_chart) * CM_PER_INCH)
    length = max(length * reached / width_cm, length * tables.judging.amount.least_of_wide)
    receipt.write("by_area", "practice", length, width=receipt.width(rule.extra_wide_cm))


def round_up_to_cut(length_m: float, step_cm: float, least_cm: float) -> float:
    """Length in m up to the next step that the shop cuts, and not below its least cut."""
    steps = math.ceil(round(length_m * 100 / step_cm, 4))
    return round(max(steps * step_cm, least_cm) / 100, 6)


def least_length_m(pattern: Pattern) -> float:
    """The least that the cloth table asks for, in m; 1 where there is no table."""
    return min((row.length_m for row in pattern.requirements if row.use == "main"), default=1.0)


def rows_asked(rows: list[Requirement], wish: Wish, receipt: Receipt) -> list[Requirement]:
    """The rows of the view and size asked for; a row that names no size is for every size."""
    view = _pick("view", wish.view, [row.view for row in rows], receipt)
    rows = [row for row in rows if row.view == view]
    sizes = [size for row in rows for size in row.sizes]
    if not sizes:
        return rows
    size = _pick("size", wish.size, sizes, receipt)
    return [row for row in rows if size in row.sizes or not row.sizes]


def lies_one_way(cloth: Cloth) -> bool:
    """Whether every piece must lie the same way up: by its nap, or by a print that runs one way and is followed."""
    return cloth.nap or (cloth.print.direction == "one-way" and cloth.follow_print is not False)


def _turned_one_way(cloth: Cloth, row: Requirement, tables: Tables, receipt: Receipt) -> None:
    """More where every piece must lie the same way up and the row did not reckon with it; what the other way costs."""
    length = receipt.length_m or 0.0
    printed = cloth.print.direction == "one-way" and not cloth.nap
    if not (printed or cloth.nap) or row.with_nap:
        return
    share = next(share for width, share in tables.judging.amount.one_way if cloth.width.best <= width)
    if not share:
        return
    more = length * (1 + share)
    share_said = f"{share * 100:.0f}"
    if not lies_one_way(cloth):
        receipt.write("not_followed", "practice", other=receipt.length(more))
        return
    case = "nap" if not printed else "one_way_print" if cloth.follow_print else "one_way_unsaid"
    receipt.write(case, "prototype", more, share=share_said, other=receipt.length(length))


def matched(cloth: Cloth, tables: Tables, receipt: Receipt) -> None:
    """A repeat more where the print is large enough to be matched."""
    repeat = cloth.print.repeat_length_cm
    if repeat and repeat >= tables.judging.print.match_from_cm:
        receipt.write("repeat", "practice", (receipt.length_m or 0.0) + repeat / 100, repeat=receipt.short(repeat))


def _cut_elsewhere(part: str, cm2: float, cloth: Cloth, tables: Tables, receipt: Receipt) -> None:
    """Less by what a part's pieces cover; a tenth stays at least."""
    rule, length = tables.judging.change, receipt.length_m or 0.0
    by_m = cm2 / (cloth.width.best * (rule.used_one_way if lies_one_way(cloth) else rule.used)) / 100
    after = max(length - by_m, length / 10)
    receipt.write("elsewhere", "draft", after, part=part, by=receipt.length(length - after))


def _for_the_wash(cloth: Cloth, tables: Tables, receipt: Receipt) -> None:
    """More where the advice is to wash first: by what was measured, else by the most that its kind may shrink.

    Wool is steamed, which draws in about half of what a wash would.
    """
    shrink = cloth.shrink
    measured = shrink.known >= Known.STATED
    if not (measured and shrink.best > 0) and shrink.high < tables.judging.cautions.shrinks_from_pct:
        return
    steamed = cloth.is_wool and not measured
    length = (receipt.length_m or 0.0) / (1 - (shrink.best if measured or steamed else shrink.high) / 100)
    case, source = ("shrinks", "cloth") if measured else ("steamed" if steamed else "may_shrink", "kind")
    receipt.write(case, source, length, best=trim(shrink.best), high=trim(shrink.high))


def drafted_cm2(pattern: Pattern, wish: Wish, tables: Tables, name: str) -> float:
    """What the pattern's own pieces with this word in their name cover, as they are drafted."""
    return sum(area_cm2(piece) for piece in drafted(pattern, wish, tables) if name in piece.id.split())


def amount(
    cloth: Cloth,
    pattern: Pattern,
    wish: Wish,
    tables: Tables,
    units: Units = Units.METRIC,
    use: str = "main",
    less_cm2: Mapping[str, float] | None = None,
) -> Amount | None:
    """Metres of this cloth for one garment, or for another `use` of the table; None without a row; raises UnknownChoice.

    `less_cm2`: parts that are cut from another cloth, and what their pieces cover.
    """
    table = [row for row in pattern.requirements if row.use == use]
    if not table or wish.part:
        return None
    receipt = Receipt(tables.sayings, units)
    rows = rows_asked(table, wish, receipt)
    row = at_width(rows, pattern.widest_piece_cm, cloth.width.best, lies_one_way(cloth), tables, receipt)
    if row.reckoned:
        receipt.write("between_sizes", "practice", size=", ".join(row.sizes))
    _turned_one_way(cloth, row, tables, receipt)
    matched(cloth, tables, receipt)
    if wish.hacks and use == "main":
        own_cm2 = partial(drafted_cm2, pattern, wish, tables)
        hacks, rule = read_hacks(wish.hacks, tables), tables.judging.change
        add_hacks(hacks, cloth.width.best, lies_one_way(cloth), rule, receipt, own_cm2)
    for part, cm2 in (less_cm2 or {}).items():
        _cut_elsewhere(part, cm2, cloth, tables, receipt)
    length = receipt.length_m or 0.0
    _for_the_wash(cloth, tables, receipt)
    return bought(length, cloth, tables, receipt)


def bought(length_m: float, cloth: Cloth, tables: Tables, receipt: Receipt, washed: bool = False) -> Amount:
    """What is bought of a length: up to the shop's next cut; `washed`: what the wash takes is still to be added."""
    if washed:
        _for_the_wash(cloth, tables, receipt)
    rule = tables.judging.amount
    step, least = cloth.cut_step_cm or rule.cut_step_cm, cloth.least_cut_cm or rule.least_cut_cm
    buy, cut = (round_up_to_cut(each, step, least) for each in (receipt.length_m or length_m, length_m))
    blanks = {"step": receipt.cut(step), "least": receipt.cut(least), "cut": receipt.length(cut)}
    receipt.write("rounded_washed" if buy > cut else "rounded", "shop", buy, **blanks)
    return Amount(buy, tuple(receipt.steps), cut)
