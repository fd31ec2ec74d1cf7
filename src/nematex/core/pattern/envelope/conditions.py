"""Conditions, views and parts: what an envelope says of the cloths it has just named.

Common practice, no source: "without the tucks" belongs to the cloths just named, "if lined" to those before the bracket.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping

from nematex.core.pattern.envelope.interpretation import Condition
from nematex.core.pattern.envelope.open_words import OpenWords
from nematex.core.pattern.envelope.words import Cursor, Item

LOOK_AHEAD = 9  # items that a condition may reach over
LEFT_OFF_WITHIN = 4  # and from a detail on to the word that leaves it off
CROSSES_ENDS = ("stop", "mark")
LINED = Condition("lined", "lined", "if lined")

Handler = Callable[[Item, Cursor], int | None]


def read_condition(now: OpenWords, cursor: Cursor, without: bool, handed_on: Mapping[str, Handler]) -> int:
    """'without the tucks', 'if you leave out the pleats', 'when lined': how many items it takes."""
    for step, item in enumerate(cursor.ahead(LOOK_AHEAD), 1):
        if item.kind in CROSSES_ENDS:
            break
        without = without or item.kind in ("without", "weak", "negative")
        detail = now.tables.details.find(item.words) if item.kind in ("detail", "part") else None
        after = 0 if without or not detail else _left_off(cursor, step)
        if detail and (without or after):
            qualify(now, Condition("without", detail.name, f"without the {item.words}"))
            return max(step, after) + 1
        if item.kind == "lined":
            qualify(now, LINED)
            return step + 1
        if item.kind == "sheer":
            return step + 1  # 'line if sheer' is advice and names no cloth
        if item.kind in handed_on and without:
            was, now.clause.avoid = now.avoid, True
            handed_on[item.kind](item, cursor)
            now.clause.avoid = was
            return step + 1
    return 1


def _left_off(cursor: Cursor, step: int) -> int:
    """'When the collar is left off': where the word stands that leaves off what was just named; 0 where none does."""
    for place, item in enumerate(cursor.ahead(step + LEFT_OFF_WITHIN)[step:], step + 1):
        if item.kind == "without":
            return place
        if item.kind != "filler":
            break
    return 0


def read_left_off(now: OpenWords, cursor: Cursor) -> int | None:
    """'(Tucks omitted)': the word stands after what it leaves off. None where no detail stands before it."""
    place = -1
    while (before := cursor.peek(place)) and before.kind == "filler":
        place -= 1
    detail = now.tables.details.find(before.words) if before and before.kind in ("detail", "part") else None
    after = cursor.peek(1)
    if not detail or not before or (after and after.kind in ("detail", "part", "filler")):
        return None
    qualify(now, Condition("without", detail.name, f"without the {before.words}"))
    return 1


def qualify(now: OpenWords, condition: Condition) -> None:
    for mention in now.clause.run:
        if mention.avoided == (now.clause.outer or now.clause).avoid:
            mention.condition = condition


def read_for(now: OpenWords, cursor: Cursor) -> int:
    """'for the sleeves', 'for view B' and 'for views A and B' belong to the cloths just named."""
    for step, item in enumerate(cursor.ahead(4), 1):
        if item.kind == "part" and now.clause.run and item.value[0] != "body":
            for mention in now.clause.run:
                mention.part = item.value[0]
            return step + 1
        if item.words in ("view", "views"):
            return _read_views(now, cursor, step)
        if item.kind != "filler":
            break
    return 1


def _read_views(now: OpenWords, cursor: Cursor, step: int) -> int:
    """The views after the word: a name, then names of one letter joined by commas and words."""
    first = cursor.peek(step + 1)
    if first is None or first.kind in CROSSES_ENDS:
        return step + 1
    views, taken = [first.words], step + 2
    while (item := cursor.peek(taken)) and (item.kind == "join" or item.words == "," or len(item.words) == 1):
        if item.words.isalpha() and len(item.words) == 1:
            views.append(item.words)
        elif not (after := cursor.peek(taken + 1)) or not (len(after.words) == 1 and after.words.isalpha()):
            break
        taken += 1
    names = " and ".join(view.upper() for view in views)
    qualify(now, Condition("view", "|".join(views), f"for view{'s' if len(views) > 1 else ''} {names}"))
    return taken
