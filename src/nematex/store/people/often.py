"""How often something that is limited was asked, counted in the database: for all processes and machines together."""

from __future__ import annotations

import hashlib

from sqlalchemy import case, delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Database
from nematex.store.models import AskedOftenRow

LONGEST = 150


def _name(name: str) -> str:
    """A name as the column takes it: what is longer, or holds other letters, by its hash."""
    plain = name.isascii() and len(name) <= LONGEST
    return name if plain else hashlib.sha256(name.encode(errors="replace")).hexdigest()


def count(database: Database, name: str, span_s: float, now_s: float, amount: int = 1) -> int:
    """Count it once more; how often it was asked in its span. A span that is over begins anew."""
    row = AskedOftenRow
    over = row.until_s <= now_s
    added = insert(row).values(name=_name(name), times=amount, until_s=now_s + span_s)
    # The server sets columns from the left: `times` looks at the old end.
    kept = added.on_duplicate_key_update(
        [
            ("times", case((over, amount), else_=row.times + amount)),
            ("until_s", case((over, now_s + span_s), else_=row.until_s)),
        ]
    )
    with database.work() as work:
        work.execute(kept)
        return int(work.scalar(select(row.times).where(row.name == _name(name))) or 0)


def asked(database: Database, name: str, now_s: float) -> tuple[int, float]:
    """How often so far, and when its span ends."""
    row = AskedOftenRow
    with database.work() as work:
        found = work.execute(select(row.times, row.until_s).where(row.name == _name(name), row.until_s > now_s)).first()
    return (int(found[0]), float(found[1])) if found else (0, now_s)


def forget(database: Database, name: str | None, now_s: float) -> int:
    """Forget a name, or without one every span that is over; how many that were."""
    which = AskedOftenRow.name == _name(name) if name is not None else AskedOftenRow.until_s <= now_s
    with database.work() as work:
        return int(work.execute(delete(AskedOftenRow).where(which)).rowcount)  # type: ignore[attr-defined]
