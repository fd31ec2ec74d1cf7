"""People of the shop: how they sign in, where they are signed in, who was invited, and the trail of what was changed."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import JSON, BigInteger, DateTime, Double, ForeignKey, Index, Integer, String, text
from sqlalchemy.dialects.mysql import LONGTEXT, VARBINARY
from sqlalchemy.orm import Mapped, mapped_column

from nematex.store.models.base import LETTER_BY_LETTER, Base


class PersonRow(Base):
    """Somebody who may sign in; `name_key` is the name as it is compared. Ended ones keep their row: the trail names them."""

    __tablename__ = "person"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    name_key: Mapped[str] = mapped_column(String(240, LETTER_BY_LETTER), unique=True)
    role: Mapped[str] = mapped_column(String(12))
    password_hash: Mapped[str] = mapped_column(String(200), default="")
    code_secret: Mapped[str] = mapped_column(String(64), default="", server_default=text("''"))
    code_step: Mapped[int] = mapped_column(BigInteger, default=0, server_default=text("0"))
    spare_codes: Mapped[list[str] | None] = mapped_column(JSON(none_as_null=True))
    failures: Mapped[int] = mapped_column(Integer, default=0, server_default=text("0"))
    waits_until: Mapped[datetime | None] = mapped_column(DateTime)
    made_at: Mapped[datetime] = mapped_column(DateTime)
    ended_at: Mapped[datetime | None] = mapped_column(DateTime)


class SignInRow(Base):
    """Where somebody is signed in: the hash of the token that the browser holds."""

    __tablename__ = "sign_in"

    token_hash: Mapped[str] = mapped_column(String(64, LETTER_BY_LETTER), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    device: Mapped[str] = mapped_column(String(120), default="")
    address: Mapped[str] = mapped_column(String(60), default="")
    begun_at: Mapped[datetime] = mapped_column(DateTime)
    seen_at: Mapped[datetime] = mapped_column(DateTime)
    proved_at: Mapped[datetime] = mapped_column(DateTime)


class InvitationRow(Base):
    """A link that works once: for somebody new, or for a new password of a person who is there."""

    __tablename__ = "invitation"

    token_hash: Mapped[str] = mapped_column(String(64, LETTER_BY_LETTER), primary_key=True)
    name: Mapped[str] = mapped_column(String(60), default="")
    role: Mapped[str] = mapped_column(String(12))
    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    made_by: Mapped[str] = mapped_column(String(60))
    made_at: Mapped[datetime] = mapped_column(DateTime)
    ends_at: Mapped[datetime] = mapped_column(DateTime)


class PasskeyRow(Base):
    """A passkey: what its device calls it, and the public key that its answers are checked with."""

    __tablename__ = "passkey"

    id: Mapped[int] = mapped_column(primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    credential: Mapped[bytes] = mapped_column(VARBINARY(700), unique=True)
    public_key: Mapped[bytes] = mapped_column(VARBINARY(2000))
    sign_count: Mapped[int] = mapped_column(BigInteger, default=0)
    name: Mapped[str] = mapped_column(String(60))
    made_at: Mapped[datetime] = mapped_column(DateTime)


class FailedSignInRow(Base):
    """A sign-in that was refused, and how often within its hour from there. Of a name that nobody has, no name is kept: it
    may have been a password.
    """

    __tablename__ = "failed_sign_in"

    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(DateTime)
    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    address: Mapped[str] = mapped_column(String(60), default="")
    device: Mapped[str] = mapped_column(String(120), default="")
    tries: Mapped[int] = mapped_column(Integer, default=1)


class AskedOftenRow(Base):
    """How often something that is limited was asked since its span began; `until_s` is its end, in s since 1970."""

    __tablename__ = "asked_often"

    name: Mapped[str] = mapped_column(String(160, LETTER_BY_LETTER), primary_key=True)
    times: Mapped[int] = mapped_column(Integer)
    until_s: Mapped[float] = mapped_column(Double, index=True)


class TrailRow(Base):
    """One change of one record, written by the database itself: column → [before, after]."""

    __tablename__ = "trail"
    __table_args__ = (  # type: ignore[assignment]
        Index("ix_trail_record", "kind", "row_id"),
        Index("ix_trail_under", "under_kind", "under_id"),
        Base.__table_args__,
    )

    id: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=True)
    at: Mapped[datetime] = mapped_column(DateTime, index=True)
    who: Mapped[str] = mapped_column(String(80))
    kind: Mapped[str] = mapped_column(String(20, LETTER_BY_LETTER))
    row_id: Mapped[int] = mapped_column(BigInteger)
    under_kind: Mapped[str | None] = mapped_column(String(20, LETTER_BY_LETTER))
    under_id: Mapped[int | None] = mapped_column(BigInteger)
    act: Mapped[str] = mapped_column(String(10))
    changes: Mapped[str] = mapped_column(LONGTEXT)
