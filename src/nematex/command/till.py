"""`./nematex till`: the simulated till as a process of its own, over the made-up shop's shelf."""

from __future__ import annotations

import os
from pathlib import Path

import waitress

from nematex.devices.simulated_till import Till
from nematex.devices.till_service import till_app
from nematex.store.cloth.feed import reserved_m
from nematex.store.database import Database
from nematex.store.settings import DEMO, put, settings
from nematex.usecases.held.shop import Shop
from nematex.usecases.stock.polling import OWN_TILL, SETTING


def serve_till(folder: Path, port: int) -> int:
    """The service, in the foreground."""
    shop = Shop(Database(os.environ["DATABASE_URL"]))

    def catalogue() -> dict[str, tuple[float, bool]]:
        with shop.database.work() as work:
            held = reserved_m(work)
        records = (record for record in shop.now().shelf.records if record.stock_m is not None)
        return {each.code: ((each.stock_m or 0.0) + held.get(each.id, 0.0), not each.facts.deadstock) for each in records}

    waitress.serve(till_app(Till(folder / "till.json", catalogue)), host="127.0.0.1", port=port, threads=4, ident=None)
    return 0


def wants_till(url: str) -> bool:
    """Whether a simulated till belongs to this shop: the made-up one, unless it was given another feed or none."""
    database = Database(url)
    with database.work() as work:
        found = settings(work)
    database.close()
    return DEMO in found and (SETTING not in found or is_ours(found[SETTING]))


def is_ours(address: str) -> bool:
    """Whether an address is that of a simulated till."""
    return address.startswith("http://127.0.0.1:") and address.endswith("/stock")


def ask_till(url: str, port: int) -> None:
    """Let the shop ask the till at this port."""
    database = Database(url)
    with database.work() as work:
        for name in (SETTING, OWN_TILL):
            put(work, name, f"http://127.0.0.1:{port}/stock")
    database.close()
