"""Picks of which there is too little, and what could be shown in their place."""

from __future__ import annotations

from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import fitting_wish
from nematex.usecases.programme.by_cloth import wish_of
from nematex.usecases.programme.notes import EPSILON_M, Entry
from nematex.usecases.programme.stand_ins import StandIn, for_pick


def is_short(entry: Entry) -> bool:
    """Whether less is in stock than the pick takes."""
    amount, stock = entry.pairing.amount if entry.pairing else None, entry.cloth.stock_m
    return amount is not None and stock is not None and stock < amount.length_m - EPSILON_M


def offers(shop: Shop, state: State, found: list[Entry]) -> dict[int, list[StandIn]]:
    """Pick → the nearest cloths of which there is enough, for the picks that are short."""
    return {
        entry.pick.id: for_pick(shop, state, entry.cloth, entry.pattern, fitting_wish(entry.pattern, wish_of(entry.pick)))
        for entry in found
        if is_short(entry)
    }
