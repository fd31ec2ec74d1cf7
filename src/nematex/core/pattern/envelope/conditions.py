"""Conditions: 'without the tucks', 'if lined', 'provided it is heavy enough', 'for view B', read wherever they stand."""

from __future__ import annotations

from collections.abc import Sequence

from nematex.core.pattern.envelope.clause import Condition
from nematex.core.pattern.envelope.words import Item
from nematex.core.tables import Tables

LINED = Condition("lined", "lined", "if lined")


def condition_of(words: Sequence[Item], tables: Tables) -> Condition | None:
    """What the words after 'if', 'unless' or 'without' (which is the first) make a condition of; None where it is none."""
    said = " ".join(item.words for item in words)
    turned = words[0].kind == "unless"
    off = words[0].kind in ("without", "unless") or any(item.kind in ("without", "weak") for item in words)
    if off and any(item.kind == "part" and item.value[0] == "lining" for item in words):
        return Condition("other", "unlined", "unlined")
    detail = next((name for item in words if item.kind in ("detail", "part") and (name := _detail(item, tables))), None)
    if detail and off:
        return Condition("without", detail[0], f"without the {detail[1]}")
    for item in words:
        if item.kind in ("lined", "lined in") or (item.kind == "layer" and item.value == "underlining"):
            return Condition("other", "unlined", said) if turned else LINED
        if item.kind == "part" and item.value[0] == "lining" and not off:
            return LINED
        if item.kind == "washed":
            return Condition("washed", "washed", "once washed")
        if item.kind == "enough":
            return Condition(str(item.value), str(item.value), f"if {item.words}")
        if item.kind == "weight" and not off and item.value in ("light", "heavy"):
            return Condition(str(item.value), str(item.value), f"if {item.words}")
    return Condition("other", said, said) if len(words) > 1 else None


def _detail(item: Item, tables: Tables) -> tuple[str, str] | None:
    """The detail that is left off and the words for it; None for one that asks nothing of the cloth, as pockets."""
    found = tables.details.find(str(item.value)) if item.kind == "detail" else tables.details.find(item.words)
    return (found.name, item.words) if found and (found.name in item.words or not found.asks_nothing) else None


def of_views(views: Sequence[str]) -> Condition:
    """For these views alone."""
    names = " and ".join(view.upper() for view in views)
    return Condition("view", "|".join(views), f"for view{'s' if len(views) > 1 else ''} {names}")
