"""Which case of a rule a finding is: rule by rule, by verdict and side. The words for each stand in data/sayings."""

from __future__ import annotations

from collections.abc import Callable

from nematex.core.judging.checks.finding import Rule
from nematex.core.judging.saying.moment import Moment
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.kinds import Quantity

Case = Callable[[Moment], str]  # "" where there is nothing to say
SUITS, WITH_CARE, UNPROVEN, AGAINST = Verdict.SUITS, Verdict.WITH_CARE, Verdict.UNPROVEN, Verdict.AGAINST

KNIT_IN_WOVEN = {SUITS: "knit_named", WITH_CARE: "knit_stable", UNPROVEN: "knit_unproven", AGAINST: "knit_against"}


def _by_verdict(moment: Moment) -> str:
    return moment.verdict.name.lower()


def _unless_well(moment: Moment) -> str:
    return "" if moment.verdict is SUITS else _by_verdict(moment)


def _or_fails(moment: Moment) -> str:
    return "suits" if moment.verdict is SUITS else "fails"


def _on_list(moment: Moment) -> str:
    cloth, demand = moment.cloth, moment.demand
    if moment.verdict is not SUITS:
        return "unlisted"
    if cloth.type and moment.tables.lexicon.index[cloth.type.name] in demand.named:
        return "named"
    return "like" if demand.has_list else "unasked"


def _unlike(moment: Moment) -> str:
    """In which sense it is unlike the nearest of the cloths named: surface, then use, then what is left."""
    if moment.verdict is SUITS:
        return ""
    if moment.cloth.type is None:
        return "unnamed"
    own, kin = moment.cloth.type, moment.nearest_named()
    return "surface" if own.surface != kin.surface else "numbers" if own.end_uses & kin.end_uses else "use"


def _use(moment: Moment) -> str:
    return moment.cloth.type.use if moment.cloth.type and moment.verdict is not SUITS else ""


def _press(moment: Moment) -> str:
    return {SUITS: "suits", UNPROVEN: "unproven"}.get(moment.verdict, "fails")


def _cover(moment: Moment) -> str:
    if moment.verdict is SUITS:
        return ""
    if moment.verdict is WITH_CARE and not (moment.demand.made.below_waist or moment.demand.made.bifurcated):
        return "over_the_body"
    if moment.demand.interpretation.avoid_sheer:
        return "ruled_out"
    return "bare" if moment.verdict is AGAINST else "close"


def _by_side(more: str, less: str) -> Case:
    """Inside, on the edge, or beyond one of the sides, a little or too far."""

    def case(moment: Moment) -> str:
        best, window = moment.estimate().best, moment.window
        if moment.verdict in (SUITS, UNPROVEN):
            return _by_verdict(moment)
        if window.low <= best <= window.high and (moment.verdict is WITH_CARE or window.quantity is Quantity.BENDING_LENGTH):
            return "edge"
        lead = "a_little" if moment.verdict is WITH_CARE else "too"
        return f"{lead}_{more if best > window.high else less}"

    return case


def _against_look(moment: Moment) -> str:
    return "" if moment.verdict is SUITS else moment.demand.wish.look


def _structure(moment: Moment) -> str:
    knit, wanted = moment.cloth.structure == "knit", moment.demand.structure
    if knit and wanted == "woven":
        return KNIT_IN_WOVEN[moment.verdict]
    if not knit and wanted == "knit":
        return _woven_in_knit(moment)
    if moment.verdict is AGAINST:
        return "ruled_out"
    comfort = moment.tables.judging.fibre.comfort_stretch_pct.low
    return "comfort" if not knit and moment.cloth.stretch_cross.best >= comfort else "fits"


def _woven_in_knit(moment: Moment) -> str:
    made = moment.demand.made
    if moment.verdict is SUITS:
        return "woven_free" if made.fit == "free" and not made.band else "woven_named"
    return "woven_loose" if moment.verdict is WITH_CARE else "woven_against"


def _stretch(moment: Moment) -> str:
    best, window = moment.estimate().best, moment.window
    if moment.verdict in (SUITS, UNPROVEN):
        return _by_verdict(moment)
    if best > window.high:
        return "too_much"
    turned = moment.finding.rule is Rule.LEAST_STRETCH and moment.cloth.stretch_length.best >= window.low > best
    if moment.verdict is WITH_CARE:
        return "turned" if turned else "barely"
    return "too_little"


def _recovery(moment: Moment) -> str:
    if moment.verdict is SUITS:
        return ""
    return "measured" if moment.cloth.recovery else "guessed"


_WEIGHT, _DRAPE = _by_side("heavy", "light"), _by_side("stiff", "soft")

# Rule → the room of the table its words stand in, and how the case is chosen.
CASES: dict[Rule, tuple[str, Case]] = {
    Rule.ON_LIST: ("on_list", _on_list),
    Rule.UNSETTLED: ("unsettled", _unless_well),
    Rule.RULED_OUT: ("ruled_out", _unless_well),
    Rule.CONDITION: ("condition", _unless_well),
    Rule.USE: ("use", _use),
    Rule.NATURAL: ("natural", _by_verdict),
    Rule.FIBRE_NAMES: ("fibre_names", _unless_well),
    Rule.BREATHES: ("breathes", _by_verdict),
    Rule.FLAME: ("flame", _unless_well),
    Rule.PRESS: ("press", _press),
    Rule.REFUSED: ("refused", _unless_well),
    Rule.PRINT: ("print", _unless_well),
    Rule.LIKE_NONE: ("like_none", _unless_well),
    Rule.UNLIKE: ("unlike", _unlike),
    Rule.FOREIGN: ("foreign", _unless_well),
    Rule.WEIGHT_LIST: ("weight", _WEIGHT),
    Rule.WEIGHT_NUMBER: ("weight", _WEIGHT),
    Rule.WEIGHT_DETAIL: ("weight", _WEIGHT),
    Rule.WEIGHT_UNASKED: ("weight", lambda _: "unasked"),
    Rule.BULK: ("bulk", _or_fails),
    Rule.COVER: ("cover", _cover),
    Rule.DRAPE_LIST: ("drape", _DRAPE),
    Rule.DRAPE_RULED_OUT: ("drape", _DRAPE),
    Rule.DRAPE_DETAIL: ("drape", _DRAPE),
    Rule.FACING: ("facing", _unless_well),
    Rule.LOOK: ("look", _against_look),
    Rule.DRAPE_UNASKED: ("drape", lambda _: "unasked"),
    Rule.STRUCTURE: ("structure", _structure),
    Rule.LEAST_STRETCH: ("stretch", _stretch),
    Rule.LEAST_STRETCH_ALONG: ("stretch", _stretch),
    Rule.STRETCH_OF_LIST: ("stretch", _stretch),
    Rule.STRETCH_DETAIL: ("stretch", _stretch),
    Rule.BAND: ("stretch", _stretch),
    Rule.MOST_STRETCH: ("stretch", _stretch),
    Rule.STRETCH_BY_EASE: ("ease", _by_verdict),
    Rule.RECOVERY: ("recovery", _recovery),
    Rule.BAGS: ("bags", _unless_well),
    Rule.WIDEST_PIECE: ("widest_piece", _by_verdict),
    Rule.WIDTH_TABLE: ("width_table", _or_fails),
    Rule.WIDTH_DETAIL: ("width_detail", _or_fails),
    Rule.WIDTH_NUMBER: ("width_number", _or_fails),
    Rule.WIDTH_UNASKED: ("width", lambda _: "unasked"),
}
