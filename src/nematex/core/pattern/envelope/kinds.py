"""Wovens or knits of one kind: "no thin or very stretchy knits" rules out those knits and leaves the others.

Common practice, no source: an adjective before the noun, or after "that are", narrows what is ruled out.
"""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.pattern.envelope.interpretation import Interpretation
from nematex.core.pattern.envelope.open_words import OpenWords
from nematex.core.pattern.envelope.words import Cursor, Item
from nematex.core.tables import Tables

ADJECTIVES = ("weight", "hand", "stretch")
BETWEEN = (*ADJECTIVES, "join", "filler", "weak")
OPENS = ("that", "which", "with")


@dataclass(frozen=True, slots=True)
class Adjectives:
    """Those of one noun, with the word before each, and how many items from the noun on they take."""

    words: list[tuple[Item, str]]
    taken: int


def ruled_out(now: OpenWords, cursor: Cursor) -> bool:
    """Whether what is read is ruled out, by the words before it or by the end of its sentence."""
    if now.avoid:
        return True
    last = None
    for item in cursor.every[cursor.place + 1 :]:
        if item.kind == "stop":
            break
        last = item if item.kind != "filler" else last
    return last is not None and last.kind == "negative"


def speaks_of_a_kind(cursor: Cursor) -> bool:
    """Whether an adjective stands before 'knits' or 'wovens', with nothing but its like between them."""
    comma = False
    for item in cursor.every[cursor.place + 1 :]:
        if item.kind == "structure":
            return not comma
        if item.kind not in BETWEEN and item.words != ",":
            return False
        comma = item.words == ","
    return False


def speaks_of_a_band(cursor: Cursor) -> bool:
    """'With stretchy rib bands': the stretch is asked of the band."""
    for item in cursor.every[cursor.place + 1 :]:
        if item.kind in ("part", "detail"):
            return bool((item.value[0] if item.kind == "part" else item.value) == "band")
        if item.kind not in (*ADJECTIVES, "cloth", "filler"):
            return False
    return False


def adjectives(cursor: Cursor) -> Adjectives | None:
    """What stands before the noun in hand, or after it ('knits that are very stretchy'); None where nothing does."""
    found: list[tuple[Item, str]] = []
    place = cursor.place - 1
    while place >= 0 and (cursor.every[place].kind in BETWEEN or (found and cursor.every[place].words == ",")):
        item = cursor.every[place]
        if item.kind in ADJECTIVES:
            found.append((item, cursor.every[place - 1].words if place else ""))
        place -= 1
    taken = 1
    after = cursor.peek(1)
    while after is not None and after.kind in BETWEEN and (taken > 1 or after.words in OPENS):
        if after.kind in ADJECTIVES:
            found.append((after, cursor.every[cursor.place + taken - 1].words))
        taken += 1
        after = cursor.peek(taken)
    return Adjectives(found, taken) if found else None


def rule_out(interpretation: Interpretation, structure: str, words: list[tuple[Item, str]], tables: Tables) -> None:
    """Of this structure what the adjectives say, each as the number it stands for."""
    rule = tables.judging.words
    for item, before in words:
        if item.kind == "weight":
            interpretation.avoid_weights.append(item.value)
            interpretation.avoid_weight_structures[item.value] = structure
            interpretation.weight_said[item.value] = item.words.removesuffix(" weight")
        elif item.kind == "hand" and item.value in tables.avoid_hands:
            interpretation.avoid_hands_of.setdefault(structure, []).append((item.words, tables.avoid_hands[item.value]))
        elif item.kind == "stretch" and item.value in ("stretchy", "both"):
            most = rule.very_stretchy_from_pct if before == "very" else rule.stable_most_pct
            interpretation.most_cross_of[structure] = most
            interpretation.most_stretch_words = f"not “{before} {item.words}”" if before == "very" else f"not “{item.words}”"
