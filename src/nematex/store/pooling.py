"""Connections between two uses: asked whether they live only after a rest, rolled back only where something is open.

Invariant: a connection comes back to the pool outside of any transaction, and one that has rested is alive when it is given
out. In between, a page would spend half of its talk with the database on such questions.
"""

from __future__ import annotations

import time
from typing import Any

from pymysql.constants.SERVER_STATUS import SERVER_STATUS_IN_TRANS
from sqlalchemy import Engine, event
from sqlalchemy.exc import DisconnectionError

RESTED_S = 0.05  # less than any server takes to come up again: one with its files in memory took 0.2
RESTED_AT = "rested at"


def look_after(engine: Engine) -> None:
    """The engine's pool neither asks nor rolls back by itself; this does, where it is needed."""
    event.listen(engine, "checkin", _rest)
    event.listen(engine, "checkout", _wake)
    event.listen(engine, "reset", _close)


def _rest(_connection: Any, record: Any) -> None:
    record.info[RESTED_AT] = time.monotonic()


def _wake(connection: Any, record: Any, _proxy: Any) -> None:
    """Raises DisconnectionError, upon which the pool opens another connection."""
    rested_at = record.info.get(RESTED_AT)
    if rested_at is None or time.monotonic() - rested_at < RESTED_S:
        return
    try:
        connection.ping(reconnect=False)
    except Exception as fault:
        raise DisconnectionError from fault


def _close(connection: Any, _record: Any, state: Any) -> None:
    if not state.terminate_only and connection.server_status & SERVER_STATUS_IN_TRANS:
        connection.rollback()
