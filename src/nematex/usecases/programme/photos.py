"""The shop's own photos of what it made, shown on the wall in the place of the drawing."""

from __future__ import annotations

from nematex.core.errors import FieldFault
from nematex.store.programme import photos as store
from nematex.store.records import Programme
from nematex.usecases.files.photo_file import kept_copy
from nematex.usecases.held.shop import Shop
from nematex.usecases.programme.acts import found_programme


def photographed(shop: Shop, programme: Programme) -> frozenset[int]:
    """The picks of which the shop has a photo of its own."""
    with shop.database.work() as work:
        return store.with_photo(work, [pick.id for pick in programme.picks])


def photo_of(shop: Shop, pick_id: int) -> bytes | None:
    """The photo of a pick, as JPEG."""
    with shop.database.work() as work:
        return store.photo(work, pick_id)


def put_photo(shop: Shop, programme_id: int, pick_id: int, content: bytes) -> None:
    """Keep a photo of a pick, re-encoded and without metadata; raises FieldFault."""
    copy, _ = kept_copy(content)
    with shop.database.work() as work:
        found_programme(work, programme_id)
        if not store.put_photo(work, programme_id, pick_id, copy):
            raise FieldFault("pick", str(pick_id), "was taken out meanwhile; put it back from the bin")


def drop_photo(shop: Shop, programme_id: int, pick_id: int) -> None:
    """Show the drawing again."""
    with shop.database.work() as work:
        if any(pick.id == pick_id for pick in found_programme(work, programme_id).picks):
            store.drop_photo(work, pick_id)
