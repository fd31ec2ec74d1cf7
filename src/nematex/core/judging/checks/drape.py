"""Drape as bending length in cm: the list's span and hand words, the details, the look.

Common practice, no source: softer than the list is with care, unless a detail needs body; stiffer is worse sooner.
"""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from math import inf

from nematex.core.judging.checks.finding import Asker, Comparison, Finding, Rule, of_detail
from nematex.core.judging.demand import FAMILIES
from nematex.core.judging.list_windows import bend_window
from nematex.core.judging.verdict import SUITS, WITH_CARE, Window
from nematex.core.quantity.arrays import Mask
from nematex.core.quantity.elementwise import negated, where
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Detail, Role


def check_drape(comparison: Comparison) -> list[Finding]:
    """Findings on drape."""
    demand = comparison.demand
    made = demand.made
    # A full sleeve billows in fluid cloth and stands in crisp cloth: both are right, whatever the list says.
    unbound = made.band or (made.fit == "free" and any(detail.frees_the_drape for detail in made.details))
    findings = [] if unbound else _by_list(comparison)
    for family, window in demand.bending_length_by_word.items():
        finding = comparison.against_window(Rule.DRAPE_RULED_OUT, window, Asker.WORDS)
        findings.append(finding.only(comparison.of_family(family)))
    for detail in (*made.details, *(() if demand.bending_length else made.implied)):
        findings += _by_detail(comparison, detail)
    findings += [*_faced(comparison), *_against_the_look(comparison)]
    return findings or [comparison.flat(Rule.DRAPE_UNASKED)]


def _faced(comparison: Comparison) -> list[Finding]:
    """A shaped facing grows in fluid cloth, and any facing in a gauze: with care, stay-stitch it."""
    made, cloths = comparison.demand.made, comparison.cloths
    facing = next((detail for detail in made.details if Role.FACED in detail.roles), None)
    if facing is None:
        return []
    loose = comparison.of_types(
        at for at, kind in enumerate(comparison.tables.lexicon.types) if kind.family in comparison.rules.facing.loose
    )
    fluid = cloths.bending_length.best < comparison.rules.facing.grows_below_cm
    grows = loose | (fluid & any(Role.SHAPED in detail.roles for detail in made.details))
    return [comparison.flat(Rule.FACING, where(grows, WITH_CARE, SUITS), Asker.DETAIL, facing)]


def _against_the_look(comparison: Comparison) -> list[Finding]:
    """What only falls is no cloth for a structured look, and what only stands none for a flowing one."""
    demand, bend = comparison.demand, comparison.cloths.bending_length.best
    look = comparison.rules.look[demand.wish.look]
    if demand.made.band or demand.made.by_itself or demand.wish.look == "balanced":
        return []
    against = (bend < look.least_cm) | ((bend > look.most_cm) & negated(comparison.named))
    return [comparison.flat(Rule.LOOK, where(against, WITH_CARE, SUITS))]


def _by_list(comparison: Comparison) -> list[Finding]:
    demand, cloths = comparison.demand, comparison.cloths
    findings = []
    for structure, mask in (("woven", negated(cloths.knit)), ("knit", cloths.knit)):
        window = demand.once(("drape list", structure), partial(_list_window, comparison, structure))
        if window:
            finding = comparison.against_window(Rule.DRAPE_LIST, window, Asker.LIST).only(mask)
            finding = finding.passed(comparison.by_construction(Quantity.BENDING_LENGTH))
            findings.append(finding.at_most((not demand.owes_the_list) | comparison.welcome))
            findings += _by_words(comparison, structure, mask)
    return findings


