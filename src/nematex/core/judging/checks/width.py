"""Width in cm: does the widest piece fit, and does the requirement table reach this width?

Common practice, no source: a stated full width loses about 2 cm to the selvedges; envelope widths are nominal.
"""

from __future__ import annotations

from dataclasses import replace
from math import inf

from nematex.core.judging.checks.finding import Asker, Comparison, Finding, Rule, of_detail
from nematex.core.judging.verdict import Origin, Window
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Detail

FAR_CM = 200.0  # a tolerance that every width keeps: narrow is with care, never against


def check_width(comparison: Comparison) -> list[Finding]:
    """Findings on width."""
    demand = comparison.demand
    findings = []
    if demand.pattern.widest_piece_cm and not demand.made.band:
        findings.append(_piece(comparison, demand.pattern.widest_piece_cm))
    widths = [row.width_cm for row in demand.pattern.requirements if row.use == "main"]
    if widths and not demand.made.band and demand.made.part is None:
        findings.append(_table(comparison, min(widths)))
    if demand.interpretation.min_width_cm and not demand.made.band and demand.made.part is None:
        findings.append(_number(comparison, demand.interpretation.min_width_cm, demand.interpretation.width_words))
    wide = [detail for detail in demand.made.all_details if detail.width_lo_cm]
    findings += [_by_detail(comparison, detail, detail.width_lo_cm or 0.0) for detail in wide]
    return findings or [comparison.flat(Rule.WIDTH_UNASKED)]


def _piece(comparison: Comparison, piece_cm: float) -> Finding:
    loss_cm, tolerance_cm = comparison.rules.width.selvedge_loss_cm, comparison.rules.tolerance.width_cm
    origin = Origin(f"the widest piece, {piece_cm:g} cm", "judging", "width", "selvedge_loss_cm", loss_cm)
    window = _at_least(piece_cm + loss_cm, tolerance_cm, ("widest piece",), "widest piece", origin)
    finding = comparison.against_window(Rule.WIDEST_PIECE, comparison.demand.fixed(window), Asker.PATTERN)
    return replace(finding, numbers={"piece_cm": piece_cm, "loss_cm": loss_cm})


def _table(comparison: Comparison, narrowest_cm: float) -> Finding:
    slack = comparison.rules.width.class_slack_cm
    origin = Origin(f"the cloth table, from {narrowest_cm:g} cm", "judging", "width", "class_slack_cm", slack)
    window = _at_least(narrowest_cm - slack, FAR_CM, ("requirement table",), "width table", origin)
    finding = comparison.against_window(Rule.WIDTH_TABLE, comparison.demand.fixed(window), Asker.ENVELOPE)
    return replace(finding, numbers={"narrowest_cm": narrowest_cm}).at_most(True)


def _number(comparison: Comparison, least_cm: float, words: str) -> Finding:
    """'At least 140 cm wide', as the list says it."""
    origin = Origin(words)
    window = comparison.demand.fixed(_at_least(least_cm, FAR_CM, ("list",), "width list", origin))
    finding = comparison.against_window(Rule.WIDTH_NUMBER, window, Asker.LIST)
    return replace(finding, numbers={"least_cm": least_cm}).at_most(True)


def _by_detail(comparison: Comparison, detail: Detail, least_cm: float) -> Finding:
    origin = of_detail(detail, "width_lo_cm", least_cm)
    window = comparison.demand.fixed(_at_least(least_cm, FAR_CM, (detail.name,), f"width {detail.name}", origin))
    finding = comparison.against_window(Rule.WIDTH_DETAIL, window, Asker.DETAIL, detail)
    return replace(finding, numbers={"least_cm": least_cm}).at_most(True)


def _at_least(low_cm: float, tolerance_cm: float, sources: tuple[str, ...], name: str, origin: Origin | None) -> Window:
    return Window(low_cm, inf, tolerance_cm, 0.0, sources, name, origin, quantity=Quantity.WIDTH)
