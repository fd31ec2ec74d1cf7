"""A child of the worker that asks the stock feed again and again; in the made-up shop the simulated till is within it."""

from __future__ import annotations

import logging
import os
import threading
import time
from datetime import datetime
from pathlib import Path

import waitress
from sqlalchemy.exc import SQLAlchemyError

from nematex.command.ports import free_port
from nematex.command.service.state import keep, read_state
from nematex.devices.simulated_till import Till
from nematex.devices.till_service import till_app
from nematex.store.cloth.feed import reserved_m
from nematex.store.database import DatabaseGone
from nematex.store.settings import DEMO, put, settings
from nematex.usecases.held.shop import Shop
from nematex.usecases.stock.polling import OWN_TILL, SETTING, feed_of, poll

USUAL_EVERY_S = 20.0
log = logging.getLogger("nematex")


def every_s() -> float:
    """NEMATEX_POLL_S, else 20 seconds."""
    given = os.environ.get("NEMATEX_POLL_S", "")
    return max(0.2, float(given)) if given.replace(".", "", 1).isdecimal() and len(given) < 8 else USUAL_EVERY_S


def ask_for_ever(shop: Shop, folder: Path) -> None:
    """Until the worker ends; a database that is away is tried again."""
    has_till = False
    while True:
        try:
            has_till = has_till or _opened_till(shop, folder)
            feed = feed_of(shop.now())
            if feed:
                poll(shop, feed, datetime.now())
        except (DatabaseGone, SQLAlchemyError, OSError):  # a database that is away, a full disk
            log.exception("the stock feed was not taken in")
        time.sleep(every_s())


def _opened_till(shop: Shop, folder: Path) -> bool:
    """Open the simulated till where one belongs to this shop, and let the shop ask it; whether it is open."""
    if not wants_till(shop):
        return False
    port = free_port(int(read_state().get("till_port") or 0))
    app = till_app(Till(folder / "till.json", lambda: catalogue(shop)))
    server = waitress.create_server(app, host="127.0.0.1", port=port, threads=4, ident=None)
    threading.Thread(target=server.run, daemon=True).start()
    keep(till_port=port)
    with shop.database.work() as work:
        for name in (SETTING, OWN_TILL):
            put(work, name, f"http://127.0.0.1:{port}/stock")
    return True


def catalogue(shop: Shop) -> dict[str, tuple[float, bool]]:
    """Code → metres at the till, and whether the cloth is ever ordered again."""
    with shop.database.work() as work:
        held = reserved_m(work)
    records = (record for record in shop.now().shelf.records if record.stock_m is not None)
    return {each.code: ((each.stock_m or 0.0) + held.get(each.id, 0.0), not each.facts.deadstock) for each in records}


def wants_till(shop: Shop) -> bool:
    """Whether a simulated till belongs to this shop: the made-up one, unless it was given another feed or none."""
    with shop.database.work() as work:
        found = settings(work)
    return DEMO in found and (SETTING not in found or is_ours(found[SETTING]))


def is_ours(address: str) -> bool:
    """Whether an address is that of a simulated till."""
    return address.startswith("http://127.0.0.1:") and address.endswith("/stock")
