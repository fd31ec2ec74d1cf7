"""Stretch in %: woven or knit, the least stretch, recovery, and a knit in a pattern for wovens.

Common practice, no source: a stable knit (to about 30 %) works with care in a pattern for wovens; a woven in a
pattern for knits only where the part is free of the body; a stretch limit is never given up.
"""

from __future__ import annotations

import numpy as np

from nematex.core.checks.finding import Bench, Finding, Say, Words, asked, at_most, of_detail, only, say_estimate, say_window
from nematex.core.cloth import Cloth
from nematex.core.columns import ONE_WAY
from nematex.core.estimate import Estimate, Known
from nematex.core.tables import Detail
from nematex.core.verdict import Column, Mask, Verdict, Window, compare

OFF_LIST_KNIT = "Cut the measured size or the larger of two, baste, try on, take in; leave out the zip only if it pulls on."
NEXT_SIZE = "Go one size up, or choose a stretchier cloth."
KINDS = {"woven": "A woven", "knit": "A knit", "net": "A net"}
PATTERNS = {"woven": "a pattern for wovens", "knit": "a pattern for knits", "either": "a pattern for either"}
MEASURE = "Fold it, mark 10 cm across, pull until it resists: each extra centimetre is 10 %."


def check_stretch(bench: Bench) -> list[Finding]:
    """Findings on structure, stretch and recovery."""
    demand, cloths = bench.demand, bench.cloths
    findings = [_structure(bench)]
    concerned = _concerned(bench)
    if demand.made.fit != "free" or demand.made.band:
        findings += _least(bench, concerned)
        for detail in demand.made.all_details:
            findings += _by_detail(bench, detail, concerned)
        if demand.reading.recovers:
            findings.append(only(_recovery(bench, "the envelope"), cloths.knit))
    if demand.made.band:
        findings.append(only(_band(bench), concerned))
    if demand.max_cross:
        window = demand.max_cross
        finding = bench.against_window("most stretch", cloths.stretch_cross, window, _say("across", window, "the envelope"))
        findings.append(only(at_most(finding, bench.named), cloths.knit | (demand.structure == "woven")))
    return findings


def _concerned(bench: Bench) -> Mask:
    """Whom a least stretch concerns: knits, and the wovens of a pattern that is for wovens alone."""
    cloths, structure = bench.cloths, bench.demand.structure
    return cloths.knit if structure != "woven" else np.ones(len(cloths), dtype=np.bool_)


def _structure(bench: Bench) -> Finding:
    demand, cloths = bench.demand, bench.cloths
    knit, wanted = cloths.knit, demand.structure
    free = demand.made.fit == "free" and not demand.made.band
    loose = demand.made.fit == "loose" and not demand.made.band
    verdict = np.zeros(len(cloths), dtype=np.int8)
    if wanted == "woven":
        off = _knit_in_woven(bench)
        verdict = np.where(knit & ~bench.named, off, verdict)
        if free:
            verdict = np.where(knit & (verdict > Verdict.WITH_CARE), Verdict.WITH_CARE, verdict)
    elif wanted == "knit" and not free:
        # A loose part may be made in a woven if it still goes over shoulders and hips; a close one cannot be got into.
        verdict = np.where(~knit & ~bench.named, Verdict.WITH_CARE if loose else Verdict.AGAINST, verdict)
    ruled_out = np.zeros(len(cloths), dtype=np.bool_)
    for structure in demand.reading.avoid_structures:
        ruled_out |= knit == (structure == "knit")
    if not free and wanted != "woven":
        verdict = np.where(ruled_out & ~bench.named, Verdict.AGAINST, verdict)
    return bench.flat("structure", verdict.astype(np.int8), _say_structure(wanted, free))


def _knit_in_woven(bench: Bench) -> Mask:
    """A knit in a pattern for wovens: with care when stable, against when it stretches further."""
    cloths, rule = bench.cloths, bench.tables.judging["knit_in_woven"]
    limit = rule["stable_stretch_pct"]
    firm = cloths.stretch_cross.known >= Known.STATED
    window = Window(high=limit + rule["measured_slack_pct"])
    by_number = np.where(cloths.stretch_cross.best <= window.high + 1e-9, Verdict.WITH_CARE, Verdict.AGAINST)
    by_share = compare(cloths.stretch_cross, Window(high=limit), bench.shares).verdict
    by_share = np.maximum(by_share, Verdict.WITH_CARE)
    stable = bench.of_types(bench.demand.stable)
    guessed = np.where(stable & (cloths.stretch_cross.known == Known.TYPICAL), Verdict.WITH_CARE, by_share)
    return np.where(firm, by_number, guessed)


