"""Which public link is still open: what was made for one that was withdrawn goes with it."""

from __future__ import annotations

from collections.abc import Callable

from nematex.usecases.air.sew_along.acts import of_key as sew_along_of
from nematex.usecases.held.shop import Shop
from nematex.usecases.programme.acts import of_key as programme_of

# Room → what it shows at a key. A room without a row here is open to everybody as it is.
BY_KEY: dict[str, Callable[[Shop, str], object | None]] = {"public": sew_along_of, "look": programme_of}
LONGEST_KEY = 40


def is_public(shop: Shop, room: str, key: str) -> bool:
    """Whether this room still shows something at this key."""
    shows = BY_KEY.get(room)
    return shows is None or (len(key) <= LONGEST_KEY and shows(shop, key) is not None)
