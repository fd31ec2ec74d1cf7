"""Where the limiter keeps its counts: in the shop's database, so that no process and no machine counts for itself alone."""

from __future__ import annotations

import time
from typing import Any

from limits.storage.base import Storage

from nematex.store.database import Database, DatabaseGone
from nematex.store.people import often

SCHEME = "nematex-database"
FOR_EVER_S = 1e18


class InDatabase(Storage):
    """The limiter's storage of this scheme; it is handed the database as an option."""

    STORAGE_SCHEME = [SCHEME]  # noqa: RUF012  # as the library reads it

    def __init__(self, uri: str | None = None, wrap_exceptions: bool = False, **options: Any) -> None:
        super().__init__(uri, wrap_exceptions=wrap_exceptions)
        self.database: Database = options["database"]

    @property
    def base_exceptions(self) -> type[Exception]:
        return DatabaseGone

    def incr(self, key: str, expiry: float, amount: int = 1) -> int:
        return often.count(self.database, key, expiry, time.time(), amount)

    def get(self, key: str) -> int:
        return often.asked(self.database, key, time.time())[0]

    def get_expiry(self, key: str) -> float:
        return often.asked(self.database, key, time.time())[1]

    def check(self) -> bool:
        try:
            return self.database.answers()
        except DatabaseGone:
            return False

    def reset(self) -> int | None:
        return often.forget(self.database, None, FOR_EVER_S)

    def clear(self, key: str) -> None:
        often.forget(self.database, key, time.time())
