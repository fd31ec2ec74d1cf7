"""The tables. Column comments say unit and range; rules live in the core."""

from __future__ import annotations

from datetime import date, datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import (
    JSON,
    BigInteger,
    Boolean,
    Date,
    DateTime,
    Double,
    ForeignKey,
    Integer,
    Numeric,
    String,
    Text,
    UniqueConstraint,
    func,
    text,
)
from sqlalchemy.dialects.mysql import LONGBLOB, LONGTEXT, MEDIUMTEXT
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

LETTER_BY_LETTER = "utf8mb4_nopad_bin"  # the usual collation takes é for e, and one emoji for another


class Base(DeclarativeBase):
    """Root of all tables; utf8mb4 and InnoDB throughout."""

    __table_args__ = {"mysql_charset": "utf8mb4", "mysql_engine": "InnoDB"}  # noqa: RUF012


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
    content: Mapped[bytes] = mapped_column(LONGBLOB)
    px_per_cm: Mapped[float] = mapped_column(Double)
    found: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)
    taken_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())


class ImportStepRow(Base):
    """What an import did to one cloth: its columns before and after, so that it can be taken back."""

    __tablename__ = "import_step"

    id: Mapped[int] = mapped_column(primary_key=True)
    upload_id: Mapped[int] = mapped_column(ForeignKey("upload.id", ondelete="CASCADE"), index=True)
    code: Mapped[str] = mapped_column(String(80))
    before: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    after: Mapped[dict[str, Any]] = mapped_column(JSON)


class MappingRow(Base):
    """How a supplier's headings were understood last time: heading → field."""

    __tablename__ = "list_mapping"

    supplier: Mapped[str] = mapped_column(String(120, LETTER_BY_LETTER), primary_key=True)
    headings: Mapped[dict[str, str]] = mapped_column(JSON, default=dict)


class FilterRow(Base):
    """A saved filter of the shelf: its name and its address."""

    __tablename__ = "saved_filter"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80, LETTER_BY_LETTER), unique=True)
    query: Mapped[str] = mapped_column(String(1000))


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
    school: Mapped[str] = mapped_column(String(10), default="hand")
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
    content: Mapped[bytes] = mapped_column(LONGBLOB)
    taken_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())


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


class ShopTextRow(Base):
    """A longer text of the shop's own, by its name."""

    __tablename__ = "shop_text"

    name: Mapped[str] = mapped_column(String(60), primary_key=True)
    body: Mapped[str] = mapped_column(MEDIUMTEXT)


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
    photo: Mapped[bytes | None] = mapped_column(LONGBLOB)
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


class ReservationRow(Base):
    """A length in m taken out of a cloth's stock, and what for."""

    __tablename__ = "reservation"

    id: Mapped[int] = mapped_column(primary_key=True)
    cloth_id: Mapped[int] = mapped_column(ForeignKey("cloth.id", ondelete="CASCADE"))
    length_m: Mapped[float] = mapped_column(Double)
    why: Mapped[str] = mapped_column(String(300))
    made_at: Mapped[datetime] = mapped_column(DateTime, server_default=func.now())


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


class SettingRow(Base):
    """Shop-wide settings and counters: `units`, `words`, `shop`, and `shelf version`."""

    __tablename__ = "setting"

    name: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[str] = mapped_column(String(300))
