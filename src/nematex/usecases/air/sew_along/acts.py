"""What can be done with a sew-along: kept, shown in public and withdrawn, cloth reserved for it."""

from __future__ import annotations

import secrets
from collections.abc import Mapping

from nematex.core.errors import FieldFault
from nematex.store.air import sew_alongs as store
from nematex.store.air.sew_alongs import SewAlong
from nematex.store.cloth.reservations import reserve
from nematex.store.programme.programmes import announce_change
from nematex.usecases.air.sew_along.form import FIELDS, Asked, read_form, read_kept
from nematex.usecases.air.sew_along.supplies import OfCloth, purpose
from nematex.usecases.forms.merging import merged
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

KEY_BYTES = 18  # of the public address: nobody guesses it


def all_of(shop: Shop) -> list[SewAlong]:
    with shop.database.work() as work:
        return store.sew_alongs(work)


def found(shop: Shop, sew_along_id: int) -> SewAlong | None:
    with shop.database.work() as work:
        return store.sew_along(work, sew_along_id)


def of_key(shop: Shop, key: str) -> SewAlong | None:
    """The one that is shown at a public address."""
    with shop.database.work() as work:
        return store.by_key(work, key)


def typed_of(kept: SewAlong) -> dict[str, str]:
    return {**dict.fromkeys(FIELDS, ""), **kept.typed}


def asked_of(state: State, kept: SewAlong) -> Asked:
    """What a kept one says, as it can still be shown; raises FieldFault where its pattern or all its cloths are put away."""
    return read_kept(state, kept, typed_of(kept))


def save(shop: Shop, state: State, sew_along_id: int | None, given: Mapping[str, str]) -> int:
    """Make one, or change it; its number. Raises FieldFault, Clashing."""
    with shop.database.work() as work:
        announce_change(work)
        values = dict(given)
        if sew_along_id is not None:
            kept = store.sew_along(work, sew_along_id)
            if kept is None:
                raise FieldFault("sew-along", str(sew_along_id), "is in the bin: put it back first")
            values = merged(given, typed_of(kept), FIELDS, FIELDS.__getitem__)
        asked = read_form(state, values)
        texts = {name: values.get(name, "").strip() for name in FIELDS}
        return store.save(work, sew_along_id, asked.name, asked.pattern.id, [each.id for each in asked.cloths], texts)


def open_to_all(shop: Shop, sew_along_id: int, is_open: bool) -> None:
    """Give it a public address, or take it back: the old one is dead for good."""
    with shop.database.work() as work:
        if store.sew_along(work, sew_along_id):
            store.set_key(work, sew_along_id, secrets.token_urlsafe(KEY_BYTES) if is_open else None)


def remove(shop: Shop, sew_along_id: int) -> None:
    with shop.database.work() as work:
        store.bin_sew_along(work, sew_along_id)


def reserve_for(shop: Shop, kept: SewAlong, of: OfCloth) -> None:
    """Take what all makers may want of a cloth out of the stock; raises FieldFault where there is less."""
    wanted = round(of.all_m - sum(each.length_m for each in of.reserved), 2)
    if wanted <= 0:
        raise FieldFault(
            "reserve", of.record.facts.name, "is nothing: say how many makers are expected, or it is reserved already"
        )
    with shop.database.work() as work:
        if not reserve(work, of.record.id, wanted, purpose(kept.id) + kept.name):
            raise FieldFault("reserve", of.record.facts.name, f"wants {wanted:g} m, and there is less in stock")
