"""Amounts of the first and the last size alone: those of the sizes between are reckoned, and said to be.

Invariant: no size gets less than a smaller one, none more than the last, and what the envelope says itself stays.
"""

from __future__ import annotations

from math import ceil
from typing import Any

from nematex.core.pattern.paste.draft import Draft

STEP_M = 0.05


def between(least_m: float, most_m: float, place: int, last: int) -> float:
    """The length in m of the size at `place` between 0 and `last`, rounded up, so that none is too little."""
    if place in (0, last):
        return most_m if place else least_m
    stepped = round(ceil((least_m + (most_m - least_m) * place / last) / STEP_M - 1e-9) * STEP_M, 2)
    return min(most_m, stepped)


def fill_between(draft: Draft) -> None:
    """Rows that name the first and the last size of the pattern, and no other, get the sizes between; changes the draft."""
    labels = [size["label"] for size in draft.sizes]
    of_table: dict[tuple[Any, ...], list[dict[str, Any]]] = {}
    for row in draft.requirements:
        of_table.setdefault((row["view"], row["use"], row["width_cm"], row["with_nap"]), []).append(row)
    for rows in of_table.values():
        if len(labels) < 3 or [row["sizes"] for row in rows] != [labels[:1], labels[-1:]]:
            continue
        first, last = rows
        if first["length_m"] <= last["length_m"]:
            at = draft.requirements.index(last)
            draft.requirements[at:at] = _reckoned(first, last, labels)


def _reckoned(first: dict[str, Any], last: dict[str, Any], labels: list[str]) -> list[dict[str, Any]]:
    end = len(labels) - 1
    lengths = [between(first["length_m"], last["length_m"], place, end) for place in range(1, end)]
    return [
        {**first, "sizes": [label], "length_m": length, "reckoned": True}
        for label, length in zip(labels[1:-1], lengths, strict=True)
    ]
