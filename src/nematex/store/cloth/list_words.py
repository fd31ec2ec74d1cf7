"""What words of price lists mean, as somebody has told; kind is the field that they were asked about in."""

from __future__ import annotations

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import ListWordRow


def told_words(work: Work) -> dict[str, dict[str, str]]:
    """Kind → word in small letters → what it means; "" where it is only a name."""
    found: dict[str, dict[str, str]] = {}
    for row in work.scalars(select(ListWordRow).order_by(ListWordRow.kind, ListWordRow.word)):
        found.setdefault(row.kind, {})[row.word] = row.meant
    return found


def tell_word(work: Work, kind: str, word: str, meant: str) -> None:
    """Keep a meaning; told again, the later one holds."""
    statement = insert(ListWordRow).values(kind=kind, word=word, meant=meant)
    work.execute(statement.on_duplicate_key_update(meant=statement.inserted.meant))


def forget_word(work: Work, kind: str, word: str) -> None:
    work.execute(delete(ListWordRow).where(ListWordRow.kind == kind, ListWordRow.word == word))
