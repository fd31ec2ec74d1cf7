"""What a whole garment of a set costs: cloth, lining, interfacing, thread and notions, as far as their prices are known."""

from __future__ import annotations

from decimal import Decimal

from nematex.core.errors import FieldFault
from nematex.core.pattern.facts import Wish
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.beneath.cost import SETTING, garment_cost, read_notion_prices
from nematex.usecases.beneath.view import beneath
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

NOT_KNOWN = Decimal(-1)


def whole_cost(shop: Shop, state: State, pattern: PatternRecord, record: ClothRecord, wish: Wish) -> Decimal | None:
    """What one garment costs in the currency of its cloth; None where nothing tells, or over two currencies."""
    prices = state.settings.get(SETTING, "")

    def work_out() -> Decimal:
        cloth = state.shelf.cloths[state.shelf.place[record.id]]
        try:
            found = garment_cost(record, beneath(state, pattern, record, cloth, wish), read_notion_prices(prices))
        except FieldFault:
            return NOT_KNOWN
        return found.sum.total if found and record.price_per_m is not None else NOT_KNOWN

    rests_on = (state.shelf, pattern.facts, state.tables)
    found = shop.memory.of(("whole cost", record.id, pattern.id, wish, prices), rests_on, work_out)
    return None if found == NOT_KNOWN else found
