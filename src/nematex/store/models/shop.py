"""What belongs to the whole shop: settings, texts, uploads and their steps, jobs, what is gone."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, BigInteger, Boolean, DateTime, ForeignKey, Integer, String, func
from sqlalchemy.dialects.mysql import LONGBLOB, LONGTEXT, MEDIUMTEXT
from sqlalchemy.orm import Mapped, mapped_column

from nematex.store.models.base import Base


class SettingRow(Base):
    """Shop-wide settings and counters: `units`, `words`, `shop`, and `shelf version`."""

    __tablename__ = "setting"

    name: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[str] = mapped_column(String(300))


class ShopTextRow(Base):
    """A longer text of the shop's own, by its name."""

    __tablename__ = "shop_text"

    name: Mapped[str] = mapped_column(String(60), primary_key=True)
    body: Mapped[str] = mapped_column(MEDIUMTEXT)


class UploadRow(Base):
    """A file sent for import, kept until it is applied, so that a preview survives a restart."""

    __tablename__ = "upload"

    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(20))
    filename: Mapped[str] = mapped_column(String(300))
    content: Mapped[bytes] = mapped_column(LONGBLOB)
    mapping: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)
    supplier: Mapped[str] = mapped_column(String(120), default="")
    applied: Mapped[bool] = mapped_column(Boolean, default=False)
    state: Mapped[str] = mapped_column(String(20), default="")
    message: Mapped[str] = mapped_column(String(600), default="")
    job_id: Mapped[int | None] = mapped_column(Integer)
    sent_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())


class ImportStepRow(Base):
    """What an import did to one cloth: its columns before and after, so that it can be taken back."""

    __tablename__ = "import_step"

    id: Mapped[int] = mapped_column(primary_key=True)
    upload_id: Mapped[int] = mapped_column(ForeignKey("upload.id", ondelete="CASCADE"), index=True)
    code: Mapped[str] = mapped_column(String(80))
    before: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    after: Mapped[dict[str, Any]] = mapped_column(JSON)


class JobRow(Base):
    """A job outside the web process; `asked_key` is the hash of what was asked, so that the same is not done twice."""

    __tablename__ = "job"

    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(20))
    asked_key: Mapped[str] = mapped_column(String(64), index=True)
    asked: Mapped[str] = mapped_column(LONGTEXT)
    about: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)
    state: Mapped[str] = mapped_column(String(12), index=True)
    done: Mapped[int] = mapped_column(Integer, default=0)
    total: Mapped[int] = mapped_column(Integer, default=0)
    found: Mapped[str] = mapped_column(LONGTEXT, default="")
    message: Mapped[str] = mapped_column(String(600), default="")
    tries: Mapped[int] = mapped_column(Integer, default=0)
    made_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())


class JobPartRow(Base):
    """What a job found, where that is no text: its bytes, in parts that the server takes at once."""

    __tablename__ = "job_part"

    job_id: Mapped[int] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    place: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    content: Mapped[bytes] = mapped_column(LONGBLOB)


class GoneRow(Base):
    """A cloth or pattern that was removed, with the number of that change."""

    __tablename__ = "gone"

    kind: Mapped[str] = mapped_column(String(10), primary_key=True)
    row_id: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    version: Mapped[int] = mapped_column(BigInteger, index=True)
