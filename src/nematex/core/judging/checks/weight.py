"""Weight in g/m²: the list's span and weight words, an explicit number, the details, bulk, and cover.

Common practice, no source.
"""

from __future__ import annotations

from functools import partial
from math import inf

from nematex.core.judging.checks.finding import Asker, Comparison, Finding, Rule, of_detail
from nematex.core.judging.list_windows import weight_word_window
from nematex.core.judging.verdict import AGAINST, SUITS, WITH_CARE, Window
from nematex.core.quantity.arrays import Mask
from nematex.core.quantity.elementwise import maximum, negated, where
from nematex.core.quantity.estimate import STATED, TYPICAL
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Detail, Role


def check_weight(comparison: Comparison) -> list[Finding]:
    """Findings on weight, bulk and cover."""
    demand = comparison.demand
    findings = [] if demand.made.band else _by_list(comparison)
    for family, window in demand.weight_by_number.items():
        finding = comparison.against_window(Rule.WEIGHT_NUMBER, window, Asker.ENVELOPE)
        findings.append(finding.only(comparison.of_family(family)))
    details = list(demand.made.details)
    if not demand.weight and not demand.weight_by_number:
        details += demand.made.implied
    for detail in details:
        findings += _by_detail(comparison, detail)
    findings.append(_cover(comparison))
    if not any(finding.window for finding in findings):
        findings.insert(0, comparison.flat(Rule.WEIGHT_UNASKED))
    return findings


def _by_list(comparison: Comparison) -> list[Finding]:
    """The span of the list and its weight words, for the cloth's own structure."""
    demand, cloths = comparison.demand, comparison.cloths
    findings = []
    for structure, mask in (("woven", negated(cloths.knit)), ("knit", cloths.knit)):
        window = demand.window(demand.weight, structure)
        if window:
            finding = comparison.against_window(Rule.WEIGHT_LIST, window, Asker.LIST)
            finding = _light_sheers(comparison, finding).only(mask)
            finding = finding.at_most(comparison.of_types(demand.meant) & (cloths.weight.known == TYPICAL))
            findings.append(finding.at_most(comparison.welcome | (not demand.owes_the_list)))
            findings += _by_word(comparison, structure, mask)
    return findings


def _by_word(comparison: Comparison, structure: str, mask: Mask) -> list[Finding]:
    """What the list's weight word leaves to a cloth that it does not name: the extremes of what it names are their own."""
    demand = comparison.demand
    if demand.wish.school == "hand" or not demand.owes_the_list:
        return []
    window = demand.once(("weight word", structure), partial(_word_window, comparison, structure))
    if window is None:
        return []
    finding = comparison.against_window(Rule.WEIGHT_LIST, demand.fixed(window), Asker.LIST)
    return [finding.at_most(True).only(mask & negated(comparison.named) & negated(comparison.welcome))]


def _word_window(comparison: Comparison, structure: str) -> Window | None:
    """What the word leaves; None where the list's own cloths lie beyond it: then the word is not meant so."""
    types = comparison.tables.lexicon.types
    named = [types[at] for at in comparison.demand.named if (types[at].structure == "knit") == (structure == "knit")]
    window = weight_word_window(structure, comparison.demand.interpretation, comparison.tables)
    return window if window and all(window.low <= kind.weight_gsm.middle <= window.high for kind in named) else None


def _light_sheers(comparison: Comparison, finding: Finding) -> Finding:
    """Gathered or billowing, a crisp sheer may be as light as it likes, and on a free part any sheer."""
    cloths, made = comparison.cloths, comparison.demand.made
    if not any(detail.light_sheers for detail in made.details):
        return finding
    rule = comparison.rules.sheers
    crisp = (cloths.bending_length.best >= rule.crisp_cm) | (made.fit == "free")
    light = cloths.weight.best <= (finding.window.high if finding.window else inf)
    return finding.at_most((cloths.sheer.low >= rule.from_level) & crisp & light, SUITS)


