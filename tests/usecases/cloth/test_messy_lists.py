"""Lists as they come: other languages, no headings, typos, units beside the number, several sheets. All invented.

That such lists occur, and what is meant in them, is common practice, no source; fibre codes after BISFA and names abroad
after EU 1007/2011 are from memory; figures are arithmetic from the 1959 agreement (1 yd = 0.9144 m).
"""

from __future__ import annotations

import io

import pytest
from conftest import Site
from openpyxl import Workbook
from playwright.sync_api import Page, expect

from nematex.core.cloth.fibres import read_fibres
from nematex.core.cloth.measuring.typed import read_stretches_pct
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.store.records import ClothRecord
from nematex.tables import trade_tables
from nematex.usecases.cloth.acts import save_cloth
from nematex.usecases.cloth.form import form_values
from nematex.usecases.cloth.lists.choosing import choose_columns, choose_sheet, mend_row
from nematex.usecases.cloth.lists.importing import preview, send
from nematex.usecases.cloth.lists.kept import packed, unpacked
from nematex.usecases.cloth.lists.preview import Preview
from nematex.usecases.cloth.lists.told import keep_told
from nematex.usecases.forms.merging import SHOWN, as_shown
from nematex.usecases.held.shop import Shop

TABLES = trade_tables()
GERMAN = """Art.-Nr.;Bezeichnung;Zusammensetzung;Flächengewicht;Nutzbreite;Preis;Farbe;Bestand
DE-1;Seeblick Popeline lawn;100% Baumwolle;125 g/m2;138 cm;12,90 €;wolkenrauch;23,5 m
DE-2;Dünen Leinen linen;55% Leinen 45% Viskose;180 g/m²;140 cm;18,50 €;rost;0
"""
BARE = """XY-12,Gorse path linen,55% CO 45% LI,220 g/m2,150 cm,£12.50
XY-13,Puddle denim,98% CO 2% EA,300 g/m2,148 cm,£14.00
"""


def seen(shop: Shop, text: str, name: str = "list.csv") -> Preview:
    found = preview(shop, send(shop, name, text.encode()))
    assert found is not None
    assert unpacked(packed(found), found.upload) == found  # as the worker hands it over
    return found


def records(found: Preview) -> dict[str, ClothRecord]:
    return {row.record.code: row.record for row in found.rows if row.record}


def test_german_headings_and_cells_are_understood(demo: Shop) -> None:
    found = seen(demo, GERMAN)
    assert set(found.mapping.values()) == {
        "code", "name", "fibres", "weight_gsm", "width_cm", "price_per_m", "colours", "stock_m",
    }  # fmt: skip
    made = records(found)
    assert (made["DE-1"].facts.weight_gsm, made["DE-1"].facts.width_cm, made["DE-1"].currency) == (125, 138, "EUR")
    assert made["DE-2"].stock_m == 0
    assert read_fibres("55% Leinen 45% Viskose", trade_tables().fibres).shares == {"linen": 0.55, "viscose": 0.45}
    assert {fault.value for fault in found.left_out_cells} == {"wolkenrauch"}  # a word that is not known is named
    assert made["DE-2"].colours == ("#a4452a",)


def test_columns_without_headings_are_told_by_their_cells(demo: Shop) -> None:
    found = seen(demo, BARE)
    assert found.mapping == {0: "code", 1: "name", 2: "fibres", 3: "weight_gsm", 4: "width_cm", 5: "price_per_m"}
    assert len(found.rows) == 2
    assert records(found)["XY-12"].facts.weight_gsm == 220


@pytest.mark.parametrize(
    ("code", "fibre"),
    [("CO", "cotton"), ("PES", "polyester"), ("EA", "elastane"), ("CV", "viscose"), ("PA", "polyamide"), ("LI", "linen")],
)
def test_codes_of_fibres(code: str, fibre: str) -> None:
    assert read_fibres(f"100% {code}", trade_tables().fibres).shares == {fibre: 1.0}


@pytest.mark.parametrize(("typed", "meant"), [("visocse", "viscose"), ("cottn", "cotton"), ("polyster", "polyester")])
def test_a_misspelt_fibre_is_named_with_what_is_meant(typed: str, meant: str) -> None:
    found = read_fibres(f"95% {typed}, 5% elastane", trade_tables().fibres)
    assert found.unknown == (typed,)
    assert f"{meant}?" in found.faults[0]


