"""What is on air and what becomes of it: takes, remotes, notes, sew-alongs, kits, makes, practice."""

from __future__ import annotations

from datetime import date, datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import JSON, Boolean, Date, DateTime, Double, ForeignKey, Integer, Numeric, String, Text, UniqueConstraint, text
from sqlalchemy.dialects.mysql import MEDIUMTEXT
from sqlalchemy.orm import Mapped, mapped_column

from nematex.store.files.column import KeptBytes
from nematex.store.models.base import LETTER_BY_LETTER, Base


class TakeRow(Base):
    """A take of a programme. `own_key` is given by the device that films, so that what it kept meanwhile is known again;
    `plan` are the parts as that device showed them.
    """

    __tablename__ = "take"

    id: Mapped[int] = mapped_column(primary_key=True)
    programme_id: Mapped[int] = mapped_column(ForeignKey("programme.id", ondelete="CASCADE"), index=True)
    own_key: Mapped[str] = mapped_column(String(40, LETTER_BY_LETTER), unique=True)
    started_at: Mapped[datetime] = mapped_column(DateTime)
    plan: Mapped[list[dict[str, Any]]] = mapped_column(JSON)
    chosen: Mapped[bool] = mapped_column(Boolean, default=False, server_default=text("0"))
    offset_s: Mapped[float] = mapped_column(Double, default=0.0, server_default=text("0"))


class TakeEventRow(Base):
    """Something that happened in a take, in s since it began; sent twice, it stands once."""

    __tablename__ = "take_event"
    __table_args__ = (UniqueConstraint("take_id", "own_key"), Base.__table_args__)  # type: ignore[assignment]

    id: Mapped[int] = mapped_column(primary_key=True)
    take_id: Mapped[int] = mapped_column(ForeignKey("take.id", ondelete="CASCADE"))
    own_key: Mapped[str] = mapped_column(String(40, LETTER_BY_LETTER))
    kind: Mapped[str] = mapped_column(String(10))
    at_s: Mapped[float] = mapped_column(Double)
    part: Mapped[int] = mapped_column(Integer)
    fact: Mapped[str] = mapped_column(String(60), default="")
    text: Mapped[str] = mapped_column(Text, default="")


class RemoteRow(Base):
    """A remote that belongs to a camera view by its code; `shows` is what the camera view shows."""

    __tablename__ = "remote"

    code: Mapped[str] = mapped_column(String(12, LETTER_BY_LETTER), primary_key=True)
    programme_id: Mapped[int] = mapped_column(ForeignKey("programme.id", ondelete="CASCADE"))
    made_at: Mapped[datetime] = mapped_column(DateTime)
    shows: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)


class RemotePressRow(Base):
    """A key of a remote that was pressed, in s since 1970 by this machine's clock."""

    __tablename__ = "remote_press"
    __table_args__ = (UniqueConstraint("code", "own_key"), Base.__table_args__)  # type: ignore[assignment]

    id: Mapped[int] = mapped_column(primary_key=True)
    code: Mapped[str] = mapped_column(String(12, LETTER_BY_LETTER), ForeignKey("remote.code", ondelete="CASCADE"))
    own_key: Mapped[str] = mapped_column(String(40, LETTER_BY_LETTER))
    kind: Mapped[str] = mapped_column(String(10))
    text: Mapped[str] = mapped_column(Text, default="")
    pressed_at_s: Mapped[float] = mapped_column(Double)


class NoteEditRow(Base):
    """A text of a programme's notes as the presenter wrote it, and what the product said when it was written."""

    __tablename__ = "note_edit"

    programme_id: Mapped[int] = mapped_column(
        ForeignKey("programme.id", ondelete="CASCADE"), primary_key=True, autoincrement=False
    )
    kind: Mapped[str] = mapped_column(String(20), primary_key=True)
    base: Mapped[str] = mapped_column(MEDIUMTEXT)
    body: Mapped[str] = mapped_column(MEDIUMTEXT)


class PublicationRow(Base):
    """A version of a programme's notes as it went out: what was told, and its texts by kind. Never changed."""

    __tablename__ = "publication"
    __table_args__ = (UniqueConstraint("programme_id", "number"), Base.__table_args__)  # type: ignore[assignment]

    id: Mapped[int] = mapped_column(primary_key=True)
    programme_id: Mapped[int] = mapped_column(ForeignKey("programme.id", ondelete="CASCADE"))
    number: Mapped[int] = mapped_column(Integer)
    published_at: Mapped[datetime] = mapped_column(DateTime)
    told: Mapped[dict[str, Any]] = mapped_column(JSON)
    texts: Mapped[dict[str, str]] = mapped_column(JSON)


