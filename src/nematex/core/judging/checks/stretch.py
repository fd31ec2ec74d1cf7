"""Stretch in %: woven or knit, the least stretch, recovery, and a knit in a pattern for wovens.

Common practice, no source: a stable knit (to about 30 %) works with care in a pattern for wovens; a woven in a
pattern for knits only where the part is free of the body; a stretch limit is never given up.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from nematex.core.cloth.columns import ONE_WAY
from nematex.core.judging.checks.finding import Asker, Comparison, Finding, Rule, of_detail
from nematex.core.judging.verdict import AGAINST, SUITS, UNPROVEN, WITH_CARE, Window, compare
from nematex.core.quantity.arrays import Mask
from nematex.core.quantity.elementwise import is_number, maximum, minimum, negated, where
from nematex.core.quantity.estimate import STATED, TYPICAL
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Detail, Role

NO_ELASTANE = 0.01  # a share below it is none


def check_stretch(comparison: Comparison) -> list[Finding]:
    """Findings on structure, stretch and recovery."""
    demand, cloths = comparison.demand, comparison.cloths
    findings = [_structure(comparison)]
    concerned = _concerned(comparison)
    if demand.made.fit != "free" or demand.made.band:
        findings += _least(comparison, concerned)
        for detail in demand.made.all_details:
            findings += _by_detail(comparison, detail, concerned)
        if demand.interpretation.recovers:
            findings.append(_recovery(comparison, Asker.ENVELOPE).only(cloths.knit))
        findings += _bags(comparison)
    if demand.made.band:
        findings += [_band(comparison, detail).only(concerned) for detail in comparison.tables.with_role(Role.BAND)]
    return findings if demand.made.band else [*findings, *_most(comparison)]


def _bags(comparison: Comparison) -> list[Finding]:
    """Loose knits bag at knee and seat, unless they are slept in or hold by being close."""
    made, types = comparison.demand.made, comparison.tables.lexicon.types
    if (
        not made.bifurcated
        or made.band
        or made.by_itself
        or any(detail.recovers or Role.SLEPT_IN in detail.roles for detail in made.all_details)
    ):
        return []
    loose = comparison.of_types(at for at, kind in enumerate(types) if kind.family in comparison.rules.recovery.bags)
    return [comparison.flat(Rule.BAGS, where(loose, WITH_CARE, SUITS))]


def _most(comparison: Comparison) -> list[Finding]:
    """Little or no stretch asked, and the stretchy knits that the envelope rules out."""
    demand, cloths = comparison.demand, comparison.cloths
    findings = []
    if demand.stretch.most_across:
        finding = comparison.against_window(Rule.MOST_STRETCH, demand.stretch.most_across, Asker.ENVELOPE)
        welcome = comparison.named & (not demand.interpretation.most_by_number)
        findings.append(finding.at_most(welcome).only(cloths.knit | (demand.structure == "woven")))
    for family, window in demand.stretch.ruled_out.items():
        finding = comparison.against_window(Rule.MOST_STRETCH, window, Asker.ENVELOPE)
        findings.append(finding.only(comparison.of_family(family)).passed(comparison.by_construction(window.quantity)))
    return findings


def _concerned(comparison: Comparison) -> Mask | bool:
    """Whom a least stretch concerns: knits, and the wovens of a pattern that is for wovens alone."""
    cloths, structure = comparison.cloths, comparison.demand.structure
    return cloths.knit if structure != "woven" else True


def _structure(comparison: Comparison) -> Finding:
    """Woven or knit, as the pattern wants it."""
    demand, cloths = comparison.demand, comparison.cloths
    stranger: Mask | bool = False
    for structure in demand.interpretation.avoid_structures:
        stranger = stranger | comparison.of_family(structure)
    free = demand.made.fit == "free" and not demand.made.band
    verdict: Any = SUITS
    if demand.structure == "woven":
        verdict = where(cloths.knit, _knit_in_woven(comparison), verdict)
        if free:
            verdict = minimum(verdict, WITH_CARE)
    elif not free:
        # A loose part may be made in a woven if it still goes over shoulders and hips; a close one cannot be got into.
        loose = demand.made.fit == "loose" and not demand.made.band
        if demand.structure == "knit":
            verdict = where(cloths.knit, verdict, WITH_CARE if loose else AGAINST)
        verdict = where(stranger, AGAINST, verdict)
    if demand.made.by_itself and not (demand.made.around or demand.made.band):
        verdict = minimum(verdict, WITH_CARE)  # a yoke, a panel: it lies on the body, and does not go round it
    finding = comparison.flat(Rule.STRUCTURE, where(comparison.named, SUITS, verdict), Asker.PATTERN)
    return finding.at_most(cloths.guessed, UNPROVEN)


def _knit_in_woven(comparison: Comparison) -> Mask:
    """A knit in a pattern for wovens: with care when stable, against when it stretches further."""
    cloths, rule = comparison.cloths, comparison.rules.knit_in_woven
    limit = rule.stable_stretch_pct
    firm = cloths.stretch_cross.known >= STATED
    most = limit + rule.measured_slack_pct + 1e-9
    by_number = where(cloths.stretch_cross.best <= most, WITH_CARE, AGAINST)
    by_share = compare(cloths.stretch_cross, Window(high=limit), comparison.rules.shares).verdict
    stable = comparison.of_types(comparison.demand.stable) & (cloths.stretch_cross.known == TYPICAL)
    guessed = where(stable, WITH_CARE, maximum(by_share, WITH_CARE))
    found: Mask = where(firm, by_number, guessed)
    return found


def _least(comparison: Comparison, concerned: Mask | bool) -> list[Finding]:
    """What must stretch at least: as the envelope says, as its knits do, as its finished measurements need."""
    demand = comparison.demand
    findings = []
    if demand.stretch.least_across:
        finding = comparison.against_window(Rule.LEAST_STRETCH, demand.stretch.least_across, Asker.PATTERN)
        # What is named and never measured is not refused by what is typical of it: crepe jersey asked at 25 %, usual 10 to 30.
        finding = finding.at_most(comparison.named & (comparison.cloths.stretch_cross.known == TYPICAL), UNPROVEN)
        findings.append(_turned(comparison, finding, demand.stretch.least_across))
    if demand.stretch.least_along:
        findings.append(comparison.against_window(Rule.LEAST_STRETCH_ALONG, demand.stretch.least_along, Asker.PATTERN))
    if demand.stretch.of_the_knits_named:
        findings.append(comparison.against_window(Rule.STRETCH_OF_LIST, demand.stretch.of_the_knits_named, Asker.KNITS_NAMED))
    if demand.stretch.by_ease:
        findings.append(comparison.against_window(Rule.STRETCH_BY_EASE, demand.stretch.by_ease, Asker.EASE))
        if demand.stretch.least_across is None:
            findings.append(_recovery(comparison, Asker.EASE))
    findings = [finding.only(concerned) for finding in findings]
    return findings if demand.made.around else [finding.at_most(True) for finding in findings]


def _turned(comparison: Comparison, finding: Finding, window: Window) -> Finding:
    """Stretch that lies along the cloth can be turned round the body, unless print or nap forbid it."""
    cloths, along = comparison.cloths, comparison.cloths.stretch_length
    can = (along.known >= STATED) & (along.best >= window.low) & (cloths.direction != ONE_WAY) & negated(cloths.nap)
    return finding.at_most(can)


def _by_detail(comparison: Comparison, detail: Detail, concerned: Mask | bool) -> list[Finding]:
    findings = []
    if Role.BAND in detail.roles and comparison.demand.structure == "either":
        return []  # a pattern that may be woven has its bands of something else
    mask = comparison.applies(detail) & concerned
    if detail.stretch_lo_pct and not comparison.demand.stretch.least_across:
        window = _detail_window(comparison, detail, f"stretch {detail.name}", comparison.rules.tolerance.stretch)
        finding = comparison.against_window(Rule.STRETCH_DETAIL, window, Asker.DETAIL, detail)
        findings.append(finding.only(mask).at_most(comparison.named))
    if detail.recovers:
        findings.append(replace(_recovery(comparison, Asker.DETAIL), detail=detail).only(mask))
    return findings


def _band(comparison: Comparison, detail: Detail) -> Finding:
    """Bands and cuffs are cut short and stretched on."""
    if comparison.demand.made.loose_body:
        detail = replace(detail, stretch_lo_pct=comparison.rules.words.loose_band_least_pct)
    window = _detail_window(comparison, detail, "stretch of a band", comparison.rules.words.band_tolerance)
    return comparison.against_window(Rule.BAND, window, Asker.BAND).only(comparison.cloths.knit)


def _detail_window(comparison: Comparison, detail: Detail, name: str, tolerance: float) -> Window:
    least = detail.stretch_lo_pct or 0.0
    window = Window(
        low=least,
        tolerance_low=least * tolerance,
        sources=(detail.name,),
        name=name,
        low_from=of_detail(detail, "stretch_lo_pct", least),
        quantity=Quantity.STRETCH_ACROSS,
    )
    return comparison.demand.fixed(window)


def _recovery(comparison: Comparison, asker: Asker) -> Finding:
    """Recovery measured, or guessed from elastane and knit structure."""
    cloths, rule = comparison.cloths, comparison.rules.recovery
    recovers = cloths.recovery.best
    by_number = where(recovers >= rule.good_pct, SUITS, where(recovers >= rule.least_pct, WITH_CARE, AGAINST))
    slack = (cloths.elastane.high < NO_ELASTANE) & negated(cloths.double_knit) & cloths.knit
    guessed = where(slack, WITH_CARE, SUITS)
    guessed = where(comparison.named & (asker is Asker.DETAIL), SUITS, guessed)  # the designer has made it up in that
    return comparison.flat(Rule.RECOVERY, where(is_number(recovers), by_number, guessed), asker)
