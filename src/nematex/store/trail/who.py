"""Who acts: told to the database once for each connection that writes, so that its triggers can name them."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar, Token
from typing import Any

THE_PROGRAM = "Nematex itself"
UNTOLD = ""  # leaves no trail: what a stock feed says has a history of its own
_acting: ContextVar[str] = ContextVar("acting", default=THE_PROGRAM)
WRITES = ("insert", "update", "delete", "replace")


def act_as(who: str) -> Token[str]:
    """From here on, in this thread, changes are this person's; what is returned undoes it by `act_no_longer`."""
    return _acting.set(who[:80])


def act_no_longer(token: Token[str]) -> None:
    _acting.reset(token)


def who_acts() -> str:
    return _acting.get()


@contextmanager
def acting(who: str) -> Iterator[None]:
    """Changes in this block are this person's."""
    token = act_as(who)
    try:
        yield
    finally:
        act_no_longer(token)


def tell(connection: Any, cursor: Any, statement: str, *_rest: object) -> None:
    """Before a statement that writes, tell the server who acts, where it was told another."""
    if not statement.lstrip()[:8].lower().startswith(WRITES):
        return
    who, told = _acting.get(), connection.connection.dbapi_connection
    if getattr(told, "nematex_who", None) != who:
        cursor.execute("set @nematex_who = %s", (who,))
        told.nematex_who = who