def _say_structure(wanted: str, free: bool) -> Say:
    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has = say_estimate(cloth.stretch_cross, "%")
        if cloth.structure == "knit" and wanted == "woven":
            if verdict is Verdict.SUITS:
                return f"A knit that the list itself names; across it stretches {has}.", OFF_LIST_KNIT
            if verdict is Verdict.WITH_CARE:
                return f"The pattern is for wovens and this is a knit: across it stretches {has}, little enough.", OFF_LIST_KNIT
            if verdict is Verdict.UNPROVEN:
                return f"The pattern is for wovens; a knit works up to about 30 % across, this one has {has}.", MEASURE
            return (
                f"The pattern is for wovens and this knit stretches too far across for it, {has}: about 30 % is the limit.",
                "Choose a stable knit such as a ponte, or a pattern for knits.",
            )
        if cloth.structure != "knit" and wanted == "knit":
            if verdict is Verdict.SUITS:
                reason = (
                    "The part is free of the body, so it needs no stretch." if free else "A woven that the list itself names."
                )
                return reason, ""
            if verdict is Verdict.WITH_CARE:
                return (
                    f"The pattern is for knits and this is a {cloth.structure} cloth; the part is loose, so it may do.",
                    "Check that it goes over shoulders and hips without an opening; cut one size larger and baste first.",
                )
            return (
                f"The pattern needs a knit to get into and move in; this is a {cloth.structure} cloth.",
                "Keep it for a part that is free of the body, such as a full sleeve.",
            )
        if verdict is Verdict.AGAINST:
            return f"The envelope rules out {'knits' if cloth.structure == 'knit' else 'wovens'}.", ""
        if cloth.structure != "knit" and cloth.stretch_cross.best >= 8:
            return f"A woven with comfort stretch, across {has}: sizes as usual.", ""
        return f"{KINDS[cloth.structure]} for {PATTERNS[wanted]}; across it stretches {has}.", ""

    return say


def _say(axis: str, window: Window, part: str, turned: bool = False) -> Say:
    def say(cloth: Cloth, verdict: Verdict) -> Words:
        estimate: Estimate = cloth.stretch_length if axis == "along" else cloth.stretch_cross
        has, asks = say_estimate(estimate, "%"), say_window(window, "%")
        if verdict is Verdict.SUITS:
            return f"Stretches enough {axis}: {has}; {asked(part, asks)}.", ""
        if verdict is Verdict.UNPROVEN:
            return f"May or may not stretch enough {axis}: {has}, where {asked(part, asks)}.", MEASURE
        if estimate.best > window.high:
            return f"Stretches more than wanted {axis}: {has}, where {asked(part, asks)}.", "Choose a firmer cloth."
        if (
            verdict is Verdict.WITH_CARE
            and axis == "across"
            and cloth.stretch_length.best >= window.low > estimate.best
            and turned
        ):
            along = say_estimate(cloth.stretch_length, "%")
            return (
                f"The stretch lies the other way: {has} across and {along} along, where {asked(part, asks)}.",
                "Turn the cloth by 90° so that the stretch goes round the body; only without a one-way print.",
            )
        lead = "Barely stretches enough" if verdict is Verdict.WITH_CARE else "Stretches too little"
        return f"{lead} {axis}: {has}, where {asked(part, asks)}.", NEXT_SIZE

    return say


def _least(bench: Bench, concerned: Mask) -> list[Finding]:
    demand, cloths = bench.demand, bench.cloths
    findings = []
    if demand.min_cross:
        finding = bench.against_window(
            "least stretch", cloths.stretch_cross, demand.min_cross, _say("across", demand.min_cross, "the pattern", True)
        )
        findings.append(only(_turned(bench, finding, demand.min_cross), concerned))
    if demand.min_length:
        say = _say("along", demand.min_length, "the pattern")
        findings.append(
            only(bench.against_window("least stretch along", cloths.stretch_length, demand.min_length, say), concerned)
        )
    if demand.implied_cross:
        say = _say("across", demand.implied_cross, "the list of knits")
        findings.append(
            only(bench.against_window("stretch of the list", cloths.stretch_cross, demand.implied_cross, say), concerned)
        )
    if demand.ease_cross:
        say = _say_ease(demand.ease_cross)
        finding = bench.against_window("stretch by ease", cloths.stretch_cross, demand.ease_cross, say)
        findings.append(only(finding, concerned))
        if demand.min_cross is None:
            findings.append(only(_recovery(bench, "a garment smaller than the body"), concerned))
    return findings


