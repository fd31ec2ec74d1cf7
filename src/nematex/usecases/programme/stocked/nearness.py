"""How far each cloth of the shelf is from a cloth that is not on it: one described, or one that was put away."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth
from nematex.core.colour.difference import read_hex
from nematex.core.quantity.arrays import Floats
from nematex.core.set.stand_ins import distances, steps
from nematex.usecases.held.state import State


def beside_shelf(state: State, cloth: Cloth, colour: str) -> tuple[Mapping[str, Floats], Floats]:
    """By how many steps each cloth differs in each respect, and how far it is in all, (cloths,); `colour` may be ""."""
    shelf, rule = state.shelf, state.tables.judging.stand_in
    count = len(shelf.records)
    both = shelf.columns.joined(columns([cloth], state.tables), np.arange(count + 1))
    off = np.full(count + 1, np.nan)
    if colour:
        off[:count] = shelf.filed.distance(read_hex(colour))
    away = steps(both, count, off, rule)
    return {name: each[:count] for name, each in away.items()}, distances(both, count, away, rule)[:count]
