"""`./nematex poll`: asks the stock feed again and again; one part of the worker."""

from __future__ import annotations

import logging
import os
import time
from datetime import datetime

from sqlalchemy.exc import SQLAlchemyError

from nematex.store.database import Database, DatabaseGone
from nematex.usecases.held.shop import Shop
from nematex.usecases.stock.polling import feed_of, poll

USUAL_EVERY_S = 20.0


def every_s() -> float:
    """NEMATEX_POLL_S, else 20 seconds."""
    given = os.environ.get("NEMATEX_POLL_S", "")
    return max(0.2, float(given)) if given.replace(".", "", 1).isdecimal() and len(given) < 8 else USUAL_EVERY_S


def poll_for_ever() -> int:
    """Until the parent ends it; a database that is away is tried again."""
    shop, parent = Shop(Database(os.environ["DATABASE_URL"])), os.getppid()
    while os.getppid() == parent:
        try:
            feed = feed_of(shop.now())
            if feed:
                poll(shop, feed, datetime.now())
        except (DatabaseGone, SQLAlchemyError):
            logging.getLogger("nematex").exception("the stock feed was not taken in")
        time.sleep(every_s())
    return 0
