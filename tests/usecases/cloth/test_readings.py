"""Readings: which one counts, what repeats say, and that none is ever lost."""

from __future__ import annotations

import statistics
from dataclasses import dataclass
from datetime import datetime, timedelta

import pytest
from conftest import empty
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import text

from nematex.core.cloth.readings import contradicts, drifts, in_force, outliers, repeats
from nematex.core.errors import FieldFault
from nematex.store.cloth.readings import readings_of
from nematex.store.database import Database
from nematex.store.records import ClothRecord, ReadingRecord
from nematex.tables import properties
from nematex.usecases.cloth.lists.importing import apply, preview, send
from nematex.usecases.cloth.readings import keep_readings
from nematex.usecases.held.shop import Shop

NOON = datetime(2026, 11, 24, 12)


@dataclass(frozen=True)
class Taken:
    known: str
    taken_at: datetime
    id: int = 0


def test_measured_counts_before_stated_before_judged_and_then_the_latest() -> None:
    # Common practice, no source.
    early, late = NOON, NOON + timedelta(days=1)
    order = [Taken("typical", late), Taken("judged", late), Taken("stated", late), Taken("measured", early)]
    assert in_force(order) == order[-1]
    assert in_force(order[:-1]) == Taken("stated", late)
    assert in_force([Taken("measured", early, 1), Taken("measured", late, 2)]) == Taken("measured", late, 2)
    assert in_force([Taken("stated", early, 1), Taken("stated", early, 2)]) == Taken("stated", early, 2)
    assert in_force([]) is None


@given(st.lists(st.floats(0.1, 1000), min_size=2, max_size=8))
def test_mean_and_spread_are_the_statistics_modules(values: list[float]) -> None:
    found = repeats(values)
    assert found.mean == pytest.approx(statistics.mean(values))
    assert found.deviation == pytest.approx(statistics.stdev(values), abs=1e-9)


def test_an_outlier_stands_out_and_ordinary_scatter_does_not() -> None:
    # Iglewicz and Hoaglin's modified z above 3.5 (from memory).
    assert outliers([4.0, 4.1, 3.9, 4.05, 6.4]) == [4]
    assert outliers([4.0, 4.1, 3.9, 4.05]) == []
    assert outliers([5.0, 5.0, 5.0, 5.05]) == []
    assert outliers([4.0, 6.4]) == []  # of two, nobody can say which


def test_a_drift_runs_one_way() -> None:
    assert drifts([1.0, 1.03, 1.06, 1.09, 1.12])
    assert not drifts([1.0, 1.03, 1.01, 1.05, 1.04])
    assert not drifts([1.0, 1.001, 1.002, 1.003, 1.004])


def test_two_readings_contradict_by_more_than_the_property_allows() -> None:
    assert contradicts(100, 120, properties()["weight_gsm"].agree_pct)
    assert not contradicts(100, 105, properties()["weight_gsm"].agree_pct)


@pytest.mark.parametrize(("name", "wrong"), [("weight_gsm", 5), ("bending_length_cm", 40), ("recovery_pct", 120)])
def test_a_number_that_cannot_be_right_is_refused_with_its_span(name: str, wrong: float) -> None:
    with pytest.raises(FieldFault, match="cannot be right: it lies between"):
        properties()[name].checked(wrong)


def _cloth(shop: Shop, code: str) -> ClothRecord:
    return next(record for record in shop.now().shelf.records if record.code == code)


def _import(shop: Shop, text: str) -> None:
    upload = send(shop, "list.csv", text.encode())
    preview(shop, upload)
    apply(shop, upload)


def _reading(cloth_id: int, number: float, known: str, when: datetime) -> ReadingRecord:
    return ReadingRecord(cloth_id, "weight_gsm", number, None, known, "buyer", "scale", when, 1.5, (118.0, 121.0))


def test_a_later_statement_neither_erases_nor_outweighs_a_measurement(database: Database) -> None:
    shop = Shop(database)
    _import(shop, "code,name,weight\nA,blue cotton lawn,90 gsm\n")
    cloth = _cloth(shop, "A")
    with database.work() as work:
        keep_readings(work, cloth, [_reading(cloth.id, 120, "measured", NOON)])
    assert _cloth(shop, "A").facts.weight_gsm == 120
    assert _cloth(shop, "A").facts.known["weight_gsm"] == "measured"

    upload = send(shop, "later.csv", b"code,name,weight\nA,blue cotton lawn,80 gsm\n")
    found = preview(shop, upload)
    assert found is not None
    assert found.count("same") == 1
    assert len(found.only_said) == 1
    apply(shop, upload)
    assert _cloth(shop, "A").facts.weight_gsm == 120
    with database.work() as work:
        kept = [each for each in readings_of(work, cloth.id) if each.property == "weight_gsm"]
    assert sorted((each.number, each.known) for each in kept) == [(80, "stated"), (90, "stated"), (120, "measured")]
    measured = next(each for each in kept if each.known == "measured")
    assert (measured.by_whom, measured.instrument, measured.spread, measured.repeats) == ("buyer", "scale", 1.5, (118.0, 121.0))


def test_an_older_measurement_does_not_push_out_a_newer_one(database: Database) -> None:
    shop = Shop(database)
    _import(shop, "code,name\nA,blue cotton lawn\n")
    cloth = _cloth(shop, "A")
    with database.work() as work:
        keep_readings(work, cloth, [_reading(cloth.id, 121, "measured", NOON)])
        keep_readings(work, cloth, [_reading(cloth.id, 99, "measured", NOON - timedelta(days=9))])
        keep_readings(work, cloth, [_reading(cloth.id, 70, "judged", NOON + timedelta(days=9))])
    assert _cloth(shop, "A").facts.weight_gsm == 121


def test_a_shop_from_before_readings_keeps_what_it_knew(database: Database) -> None:
    empty(database)
    database.migrate("0001")
    with database.engine.begin() as connection:
        connection.execute(
            text(
                "insert into cloth (code, name, weight_gsm, bending_length_cm, hand, deadstock, known, currency, supplier,"
                " colours, print_kind, notes) values ('A', 'blue cotton lawn', 90, 2.1, 'crisp', 0, :known, '', '',"
                " :colours, 'solid', '')"
            ),
            {"known": '{"weight_gsm": "measured"}', "colours": '["#24404a", "#7fb5a8"]'},
        )
    database.migrate()
    cloth = _cloth(Shop(database), "A")
    assert (cloth.facts.weight_gsm, cloth.colours, cloth.bolts) == (90, ("#24404a", "#7fb5a8"), ())
    with database.work() as work:
        kept = {each.property: (each.number or each.word, each.known) for each in readings_of(work, cloth.id)}
    assert kept == {
        "weight_gsm": (90, "measured"),
        "bending_length_cm": (2.1, "measured"),
        "hand": ("crisp", "judged"),
        "print_kind": ("solid", "stated"),
        "colours": ("#24404a #7fb5a8", "stated"),
    }
