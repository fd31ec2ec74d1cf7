"""The first run: somebody becomes the owner. A code that only this machine's user can read keeps strangers from it."""

from __future__ import annotations

import secrets
from datetime import datetime

from nematex.core.errors import FieldFault
from nematex.core.people.name import read_name
from nematex.core.people.password import read_password
from nematex.store.people.persons import add_person, any_person, demo_of_nobody
from nematex.store.settings import put
from nematex.store.trail.who import acting
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.clean_cut import becomes_owned
from nematex.usecases.people.hashing import hashed

OWNER = "owner"
LOCK = "nematex set-up"
LONGEST_SHOP_NAME = 80


def has_people(shop: Shop) -> bool:
    with shop.database.work() as work:
        return any_person(work)


def is_anybodys(shop: Shop) -> bool:
    """Whether this is the made-up shop, which nobody owns yet."""
    with shop.database.work() as work:
        return demo_of_nobody(work)


def make_owner(shop: Shop, name: str, password: str, shop_name: str, now: datetime) -> int:
    """Make the first person, who is the owner; of two who do so at once, one does. Raises FieldFault.

    In the same unit of work all that was given out while nobody owned the shop ends.
    """
    kept, called = read_name(name), " ".join(shop_name.split())
    if len(called) > LONGEST_SHOP_NAME:
        raise FieldFault("shop", called[:40], f"has {len(called)} letters; {LONGEST_SHOP_NAME} are the most")
    secret = hashed(read_password(password, (kept, called, "nematex")))
    with acting(kept), shop.database.lock(LOCK, 10) as free, shop.database.work() as work:
        if not free or any_person(work):
            raise FieldFault("name", kept, "comes too late: this shop has an owner already; sign in, or ask to be invited")
        if called:
            put(work, "shop", called)
        becomes_owned(work)
        return add_person(work, kept, OWNER, secret, now)


def same_code(given: str, wanted: str) -> bool:
    return bool(wanted) and secrets.compare_digest(given.encode(), wanted.encode())