class SewAlongRow(Base):
    """A sew-along; `typed` are the texts of its form, `changes` how often it was saved: calendars count by it."""

    __tablename__ = "sew_along"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    pattern_id: Mapped[int] = mapped_column(ForeignKey("pattern.id", ondelete="CASCADE"))
    cloth_ids: Mapped[list[int]] = mapped_column(JSON)
    typed: Mapped[dict[str, str]] = mapped_column(JSON)
    public_key: Mapped[str | None] = mapped_column(String(40, LETTER_BY_LETTER), unique=True)
    changes: Mapped[int] = mapped_column(Integer, default=0, server_default=text("0"))
    binned_at: Mapped[datetime | None] = mapped_column(DateTime)


class KitOfferRow(Base):
    """A kit that is offered. `sizes`: [size, metres, how many]; `contents`: [text, optional]; `sold`: size → how many."""

    __tablename__ = "kit_offer"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    programme_id: Mapped[int | None] = mapped_column(ForeignKey("programme.id", ondelete="SET NULL"))
    pattern_id: Mapped[int] = mapped_column(ForeignKey("pattern.id", ondelete="CASCADE"))
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"))
    view: Mapped[str | None] = mapped_column(String(300))
    price: Mapped[Decimal | None] = mapped_column(Numeric(10, 2))
    cost: Mapped[Decimal] = mapped_column(Numeric(12, 2))
    sizes: Mapped[list[list[Any]]] = mapped_column(JSON)
    contents: Mapped[list[list[Any]]] = mapped_column(JSON)
    sold: Mapped[dict[str, int]] = mapped_column(JSON, default=dict)
    made_at: Mapped[datetime] = mapped_column(DateTime)
    gone_at: Mapped[datetime | None] = mapped_column(DateTime)
    binned_at: Mapped[datetime | None] = mapped_column(DateTime)


class MakeRow(Base):
    """A garment that was made; the verdicts after making and after washing, and what was told of it."""

    __tablename__ = "make"

    id: Mapped[int] = mapped_column(primary_key=True)
    pattern_id: Mapped[int] = mapped_column(ForeignKey("pattern.id", ondelete="CASCADE"), index=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    made_on: Mapped[date | None] = mapped_column(Date)
    viewers: Mapped[bool] = mapped_column(Boolean, default=False, server_default=text("0"))
    verdict: Mapped[str] = mapped_column(String(20), default="")
    washed: Mapped[str] = mapped_column(String(20), default="")
    hours: Mapped[float | None] = mapped_column(Double)
    told: Mapped[dict[str, str]] = mapped_column(JSON, default=dict)
    photo: Mapped[bytes | None] = mapped_column(KeptBytes)
    kept_at: Mapped[datetime] = mapped_column(DateTime)
    binned_at: Mapped[datetime | None] = mapped_column(DateTime)


class PracticeCardRow(Base):
    """When a question comes again to somebody."""

    __tablename__ = "practice_card"

    who: Mapped[str] = mapped_column(String(40, LETTER_BY_LETTER), primary_key=True)
    question: Mapped[str] = mapped_column(String(60, LETTER_BY_LETTER), primary_key=True)
    ease: Mapped[float] = mapped_column(Double)
    interval_days: Mapped[int] = mapped_column(Integer)
    repetitions: Mapped[int] = mapped_column(Integer)
    due: Mapped[date] = mapped_column(Date)
    drill: Mapped[bool] = mapped_column(Boolean, default=False, server_default=text("0"))


class PracticeAnswerRow(Base):
    """An answer in the practice room; `off`: how far a judged number was from the known one, as a share of it."""

    __tablename__ = "practice_answer"

    id: Mapped[int] = mapped_column(primary_key=True)
    who: Mapped[str] = mapped_column(String(40, LETTER_BY_LETTER), index=True)
    question: Mapped[str] = mapped_column(String(60, LETTER_BY_LETTER))
    answered_at: Mapped[datetime] = mapped_column(DateTime)
    said: Mapped[dict[str, str]] = mapped_column(JSON, default=dict)
    grade: Mapped[int] = mapped_column(Integer)
    off: Mapped[float | None] = mapped_column(Double)
