"""What a row of the properties' table brings by itself, from a price list to the cloth's page: shown on colour fastness."""

from __future__ import annotations

import csv
import io

import pytest
from conftest import tried_app

from nematex.core.errors import FieldFault
from nematex.store.database import Database
from nematex.store.records import ClothRecord
from nematex.tables import properties, readable, trade_tables
from nematex.usecases.cloth.acts import readings_in_force, save_cloth
from nematex.usecases.cloth.bench.acts import work_out
from nematex.usecases.cloth.bench.measures import MEASURES
from nematex.usecases.cloth.exchange import cloths_csv
from nematex.usecases.cloth.form import form_groups, form_values
from nematex.usecases.cloth.lists.importing import apply, preview, send
from nematex.usecases.cloth.readings import keep_readings
from nematex.usecases.forms.merging import SHOWN, as_shown
from nematex.usecases.held.shop import Shop


def first(shop: Shop) -> ClothRecord:
    return shop.now().shelf.records[0]


def test_a_property_of_one_row_goes_in_by_list_form_and_bench_and_comes_out_everywhere(database: Database) -> None:
    shop = Shop(database)
    apply(shop, send(shop, "a.csv", b"code,name,weight,Wash fastness\nA,blue lawn,80,3\n"))
    assert first(shop).more == {"colour_fastness": 3}
    assert readings_in_force(shop, first(shop).id)["colour_fastness"][0].known == "stated"
    # The form gives it back, and takes a correction.
    assert form_values(first(shop))["colour_fastness"] == "3"
    shown = form_values(first(shop))
    save_cloth(shop, shop.now(), {**shown, "colour_fastness": "3.5", SHOWN: as_shown(shown)}, first(shop).id)
    assert first(shop).more == {"colour_fastness": 3.5}
    # Measured at the bench it counts for more, and a later list does not push it out.
    record, cloth = first(shop), shop.now().shelf.cloths[0]
    measure = MEASURES["fastness"]
    typed = {"colour_fastness-0": "4.5", "colour_fastness-1": "4.5", "colour_fastness-2": "4"}
    outcome = work_out(measure, measure.methods[0], typed, cloth, record, trade_tables())
    with database.work() as work:
        keep_readings(work, record, outcome.readings)
    assert first(shop).more["colour_fastness"] == pytest.approx(4.333)
    later = send(shop, "b.csv", b"code,name,Wash fastness\nA,blue lawn,2\n")
    found = preview(shop, later)
    assert found is not None
    assert [reading.number for reading in found.only_said[0].said] == [2]
    apply(shop, later)
    assert first(shop).more["colour_fastness"] == pytest.approx(4.333)
    (row,) = csv.DictReader(io.StringIO(cloths_csv([first(shop)])))
    assert float(row["colour_fastness"]) == pytest.approx(4.333)
    page = tried_app(database).test_client().get(f"/shelf/{first(shop).id}").get_data(as_text=True)
    assert "Colour fastness" in page
    assert "4.33 grade" in page


def test_a_grade_that_cannot_be_right_is_refused(database: Database) -> None:
    shop = Shop(database)
    apply(shop, send(shop, "a.csv", b"code,name,weight\nA,blue lawn,80\n"))
    with pytest.raises(FieldFault, match="between 1 and 5 grade"):
        save_cloth(
            shop,
            shop.now(),
            {**form_values(first(shop)), "colour_fastness": "9", SHOWN: as_shown(form_values(first(shop)))},
            first(shop).id,
        )


@pytest.mark.parametrize("name", readable())
def test_a_measured_value_of_any_property_outlives_a_list(name: str) -> None:
    """Common practice, no source: what was measured is not pushed out by what is only stated."""
    from dataclasses import replace

    from nematex.core.cloth.facts import ClothFacts
    from nematex.usecases.cloth.precedence import respected
    from nematex.usecases.cloth.values import value_of, with_values

    prop = readable()[name]
    one, other = (prop.words[0], prop.words[1]) if prop.words else (prop.low + 1, prop.low + 2)
    if name == "colours":
        one, other = ("#112233",), ("#445566",)
    old = with_values(ClothRecord("A", ClothFacts(name="lawn", cloth="lawn", known={name: "measured"})), {name: one})
    stated = with_values(replace(old, facts=replace(old.facts, known={})), {name: other})
    kept, said = respected(old, stated, {name: "stated"}, "list")
    assert value_of(kept, prop) == one
    assert [reading.property for reading in said] == [name]


def test_every_property_with_readings_stands_in_the_form() -> None:
    shown = {prop.name for group in form_groups().values() for prop in group}
    assert set(readable()) <= shown
    assert {prop.name for prop in properties().values() if not prop.group} == {"currency", "stretch_unsaid", "known"}
