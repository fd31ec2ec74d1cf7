"""Cloths, what was measured and photographed of them, and the lists and filters of the shelf."""

from __future__ import annotations

from datetime import date, datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import JSON, BigInteger, Boolean, Date, DateTime, Double, ForeignKey, Integer, Numeric, String, Text, func, text
from sqlalchemy.orm import Mapped, mapped_column

from nematex.store.files.column import KeptBytes
from nematex.store.models.base import LETTER_BY_LETTER, Base


class ClothRow(Base):
    """A cloth on the shelf."""

    __tablename__ = "cloth"

    id: Mapped[int] = mapped_column(primary_key=True)
    code: Mapped[str] = mapped_column(String(80))
    code_key: Mapped[str] = mapped_column(String(240, LETTER_BY_LETTER), unique=True)
    name: Mapped[str] = mapped_column(String(120), index=True)
    cloth: Mapped[str | None] = mapped_column(String(120))
    fibres: Mapped[str | None] = mapped_column(String(300))
    structure: Mapped[str | None] = mapped_column(String(10))
    weight_gsm: Mapped[float | None] = mapped_column(Double)
    width_cm: Mapped[float | None] = mapped_column(Double)
    bending_length_cm: Mapped[float | None] = mapped_column(Double)
    hand: Mapped[str | None] = mapped_column(String(20))
    stretch_cross_pct: Mapped[float | None] = mapped_column(Double)
    stretch_length_pct: Mapped[float | None] = mapped_column(Double)
    recovery_pct: Mapped[float | None] = mapped_column(Double)
    thickness_mm: Mapped[float | None] = mapped_column(Double)
    sheer: Mapped[str | None] = mapped_column(String(20))
    nap: Mapped[bool | None] = mapped_column(Boolean)
    shrink_length_pct: Mapped[float | None] = mapped_column(Double)
    print_direction: Mapped[str | None] = mapped_column(String(20))
    print_scale_cm: Mapped[float | None] = mapped_column(Double)
    print_repeat_length_cm: Mapped[float | None] = mapped_column(Double)
    print_repeat_width_cm: Mapped[float | None] = mapped_column(Double)
    deadstock: Mapped[bool] = mapped_column(Boolean, default=False)
    known: Mapped[dict[str, str]] = mapped_column(JSON, default=dict)
    price_per_m: Mapped[Decimal | None] = mapped_column(Numeric(10, 4))
    currency: Mapped[str] = mapped_column(String(3), default="")
    stock_m: Mapped[float | None] = mapped_column(Double)
    supplier: Mapped[str] = mapped_column(String(120), default="")
    colours: Mapped[list[str]] = mapped_column(JSON, default=list)
    print_kind: Mapped[str] = mapped_column(String(20), default="")
    notes: Mapped[str] = mapped_column(Text, default="")
    drape_coefficient_pct: Mapped[float | None] = mapped_column(Double)
    weave: Mapped[str] = mapped_column(String(60), default="")
    width_full_cm: Mapped[float | None] = mapped_column(Double)
    bend_along_cm: Mapped[float | None] = mapped_column(Double)
    bend_across_cm: Mapped[float | None] = mapped_column(Double)
    shrink_width_pct: Mapped[float | None] = mapped_column(Double)
    fray: Mapped[str] = mapped_column(String(20), default="")
    crease: Mapped[str] = mapped_column(String(20), default="")
    press: Mapped[str] = mapped_column(String(20), default="")
    care: Mapped[str] = mapped_column(String(300), default="")
    season: Mapped[str] = mapped_column(String(80), default="")
    vat: Mapped[str] = mapped_column(String(40), default="")
    sale_price_per_m: Mapped[Decimal | None] = mapped_column(Numeric(10, 4))
    cut_step_cm: Mapped[float | None] = mapped_column(Double)
    least_cut_cm: Mapped[float | None] = mapped_column(Double)
    maker_secret: Mapped[bool] = mapped_column(Boolean, default=False)
    arrived: Mapped[date | None] = mapped_column(Date)
    follow_print: Mapped[bool | None] = mapped_column(Boolean)
    placement: Mapped[str] = mapped_column(String(120), default="")
    colourways: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    bolts: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    photo_id: Mapped[int | None] = mapped_column(Integer)
    stretch_unsaid: Mapped[bool] = mapped_column(Boolean, default=False)
    more: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)
    version: Mapped[int] = mapped_column(BigInteger, default=0, server_default=text("0"), index=True)
    binned_at: Mapped[datetime | None] = mapped_column(DateTime)