def test_a_misspelt_fibre_is_accepted_for_every_row(demo: Shop) -> None:
    text = "code,name,composition\nA,blue lawn,100% visocse\nB,red lawn,60% visocse 40% cotton\nC,green lawn,100% cotton\n"
    sent = send(demo, "list.csv", text.encode())
    found = preview(demo, sent)
    assert found is not None
    assert [(each.word, each.rows, each.likely) for each in found.strange(TABLES)] == [("visocse", 2, ("viscose",))]
    keep_told(demo, "fibre", "visocse", "viscose")
    again = preview(demo, sent)
    assert again is not None
    assert again.strange(TABLES) == []
    assert records(again)["B"].facts.fibres == "60% viscose 40% cotton"
    with pytest.raises(UnknownChoice):
        keep_told(demo, "fibre", "visocse", "fluff")
    with pytest.raises(FieldFault, match="is missing"):  # nothing would stand between all words of the label
        keep_told(demo, "fibre", " ", "viscose")


PRICED = """code,name,price,{heading}
A,blue lawn,14.45,{cell}
"""


@pytest.mark.parametrize(
    ("heading", "cell", "price", "currency"),
    [
        ("Price unit", "quarter yard", "63.2108", ""),  # 14.45 × 4 ÷ 0.9144
        ("per", "£/yd", "15.8027", "GBP"),
        ("Unit", "per half metre", "28.9000", ""),
        ("Unit", "m", "14.4500", ""),
    ],
)
def test_the_unit_of_a_price_in_a_column_of_its_own(demo: Shop, heading: str, cell: str, price: str, currency: str) -> None:
    record = records(seen(demo, PRICED.format(heading=heading, cell=cell)))["A"]
    assert (str(record.price_per_m), record.currency) == (price, currency)


@pytest.mark.parametrize(
    ("heading", "price"), [("Price £/yd", "15.8027"), ("Price per quarter yard", "63.2108"), ("RRP €", "14.4500")]
)
def test_the_unit_of_a_price_in_its_heading(demo: Shop, heading: str, price: str) -> None:
    record = records(seen(demo, f"code,name,{heading}\nA,blue lawn,14.45\n"))["A"]
    assert str(record.price_per_m) == price


@pytest.mark.parametrize(("heading", "cell"), [("Price per bundle", "14.45"), ("price", "14.45 shells"), ("price", "kr 14.45")])
def test_a_unit_or_currency_that_is_not_understood_is_a_fault_and_no_guess(demo: Shop, heading: str, cell: str) -> None:
    found = seen(demo, f"code,name,{heading}\nA,blue lawn,{cell}\n")
    assert records(found)["A"].price_per_m is None
    assert [fault.value for fault in found.left_out_cells] == [cell]


def test_a_faulty_cell_costs_the_cell_and_not_the_row(demo: Shop) -> None:
    text = (
        "code,name,cloth,stretch,width,handle,weight\n"
        "A,red jersey,cotton jersey,60% across 15% along,140+,super soft,medium weight\n"
        "B,blue jersey,cotton jersey,70% 4 way,wide,bouncy,200\n"
    )
    made = records(seen(demo, text))
    facts = made["A"].facts
    assert (facts.stretch_cross_pct, facts.stretch_length_pct, facts.width_cm, facts.hand) == (60, 15, 140, "soft")
    assert facts.weight_gsm == 255  # the middle of 190 to 320, what "medium" means for a knit here
    assert facts.known["weight_gsm"] == "judged"
    other = made["B"].facts
    assert (other.stretch_cross_pct, other.stretch_length_pct, other.width_cm, other.hand) == (70, 70, None, None)


@pytest.mark.parametrize(
    ("text", "both"),
    [("25 %", (25, None)), ("60% across 15% along", (60, 15)), ("70% 4 way", (70, 70)), ("four-way 50%", (50, 50)),
     ("along 20, across 40", (40, 20)), ("10 to 12.5 cm", (25, None)), ("2-way stretch 30%", (30, None))],
)  # fmt: skip
def test_stretch_in_one_cell(text: str, both: tuple[float | None, float | None]) -> None:
    assert read_stretches_pct(text, "stretch") == both


def book() -> bytes:
    """Info first, then two price lists, one with empty columns between."""
    made = Workbook()
    info = made.active
    assert info is not None
    info.title = "Info"
    info.append(["Weaverbird Agencies"])
    info.append(["prices as of autumn"])
    wovens = made.create_sheet("Wovens")
    wovens.append(["code", "name", "", "weight", "", ""])
    wovens.append(["W-1", "blue lawn", "", "80", "", ""])
    wovens.append(["W-2", "red lawn", "", "82", "", ""])
    knits = made.create_sheet("Knits")
    knits.append(["code", "name"])
    knits.append(["K-1", "grey jersey"])
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


