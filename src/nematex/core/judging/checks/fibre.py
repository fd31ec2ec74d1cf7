"""What the cloth is: named or ruled out on the list, its fibres, its press, its print.

Common practice, no source.
"""

from __future__ import annotations

from nematex.core.cloth.columns import ONE_WAY, SET_ASIDE
from nematex.core.judging.checks.finding import Asker, Comparison, Finding, Rule
from nematex.core.judging.checks.kin import like_none
from nematex.core.judging.checks.likeness import check_likeness
from nematex.core.judging.verdict import AGAINST, SUITS, UNPROVEN, WITH_CARE, Verdict, Window, compare
from nematex.core.quantity.arrays import Mask
from nematex.core.quantity.elementwise import maximum, negated, one_of, where
from nematex.core.rules.comparing import Shares
from nematex.core.tables import Detail, Role

ALL_OF_IT = Shares(0.999, 0.999, 0.001)  # a share of fibre is inside or out: a label leaves no range to weigh
PRESSES_WELL = 2  # of 0 to 3, what "must take a press" asks
LABEL_ROUNDING = 0.005  # labels are in whole percent


def check_fibre(comparison: Comparison) -> list[Finding]:
    """Findings on name, fibre, press and print."""
    findings = [
        _on_list(comparison),
        _unsettled(comparison),
        _ruled_out(comparison),
        _condition(comparison),
        _use(comparison),
        *_flame(comparison),
    ]
    findings += _by_fibre(comparison)
    for detail in comparison.demand.made.all_details:
        if detail.press_min is not None:
            findings.append(_press_of_detail(comparison, detail, detail.press_min))
        if detail.refuses and not (detail.unless and comparison.demand.made.has(detail.unless)):
            findings.append(_refused(comparison, detail))
    if comparison.demand.interpretation.presses:
        findings.append(comparison.flat(Rule.PRESS, _press(comparison, PRESSES_WELL), Asker.ENVELOPE))
    findings.append(_print(comparison))
    kin = like_none(comparison)
    return [*findings, *([] if kin is None else [kin]), *check_likeness(comparison)]


def _flame(comparison: Comparison) -> list[Finding]:
    """A child's safety before all: brushed, pile or sheer cloth to sleep in burns fast, whatever the list names."""
    pattern, cloths = comparison.demand.pattern, comparison.cloths
    if not (pattern.nightwear and pattern.wearer == "child"):
        return []
    quick = cloths.nap | (cloths.sheer.low >= comparison.rules.cover.nothing_beneath_from)
    return [comparison.flat(Rule.FLAME, where(quick, WITH_CARE, SUITS))]


def _by_fibre(comparison: Comparison) -> list[Finding]:
    interpretation, findings = comparison.demand.interpretation, []
    if interpretation.natural:
        findings.append(_natural(comparison))
    if interpretation.avoid_fibres or (interpretation.fibres and not comparison.demand.has_list):
        findings.append(_fibre_names(comparison))
    if any(detail.breathes for detail in comparison.demand.made.all_details):
        findings.append(_breathes(comparison))
    return findings


def _on_list(comparison: Comparison) -> Finding:
    """By the list, a cloth that is not named is with care at best; by the hand, only its handling counts."""
    demand = comparison.demand
    strict = demand.wish.school == "list" and demand.has_list
    return comparison.flat(Rule.ON_LIST, where(strict & negated(comparison.named), WITH_CARE, SUITS), Asker.LIST)


def _unsettled(comparison: Comparison) -> Finding:
    """What is said of the cloth cannot all be so: nothing is proven by it."""
    return comparison.flat(Rule.UNSETTLED, where(comparison.cloths.unsettled, UNPROVEN, SUITS))


def _ruled_out(comparison: Comparison) -> Finding:
    out = comparison.of_types(comparison.demand.excluded)
    return comparison.flat(Rule.RULED_OUT, where(out, AGAINST, SUITS))


def _condition(comparison: Comparison) -> Finding:
    broken = comparison.of_types(comparison.demand.conditional)
    share = comparison.cloths.elastane
    for asked in dict.fromkeys(comparison.demand.elastane.values()):
        meant = comparison.of_types(at for at, each in comparison.demand.elastane.items() if each == asked)
        outside = (share.low > asked.high / 100 + LABEL_ROUNDING) | (share.high < asked.low / 100 - LABEL_ROUNDING)
        broken = broken | (meant & outside)
    return comparison.flat(Rule.CONDITION, where(broken, WITH_CARE, SUITS))


