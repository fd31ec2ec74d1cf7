"""The whole record of a cloth: colourways, bolts, print sizes, hang, what is worth measuring, and what goes in and out."""

from __future__ import annotations

import io
import random
import re
from datetime import date, datetime, timedelta
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.cloth.plausible import doubt
from nematex.core.cloth.print_scale import scale_word, scale_words
from nematex.core.errors import FieldFault
from nematex.core.hang.elastica import curve
from nematex.core.quantity.estimate import Known, Range
from nematex.store.cloth.filters import remove_filter, save_filter, saved_filters
from nematex.store.cloth.readings import add_readings, spans
from nematex.store.database import Database
from nematex.store.records import Bolt, ClothRecord, Colourway, ReadingRecord
from nematex.tables import readable, trade_tables
from nematex.usecases.cloth.bench.measures import MEASURES
from nematex.usecases.cloth.bench.simulated import truth_of
from nematex.usecases.cloth.colourways import read_bolts, read_colourways, say_bolts, say_colourways
from nematex.usecases.cloth.form import form_values, record_from_form
from nematex.usecases.cloth.lacks.worth import MEASURE_OF, worth_measuring
from nematex.usecases.cloth.lists.importing import apply, preview, send
from nematex.usecases.cloth.readings import keep_cloths, keep_readings
from nematex.usecases.files.xlsx_text import xlsx_rows
from nematex.usecases.held.shop import Shop
from nematex.usecases.quantity.saying import colour_word
from nematex.web.drawing.overhang import hang
from nematex.web.pdf import pdf
from nematex.web.words import figure

NAMES = st.sampled_from(["navy", "rust", "sea green", "ecru", "kelp"])
COLOURS = st.sampled_from(["#1d2746", "#a4452a", "#7fa3a6", "#ece4d2"])
METRES = st.one_of(st.none(), st.integers(1, 4000).map(lambda tenths: tenths / 10))


@given(st.lists(st.tuples(NAMES, st.lists(COLOURS, max_size=3), METRES), max_size=4, unique_by=lambda way: way[0]))
def test_colourways_are_read_as_they_are_said(ways: list[tuple[str, list[str], float | None]]) -> None:
    made = tuple(Colourway(name, tuple(colours), stock) for name, colours, stock in ways)
    assert read_colourways(say_colourways(made), "colourways") == made


@given(st.lists(st.tuples(st.integers(1, 900), st.sampled_from(["", "navy", "sea green"])), max_size=5))
def test_bolts_are_read_as_they_are_said(bolts: list[tuple[int, str]]) -> None:
    made = tuple(Bolt(tenths / 10, name) for tenths, name in bolts)
    assert read_bolts(say_bolts(made), "bolts") == made


def test_bolts_in_yards_and_what_is_none() -> None:
    # The international yard is 0.9144 m.
    assert read_bolts("10 yd navy", "bolts") == (Bolt(9.144, "navy"),)
    for text, reader in (("navy", read_bolts), ("#1d2746 3 m", read_colourways), ("navy 3 m | Navy 4 m", read_colourways)):
        with pytest.raises(FieldFault):
            reader(text, "field")


def test_the_stock_is_the_sum_of_the_bolts_else_of_the_colourways(database: Database) -> None:
    shop = Shop(database)
    rows = (
        "code,name,stock,bolts,colourways\n"
        'A,blue cotton lawn,99 m,"12.5 m; 3 m navy",\n'
        "B,red cotton lawn,,,navy #1d2746 4 m | rust #a4452a 2.5 m\n"
        "C,green cotton lawn,7 m,,navy #1d2746\n"
    )
    apply(shop, send(shop, "a.csv", rows.encode()))
    assert {record.code: record.stock_m for record in shop.now().shelf.records} == {"A": 15.5, "B": 6.5, "C": 7}


@pytest.mark.parametrize(
    ("size", "word"),
    [(0.4, "tiny"), (1.0, "tiny"), (1.1, "small"), (8.0, "medium"), (14, "large"), (90, "huge")],
)
def test_a_print_s_size_in_a_word(size: float, word: str) -> None:
    # Common practice, no source.
    assert scale_word(size, trade_tables()) == word
    assert word in scale_words(trade_tables())