def _by_words(comparison: Comparison, structure: str, mask: Mask) -> list[Finding]:
    """'With drape: challis, light linen': the linen is welcome as it is, and what is not named has to have the drape."""
    demand, read = comparison.demand, comparison.demand.interpretation
    asked = read.hands and demand.named and demand.owes_the_list and structure in demand.bending_length
    if not asked or demand.wish.school == "hand":
        return []
    said = demand.once(("hand words", structure), lambda: bend_window(structure, [], read, comparison.tables))
    if said is None:
        return []
    window = demand.fixed(replace(said, name=f"drape words {structure}"))
    meant = comparison.named | comparison.of_types(demand.meant)
    finding = comparison.against_window(Rule.DRAPE_LIST, window, Asker.WORDS).only(mask)
    return [finding.at_most(meant | comparison.welcome, SUITS).at_most(True)]


def _list_window(comparison: Comparison, structure: str) -> Window | None:
    """What the list asks of the drape of a woven or a knit."""
    window = comparison.demand.window(comparison.demand.bending_length, structure)
    return window and _flowing(comparison, _with_body(comparison, window, structure))


def _detail_windows(comparison: Comparison, detail: Detail) -> dict[str, Window]:
    """What one detail asks, opened to what the designer names for a woven and for a knit."""
    window, demand = _detail_window(comparison, detail), comparison.demand
    if window is None:
        return {}
    families = FAMILIES if detail.structure == "any" else (detail.structure,)
    windows = {family: demand.opened(window, family, detail) for family in families}
    if len(set(windows.values())) == 1:
        windows = {"" if len(families) > 1 else families[0]: windows[families[0]]}
    elif len(families) > 1:
        windows = {family: replace(each, name=f"{each.name} {family}") for family, each in windows.items()}
    return {family: demand.fixed(each) for family, each in windows.items()}


def _by_detail(comparison: Comparison, detail: Detail) -> list[Finding]:
    windows = comparison.demand.once(("drape", detail.name), partial(_detail_windows, comparison, detail))
    found = []
    for family, each in windows.items():
        finding = comparison.against_window(Rule.DRAPE_DETAIL, each, Asker.DETAIL, detail)
        masks = comparison.by_construction(Quantity.BENDING_LENGTH, detail)
        found.append(finding.only(comparison.of_family(family)).passed(masks))
    return found


def _with_body(comparison: Comparison, window: Window, structure: str) -> Window:
    """Where a detail needs body, softer is forgiven no longer than stiffer."""
    details = comparison.demand.made.all_details
    if any(detail.needs_body and detail.structure in ("any", structure) for detail in details):
        return replace(window, tolerance_low=comparison.rules.tolerance.drape_cm)
    return window


def _flowing(comparison: Comparison, window: Window) -> Window:
    """Where the look is to flow, a detail may let the list's lower edge down."""
    demand = comparison.demand
    lows = [(detail.flowing_bend_lo_cm, detail) for detail in demand.made.details if detail.flowing_bend_lo_cm is not None]
    if not lows or demand.wish.look != "flowing":
        return window
    low, detail = min(lows, key=lambda each: each[0])
    if low >= window.low:
        return window
    return replace(window, low=low, low_from=of_detail(detail, "flowing_bend_lo_cm", low))


def _detail_window(comparison: Comparison, detail: Detail) -> Window | None:
    tolerance = comparison.rules.tolerance.drape_cm
    low, field, low_tolerance = detail.bend_lo_cm, "bend_lo_cm", detail.bend_lo_tolerance_cm or tolerance
    if comparison.demand.wish.look == "flowing" and detail.flowing_bend_lo_cm is not None:
        low, low_tolerance = detail.flowing_bend_lo_cm, tolerance
        field = "bend_lo_cm" if low == detail.bend_lo_cm else "flowing_bend_lo_cm"
    if low is None and detail.bend_hi_cm is None:
        return None
    stands = comparison.rules.look[comparison.demand.wish.look].stands_cm  # a look may let it stand off a little more
    return Window(
        low or 0.0,
        inf if detail.bend_hi_cm is None else detail.bend_hi_cm + stands,
        low_tolerance,
        tolerance,
        (detail.name,),
        f"drape {detail.name}",
        of_detail(detail, field, low),
        of_detail(detail, "bend_hi_cm", detail.bend_hi_cm),
        Quantity.BENDING_LENGTH,
    )
