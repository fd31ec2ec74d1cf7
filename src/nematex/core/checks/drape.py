"""Drape as bending length in cm: the list's span and hand words, the details, the look.

Common practice, no source: softer than the list is with care, unless a detail needs body; stiffer is worse sooner.
"""

from __future__ import annotations

from dataclasses import replace
from math import inf

import numpy as np

from nematex.core.checks.finding import (
    Bench,
    Finding,
    Say,
    Words,
    asked,
    at_most,
    of_detail,
    only,
    say_estimate,
    say_window,
    sentence,
)
from nematex.core.cloth import Cloth
from nematex.core.tables import Detail
from nematex.core.verdict import Verdict, Window

MEASURE = "Push a strip over the 41.5° ramp: half the overhang is the bending length."


def _say(window: Window, part: str, why: str = "", mend: str = "", look: str = "balanced", share: float = 0.5) -> Say:
    target = window.target(share)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has, asks = say_estimate(cloth.bend, "cm"), say_window(window, "cm")
        because = f": {why}" if why else ""
        if verdict is Verdict.SUITS:
            aim = f", {look} aims at {target:.1f}" if target else ""
            return f"Hangs as asked: bends at {has}; {asked(part, asks)}{aim}.", ""
        if verdict is Verdict.UNPROVEN:
            return f"Could go either way: bends at {has}, where {asked(part, asks)}{because}.", MEASURE
        if window.low <= cloth.bend.best <= window.high:
            return f"On the edge: bends at {has}, where {asked(part, asks)}{because}.", MEASURE
        if cloth.bend.best > window.high:
            lead = "Stands a little" if verdict is Verdict.WITH_CARE else "Stands off the body"
            remedy = mend or "Wash it soft first, or show it as the structured version."
        else:
            lead = "Falls softer" if verdict is Verdict.WITH_CARE else "Has not the body for it"
            remedy = mend or "Say that it will fall closer to the figure; interface where an edge must hold."
        return f"{lead}: bends at {has}, where {asked(part, asks)}{because}.", remedy

    return say


def check_drape(bench: Bench) -> list[Finding]:
    """Findings on drape."""
    demand, cloths = bench.demand, bench.cloths
    made = demand.made
    # A full sleeve billows in fluid cloth and stands in crisp cloth: both are right, whatever the list says.
    unbound = made.band or (made.fit == "free" and made.has("full sleeve"))
    findings = [] if unbound else _by_list(bench)
    if demand.bend_by_word:
        window = demand.bend_by_word
        findings.append(bench.against_window("drape ruled out", cloths.bend, window, _say(window, " ".join(window.sources))))
    details = list(made.details) + ([] if demand.bend else list(made.implied))
    for detail in details:
        limits = _detail_window(bench, detail)
        if limits:
            mend = sentence(detail.remedy)
            say = _say(limits, f"the {detail.name}", detail.why, mend, demand.wish.look, _aim(bench))
            finding = bench.against_window(f"drape {detail.name}", cloths.bend, limits, say)
            findings.append(at_most(only(finding, bench.applies(detail)), bench.named))
    if not findings:

        def nothing(cloth: Cloth, verdict: Verdict) -> Words:
            return f"Bends at {say_estimate(cloth.bend, 'cm')}; the pattern asks nothing of the drape.", ""

        findings.append(bench.flat("drape unasked", np.zeros(len(cloths), dtype=np.int8), nothing))
    return findings


def _aim(bench: Bench) -> float:
    """Where in the window the wanted look aims, as a share of it."""
    share: float = bench.tables.judging["look"][bench.demand.wish.look]["share"]
    return share


def _by_list(bench: Bench) -> list[Finding]:
    demand, cloths = bench.demand, bench.cloths
    tolerance = bench.tables.judging["tolerance"]["drape_cm"]
    free = np.full(len(cloths), demand.made.fit == "free")
    findings = []
    for kind, mask in (("woven", ~cloths.knit), ("knit", cloths.knit)):
        window = demand.window(demand.bend, kind)
        if window is None:
            continue
        body = any(d.needs_body and d.structure in ("any", kind) for d in demand.made.all_details)
        if body:
            window = replace(window, tolerance_low=tolerance)
        lows = [(d.flowing_bend_lo_cm, d) for d in demand.made.details if d.flowing_bend_lo_cm is not None]
        if lows and demand.wish.look == "flowing":
            low, detail = min(lows, key=lambda each: each[0])
            if low < window.low:
                window = replace(window, low=low, low_from=of_detail(detail, "flowing_bend_lo_cm", low))
        say = _say(window, "the list", look=demand.wish.look, share=_aim(bench))
        finding = bench.against_window("drape list", cloths.bend, window, say)
        findings.append(at_most(only(finding, mask), free | bench.welcome))
    return findings


def _detail_window(bench: Bench, detail: Detail) -> Window | None:
    low, tolerance = detail.bend_lo_cm, bench.tables.judging["tolerance"]["drape_cm"]
    low_tolerance = detail.bend_lo_tolerance_cm or tolerance
    if bench.demand.wish.look == "flowing" and detail.flowing_bend_lo_cm is not None:
        low, low_tolerance = detail.flowing_bend_lo_cm, tolerance
    if low is None and detail.bend_hi_cm is None:
        return None
    high = inf if detail.bend_hi_cm is None else detail.bend_hi_cm
    flowing = low is not None and low != detail.bend_lo_cm
    low_field = "flowing_bend_lo_cm" if flowing else "bend_lo_cm"
    return bench.demand.fixed(
        Window(
            low or 0.0,
            high,
            low_tolerance,
            tolerance,
            (detail.name,),
            f"drape {detail.name}",
            of_detail(detail, low_field, low),
            of_detail(detail, "bend_hi_cm", detail.bend_hi_cm),
        )
    )
