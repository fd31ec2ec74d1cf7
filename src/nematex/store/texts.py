"""Longer texts of the shop's own, by name: how words are said, templates of notes."""

from __future__ import annotations

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import ShopTextRow


def text_of(work: Work, name: str) -> str | None:
    """The text of this name, waiting for nobody; None where the shop has none of its own."""
    return work.scalar(select(ShopTextRow.body).where(ShopTextRow.name == name))


def put_text(work: Work, name: str, body: str) -> None:
    statement = insert(ShopTextRow).values(name=name, body=body)
    work.execute(statement.on_duplicate_key_update(body=statement.inserted.body))


def drop_text(work: Work, name: str) -> None:
    work.execute(delete(ShopTextRow).where(ShopTextRow.name == name))
