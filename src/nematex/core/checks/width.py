"""Width in cm: does the widest piece fit, and does the requirement table reach this width?

Common practice, no source: a stated full width loses about 2 cm to the selvedges; envelope widths are nominal.
"""

from __future__ import annotations

from math import inf

import numpy as np

from nematex.core.checks.finding import Bench, Finding, Words, at_most, of_detail, say_estimate, sentence
from nematex.core.cloth import Cloth
from nematex.core.tables import Detail
from nematex.core.verdict import Origin, Verdict, Window


def check_width(bench: Bench) -> list[Finding]:
    """Findings on width."""
    demand, cloths = bench.demand, bench.cloths
    rule = bench.tables.judging
    findings = []
    if demand.pattern.widest_piece_cm and not demand.made.band:
        findings.append(
            _piece(bench, demand.pattern.widest_piece_cm, rule["width"]["selvedge_loss_cm"], rule["tolerance"]["width_cm"])
        )
    widths = [row.width_cm for row in demand.pattern.requirements if row.use == "main"]
    everyone = np.ones(len(cloths), dtype=np.bool_)
    if widths and not demand.made.band and demand.made.part is None:
        narrowest = min(widths)
        slack = rule["width"]["class_slack_cm"]
        origin = Origin(f"the cloth table, from {narrowest:g} cm", "judging", "width", "class_slack_cm", slack)
        window = Window(narrowest - slack, inf, 200.0, 0.0, ("requirement table",), "width table", origin)
        window = demand.fixed(window)

        def by_table(cloth: Cloth, verdict: Verdict) -> Words:
            has = say_estimate(cloth.width, "cm wide")
            if verdict is Verdict.SUITS:
                return f"Lies {has}; the table starts at {narrowest:.0f} cm.", ""
            return (
                f"Narrower than the table: {has}, where it starts at {narrowest:.0f} cm.",
                "Take the amount from the width chart, and lay the pieces out before you cut.",
            )

        findings.append(at_most(bench.against_window("width table", cloths.width, window, by_table), everyone))
    for detail in demand.made.all_details:
        if detail.width_lo_cm:
            findings.append(at_most(_detail(bench, detail, detail.width_lo_cm), everyone))
    if not findings:

        def nothing(cloth: Cloth, verdict: Verdict) -> Words:
            return f"Lies {say_estimate(cloth.width, 'cm wide')}; the pattern asks no width.", ""

        findings.append(bench.flat("width unasked", np.zeros(len(cloths), dtype=np.int8), nothing))
    return findings


def _piece(bench: Bench, piece_cm: float, loss_cm: float, tolerance_cm: float) -> Finding:
    origin = Origin(f"the widest piece, {piece_cm:g} cm", "judging", "width", "selvedge_loss_cm", loss_cm)
    window = Window(piece_cm + loss_cm, inf, tolerance_cm, 0.0, ("widest piece",), "widest piece", origin)
    window = bench.demand.fixed(window)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has = say_estimate(cloth.width, "cm wide")
        asks = f"the widest piece is {piece_cm:.0f} cm and the selvedges take {loss_cm:.0f}"
        if verdict is Verdict.SUITS:
            return f"Wide enough: {has}; {asks}.", ""
        lead = "Could be wide enough" if verdict is Verdict.UNPROVEN else "Too narrow"
        lead = "Barely wide enough" if verdict is Verdict.WITH_CARE else lead
        return f"{lead}: {has}; {asks}.", "Put a seam in the widest piece, or turn it crosswise if print and nap allow."

    return bench.against_window("widest piece", bench.cloths.width, window, say)


def _detail(bench: Bench, detail: Detail, least_cm: float) -> Finding:
    name, origin = detail.name, of_detail(detail, "width_lo_cm", least_cm)
    window = Window(least_cm, inf, 200.0, 0.0, (name,), f"width {name}", origin)
    window = bench.demand.fixed(window)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has = say_estimate(cloth.width, "cm wide")
        if verdict is Verdict.SUITS:
            return f"Wide enough for a {name}: {has}.", ""
        return f"Narrow for a {name}: {has}, where {least_cm:.0f} cm is wanted.", sentence(detail.remedy)

    return bench.against_window(f"width {name}", bench.cloths.width, window, say)
