"""How far each cloth of the shelf is from a cloth that is not on it: one described, or one that was put away."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.likeness import distances, steps
from nematex.core.colour.difference import read_hex
from nematex.core.quantity.arrays import Floats
from nematex.core.set.stand_ins import in_use
from nematex.usecases.held.state import State


def beside_shelf(state: State, cloth: Cloth, colour: str) -> tuple[Mapping[str, Floats], Floats]:
    """By how many steps each cloth differs in each respect, and how far it is in all, (cloths,); infinite where too far.

    `colour` may be ""."""
    shelf, tables = state.shelf, state.tables
    count = len(shelf.records)
    both = shelf.columns.joined(columns([cloth], tables), np.arange(count + 1))
    off = np.full(count + 1, np.nan)
    if colour:
        off[:count] = shelf.filed.distance(read_hex(colour))
    away = steps(both, count, off, tables.judging.likeness)
    found = in_use(both, count, distances(both, count, away, tables), None, tables)
    return {name: each[:count] for name, each in away.items()}, found[:count]