def _use(comparison: Comparison) -> Finding:
    """Linings, furnishing cloth and trims are for something else, unless the list names them."""
    other = comparison.cloths.used_for(*SET_ASIDE) & negated(comparison.named) & negated(comparison.welcome)
    return comparison.flat(Rule.USE, where(other & (not comparison.demand.made.band), WITH_CARE, SUITS))


def _natural(comparison: Comparison) -> Finding:
    """Natural fibres asked: cotton, linen, hemp, wool, silk suit; regenerated ones with care; synthetics not."""
    asked = Window(low=comparison.rules.fibre.natural_suits)
    natural = compare(comparison.cloths.natural, asked, ALL_OF_IT).verdict
    breathing = compare(comparison.cloths.breathing, asked, ALL_OF_IT).verdict
    verdict = where(natural == SUITS, SUITS, maximum(breathing, WITH_CARE))
    unproven = (natural == UNPROVEN) & (breathing == UNPROVEN)
    finding = comparison.flat(Rule.NATURAL, where(unproven, UNPROVEN, verdict))
    return finding.at_most(comparison.named & (verdict == WITH_CARE), SUITS)  # "natural fibres are best", and viscose named


def _fibre_names(comparison: Comparison) -> Finding:
    """Fibres that the envelope rules out or asks for by their bare names."""
    interpretation = comparison.demand.interpretation
    out = _holds(comparison, interpretation.avoid_fibres) if interpretation.avoid_fibres else False
    verdict = where(out & negated(comparison.named), AGAINST, SUITS)
    if interpretation.fibres and not comparison.demand.has_list:
        verdict = where(_holds(comparison, interpretation.fibres), verdict, maximum(verdict, WITH_CARE))
    return comparison.flat(Rule.FIBRE_NAMES, verdict)


def _holds(comparison: Comparison, names: list[str]) -> Mask:
    """By the label what it is mainly of, else where every usual blend of its kind has one of them."""
    types, place, asked = comparison.tables.lexicon.types, comparison.tables.fibres.place, set(names)
    by_kind = comparison.of_types(
        [at for at, row in enumerate(types) if row.all_fibres & asked and all(set(blend) & asked for blend in row.fibres)]
    )
    labelled = comparison.cloths.main_fibre
    held: Mask = where(labelled >= 0, one_of(labelled, [place[name] for name in names if name in place]), by_kind)
    return held


def _breathes(comparison: Comparison) -> Finding:
    """What is slept in should breathe; where it does not, it is with care."""
    compared = compare(comparison.cloths.breathing, Window(low=comparison.rules.fibre.mostly), ALL_OF_IT).verdict
    return comparison.flat(Rule.BREATHES, where(compared == AGAINST, WITH_CARE, compared))


def _press(comparison: Comparison, least: int) -> Mask:
    """How well it takes a press, 0 to 3: one step short is with care, two are against."""
    press = comparison.cloths.press
    one_short = where((press.high < least) | (press.low >= least - 1), WITH_CARE, UNPROVEN)
    found: Mask = where(press.low >= least, SUITS, where(press.high < least - 1, AGAINST, one_short))
    return found


def _press_of_detail(comparison: Comparison, detail: Detail, least: int) -> Finding:
    finding = comparison.flat(Rule.PRESS, _press(comparison, least), Asker.DETAIL, detail).at_most(comparison.named)
    if comparison.demand.outranks(detail):
        finding = finding.at_most(comparison.by_name & comparison.as_its_name, SUITS)  # another label says more than a name
    if detail.press_worst:
        finding = finding.at_most(True, Verdict.from_word(detail.press_worst))
    return finding.only(comparison.applies(detail))


def _refused(comparison: Comparison, detail: Detail) -> Finding:
    index = comparison.tables.lexicon.index
    out = comparison.of_types(index[name] for name in detail.refuses)
    finding = comparison.flat(Rule.REFUSED, where(out, AGAINST, SUITS), Asker.DETAIL, detail)
    finding = finding.at_most(comparison.named)
    return finding.at_most(comparison.alone, SUITS) if comparison.demand.outranks(detail) else finding


def _print(comparison: Comparison) -> Finding:
    """Prints and naps that the envelope rules out, and a large one-way print on the bias."""
    cloths, avoid = comparison.cloths, comparison.demand.interpretation.avoid_prints
    one_way, large = cloths.direction == ONE_WAY, cloths.print_scale_cm >= comparison.rules.print.large_cm
    out: Mask | bool = False
    for what, mask in (("one-way", one_way), ("nap", cloths.nap), ("large", large)):
        if what in avoid:
            out = out | mask
    crooked = one_way & large & any(Role.BIAS in detail.roles for detail in comparison.demand.made.details)
    return comparison.flat(Rule.PRINT, where(out, AGAINST, where(crooked, WITH_CARE, SUITS)))
