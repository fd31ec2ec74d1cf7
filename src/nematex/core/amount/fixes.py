"""What helps where there is too little: the other way with a print, a smaller size, another view, a part in another cloth.

Common practice, no source. The smallest change comes first.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from nematex.core.amount.length import amount
from nematex.core.amount.sizes import SLACK_M, by_size, largest_within, sizes_of
from nematex.core.cloth.estimates import Cloth
from nematex.core.pattern.chosen import size_meant, view_meant
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.tables import Tables


@dataclass(frozen=True, slots=True)
class Fix:
    """A change that makes a length enough: its kind, to what, and what it takes then in m."""

    kind: str
    to: str
    length_m: float


def fixes(cloth: Cloth, pattern: Pattern, wish: Wish, have_m: float, tables: Tables) -> list[Fix]:
    """Every change of one thing with which `have_m` is enough; nothing where it is enough as it is."""
    now = amount(cloth, pattern, wish, tables)
    if now is None or now.length_m <= have_m + SLACK_M:
        return []
    found: list[Fix] = []
    if now.cut_m <= have_m + SLACK_M:
        found.append(Fix("washed", "", now.cut_m))
    if cloth.print.direction == "one-way" and not cloth.nap and cloth.follow_print is not False:
        either_way = amount(replace(cloth, follow_print=False), pattern, wish, tables)
        if either_way and either_way.length_m <= have_m + SLACK_M:
            found.append(Fix("print", "", either_way.length_m))
    size = largest_within(by_size(cloth, pattern, wish, tables), have_m)
    if size and size.size:
        found.append(Fix("size", size.size, size.amount.length_m))
    found += _views(cloth, pattern, wish, have_m, tables)
    return found


def _views(cloth: Cloth, pattern: Pattern, wish: Wish, have_m: float, tables: Tables) -> list[Fix]:
    found = []
    views = list(dict.fromkeys(row.view for row in pattern.requirements if row.use == "main"))
    own = view_meant(wish.view, views) if wish.view else views[0]
    for view in views:
        sizes = sizes_of(pattern, view)
        if view == own or (wish.size and sizes and size_meant(wish.size, sizes) is None):
            continue
        other = amount(cloth, pattern, replace(wish, view=view), tables)
        if other and other.length_m <= have_m + SLACK_M:
            found.append(Fix("view", view, other.length_m))
    return found
