"""Patterns, the shop's own numbers of the rules, and what hands decided."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, BigInteger, Boolean, DateTime, Double, ForeignKey, String, Text, UniqueConstraint, func, text
from sqlalchemy.dialects.mysql import MEDIUMTEXT
from sqlalchemy.orm import Mapped, mapped_column

from nematex.store.models.base import LETTER_BY_LETTER, Base


class PatternRow(Base):
    """A pattern in the drawer; lists are kept as JSON in the form of the assess input."""

    __tablename__ = "pattern"

    id: Mapped[int] = mapped_column(primary_key=True)
    code: Mapped[str] = mapped_column(String(80))
    code_key: Mapped[str] = mapped_column(String(240, LETTER_BY_LETTER), unique=True)
    name: Mapped[str] = mapped_column(String(120), index=True)
    house: Mapped[str] = mapped_column(String(120), default="")
    garment: Mapped[str] = mapped_column(String(120), default="")
    structure: Mapped[str | None] = mapped_column(String(10))
    recommended: Mapped[str] = mapped_column(Text, default="")
    avoid: Mapped[str] = mapped_column(Text, default="")
    min_stretch_cross_pct: Mapped[float | None] = mapped_column(Double)
    min_stretch_length_pct: Mapped[float | None] = mapped_column(Double)
    details: Mapped[list[str]] = mapped_column(JSON, default=list)
    parts: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    lined: Mapped[bool] = mapped_column(Boolean, default=False)
    nightwear: Mapped[bool] = mapped_column(Boolean, default=False)
    wearer: Mapped[str] = mapped_column(String(10), default="adult")
    widest_piece_cm: Mapped[float | None] = mapped_column(Double)
    requirements: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    sizes: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    difficulty: Mapped[str] = mapped_column(String(40), default="")
    season: Mapped[str] = mapped_column(String(80), default="")
    notions: Mapped[str] = mapped_column(Text, default="")
    notes: Mapped[str] = mapped_column(Text, default="")
    options: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    edge_fixes: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    reading_fixes: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    sold_as: Mapped[str] = mapped_column(String(20), default="")
    licence: Mapped[str] = mapped_column(Text, default="")
    link: Mapped[str] = mapped_column(String(500), default="", server_default="")
    envelope: Mapped[str] = mapped_column(MEDIUMTEXT, default="")
    version: Mapped[int] = mapped_column(BigInteger, default=0, server_default=text("0"), index=True)
    binned_at: Mapped[datetime | None] = mapped_column(DateTime)


class RuleFixRow(Base):
    """A number of the trade's tables as this shop has set it: which place, row and field, what it was, and why."""

    __tablename__ = "rule_fix"
    __table_args__ = (UniqueConstraint("place", "row", "field"), Base.__table_args__)  # type: ignore[assignment]

    id: Mapped[int] = mapped_column(primary_key=True)
    place: Mapped[str] = mapped_column(String(40))
    row: Mapped[str] = mapped_column(String(120))
    field: Mapped[str] = mapped_column(String(60))
    value: Mapped[float] = mapped_column(Double)
    was: Mapped[float] = mapped_column(Double)
    reason: Mapped[str] = mapped_column(String(600))
    by_whom: Mapped[str] = mapped_column(String(60), default="")
    set_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())


class OverrideRow(Base):
    """What somebody decided of a pairing, beside what the rules said then; `made` where the garment was made up."""

    __tablename__ = "hand_verdict"

    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"), index=True)
    pattern_id: Mapped[int] = mapped_column(ForeignKey("pattern.id", ondelete="CASCADE"), index=True)
    part: Mapped[str] = mapped_column(String(300), default="")
    verdict: Mapped[str] = mapped_column(String(20))
    rules: Mapped[str] = mapped_column(String(20))
    check: Mapped[str] = mapped_column(String(20), default="")
    window: Mapped[str] = mapped_column(String(120), default="")
    reason: Mapped[str] = mapped_column(String(600))
    by_whom: Mapped[str] = mapped_column(String(60), default="")
    made: Mapped[bool] = mapped_column(Boolean, default=False)
    set_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())
    binned_at: Mapped[datetime | None] = mapped_column(DateTime)