def test_every_sheet_can_be_chosen_and_empty_columns_are_none(demo: Shop) -> None:
    sent = send(demo, "book.xlsx", book())
    found = preview(demo, sent)
    assert found is not None
    assert (found.sheet.name, found.sheet.sheets) == ("Wovens", ("Wovens", "Knits"))
    assert found.sheet.header == ["code", "name", "weight"]
    choose_sheet(demo, sent, "Knits")
    other = preview(demo, sent)
    assert other is not None
    assert list(records(other)) == ["K-1"]


def test_a_row_is_mended_on_the_preview_and_columns_stay_chosen(demo: Shop) -> None:
    sent = send(demo, "list.csv", b"code,thing,heft\nA,,80\nB,red lawn,90\n")
    choose_columns(demo, sent, {0: "code", 1: "name", 2: "weight_gsm"})
    found = preview(demo, sent)
    assert found is not None
    assert [row.row for row in found.bad] == [2]
    mend_row(demo, sent, 2, {1: "blue lawn"})
    again = preview(demo, sent)
    assert again is not None
    assert again.bad == []
    assert records(again)["A"].facts.name == "blue lawn"
    with pytest.raises(FieldFault, match="choose it once"):
        choose_columns(demo, sent, {0: "code", 1: "code"})


def test_a_colour_by_word_is_kept_as_typical_and_shown_as_the_word(demo: Shop) -> None:
    new = {"code": "C-1", "name": "blue lawn", "cloth": "cotton lawn", "colours": "petrol rust lilac"}
    number = save_cloth(demo, demo.now(), new, None)
    record, _ = demo.now().cloth(number) or (None, None)
    assert record is not None
    assert record.colours == ("#1f444f", "#a4452a", "#c6b0d9")
    assert record.facts.known["colours"] == "typical"
    values = form_values(record)
    assert values["colours"] == "petrol, rust, lilac"
    save_cloth(demo, demo.now(), {**values, "notes": "seen", SHOWN: as_shown(values)}, number)
    again, _ = demo.now().cloth(number) or (None, None)
    assert again is not None
    assert (again.colours, again.facts.known["colours"]) == (record.colours, "typical")


def test_a_list_is_mended_put_on_the_shelf_and_looked_at_in_the_browser(page: Page, site: Site) -> None:
    page.goto("/import")
    text = "code,name,composition,stock\nZZ-1,blue lawn,100% visocse,0\nZZ-2,,100% cotton,3\n"
    page.get_by_label("File").set_input_files({"name": "l.csv", "mimeType": "text/csv", "buffer": text.encode()})
    page.get_by_role("button", name="Look at it").click()
    page.get_by_role("button", name="Yes, viscose").click()
    expect(page.get_by_text("Words that nobody knows here")).to_have_count(0)
    row = page.locator("#row-3")
    expect(row).to_contain_text("is missing; every row needs a name")
    row.get_by_label("name").fill("red lawn")
    row.get_by_role("button", name="Read it again").click()
    page.get_by_role("button", name="Put 2 on the shelf").click()
    page.get_by_role("link", name="See what it brought").click()
    expect(page.locator(".cloth-line")).to_have_count(2)
    expect(page.locator(".cloth-line").first).to_contain_text("0 m")


def test_another_file_can_be_sent_from_the_page_of_a_fault(page: Page, site: Site) -> None:
    page.goto("/import")
    broken = {"name": "b.xlsx", "mimeType": "application/octet-stream", "buffer": book()[:-800]}
    page.get_by_label("File").set_input_files(broken)
    page.get_by_role("button", name="Look at it").click()
    expect(page.get_by_role("alert")).to_be_visible()
    page.get_by_label("File").set_input_files({"name": "l.csv", "mimeType": "text/csv", "buffer": GERMAN.encode()})
    page.get_by_role("button", name="Look at it").click()
    expect(page.get_by_text("2 new, 0 changed")).to_be_visible()
    site.complaints.clear()  # the browser notes the 400 of the damaged file


def test_a_heading_for_codes_over_kinds_of_cloth(demo: Shop) -> None:
    """'Art' may mean article or kind: the cells tell."""
    found = seen(
        demo, "Bezeichnung;Art;Gewicht\nTarn;viscose twill;125 g/m2\nKelp;cotton lawn;80 g/m2\nReed;single jersey;200 g/m2\n"
    )
    assert found.mapping == {0: "name", 1: "cloth", 2: "weight_gsm"}
    codes = seen(demo, "Bezeichnung;Art;Gewicht\nTarn;A-1;125 g/m2\nKelp;A-2;80 g/m2\n")
    assert codes.mapping == {0: "name", 1: "code", 2: "weight_gsm"}
