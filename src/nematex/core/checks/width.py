"""Width in cm: does the widest piece fit, and does the requirement table reach this width?

Common practice, no source: a stated full width loses about 2 cm to the selvedges; envelope widths are nominal.
"""

from __future__ import annotations

import numpy as np

from nematex.core.checks.finding import Bench, Finding, Words, at_most, say_estimate, sentence
from nematex.core.cloth import Cloth
from nematex.core.verdict import Verdict, Window


def check_width(bench: Bench) -> list[Finding]:
    """Findings on width."""
    demand, cloths = bench.demand, bench.cloths
    rule = bench.tables.judging
    findings = []
    if demand.pattern.widest_piece_cm and not demand.made.band:
        findings.append(
            _piece(bench, demand.pattern.widest_piece_cm, rule["width"]["selvedge_loss_cm"], rule["tolerance"]["width_cm"])
        )
    widths = [row.width_cm for row in demand.pattern.requirements]
    everyone = np.ones(len(cloths), dtype=np.bool_)
    if widths and not demand.made.band and demand.made.part is None:
        narrowest = min(widths)
        window = Window(low=narrowest - rule["width"]["class_slack_cm"], tolerance_low=200.0, sources=("requirement table",))

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
            findings.append(at_most(_detail(bench, detail.name, detail.width_lo_cm, detail.remedy), everyone))
    if not findings:

        def nothing(cloth: Cloth, verdict: Verdict) -> Words:
            return f"Lies {say_estimate(cloth.width, 'cm wide')}; the pattern asks no width.", ""

        findings.append(bench.flat("width unasked", np.zeros(len(cloths), dtype=np.int8), nothing))
    return findings


def _piece(bench: Bench, piece_cm: float, loss_cm: float, tolerance_cm: float) -> Finding:
    window = Window(low=piece_cm + loss_cm, tolerance_low=tolerance_cm, sources=("widest piece",))

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has = say_estimate(cloth.width, "cm wide")
        asks = f"the widest piece is {piece_cm:.0f} cm and the selvedges take {loss_cm:.0f}"
        if verdict is Verdict.SUITS:
            return f"Wide enough: {has}; {asks}.", ""
        lead = "Could be wide enough" if verdict is Verdict.UNPROVEN else "Too narrow"
        lead = "Barely wide enough" if verdict is Verdict.WITH_CARE else lead
        return f"{lead}: {has}; {asks}.", "Put a seam in the widest piece, or turn it crosswise if print and nap allow."

    return bench.against_window("widest piece", bench.cloths.width, window, say)


def _detail(bench: Bench, name: str, least_cm: float, remedy: str) -> Finding:
    window = Window(low=least_cm, tolerance_low=200.0, sources=(name,))

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has = say_estimate(cloth.width, "cm wide")
        if verdict is Verdict.SUITS:
            return f"Wide enough for a {name}: {has}.", ""
        return f"Narrow for a {name}: {has}, where {least_cm:.0f} cm is wanted.", sentence(remedy)

    return bench.against_window(f"width {name}", bench.cloths.width, window, say)