class ReadingRow(Base):
    """One reading of one property; none is ever changed or erased, the cloth's own columns hold what is in force."""

    __tablename__ = "reading"

    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    property: Mapped[str] = mapped_column(String(40))
    number: Mapped[float | None] = mapped_column(Double)
    word: Mapped[str | None] = mapped_column(String(300))
    known: Mapped[str] = mapped_column(String(10))
    by_whom: Mapped[str] = mapped_column(String(60), default="")
    instrument: Mapped[str] = mapped_column(String(80), default="")
    taken_at: Mapped[datetime] = mapped_column(DateTime)
    spread: Mapped[float | None] = mapped_column(Double)
    repeats: Mapped[list[float]] = mapped_column(JSON, default=list)
    note: Mapped[str] = mapped_column(String(300), default="")
    upload_id: Mapped[int | None] = mapped_column(Integer, index=True)


class PhotoRow(Base):
    """A photo of a cloth, re-encoded and without metadata."""

    __tablename__ = "photo"

    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    kind: Mapped[str] = mapped_column(String(20))
    content: Mapped[bytes] = mapped_column(KeptBytes)
    px_per_cm: Mapped[float] = mapped_column(Double)
    found: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)
    taken_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())


class MappingRow(Base):
    """How a supplier's headings were understood last time: heading → field."""

    __tablename__ = "list_mapping"

    supplier: Mapped[str] = mapped_column(String(120, LETTER_BY_LETTER), primary_key=True)
    headings: Mapped[dict[str, str]] = mapped_column(JSON, default=dict)


class ListWordRow(Base):
    """What a word of price lists means, in small letters, by the field that it was asked about in."""

    __tablename__ = "list_word"

    kind: Mapped[str] = mapped_column(String(10), primary_key=True)
    word: Mapped[str] = mapped_column(String(120, LETTER_BY_LETTER), primary_key=True)
    meant: Mapped[str] = mapped_column(String(120))


class FilterRow(Base):
    """A saved filter of the shelf: its name and its address."""

    __tablename__ = "saved_filter"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80, LETTER_BY_LETTER), unique=True)
    query: Mapped[str] = mapped_column(String(1000))


class StockReadingRow(Base):
    """What the feed said of a cloth's stock in m, each time that it was another than before."""

    __tablename__ = "stock_reading"

    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    metres: Mapped[float] = mapped_column(Double)
    read_at: Mapped[datetime] = mapped_column(DateTime)


class FeedRow(Base):
    """A feed as it last answered: when it was asked, when it last came, how old its own figures were, what was refused."""

    __tablename__ = "feed"

    name: Mapped[str] = mapped_column(String(40), primary_key=True)
    tried_at: Mapped[datetime] = mapped_column(DateTime)
    came_at: Mapped[datetime | None] = mapped_column(DateTime)
    stamp: Mapped[datetime | None] = mapped_column(DateTime)
    message: Mapped[str] = mapped_column(String(600), default="")
    refused: Mapped[list[str]] = mapped_column(JSON, default=list)


class ReservationRow(Base):
    """A length in m taken out of a cloth's stock, and what for."""

    __tablename__ = "reservation"

    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"))
    length_m: Mapped[float] = mapped_column(Double)
    why: Mapped[str] = mapped_column(String(300))
    made_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())
