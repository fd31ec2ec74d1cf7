"""Kits that are offered, and how many of each size are sold."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from decimal import Decimal

from sqlalchemy import select

from nematex.store.database import Work
from nematex.store.models import KitOfferRow
from nematex.store.versions import PROGRAMMES, next_version


@dataclass(frozen=True)
class KitOffer:
    """A kit: per size its metres of cloth and how many there are; what is in it, what of that is optional; how many sold."""

    id: int
    name: str
    programme_id: int | None
    pattern_id: int
    cloth_id: int
    view: str | None
    price: Decimal | None
    cost: Decimal
    sizes: tuple[tuple[str, float, int], ...]
    contents: tuple[tuple[str, bool], ...]
    sold: Mapping[str, int] = field(default_factory=dict)
    made_at: datetime | None = None
    gone_at: datetime | None = None

    @property
    def total(self) -> int:
        return sum(count for _, _, count in self.sizes)

    @property
    def left(self) -> dict[str, int]:
        """How many of each size are left."""
        return {size: count - self.sold.get(size, 0) for size, _, count in self.sizes}

    @property
    def left_in_all(self) -> int:
        return sum(self.left.values())


def _record(row: KitOfferRow) -> KitOffer:
    sizes = tuple((str(size), float(metres), int(count)) for size, metres, count in row.sizes)
    contents = tuple((str(text), bool(optional)) for text, optional in row.contents)
    of = (row.id, row.name, row.programme_id, row.pattern_id, row.cloth_id, row.view, row.price, row.cost)
    return KitOffer(*of, sizes, contents, row.sold, row.made_at, row.gone_at)


def offers(work: Work, programme_id: int | None = None) -> list[KitOffer]:
    """The kits that are not in the bin, of a programme or all, the newest first."""
    asked = select(KitOfferRow).where(KitOfferRow.binned_at.is_(None)).order_by(KitOfferRow.id.desc())
    if programme_id is not None:
        asked = asked.where(KitOfferRow.programme_id == programme_id)
    return [_record(row) for row in work.scalars(asked)]


def offer(work: Work, offer_id: int) -> KitOffer | None:
    row = work.get(KitOfferRow, offer_id)
    return _record(row) if row and row.binned_at is None else None


def add_offer(work: Work, new: KitOffer) -> int:
    """Keep a new kit; its number."""
    next_version(work, PROGRAMMES)
    row = KitOfferRow(
        name=new.name,
        programme_id=new.programme_id,
        pattern_id=new.pattern_id,
        cloth_id=new.cloth_id,
        view=new.view,
        price=new.price,
        cost=new.cost,
        sizes=[list(each) for each in new.sizes],
        contents=[list(each) for each in new.contents],
        sold={},
        made_at=new.made_at,
    )
    work.add(row)
    work.flush()
    return row.id


def sell(work: Work, offer_id: int, size: str, step: int, now: datetime) -> bool:
    """Sell a kit of a size, or take one back; whether there was one. The row is held, so that the last is sold once."""
    next_version(work, PROGRAMMES)
    row = work.get(KitOfferRow, offer_id, with_for_update=True)
    if row is None or row.binned_at is not None:
        return False
    kept = _record(row)
    sold = kept.sold.get(size, 0) + step
    if size not in kept.left or not 0 <= sold <= kept.left[size] + kept.sold.get(size, 0):
        return False
    row.sold = {**kept.sold, size: sold}
    row.gone_at = now.replace(microsecond=0) if _record(row).left_in_all == 0 else None
    return True


def set_optional(work: Work, offer_id: int, optional: frozenset[int]) -> None:
    """Which of its contents, by place, somebody may leave out."""
    next_version(work, PROGRAMMES)
    row = work.get_one(KitOfferRow, offer_id, with_for_update=True)
    row.contents = [[text, at in optional] for at, (text, _) in enumerate(row.contents)]


def bin_offer(work: Work, offer_id: int) -> None:
    next_version(work, PROGRAMMES)
    work.get_one(KitOfferRow, offer_id).binned_at = datetime.now().replace(microsecond=0)
