"""What a presenter says of a pairing to a viewer: one sentence out of the same findings that the bench reads.

What decides comes first; then, where they are worth a word, whether it shows, what the wash takes, which way it lies.
Several sentences are offered, best first, so that a list need not say one twice.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from math import inf

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import SHEERNESS
from nematex.core.judging.checks.finding import Rule
from nematex.core.judging.demand import Demand
from nematex.core.judging.judge import CheckAnswer, gravest_first
from nematex.core.judging.saying.blanks import Blanks, is_many
from nematex.core.judging.saying.cases import CASES
from nematex.core.judging.saying.moment import Moment
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.estimate import Known
from nematex.core.quantity.said import Units
from nematex.core.tables import Detail, Tables

INCHES_PER_YARD = 36


class AloudBlanks(Blanks):
    """The blanks of a moment, with those that only a viewer hears."""

    def __getitem__(self, name: str) -> str:
        own = OWN.get(name)
        return own(self.moment) if own else super().__getitem__(name)


def _for_detail(moment: Moment) -> str:
    """' for the tiers', in the envelope's own words; ' for this dress' where no detail asked."""
    detail = moment.finding.detail
    if detail:
        return f" for the {moment.demand.made.said.get(detail.name, detail.name)}"
    garment = moment.demand.pattern.garment
    return f" for {'these' if is_many(garment) else 'this'} {garment}" if garment else ""


def _feel(moment: Moment) -> str:
    """'Soft and light to medium': the words of hand and weight that a cloth of these numbers bears."""
    cloth, tables = moment.cloth, moment.tables
    hands = {hand.word: hand for hand in tables.cloth_hands.values()}.values()
    bend, gsm = cloth.bending_length.best, cloth.weight.best
    hand = min(hands, key=lambda each: (not each.bend_cm.low <= bend <= each.bend_cm.high, abs(each.bend_cm.middle - bend)))
    knit = "knit" if cloth.structure == "knit" else "woven"
    words = [row for row in tables.weight_words if row.structure == knit and row.word not in ("very light", "light to heavy")]
    spans = {row.word: row.cloth_gsm for row in words}
    weight = min(spans, key=lambda word: (not spans[word].low <= gsm <= spans[word].high, abs(spans[word].middle - gsm)))
    word = {"moderate": "with some body"}.get(hand.word, hand.word)
    return (f"{weight} in weight, {word}" if "body" in word else f"{word} and {weight} in weight").capitalize()


def _shrinks(moment: Moment) -> str:
    """'7 cm in a metre', '2½ in in a yard'."""
    shrink = moment.cloth.shrink
    pct = shrink.best if shrink.known >= Known.STATED else shrink.high
    if moment.units is Units.METRIC:
        return f"{pct:.0f} cm in a metre"
    whole, half = divmod(round(2 * pct / 100 * INCHES_PER_YARD), 2)
    return f"{whole or ''}{'½' if half else ''} {'inch' if whole == 1 and not half else 'inches'} in a yard"


OWN: Mapping[str, Callable[[Moment], str]] = {
    "for_detail": _for_detail,
    "Feel": _feel,
    "shrinks": _shrinks,
}


def _say(moment: Moment, room: str, case: str) -> str:
    saying = moment.tables.sayings.cases.get(f"aloud_{room}", {}).get(case)
    return saying.reason.format_map(AloudBlanks(moment)) if saying else ""


def spoken(checks: Mapping[str, CheckAnswer], cloth: Cloth, demand: Demand, tables: Tables, of_cloth: bool = True) -> list[str]:
    """Sentences for one pairing, best first. `of_cloth`: whether what is true of the cloth itself is said as well."""
    ordered = [check for _, check in gravest_first(checks)]
    worst = ordered[0]
    leads = list(dict.fromkeys(filter(None, _leads(ordered, checks["drape"], demand, tables))))
    tails = list(_tails(worst, cloth, demand, tables)) if of_cloth and worst.verdict <= Verdict.WITH_CARE else []
    most = 2 if worst.verdict is Verdict.SUITS else 1
    return [_joined([lead, *tails[:most]]) for lead in leads]


