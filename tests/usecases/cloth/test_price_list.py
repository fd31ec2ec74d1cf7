"""Price lists: columns by many names, units in the text, faults by row and column, wrong files."""

from __future__ import annotations

import json

import pytest
from messy import MESSY_LIST

from nematex.core.errors import FieldFault
from nematex.tables import trade_tables
from nematex.usecases.cloth.lists.headings import guess_mapping
from nematex.usecases.cloth.lists.price_list import Reading, bad_rows_csv, read_rows
from nematex.usecases.files.csv_text import MAX_BYTES, read_sheet
from nematex.usecases.files.formats import sheet_from_file


def rows(text: str, encoding: str = "utf-8"):  # type: ignore[no-untyped-def]
    sheet = read_sheet(text.encode(encoding), "list.csv")
    return sheet, read_rows(Reading(sheet, guess_mapping(sheet.header), trade_tables()))


def test_a_messy_list_is_read() -> None:
    sheet, found = rows(MESSY_LIST, "cp1252")
    assert (sheet.encoding, sheet.separator) == ("windows-1252", ";")
    good = {row.record.code: row.record for row in found if row.record}
    assert good["WB-01"].facts.width_cm == 150
    assert good["WB-01"].facts.weight_gsm == 220
    assert str(good["WB-01"].price_per_m) == "12.5000"
    assert good["WB-02"].facts.weight_gsm == pytest.approx(220.4, abs=0.1)
    assert str(good["WB-02"].price_per_m) == "63.2108"
    assert good["WB-02"].stock_m == pytest.approx(10.9728)
    bad = {(fault.row, fault.column) for row in found for fault in row.faults}
    assert bad == {(7, "Breite / Width"), (8, "Price"), (9, "Art. No"), (10, "Fabric Description"), (11, "Fabric Description")}
    # A width that says two things and a formula for a price cost the cell; a code twice or no name the row.
    assert {row.row for row in found if row.is_bad} == {9, 10}  # a name that says nothing costs no row
    assert good["WB-04"].facts.width_cm is None
    assert good["WB-05"].price_per_m is None


@pytest.mark.parametrize(
    ("heading", "field"),
    [
        ("SKU", "code"), ("Item no.", "code"), ("Product Name", "name"), ("Composition", "fibres"), ("GSM", "weight_gsm"),
        ("Weight (oz)", "weight_gsm"), ("Usable width cm", "width_cm"), ("RRP", "price_per_m"), ("Qty", "stock_m"),
        ("Stretch %", "stretch_cross_pct"), ("Mill", "supplier"), ("Fabric", "name"), ("Shrinkage", "shrink_length_pct"),
    ],
)  # fmt: skip
def test_headings_by_many_names(heading: str, field: str) -> None:
    assert guess_mapping([heading]) == {0: field}


def test_a_kind_of_cloth_beside_a_name_is_the_kind() -> None:
    assert guess_mapping(["Name", "Fabric"]) == {0: "name", 1: "cloth"}


def test_a_heading_gives_its_unit_to_bare_numbers() -> None:
    _, found = rows("code,name,Weight (oz),Width (in),Price per yard\nA,red denim,8,59,9.144\n")
    record = found[0].record
    assert record.facts.weight_gsm == pytest.approx(271.2, abs=0.1)
    assert record.facts.width_cm == pytest.approx(149.86)
    assert str(record.price_per_m) == "10.0000"


def test_a_column_has_one_unit_for_its_bare_numbers() -> None:
    _, metric = rows("code,name,width,weight\nA,tubular rib,70,300\nB,blue lawn,140,18\n")
    assert [row.record.facts.width_cm for row in metric] == [70, 140]
    assert metric[1].record.facts.weight_gsm == 18
    _, imperial = rows("code,name,width,weight\nA,blue denim,59,8\nB,blue lawn,44,2.5\n")
    assert imperial[0].record.facts.width_cm == pytest.approx(149.86)
    assert imperial[1].record.facts.weight_gsm == pytest.approx(84.8, abs=0.1)


@pytest.mark.parametrize("separator", [",", ";", "\t", "|"])
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_separators_and_encodings(separator: str, encoding: str) -> None:
    text = separator.join(("code", "name", "price")) + "\n" + separator.join(("A1", "Café lawn", "£4")) + "\n"
    _, found = rows(text, encoding)
    assert found[0].record.facts.name == "Café lawn"
    assert found[0].record.currency == "GBP"


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "is empty"),
        (b"   \n\n", "is empty"),
        (b"PK\x03\x04rest", "is a damaged spreadsheet"),
        (b"%PDF-1.7\x00\x01", "is not text"),
        (b"\x00\x01\x02\x03" * 50, "is not text"),
        (b"<!doctype html><html><body>price list</body></html>", "is a web page"),
        (b"only one line, of words\n", "holds no rows"),
        (b"a,b\n" * (MAX_BYTES // 4 + 10), "at most 8 MB"),
        (b"[1, 2", "is not JSON"),
        (b"[1, 2]", "list of objects"),
    ],
)
def test_what_is_no_list_is_refused_in_words(content: bytes, words: str) -> None:
    with pytest.raises(FieldFault, match=words) as fault:
        sheet_from_file(content, "sent.csv")
    assert fault.value.field == "file"
    assert "sent.csv" in str(fault.value)


def test_hostile_cells_are_faults_with_row_and_column() -> None:
    long_name = "x" * 300
    lines = (
        "code,name,price,width",
        "A,=1+1,5,140",
        f"B,{long_name} lawn,5,140",
        "C,grey lawn,5,@SUM(A1)",
        *["D,blue lawn,5,140"] * 2,
    )
    _, found = rows("\n".join(lines))
    said = [(fault.row, fault.column, fault.message) for row in found for fault in row.faults]
    assert [(row, column) for row, column, _ in said] == [(2, "name"), (3, "name"), (4, "width"), (6, "code")]
    assert "formula" in said[0][2]
    assert "at most 120" in said[1][2]
    assert "stands in row 5" in said[3][2]


def test_the_bad_rows_come_back_with_reasons_and_cannot_run() -> None:
    sheet, found = rows("code,name,price\nA,=cmd|calc,5\nB,blue lawn,five\n")
    text = bad_rows_csv(sheet.header, found)
    assert "'=cmd|calc" in text
    assert "price: five is not a price" in text
    assert text.splitlines()[0] == "code,name,price,reason"


def test_names_that_say_nothing_are_faults_that_name_the_way_out() -> None:
    _, found = rows("code,name,price\nA,Mystery,5\n")
    assert "woven, knit or net" in found[0].faults[0].message


def test_json_is_read_like_a_list() -> None:
    content = json.dumps([{"code": "A", "name": "blue lawn", "width_cm": 140, "nap": False}]).encode()
    sheet = sheet_from_file(content, "x.json")
    assert read_rows(Reading(sheet, guess_mapping(sheet.header), trade_tables()))[0].record.facts.width_cm == 140
