"""The one sentence to say aloud about a pairing: the worst check's reason, or why it is right."""

from __future__ import annotations

from collections.abc import Mapping

from nematex.core.judging.judge import CheckAnswer
from nematex.core.judging.saying.cases import CASES
from nematex.core.judging.saying.say import say_aloud
from nematex.core.judging.verdict import Verdict


def sentence(checks: Mapping[str, CheckAnswer]) -> str:
    """'Handles like the viscose lawn on the list: bends at 1.4 cm …', or what stands in the way."""
    worst = max(checks.values(), key=lambda check: check.verdict)
    if worst.verdict is not Verdict.SUITS:
        return worst.reason
    drape = checks["drape"]
    moment = drape.decided
    hangs_as_asked = CASES[moment.finding.rule][1](moment) == "suits"
    if not hangs_as_asked or not moment.demand.named:
        return drape.reason
    kind = moment.cloth.type
    on_list = kind is not None and moment.tables.lexicon.index[kind.name] in moment.demand.named
    return say_aloud(moment, "named" if on_list else "like")
