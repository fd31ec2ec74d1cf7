"""Programmes, their picks and photos."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from sqlalchemy import JSON, Boolean, Date, DateTime, ForeignKey, Integer, String, Text, func, text
from sqlalchemy.orm import Mapped, mapped_column

from nematex.core.pattern.facts import USUAL_SCHOOL
from nematex.store.files.column import KeptBytes
from nematex.store.models.base import LETTER_BY_LETTER, Base


class ProgrammeRow(Base):
    """A film, post or newsletter to come."""

    __tablename__ = "programme"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    shown_on: Mapped[date | None] = mapped_column(Date)
    intro: Mapped[str] = mapped_column(Text, default="")
    brief: Mapped[dict[str, str] | None] = mapped_column(JSON(none_as_null=True))
    refused: Mapped[list[list[int]] | None] = mapped_column(JSON(none_as_null=True))
    proposal: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    public_key: Mapped[str | None] = mapped_column(String(40, LETTER_BY_LETTER), unique=True)
    binned_at: Mapped[datetime | None] = mapped_column(DateTime)


class PickRow(Base):
    """One pairing in a programme; `place` orders them."""

    __tablename__ = "pick"

    id: Mapped[int] = mapped_column(primary_key=True)
    programme_id: Mapped[int] = mapped_column(ForeignKey("programme.id", ondelete="CASCADE"), index=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"))
    pattern_id: Mapped[int] = mapped_column(ForeignKey("pattern.id", ondelete="CASCADE"))
    place: Mapped[int] = mapped_column(Integer)
    line: Mapped[str] = mapped_column(Text, default="")
    view: Mapped[str | None] = mapped_column(String(300))
    size: Mapped[str | None] = mapped_column(String(300))
    look: Mapped[str] = mapped_column(String(20), default="balanced")
    school: Mapped[str] = mapped_column(String(10), default=USUAL_SCHOOL)
    options: Mapped[list[str] | None] = mapped_column(JSON(none_as_null=True))
    other_size: Mapped[str | None] = mapped_column(String(40))
    hacks: Mapped[list[str] | None] = mapped_column(JSON(none_as_null=True))
    instead_of: Mapped[int | None] = mapped_column(Integer)
    part: Mapped[str | None] = mapped_column(String(80))
    with_before: Mapped[bool] = mapped_column(Boolean, default=False, server_default=text("0"))
    proposed: Mapped[bool] = mapped_column(Boolean, default=False, server_default=text("0"))
    waits: Mapped[bool] = mapped_column(Boolean, default=False, server_default=text("0"))
    why: Mapped[list[str] | None] = mapped_column(JSON(none_as_null=True))
    question: Mapped[str | None] = mapped_column(Text)
    binned_at: Mapped[datetime | None] = mapped_column(DateTime)


class PickPhotoRow(Base):
    """The shop's own photo of a garment that it made, shown in the place of the drawing; re-encoded, without metadata."""

    __tablename__ = "pick_photo"

    pick_id: Mapped[int] = mapped_column(ForeignKey("pick.id", ondelete="CASCADE"), primary_key=True, autoincrement=False)
    content: Mapped[bytes] = mapped_column(KeptBytes)
    taken_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())
