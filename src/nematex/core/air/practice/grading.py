"""How near an answer was: a judged number by its share off the known one, a verdict by its steps and by what decides.

Common practice, no source: a practised hand is within a tenth in weight and a fifth in bending length.
"""

from __future__ import annotations

from collections.abc import Sequence
from math import exp, log

from nematex.core.judging.verdict import Verdict

STEPS = {"weight": (0.1, 0.2, 0.35, 0.5, 1.0), "drape": (0.15, 0.3, 0.45, 0.6, 1.0)}  # up to 5, 4, 3, 2, 1
MOST_OFF = 20.0


def off_share(said: float, known: float) -> float:
    """By how much a number was judged too high (above 0) or too low, as a share: 0.25 is a quarter too high. Both above 0."""
    return min(said / known, MOST_OFF) - 1.0


def grade_of_number(kind: str, said: float, known: float) -> int:
    """0 to 5: the further off by ratio, the less; twice as much is as far off as half."""
    ratio = exp(abs(log(said / known))) - 1.0
    return next((5 - at for at, step in enumerate(STEPS[kind]) if ratio <= step + 1e-9), 0)


def grade_of_verdict(said: Verdict, right: Sequence[Verdict], reason: str, decides: Sequence[str]) -> int:
    """0 to 5: the verdict itself with its reason 5, without 4; one step off 3 or 2; two steps 1.

    `right`: where hands and rules part, either is; `decides`: the checks that are as strict as the verdict.
    """
    steps = min(abs(int(said) - int(each)) for each in right)
    known = reason in decides
    return {0: 5 if known else 4, 1: 3 if known else 2, 2: 1}.get(steps, 0)


def bias(offs: Sequence[float]) -> float | None:
    """By how much somebody judges too high on the whole, as a share: the mean of the ratios; None without answers."""
    if not offs:
        return None
    return exp(sum(log(1.0 + each) for each in offs) / len(offs)) - 1.0


def spread(offs: Sequence[float]) -> float | None:
    """How far off somebody is on the whole, whichever way, as a share; None without answers."""
    if not offs:
        return None
    return exp(sum(abs(log(1.0 + each)) for each in offs) / len(offs)) - 1.0
