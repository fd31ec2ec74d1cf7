"""A finding on one cloth in words."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.judging.saying.blanks import Blanks, as_sentence
from nematex.core.judging.saying.cases import CASES
from nematex.core.judging.saying.moment import Moment


@dataclass(frozen=True, slots=True)
class Words:
    """A reason and a remedy, each "" where there is nothing to say."""

    reason: str = ""
    remedy: str = ""


def say(moment: Moment) -> Words:
    """The bench's words: numbers, edges, how each is known, and what can be done."""
    room, case_of = CASES[moment.finding.rule]
    case = case_of(moment)
    if not case:
        return Words()
    saying = moment.tables.sayings.cases[room][case]
    blanks, detail = Blanks(moment), moment.finding.detail
    own = as_sentence(detail.remedy) if saying.own and detail else ""
    return Words(saying.reason.format_map(blanks), own or saying.remedy.format_map(blanks))
