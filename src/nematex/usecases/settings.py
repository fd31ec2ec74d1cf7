"""How the shop speaks: which unit system and which vocabulary lead."""

from __future__ import annotations

from nematex.core.errors import UnknownChoice
from nematex.store.settings import put
from nematex.usecases.held.cut import CUTS
from nematex.usecases.held.shop import Shop
from nematex.usecases.quantity.saying import PRICED_PER

SETTINGS = {
    "units": ("metric", "imperial"),
    "words": ("viscose", "rayon"),
    "cut": tuple(CUTS),
    "price per": ("metre and yard", *PRICED_PER),
}


def choose_setting(shop: Shop, name: str, value: str) -> None:
    """Keep a choice; raises UnknownChoice."""
    if value not in SETTINGS[name]:
        raise UnknownChoice(name, value, SETTINGS[name], "setting")
    with shop.database.work() as work:
        put(work, name, value)


def is_well(shop: Shop) -> bool:
    """Whether the database answers."""
    return shop.database.answers()
