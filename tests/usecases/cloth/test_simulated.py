"""What a simulated instrument reads says so for ever, outranks nothing, and counts in no verdict of a real shop."""

from __future__ import annotations

from datetime import datetime

import pytest

from nematex.core.cloth.readings import in_force
from nematex.core.quantity.estimate import Known
from nematex.demo.load import load_demo
from nematex.store.database import Database
from nematex.store.records import ReadingRecord
from nematex.usecases.cloth.acts import keep_measurement, readings_in_force, save_cloth
from nematex.usecases.held.shop import Shop

WHEN = datetime(2026, 11, 1, 9, 30)


def reading(cloth_id: int, known: str, number: float) -> ReadingRecord:
    return ReadingRecord(cloth_id, "weight_gsm", number, None, known, "buyer", "scale", WHEN)


def new_cloth(shop: Shop) -> int:
    return save_cloth(shop, shop.now(), {"code": "S-1", "name": "plain lawn", "cloth": "cotton lawn"}, None)


@pytest.mark.parametrize("real", ["judged", "stated", "measured"])
def test_it_never_outranks_a_real_reading(real: str) -> None:
    first, later = reading(1, real, 121), reading(1, "simulated", 84)
    assert in_force([first, later]) == first
    assert Known.SIMULATED < Known.TYPICAL


def test_in_a_real_shop_it_is_kept_and_counts_in_no_verdict(database: Database) -> None:
    shop = Shop(database)
    number = new_cloth(shop)
    record, before = shop.now().cloth(number) or (None, None)
    assert record is not None
    assert before is not None
    keep_measurement(shop, record, [reading(number, "simulated", 84)])
    kept, after = shop.now().cloth(number) or (None, None)
    assert kept is not None
    assert after is not None
    assert kept.facts.weight_gsm is None
    assert after.weight == before.weight
    assert readings_in_force(shop, number)["weight_gsm"][0].known == "simulated"
    keep_measurement(shop, record, [reading(number, "measured", 79)])
    weighed, _ = shop.now().cloth(number) or (None, None)
    assert weighed is not None
    assert (weighed.facts.weight_gsm, weighed.facts.known["weight_gsm"]) == (79, "measured")


def test_in_the_made_up_shop_it_counts_where_nothing_is_known_and_says_so(database: Database) -> None:
    load_demo(database)
    shop = Shop(database)
    assert shop.now().is_made_up
    number = new_cloth(shop)
    record, _ = shop.now().cloth(number) or (None, None)
    assert record is not None
    keep_measurement(shop, record, [reading(number, "simulated", 84)])
    _, cloth = shop.now().cloth(number) or (None, None)
    assert cloth is not None
    assert (cloth.weight.best, cloth.weight.known) == (84, Known.SIMULATED)
    assert cloth.weight.low < 84 < cloth.weight.high  # with the width of a guess
