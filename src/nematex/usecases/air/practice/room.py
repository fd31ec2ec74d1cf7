"""Answering in the practice room, and how somebody's judgement stands over time."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime

from nematex.core.air.practice.grading import bias, grade_of_number, grade_of_verdict, off_share, spread
from nematex.core.air.practice.schedule import Card, answered
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.judging.judge import NAMES
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.reader import read_length_cm, read_weight_gsm
from nematex.core.signs import on_one_line
from nematex.store.air import practice as store
from nematex.store.air.practice import Answer
from nematex.usecases.air.practice.questions import PAIRING, WEIGHT, Question, read_question
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

REASONS = (*NAMES, "nothing")
LOOKED_AT = 60  # the last answers
RECENT = 10
MOST_CM = 30.0


def read_who(text: str) -> str:
    """Who practises, as typed; 'presenter' where nobody says."""
    return on_one_line(text)[:40] or "presenter"


def answer_question(shop: Shop, state: State, who: str, key: str, given: Mapping[str, str], now: datetime) -> int:
    """Keep an answer; its number. Raises FieldFault."""
    question = read_question(shop, state, key)
    if question is None:
        raise FieldFault("question", key[:40], "cannot be asked any more: its cloth or pattern is gone")
    said, grade, off = _graded(question, given)
    with shop.database.work() as work:
        card = store.card(work, who, key) or Card()
        kept = Answer(0, who, key, now.replace(microsecond=0), said, grade, off)
        return store.keep_answer(work, kept, answered(card, grade, now.date()))


def _graded(question: Question, given: Mapping[str, str]) -> tuple[dict[str, str], int, float | None]:
    if question.kind == PAIRING:
        word, reason = given.get("verdict", ""), given.get("reason", "")
        words = [each.word for each in Verdict]
        if word not in words:
            raise UnknownChoice("verdict", word[:40], words, "verdict")
        if reason not in REASONS:
            raise UnknownChoice("what decides", reason[:40], REASONS, "check")
        grade = grade_of_verdict(Verdict.from_word(word), question.right, reason, question.decides)
        return {"verdict": word, "reason": reason}, grade, None
    text = given.get("number", "").strip()
    said = read_weight_gsm(text, "weight", "gsm") if question.kind == WEIGHT else read_length_cm(text, "bending length", "cm")
    if question.known is None or not 0 < said <= (3000 if question.kind == WEIGHT else MOST_CM):
        raise FieldFault(question.kind, text[:40], "must be above 0, and no more than any cloth has")
    grade = grade_of_number(question.kind, said, question.known.best)
    return {"number": text[:40], "value": f"{said:g}"}, grade, off_share(said, question.known.best)


def find_answer(shop: Shop, answer_id: int) -> tuple[Answer, Card | None] | None:
    """An answer and where its question stands now."""
    with shop.database.work() as work:
        found = store.answer(work, answer_id)
        return (found, store.card(work, found.who, found.question)) if found else None


@dataclass(frozen=True)
class Judged:
    """How somebody judges a kind of number: each answer's share off, and bias and spread, at first and lately."""

    kind: str
    offs: tuple[float, ...]
    bias: float | None
    first: float | None
    lately: float | None


@dataclass(frozen=True)
class Standing:
    """How far somebody is: questions met and due, pairings right of those asked lately, numbers judged."""

    met: int
    due: int
    right: int
    asked: int
    judged: tuple[Judged, ...]


def standing(shop: Shop, who: str, today: date) -> Standing:
    with shop.database.work() as work:
        met, due = store.counted(work, who, today)
        found = store.last_answers(work, who, LOOKED_AT)
    pairings = [each for each in found if each.question.startswith(PAIRING)]
    judged = []
    for kind in ("weight", "drape"):
        offs = [each.off for each in found if each.question.startswith(kind) and each.off is not None]
        judged.append(Judged(kind, tuple(offs), bias(offs[-RECENT:]), spread(offs[:RECENT]), spread(offs[-RECENT:])))
    return Standing(met, due, sum(each.grade >= 4 for each in pairings), len(pairings), tuple(judged))
