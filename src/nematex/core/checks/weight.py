"""Weight in g/m²: the list's span and weight words, an explicit number, the details, bulk, and cover.

Common practice, no source.
"""

from __future__ import annotations

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
from nematex.core.cloth import SHEERNESS, Cloth
from nematex.core.estimate import Known
from nematex.core.tables import Detail
from nematex.core.verdict import Verdict, Window

WEIGH = "Weigh a 10 × 10 cm square: grams × 100."


def _say(window: Window, part: str, why: str = "", mend: str = "") -> Say:
    because = f": {why}" if why else ""

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has, asks = say_estimate(cloth.weight, "g/m²"), say_window(window, "g/m²")
        heavy = cloth.weight.best > window.high
        if verdict is Verdict.SUITS:
            return f"Weighs {has}; {asked(part, asks)}.", ""
        if verdict is Verdict.UNPROVEN:
            return f"Could weigh in or out: {has}, where {asked(part, asks)}{because}.", WEIGH
        if verdict is Verdict.WITH_CARE and window.low <= cloth.weight.best <= window.high:
            return f"On the edge in weight: {has}, where {asked(part, asks)}{because}.", mend or WEIGH
        word = "heavy" if heavy else "light"
        remedy = "keep seams single and cut facings from a lighter cloth" if heavy else "line or underline it"
        lead = "A little" if verdict is Verdict.WITH_CARE else "Too"
        return f"{lead} {word}: {has}, where {asked(part, asks)}{because}.", mend or sentence(remedy)

    return say


def check_weight(bench: Bench) -> list[Finding]:
    """Findings on weight, bulk and cover."""
    cloths, demand = bench.cloths, bench.demand
    findings = [] if demand.made.band else _by_list(bench)
    if demand.weight_by_number:
        window = demand.weight_by_number
        findings.append(bench.against_window("weight number", cloths.weight, window, _say(window, "the envelope")))
    for detail in demand.made.details:
        findings += _by_detail(bench, detail)
    if not demand.weight and not demand.weight_by_number:
        for detail in demand.made.implied:
            findings += _by_detail(bench, detail)
    findings.append(_cover(bench))
    if not any(finding.window for finding in findings):

        def nothing(cloth: Cloth, verdict: Verdict) -> Words:
            return f"Weighs {say_estimate(cloth.weight, 'g/m²')}; the pattern asks no weight.", ""

        findings.insert(0, bench.flat("weight unasked", np.zeros(len(cloths), dtype=np.int8), nothing))
    return findings


def _by_list(bench: Bench) -> list[Finding]:
    """The span of the list and its weight words, for the cloth's own structure."""
    demand, cloths = bench.demand, bench.cloths
    everyone = np.ones(len(cloths), dtype=np.bool_)
    findings = []
    for kind, mask in (("woven", ~cloths.knit), ("knit", cloths.knit)):
        window = demand.window(demand.weight, kind)
        if window:
            finding = bench.against_window("weight list", cloths.weight, window, _say(window, "the list"))
            finding = _light_sheers(bench, finding)
            findings.append(at_most(only(finding, mask), bench.welcome | (everyone & (demand.made.fit == "free"))))
    return findings


def _light_sheers(bench: Bench, finding: Finding) -> Finding:
    """Gathered or billowing, a crisp sheer may be as light as it likes, and on a free part any sheer."""
    cloths, made = bench.cloths, bench.demand.made
    if not any(detail.light_sheers for detail in made.details):
        return finding
    rule = bench.tables.judging["sheers"]
    crisp = (cloths.bend.best >= rule["crisp_cm"]) | (made.fit == "free")
    light = cloths.weight.best <= (finding.window.high if finding.window else np.inf)
    return at_most(finding, (cloths.sheer.low >= rule["from"]) & crisp & light, Verdict.SUITS)


def _by_detail(bench: Bench, detail: Detail) -> list[Finding]:
    """Weight and bulk limits of one detail; a cloth named on the list loses at most to 'with care'."""
    cloths, demand, judging = bench.cloths, bench.demand, bench.tables.judging["tolerance"]
    lifted = bool(detail.unless) and demand.made.has(detail.unless)
    low = 0.0 if lifted or detail.weight_lo_gsm is None else detail.weight_lo_gsm
    findings = []
    knit_field = "knit_weight_hi_gsm" if detail.knit_weight_hi_gsm else "weight_hi_gsm"
    for kind, mask, field in (("woven", ~cloths.knit, "weight_hi_gsm"), ("knit", cloths.knit, knit_field)):
        if detail.structure not in ("any", kind):
            continue
        high = getattr(detail, field)
        top = np.inf if high is None else high
        if low or high is not None:
            over = 0.0 if high is None else high * judging["weight"]
            edges = of_detail(detail, "weight_lo_gsm", low or None), of_detail(detail, field, high)
            name = f"weight {detail.name} {kind}"
            window = demand.fixed(Window(low, top, low * judging["weight"], over, (detail.name,), name, *edges))
            say = _say(window, f"the {detail.name}", detail.why, sentence(detail.remedy))
            finding = bench.against_window(f"weight {detail.name}", cloths.weight, window, say)
            by_bulk = (cloths.thickness.known >= Known.STATED) & (detail.thick_hi_mm is not None)
            findings.append(only(finding, bench.applies(detail) & mask & ~by_bulk))
    if detail.thick_hi_mm is not None:
        findings.append(_bulk(bench, detail))
    return [at_most(finding, bench.named) for finding in findings]


def _bulk(bench: Bench, detail: Detail) -> Finding:
    limit = detail.thick_hi_mm or 0.0
    window = Window(
        high=limit,
        tolerance_high=limit * bench.tables.judging["tolerance"]["thickness"],
        sources=(detail.name,),
        name=f"bulk {detail.name}",
        high_from=of_detail(detail, "thick_hi_mm", limit),
    )
    window = bench.demand.fixed(window)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has, asks = say_estimate(cloth.thickness, "mm"), say_window(window, "mm")
        if verdict is Verdict.SUITS:
            return f"Thin enough for the {detail.name}: {has}.", ""
        return f"Bulky for the {detail.name}: {has}, where {asks} is wanted: {detail.why}.", sentence(detail.remedy)

    finding = bench.against_window(f"bulk {detail.name}", bench.cloths.thickness, window, say)
    guessed = bench.cloths.thickness.known < Known.STATED
    return at_most(only(finding, bench.applies(detail)), guessed)


def _cover(bench: Bench) -> Finding:
    """Sheer cloth is a caution, except where nothing can be worn or sewn beneath: unlined trousers."""
    demand, cloths = bench.demand, bench.cloths
    bare = demand.made.bifurcated and not demand.pattern.lined and demand.made.fit != "free"
    shows = cloths.sheer.low >= bench.tables.judging["cover"]["nothing_beneath_from"]
    ruled_out = demand.reading.avoid_sheer
    verdict = np.where((bare | ruled_out) & shows, Verdict.AGAINST, Verdict.SUITS).astype(np.int8)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        level = SHEERNESS[round(cloth.sheer.best)]
        if verdict is Verdict.SUITS:
            return "", ""
        if ruled_out:
            return f"It is {level}, and the envelope rules sheer cloth out.", "Choose an opaque cloth."
        return (
            f"It is {level}, and nothing can be worn beneath unlined legs.",
            "Line or underline the legs, or choose an opaque cloth.",
        )

    return at_most(bench.flat("cover", verdict, say), bench.named)