def _by_detail(comparison: Comparison, detail: Detail) -> list[Finding]:
    """Weight and bulk limits of one detail; a cloth named on the list loses at most to 'with care'."""
    knit = comparison.cloths.knit
    by_bulk = (comparison.cloths.thickness.known >= STATED) & (detail.thick_hi_mm is not None)
    findings = []
    for structure, mask in (("woven", negated(knit)), ("knit", knit)):
        asked = partial(_detail_window, comparison, detail, structure)
        window = comparison.demand.once(("weight", detail.name, structure), asked)
        if window:
            finding = comparison.against_window(Rule.WEIGHT_DETAIL, window, Asker.DETAIL, detail)
            findings.append(finding.only(comparison.applies(detail) & mask & negated(by_bulk)))
    if detail.thick_hi_mm is not None:
        findings.append(_bulk(comparison, detail, detail.thick_hi_mm))
    masks = {kind: comparison.by_construction(kind, detail) for kind in (Quantity.WEIGHT, Quantity.THICKNESS)}
    return [finding.passed(masks[finding.window.quantity]) for finding in findings if finding.window]


def _detail_window(comparison: Comparison, detail: Detail, structure: str) -> Window | None:
    """What a detail asks of the weight of a woven or a knit; None where it asks nothing of it."""
    if detail.structure not in ("any", structure):
        return None
    lifted = bool(detail.unless) and comparison.demand.made.has(detail.unless)
    low = 0.0 if lifted or detail.weight_lo_gsm is None else detail.weight_lo_gsm
    own_top = structure == "knit" and detail.knit_weight_hi_gsm
    high, field = (detail.knit_weight_hi_gsm, "knit_weight_hi_gsm") if own_top else (detail.weight_hi_gsm, "weight_hi_gsm")
    if not low and high is None:
        return None
    share = comparison.rules.tolerance.weight
    window = Window(
        low,
        inf if high is None else high,
        low * share,
        0.0 if high is None else high * share,
        (detail.name,),
        f"weight {detail.name} {structure}",
        of_detail(detail, "weight_lo_gsm", low or None),
        of_detail(detail, field, high),
        Quantity.WEIGHT,
    )
    return comparison.demand.opened(window, structure, detail)


def _bulk(comparison: Comparison, detail: Detail, limit_mm: float) -> Finding:
    asked = comparison.demand.once(("bulk", detail.name), partial(_bulk_window, comparison, detail, limit_mm))
    finding = comparison.against_window(Rule.BULK, asked, Asker.DETAIL, detail)
    guessed = comparison.cloths.thickness.known < STATED
    return finding.only(comparison.applies(detail)).at_most(guessed)


def _bulk_window(comparison: Comparison, detail: Detail, limit_mm: float) -> Window:
    window = Window(
        high=limit_mm,
        tolerance_high=limit_mm * comparison.rules.tolerance.thickness,
        sources=(detail.name,),
        name=f"bulk {detail.name}",
        high_from=of_detail(detail, "thick_hi_mm", limit_mm),
        quantity=Quantity.THICKNESS,
    )
    return comparison.demand.fixed(window)


def _cover(comparison: Comparison) -> Finding:
    """What shows through, by the place it is worn and by what is worn beneath.

    Over other clothes, on a free part or lined it may be as sheer as it likes. Legs: sheer is against, as nothing goes
    beneath them, and slightly sheer with care; so is it for a skirt without fullness. Over the body sheer is with care. A
    cloth that the list names is known to be as sheer as its kind usually is.
    """
    demand, sheer = comparison.demand, comparison.cloths.sheer
    made, rule = demand.made, comparison.rules.cover
    unlined = not (demand.pattern.lined or made.over or made.by_itself or made.fit == "free")
    full = any(Role.FULL in detail.roles for detail in made.details)
    close = (
        unlined
        and (made.below_waist or made.bifurcated)
        and not full
        and not any(detail.breathes for detail in made.all_details)
    )
    legs = made.bifurcated and not demand.pattern.lined and made.fit != "free"
    sheer_for_sure = sheer.low >= rule.nothing_beneath_from
    against = where((legs | demand.interpretation.avoid_sheer) & sheer_for_sure, AGAINST, SUITS)
    shows = (sheer.best >= rule.nothing_beneath_from) | (close & (sheer.low >= rule.caution_from))
    expected = comparison.named & (sheer.known == TYPICAL) & (not made.bifurcated) & (sheer.low < rule.see_through)
    finding = comparison.flat(Rule.COVER, maximum(against, where(unlined & shows, WITH_CARE, SUITS)))
    return finding.at_most(comparison.named).at_most(expected, SUITS)
