"""When a question comes again: the published schedule SM-2 (Wozniak, Optimization of learning, 1990, from memory).

Grades 0 to 5. The first interval is a day, the second six, each further one the last times the ease, rounded up. The ease
begins at 2.5, moves with each grade, and is never below 1.3. Below grade 3 the intervals begin anew and the ease stays;
whatever is below grade 4 is asked again on the same day until it is not.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta
from math import ceil

FIRST_EASE, LEAST_EASE = 2.5, 1.3
FIRST_DAYS, SECOND_DAYS = 1, 6
PASSED, SURE = 3, 4
GRADES = range(6)


@dataclass(frozen=True)
class Card:
    """Where somebody stands with a question. `drill`: it is asked again today until it is sure; its next day is set already."""

    ease: float = FIRST_EASE
    interval_days: int = 0
    repetitions: int = 0
    due: date = date.min
    drill: bool = False


def moved_ease(ease: float, grade: int) -> float:
    """The ease after a grade."""
    return max(LEAST_EASE, ease + 0.1 - (5 - grade) * (0.08 + (5 - grade) * 0.02))


def answered(card: Card, grade: int, today: date) -> Card:
    """The card after an answer; raises ValueError for a grade that there is not."""
    if grade not in GRADES:
        raise ValueError(f"grade: {grade} is none of {GRADES.start} to {GRADES.stop - 1}")
    if card.drill and card.due == today:  # the same day's drill changes neither ease nor interval
        return card if grade < SURE else replace(card, drill=False, due=today + timedelta(days=card.interval_days))
    if grade < PASSED:
        moved = Card(card.ease, FIRST_DAYS, 1)
    else:
        ease = moved_ease(card.ease, grade)
        repetitions = card.repetitions + 1
        days = FIRST_DAYS if repetitions == 1 else SECOND_DAYS if repetitions == 2 else ceil(card.interval_days * ease)
        moved = Card(ease, days, repetitions)
    drill = grade < SURE
    return replace(moved, drill=drill, due=today if drill else today + timedelta(days=moved.interval_days))
