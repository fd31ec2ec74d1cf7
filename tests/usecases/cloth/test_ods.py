"""ODS lists, written by another library (odfpy) and read by ours; and what is no sound ODS."""

from __future__ import annotations

import io
import zipfile

import pytest
from odf.opendocument import OpenDocumentSpreadsheet
from odf.table import Table, TableCell, TableRow
from odf.text import P

from nematex.core.errors import FieldFault
from nematex.store.database import Database
from nematex.usecases.cloth.lists.importing import apply, send
from nematex.usecases.files.formats import format_of, sheet_from_file
from nematex.usecases.held.shop import Shop

ROWS = [
    ["code", "name", "weight", "arrived", "stretch"],
    ["A-1", "blue lawn", 80.0, "2026-11-01", 0.25],
    ["A-2", "Shingle ponte", 260, "2026-11-02", 0.3],
]


def ods(rows: list[list[object]], before: int = 0, empty_rows: int = 0) -> bytes:
    """A spreadsheet whose first sheet is empty, with numbers, dates and percentages as values."""
    book = OpenDocumentSpreadsheet()
    book.spreadsheet.addElement(Table(name="Info"))
    sheet = Table(name="Prices")
    for row in rows:
        line = TableRow()
        for column, value in enumerate(row):
            if isinstance(value, float) and value < 1:
                cell = TableCell(valuetype="percentage", value=str(value))
            elif isinstance(value, (int, float)):
                cell = TableCell(valuetype="float", value=str(value))
            elif column == 3 and str(value)[:2] == "20":
                cell = TableCell(valuetype="date", datevalue=str(value))
            else:
                cell = TableCell(valuetype="string")
                cell.addElement(P(text=str(value)))
            line.addElement(cell)
        sheet.addElement(line)
    if empty_rows:
        sheet.addElement(TableRow(numberrowsrepeated=str(empty_rows)))
    book.spreadsheet.addElement(sheet)
    out = io.BytesIO()
    book.write(out)
    return out.getvalue()


def test_a_spreadsheet_of_another_library_is_put_on_the_shelf(database: Database) -> None:
    shop = Shop(database)
    content = ods(ROWS, empty_rows=1_048_000)
    assert format_of(content).name == "ODS"
    assert apply(shop, send(shop, "prices.ods", content)) is not None
    lawn, ponte = shop.now().shelf.records
    assert (lawn.facts.weight_gsm, str(lawn.arrived), lawn.facts.stretch_cross_pct) == (80, "2026-11-01", 25)
    assert ponte.facts.stretch_cross_pct == 30


def packed(content: str, kind: str = "application/vnd.oasis.opendocument.spreadsheet", name: str = "content.xml") -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr("mimetype", kind)
        archive.writestr(name, content)
    return out.getvalue()


BOMB = '<!DOCTYPE a [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]><a>&b;</a>'
WRONG = {
    "cannot be opened": packed("<a><b></a>"),
    "without its content": packed("<a/>", name="other.xml"),
    "holds no rows": packed("<a/>"),
    "DTDForbidden": packed(BOMB),
    "damaged": packed("<a/>")[:120],
    "no spreadsheet": packed("<a/>", kind="application/zip"),
}


@pytest.mark.parametrize("message", WRONG)
def test_what_is_no_sound_ods_is_refused(message: str) -> None:
    with pytest.raises(FieldFault, match=message):
        sheet_from_file(WRONG[message], "x.ods")