@pytest.mark.parametrize(("number", "text"), [(1.253, "1.25"), (2.0, "2"), (14.52, "14.5"), (122.4, "122"), (100, "100")])
def test_a_number_has_as_many_figures_as_it_is_worth(number: float, text: str) -> None:
    assert figure(number) == text


def test_a_word_for_a_colour() -> None:
    assert colour_word("#ffffff") == "white"
    assert colour_word("#000000") == "black"


def test_the_drawn_hang_ends_where_the_elastica_ends() -> None:
    for bend in (1.0, 2.0, 4.0):
        path, reach, drop = hang(bend, 8)
        exact = curve(8 / bend)
        assert (reach, drop) == (
            pytest.approx(exact.reach[-1] * bend, abs=0.02),
            pytest.approx(exact.drop[-1] * bend, abs=0.02),
        )
        end = [float(each) for each in re.findall(r"[\d.]+", path)[-2:]]
        assert end == [pytest.approx(reach, abs=0.35), pytest.approx(drop, abs=0.35)]
    assert hang(1.0, 8)[1] < hang(2.0, 8)[1] < hang(4.0, 8)[1]
    assert hang(0.001, 8)[1] < 0.2  # what is measured as nothing hangs straight down


def test_a_sheet_fetches_nothing_but_its_fonts() -> None:
    face = '<style>@font-face { font-family: "X"; src: url("nematex:literata"); }</style><p style="font-family: X">cloth</p>'
    made = pdf(face + '<img src="file:///etc/hostname"><img src="http://127.0.0.1:1/x.png">')
    assert made.startswith(b"%PDF")


def test_what_another_unit_would_explain_is_asked() -> None:
    usual = Range(100, 140)
    assert doubt("weight_gsm", 120, usual) is None
    assert "oz/yd² instead of g/m²" in (doubt("weight_gsm", 3.6, usual) or "")
    assert "Check it before you keep it" in (doubt("weight_gsm", 900, usual) or "")
    assert "mm instead of cm" in (doubt("width_cm", 1400, Range(130, 150)) or "")


def test_what_is_worth_measuring_is_what_is_not_measured(demo: Shop) -> None:
    shelf = demo.now().shelf
    for record, cloth in zip(shelf.records[::3], shelf.cloths[::3], strict=True):
        for name in worth_measuring(demo.now().drawer, cloth):
            deciding = [each for each in MEASURE_OF if MEASURE_OF[each] == name]
            known = [record.facts.known.get(each) for each in deciding if hasattr(record.facts, each)]
            assert "measured" not in known, record.code
    assert set(MEASURE_OF.values()) == set(MEASURES)


def test_every_property_that_is_measured_is_one_that_is_read() -> None:
    assert {name for measure in MEASURES.values() for name in measure.properties} <= set(readable())


def test_the_hidden_truth_of_a_cloth_is_always_the_same(demo: Shop) -> None:
    shelf = demo.now().shelf
    first = [truth_of(record, cloth) for record, cloth in zip(shelf.records, shelf.cloths, strict=True)]
    again = [truth_of(record, cloth) for record, cloth in zip(shelf.records, shelf.cloths, strict=True)]
    assert first == again
    assert len({truth.selvedge_cm for truth in first}) == len(first)


def test_whatever_the_order_the_best_known_and_latest_is_in_force(database: Database) -> None:
    shop, rng = Shop(database), random.Random(3)
    record = ClothRecord("A", ClothFacts("x", "cotton lawn", weight_gsm=80))
    with database.work() as work:
        keep_cloths(work, [record], {}, "buyer", "typed")
    kept = [(Known.STATED, datetime.min, 80.0)]
    start = datetime(2026, 12, 1)
    for _ in range(25):
        known, when = rng.choice(list(Known)), start + timedelta(hours=rng.randrange(1000))
        number = float(rng.randrange(60, 200))
        held = shop.now().shelf.records[0]
        with database.work() as work:
            keep_readings(work, held, [ReadingRecord(held.id, "weight_gsm", number, None, known.word, "x", "y", when)])
        kept.append((known, when, number))
        best = max(kept, key=lambda each: (each[0], each[1]))
        facts = shop.now().shelf.records[0].facts
        assert facts.weight_gsm == best[2]
        assert facts.known.get("weight_gsm", "stated") == best[0].word