def _say_ease(window: Window) -> Say:
    """The finished garment is smaller than the body: what it must give, and where."""
    words = window.low_from.words if window.low_from else ""

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        has, asks = say_estimate(cloth.stretch_cross, "%"), say_window(window, "%")
        if verdict is Verdict.SUITS:
            return f"Goes round and gives: {has}; {words}.", ""
        if verdict is Verdict.UNPROVEN:
            return f"May or may not give enough: {has}, where {asks} is needed: {words}.", MEASURE
        lead = "Only just gives enough" if verdict is Verdict.WITH_CARE else "Gives too little"
        return f"{lead}: {has}, where {asks} is needed: {words}.", NEXT_SIZE

    return say


def _turned(bench: Bench, finding: Finding, window: Window) -> Finding:
    """Stretch that lies along the cloth can be turned round the body, unless print or nap forbid it."""
    cloths = bench.cloths
    along: Column = cloths.stretch_length
    can = (along.known >= Known.STATED) & (along.best >= window.low) & (cloths.direction != ONE_WAY) & ~cloths.nap
    return at_most(finding, can)


def _by_detail(bench: Bench, detail: Detail, concerned: Mask) -> list[Finding]:
    findings = []
    mask = bench.applies(detail) & concerned
    if detail.stretch_lo_pct and not bench.demand.min_cross:
        share = bench.tables.judging["tolerance"]["stretch"]
        window = Window(
            low=detail.stretch_lo_pct,
            tolerance_low=detail.stretch_lo_pct * share,
            sources=(detail.name,),
            name=f"stretch {detail.name}",
            low_from=of_detail(detail, "stretch_lo_pct", detail.stretch_lo_pct),
        )
        window = bench.demand.fixed(window)
        say = _say("across", window, f"the {detail.name}")
        finding = bench.against_window(f"stretch {detail.name}", bench.cloths.stretch_cross, window, say)
        findings.append(at_most(only(finding, mask), bench.named))
    if detail.recovers:
        findings.append(only(_recovery(bench, f"the {detail.name}"), mask))
    return findings


def _band(bench: Bench) -> Finding:
    """Bands and cuffs are cut short and stretched on."""
    detail = bench.tables.details.by_key["band"]
    least = detail.stretch_lo_pct or 0.0
    window = Window(
        low=least,
        tolerance_low=least * bench.tables.judging["words"]["band_tolerance"],
        sources=("band",),
        name="stretch of a band",
        low_from=of_detail(detail, "stretch_lo_pct", least),
    )
    window = bench.demand.fixed(window)
    finding = bench.against_window("band", bench.cloths.stretch_cross, window, _say("across", window, "a band"))
    return only(finding, bench.cloths.knit)


def _recovery(bench: Bench, part: str) -> Finding:
    """Recovery measured, or guessed from elastane and knit structure."""
    cloths, rule = bench.cloths, bench.tables.judging["recovery"]
    measured = ~np.isnan(cloths.recovery.best)
    by_number = np.where(
        cloths.recovery.best >= rule["good_pct"],
        Verdict.SUITS,
        np.where(cloths.recovery.best >= rule["least_pct"], Verdict.WITH_CARE, Verdict.AGAINST),
    )
    slack = (cloths.elastane.high < 0.01) & ~cloths.double_knit & cloths.knit
    guessed = np.where(slack, Verdict.WITH_CARE, Verdict.SUITS)
    verdict = np.where(measured, by_number, guessed).astype(np.int8)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        if verdict is Verdict.SUITS:
            return "", ""
        if cloth.recovery:
            return (
                f"Comes back only {cloth.recovery.best:.0f} % of its stretch; {part} wants {rule['good_pct']:.0f} % and more.",
                "Choose a knit with 5 to 8 % elastane.",
            )
        return (
            f"No elastane in it: it may bag where recovery is wanted for {part}.",
            "Stretch a strip, let go, and measure what comes back.",
        )

    return bench.flat("recovery", verdict, say)