def _leads(checks: Sequence[CheckAnswer], drape: CheckAnswer, demand: Demand, tables: Tables) -> Iterator[str]:
    """What decides, the gravest first; where all suits, what is good about it."""
    if checks[0].verdict is not Verdict.SUITS:
        for check in checks:
            if check.verdict is checks[0].verdict:
                room, case_of = CASES[check.decided.finding.rule]
                yield _say(check.decided, room, case_of(check.decided))
        return
    moment = drape.decided
    kind = moment.cloth.type
    place = tables.lexicon.index[kind.name] if kind else -1
    knit = moment.cloth.structure == "knit"
    for detail in demand.made.all_details:
        if detail.aloud and detail.structure in ("any", "knit" if knit else "woven") and _meets(moment.cloth, detail):
            yield detail.aloud
    if demand.wish.look != "balanced":
        yield _say(moment, "suits", demand.wish.look)
    if place in demand.named:
        yield _say(moment, "suits", "named")
    if demand.named and place not in demand.named:
        yield _say(moment, "suits", "like")
    if knit and demand.stretch.least_across:
        yield _say(moment, "suits", "gives")
    yield _say(moment, "suits", "feel" if demand.has_list or demand.made.all_details else "unasked")


def _meets(cloth: Cloth, detail: Detail) -> bool:
    """Whether the cloth is what the detail itself asks: one that suits because the list names it is not praised for it."""
    knit, weight, bend = cloth.structure == "knit", cloth.weight.best, cloth.bending_length.best
    most_gsm = detail.knit_weight_hi_gsm if knit and detail.knit_weight_hi_gsm else detail.weight_hi_gsm
    return (
        (detail.weight_lo_gsm or 0.0) <= weight <= (most_gsm or inf)
        and (detail.bend_lo_cm or 0.0) <= bend <= (detail.bend_hi_cm or inf)
        and cloth.stretch_cross.best >= (detail.stretch_lo_pct or 0.0)
        and cloth.press.low >= (detail.press_min or 0)
    )


def _tails(worst: CheckAnswer, cloth: Cloth, demand: Demand, tables: Tables) -> Iterator[str]:
    """What else a viewer has to know of the cloth, the weightiest first."""
    moment, rule = worst.decided, demand.made
    level = int(cloth.sheer.best)  # in doubt the less: a light ground is not called see-through
    opaque_for_sure = cloth.type is not None and cloth.type.sheer.high == 0 and cloth.sheer.known is Known.TYPICAL
    if moment.finding.rule is not Rule.COVER and rule.fit != "free" and not opaque_for_sure:
        shows = SHEERNESS[level].replace(" ", "_").replace("-", "_")
        dealt_with = "lined" if demand.pattern.lined else "over" if rule.over else shows
        yield _say(moment, "words", dealt_with if level >= tables.judging.cover.nothing_beneath_from else shows)
    if cloth.shrink.high >= tables.judging.cautions.shrinks_from_pct:
        washed = "washed" if cloth.shrink.known >= Known.STATED else "wash"
        yield _say(moment, "words", "steam" if cloth.is_wool else washed)
    if cloth.print.direction == "one-way":
        yield _say(moment, "words", "one_way")
    elif cloth.nap:
        yield _say(moment, "words", "nap")


def _joined(parts: Iterable[str]) -> str:
    text = "; ".join(part for part in parts if part)
    return f"{text[:1].upper()}{text[1:]}."


def each_its_own(rows: Iterable[tuple[str, Sequence[str]]]) -> list[str]:
    """One sentence for each row of a list, none said twice and none begun alike while there is another way to begin.

    Rows are (a name, sentences, best first); the name stands before a sentence that has been said already.
    """
    used: set[str] = set()
    begun: Counter[str] = Counter()
    found = []
    for name, offered in rows:
        fresh = [one for one in offered if one not in used]
        with_its_name = f"{name}: {offered[0][:1].lower()}{offered[0][1:]}" if offered else ""
        own = min(fresh, key=lambda one: begun[_lead(one)], default=with_its_name)
        used.add(own)
        begun[_lead(own)] += 1
        found.append(own)
    return found


def _lead(sentence: str) -> str:
    return sentence.partition(";")[0].rstrip(".")