def test_readings_that_span_are_found_by_cloth_and_property(demo: Shop) -> None:
    cloth = demo.now().shelf.records[0]
    when = datetime(2026, 12, 1)
    with demo.database.work() as work:
        assert spans(work) == {}
        add_readings(work, [
            ReadingRecord(cloth.id, "thickness_mm", value, None, known, "x", "y", when)
            for value, known in ((0.2, "stated"), (0.5, "measured"), (9.0, "judged"))
        ])  # fmt: skip
        assert spans(work) == {cloth.id: {"thickness_mm": (0.2, 0.5)}}


def test_a_saved_filter_of_the_same_name_is_replaced(database: Database) -> None:
    with database.work() as work:
        save_filter(work, "lawns", "q=lawn")
        save_filter(work, "lawns", "q=lawn&structure=woven")
        save_filter(work, "knits", "structure=knit")
        found = saved_filters(work)
        assert [each[1:] for each in found] == [("knits", "structure=knit"), ("lawns", "q=lawn&structure=woven")]
        remove_filter(work, found[0][0])
        assert [each[1] for each in saved_filters(work)] == ["lawns"]


def test_a_bare_stretch_is_marked_until_somebody_says_its_direction(database: Database) -> None:
    shop = Shop(database)
    apply(shop, send(shop, "a.csv", b"code,name,stretch\nA,Gorse ponte,30%\n"))
    record = shop.now().shelf.records[0]
    assert (record.facts.stretch_cross_pct, record.stretch_unsaid) == (30, True)
    same = record_from_form(form_values(record), record, trade_tables())
    assert same.stretch_unsaid
    typed = record_from_form({**form_values(record), "stretch_cross_pct": "25 %"}, record, trade_tables())
    assert not typed.stretch_unsaid
    apply(shop, send(shop, "b.csv", b"code,name,stretch across\nA,Gorse ponte,30%\n"))
    assert not shop.now().shelf.records[0].stretch_unsaid


def test_a_spreadsheet_s_cells_become_the_texts_a_list_would_have() -> None:
    book = Workbook()
    book.active.title = "empty"  # type: ignore[union-attr]
    sheet = book.create_sheet("cloths")
    sheet.append(["code", "arrived", "weight", "deadstock", "price", "notes"])
    sheet.append(["A", date(2026, 11, 24), 120.0, True, Decimal("12.5"), "two\nlines"])
    sheet.append(["B", datetime(2026, 11, 24, 8, 30), 118.25, False, "=1+1", None])
    out = io.BytesIO()
    book.save(out)
    ((name, sheet_rows),) = xlsx_rows(out.getvalue(), "a.xlsx")  # the empty sheet is none
    assert name == "cloths"
    rows = [row[:6] for row in sheet_rows]  # beyond them there is nothing but padding
    assert rows[0] == ["code", "arrived", "weight", "deadstock", "price", "notes"]
    assert rows[1] == ["A", "2026-11-24", "120", "yes", "12.5", "two lines"]
    # A formula counts by the value that was saved with it; here none was.
    assert rows[2][:5] == ["B", "2026-11-24", "118.25", "no", ""]


def test_the_whole_record_survives_form_list_and_back(demo: Shop) -> None:
    for record in demo.now().shelf.records:
        again = record_from_form(form_values(record), record, trade_tables())
        assert again == record, record.code


def test_a_fault_in_the_new_columns_names_cell_and_rule(database: Database) -> None:
    shop = Shop(database)
    rows = b"code,name,fray,arrived,bolts,minimum cut\nA,blue lawn,madly,yesterday,some,much\n"
    found = preview(shop, send(shop, "a.csv", rows))
    assert found is not None
    said = {fault.column: fault.message for fault in found.faults}
    assert set(said) == {"fray", "arrived", "bolts", "minimum cut"}
    assert "freely" in said["fray"]
    assert "12.5 m; 3 m navy" in said["bolts"]


def test_an_unknown_cloth_gets_no_kind_of_its_own() -> None:
    cloth = known_cloth(ClothFacts("Odd bolt", structure="woven", drape_coefficient_pct=47.0), trade_tables())
    # The drape model's table gives 1.5 cm at 47 %; from stiffness alone it is unsure, and says so.
    assert cloth.bending_length.best == pytest.approx(1.5)
    assert cloth.bending_length.low < 1.5 < cloth.bending_length.high
    assert cloth.bending_length.known is Known.JUDGED
