"""Where somebody stands with each question of the practice room, and their answers."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime

from sqlalchemy import func, select

from nematex.core.air.practice.schedule import Card
from nematex.store.database import Work
from nematex.store.models import PracticeAnswerRow, PracticeCardRow


@dataclass(frozen=True)
class Answer:
    """An answer: to which question, when, what was said, its grade, by which share a number was off (None: no number)."""

    id: int
    who: str
    question: str
    answered_at: datetime
    said: Mapping[str, str]
    grade: int
    off: float | None


def _card(row: PracticeCardRow) -> Card:
    return Card(row.ease, row.interval_days, row.repetitions, row.due, row.drill)


def card(work: Work, who: str, question: str) -> Card | None:
    """The card of a question, held until the answer to it is kept."""
    row = work.get(PracticeCardRow, (who, question), with_for_update=True)
    return _card(row) if row else None


def due(work: Work, who: str, today: date, count: int) -> list[str]:
    """The questions that are due, the longest waiting first."""
    asked = select(PracticeCardRow.question).where(PracticeCardRow.who == who, PracticeCardRow.due <= today)
    return list(work.scalars(asked.order_by(PracticeCardRow.due, PracticeCardRow.question).limit(count)))


def counted(work: Work, who: str, today: date) -> tuple[int, int]:
    """How many questions somebody has met, and how many are due."""
    met = select(func.count()).select_from(PracticeCardRow).where(PracticeCardRow.who == who)
    return work.scalar(met) or 0, work.scalar(met.where(PracticeCardRow.due <= today)) or 0


def known_questions(work: Work, who: str) -> set[str]:
    return set(work.scalars(select(PracticeCardRow.question).where(PracticeCardRow.who == who)))


def keep_answer(work: Work, answer: Answer, moved: Card) -> int:
    """Keep an answer and where its question stands now; its number."""
    work.merge(
        PracticeCardRow(
            who=answer.who,
            question=answer.question,
            ease=moved.ease,
            interval_days=moved.interval_days,
            repetitions=moved.repetitions,
            due=moved.due,
            drill=moved.drill,
        )
    )
    row = PracticeAnswerRow(
        who=answer.who,
        question=answer.question,
        answered_at=answer.answered_at,
        said=dict(answer.said),
        grade=answer.grade,
        off=answer.off,
    )
    work.add(row)
    work.flush()
    return row.id


def _answer(row: PracticeAnswerRow) -> Answer:
    return Answer(row.id, row.who, row.question, row.answered_at, row.said, row.grade, row.off)


def answer(work: Work, answer_id: int) -> Answer | None:
    row = work.get(PracticeAnswerRow, answer_id)
    return _answer(row) if row else None


def last_answers(work: Work, who: str, count: int) -> list[Answer]:
    """The last answers of somebody, the earliest of them first."""
    asked = select(PracticeAnswerRow).where(PracticeAnswerRow.who == who).order_by(PracticeAnswerRow.id.desc()).limit(count)
    return [_answer(row) for row in work.scalars(asked)][::-1]
