"""The root of all tables."""

from __future__ import annotations

from sqlalchemy.orm import DeclarativeBase

LETTER_BY_LETTER = "utf8mb4_nopad_bin"  # the usual collation takes é for e, and one emoji for another


class Base(DeclarativeBase):
    """Root of all tables; utf8mb4 and InnoDB throughout."""

    __table_args__ = {"mysql_charset": "utf8mb4", "mysql_engine": "InnoDB"}  # noqa: RUF012
