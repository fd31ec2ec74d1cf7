"""What is asked of a pattern, by the pattern's own names: its view, its size, its part. The one place where such texts meet.

'B' meets 'B midi' and '10' meets 'S (8-10)', wherever something is kept by view or by size: options, amounts, lining,
interfacing, notions, conditions. Where two would do, none is meant: whoever asks is shown what there is.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import replace

from nematex.core.pattern.facts import Pattern, Requirement, Wish, is_for_view, same_view

_SPAN = re.compile(r"(\d+(?:\.\d+)?)\s*(?:-|–|to)\s*(\d+(?:\.\d+)?)")
_NAMES = re.compile(r"[^\s()/,;|]+")


def _only(found: Iterable[str]) -> str | None:
    names = list(dict.fromkeys(found))
    return names[0] if len(names) == 1 else None


def view_meant(asked: str, views: Iterable[str]) -> str | None:
    """The view that is asked for: by its own name, else the only one that is the same; None for none, or several."""
    known, said = list(dict.fromkeys(views)), asked.strip()
    exact = next((each for each in known if each.strip().casefold() == said.casefold()), None)
    return exact or _only(each for each in known if same_view(said, each))


def _is_in(said: str, label: str) -> bool:
    """Whether a size's label says this size among others: '8' is in '8/10', in 'S (8-10)' and in '6-10'."""
    if any(name.casefold() == said for name in _NAMES.findall(_SPAN.sub(" ", label))):
        return True
    try:
        number = float(said)
    except ValueError:
        return False
    return any(float(low) <= number <= float(high) for low, high in _SPAN.findall(label))


def size_meant(asked: str, sizes: Iterable[str]) -> str | None:
    """The size that is asked for: by its own label, else the only label that says it; None for none, or several."""
    known, said = list(dict.fromkeys(sizes)), asked.strip().casefold()
    exact = next((each for each in known if each.strip().casefold() == said), None)
    return exact or _only(each for each in known if said and _is_in(said, each))


def part_meant(asked: str, parts: Iterable[str]) -> str | None:
    """The part that is asked for, by its name."""
    return next((each for each in parts if each.strip().casefold() == asked.strip().casefold()), None)


def fitting(pattern: Pattern, wish: Wish) -> Wish:
    """The wish in the pattern's own names; a view, size, part or option that it has not is left out."""
    options = part_names = None
    if wish.options is not None and pattern.options:
        part_names = [option.name for option in pattern.options]
        options = tuple(name for each in wish.options if (name := part_meant(each, part_names)) is not None)
    return replace(
        wish,
        view=view_shown(pattern, wish.view) if wish.view else None,
        size=size_meant(wish.size, pattern.table_sizes) if wish.size else None,
        part=part_meant(wish.part, (part.name for part in pattern.parts)) if wish.part else None,
        options=options,
    )


def view_shown(pattern: Pattern, asked: str) -> str | None:
    """The view of the pattern that is meant, if its cloth table, where it has one, says what that view takes."""
    rows = [row.view for row in pattern.requirements if row.use == "main"]
    view = view_meant(asked, pattern.views)
    return view if view is not None and (not rows or view_meant(view, rows) is not None) else None


def rows_for(pattern: Pattern, use: str, wish: Wish) -> list[Requirement]:
    """The rows of a use for the view and size of the wish; all views or sizes where none is asked for."""
    rows = [row for row in pattern.requirements if row.use == use and is_for_view(wish.view, [row.view])]
    if not wish.size:
        return rows
    size = size_meant(wish.size, (each for row in rows for each in row.sizes))
    return [row for row in rows if not row.sizes or size in row.sizes]
