"""A cloth of each kind, of which nothing but its name is known: what the kind itself is judged and compared by."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from nematex.core.cloth.columns import ClothColumns, columns
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.tables import Tables


@lru_cache(maxsize=2)
def typical_cloths(tables: Tables) -> Sequence[Cloth]:
    """In the order of the lexicon."""
    return tuple(known_cloth(ClothFacts(cloth=kind.name), tables) for kind in tables.lexicon.types)


@lru_cache(maxsize=2)
def typical_columns(tables: Tables) -> ClothColumns:
    """The same as columns."""
    return columns(typical_cloths(tables), tables)
