"""A connection comes back outside of any transaction, and is alive when it is given out after a rest."""

from __future__ import annotations

import time

import pytest
from sqlalchemy import text
from sqlalchemy.orm import Session

from nematex.store import pooling
from nematex.store.database import Database

NAME = "told by a test of the pool"


def number_of(connection: object) -> int:
    return int(connection.execute(text("select connection_id()")).scalar())  # type: ignore[attr-defined]


def told(database: Database) -> str | None:
    with database.work() as work:
        found: str | None = work.execute(text("select value from setting where name = :name"), {"name": NAME}).scalar()
        return found


def test_what_was_left_open_is_rolled_back_before_another_has_the_connection(database: Database) -> None:
    with database.engine.connect() as connection:
        used = number_of(connection)
        connection.execute(text("insert into setting (name, value) values (:name, 'half')"), {"name": NAME})
    with database.engine.connect() as connection:
        assert number_of(connection) == used
        assert connection.execute(text("select @@in_transaction")).scalar() == 0
    assert told(database) is None
    session = Session(database.engine)
    session.execute(text("insert into setting (name, value) values (:name, 'half')"), {"name": NAME})
    session.close()
    assert told(database) is None


def test_a_connection_that_ended_while_it_rested_is_replaced(database: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    with database.engine.connect() as other:
        with database.engine.connect() as connection:
            used = number_of(connection)
        other.execute(text(f"kill {used}"))
    monkeypatch.setattr(pooling, "RESTED_S", 0.0)  # it has rested long enough
    with database.engine.connect() as connection:
        assert number_of(connection) != used
    assert told(database) is None


def test_the_pool_asks_nothing_between_two_uses_in_a_row(database: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    asked: list[float] = []
    with database.engine.connect() as connection:
        live = connection.connection.dbapi_connection
        monkeypatch.setattr(live, "ping", lambda reconnect=True: asked.append(time.monotonic()), raising=False)
    monkeypatch.setattr(pooling, "RESTED_S", 60.0)
    assert told(database) is None
    assert not asked
    monkeypatch.setattr(pooling, "RESTED_S", 0.0)
    assert told(database) is None
    assert len(asked) == 1
