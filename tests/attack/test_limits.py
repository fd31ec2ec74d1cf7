"""What was answered by an error of the program, or stopped the shop, each with the answer it has now."""

from __future__ import annotations

import io

import numpy as np
import pytest
from conftest import tried_app
from flask.testing import FlaskClient
from PIL import Image
from sqlalchemy.exc import DataError, OperationalError
from wrong_pictures import png

from nematex.command.service.starting import start
from nematex.core.air.notes.markup import escape_markdown
from nematex.core.errors import FieldFault
from nematex.core.signs import without_controls
from nematex.store.cloth.cloths import change_cloth
from nematex.store.database import Database
from nematex.store.pattern.patterns import PatternRecord, save_patterns
from nematex.tables import properties
from nematex.usecases.cloth.colourways import read_bolts, read_colourways
from nematex.usecases.cloth.lists.cells import read_cell
from nematex.usecases.cloth.lists.headings import guess_mapping
from nematex.usecases.files.formats import sheet_from_file
from nematex.usecases.files.photo_file import kept_copy
from nematex.usecases.held.shop import Shop
from nematex.usecases.pattern.exchange import pattern_record
from nematex.web import again
from nematex.web.app import create_app

pytestmark = pytest.mark.breaking


@pytest.fixture
def client(demo: Shop) -> FlaskClient:
    app = tried_app(demo.database)
    app.config["WTF_CSRF_ENABLED"] = False
    app.config["PROPAGATE_EXCEPTIONS"] = False
    return app.test_client()


def test_a_size_of_seventy_thousand_letters_is_no_size_of_the_pattern(client: FlaskClient, demo: Shop) -> None:
    pick = demo.now().programmes[0].picks[0]
    data = {"programme": "1", "cloth": pick.cloth_id, "pattern": pick.pattern_id, "size": "c" * 70_000, "view": "é" * 301}
    assert client.post("/programmes/picks", data=data).status_code == 302
    assert demo.now().programmes[0].picks[-1].size is None


@pytest.mark.parametrize("back", ["/shelf\r\nSet-Cookie: a=b", "//elsewhere.example", "/\\elsewhere.example", "/" + "a" * 5000])
def test_a_way_back_that_leads_nowhere_goes_to_the_front_page(client: FlaskClient, back: str) -> None:
    answer = client.post("/settings", data={"units": "metric", "back": back})
    assert (answer.status_code, answer.headers["Location"]) == (302, "/")


def test_control_characters_neither_end_an_export_nor_stay(client: FlaskClient, demo: Shop) -> None:
    number = demo.now().shelf.records[0].id
    with demo.database.work() as work:  # as an earlier version let it in
        change_cloth(work, number, {"notes": "one\x0btwo\x00three"})
    for kind in ("csv", "json", "xlsx"):
        assert client.get(f"/shelf/export.{kind}").status_code == 200
    assert without_controls("one\x0btwo\x00\u202ethree\ttab\r\nline") == "one\ntwothree\ttab\nline"
    assert read_cell("one\x0btwo\x00", "notes", properties()["notes"]) == "one\ntwo"


@pytest.mark.parametrize(
    ("field", "letters"), [("code", 81), ("name", 121), ("house", 121), ("difficulty", 41), ("season", 81)]
)
def test_a_pattern_s_field_longer_than_its_column_is_refused_by_name(demo: Shop, field: str, letters: int) -> None:
    row = {"code": "L-1", "name": "long", "structure": "woven", field: "a" * (letters + 1)}
    with pytest.raises(ValueError, match=field):
        pattern_record(row, demo.now().tables)


def test_an_envelope_of_twenty_thousand_wide_letters_is_kept(demo: Shop) -> None:
    record: PatternRecord = pattern_record(
        {"code": "L-2", "name": "long", "structure": "woven", "envelope": "🧵" * 20_000}, demo.now().tables
    )
    with demo.database.work() as work:
        save_patterns(work, [record])
    assert next(each for each in demo.now().drawer.records if each.code == "L-2").envelope == record.envelope


def test_a_value_that_slips_past_every_check_is_a_fault_with_its_field(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def refuse(*_: object) -> None:
        raise DataError("insert", {}, Exception(1406, "Data too long for column 'supplier' at row 1"))

    monkeypatch.setattr("nematex.web.rooms.home.front", refuse)
    answer = client.get("/")
    assert answer.status_code == 400
    assert "supplier: is too long" in answer.text


def deadlock(*_: object) -> None:
    raise OperationalError("update", {}, Exception(1213, "Deadlock found when trying to get lock; try restarting transaction"))


def test_a_request_that_lost_a_race_is_tried_again(client: FlaskClient, monkeypatch: pytest.MonkeyPatch) -> None:
    tried: list[int] = []
    real = again.Flask.dispatch_request

    def once(app: again.Patient) -> object:
        tried.append(1)
        return deadlock() if len(tried) < 3 else real(app)

    monkeypatch.setattr(again.Flask, "dispatch_request", once)
    assert client.get("/shelf").status_code == 200
    assert len(tried) == 3


@pytest.mark.parametrize(
    ("number", "words"), [(1213, "Somebody else was saving"), (1114, "The disk is full"), (2013, "does not answer")]
)
def test_the_page_of_a_failed_request_says_why(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch, number: int, words: str
) -> None:
    def fail(*_: object) -> None:
        raise OperationalError("select", {}, Exception(number, "said by the server"))

    monkeypatch.setattr("nematex.web.rooms.home.front", fail)
    answer = client.get("/")
    assert answer.status_code == 503
    assert words in answer.text


@pytest.mark.parametrize("sign", ["9", "(", " ", "|", ";", "é", "1 1/2 "])
def test_a_cell_of_a_hundred_thousand_letters_is_refused(sign: str) -> None:
    text = (sign * 100_000)[:100_000]
    for name in ("colourways", "bolts", "notes", "weight_gsm", "price_per_m", "colours"):
        with pytest.raises(FieldFault, match="letters long"):
            read_cell(text, name, properties()[name])


@pytest.mark.parametrize("sign", ["(", "[", "a ", "é"])
def test_a_heading_of_a_hundred_thousand_letters_is_no_field(sign: str) -> None:
    sheet = sheet_from_file(f"code,name,{(sign * 100_000)[:100_000]}\nA,b,c\n".encode(), "a.csv")
    assert guess_mapping(sheet.header) == {0: "code", 1: "name"}


@pytest.mark.parametrize("text", ["9" * 2000, "1.5" * 600, "(" * 2000])
def test_an_odd_colourway_is_a_name_without_a_length_and_no_bolt(text: str) -> None:
    (way,) = read_colourways(text, "field")
    assert (way.stock_m, way.name) == (None, text[:60])
    with pytest.raises(FieldFault, match="is not a bolt"):
        read_bolts(text, "field")


@pytest.mark.parametrize(
    ("text", "kept"),
    [
        ("~~~", r"\~\~\~"),
        ("- a list", r"\- a list"),
        ("1. a list", r"1\. a list"),
        ("2.5 m", "2.5 m"),
        ("a *star*", r"a \*star\*"),
    ],
)
def test_no_line_of_the_notes_breaks_out_of_its_place(text: str, kept: str) -> None:
    assert escape_markdown(text) == kept


def jpeg(**more: object) -> bytes:
    out = io.BytesIO()
    Image.fromarray(np.random.default_rng(0).integers(0, 255, (60, 80, 3), dtype=np.uint8)).save(out, "JPEG", **more)
    return out.getvalue()


def test_a_kept_photo_holds_no_comment() -> None:
    sent = jpeg(comment=b"taken at home")
    assert b"taken at home" in sent
    assert b"taken at home" not in kept_copy(sent)[0]


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (png(6000, 5000), "at most 24 million pixels of a PNG"),
        (jpeg() + b"\xff\xda" * 80, "more than 60 passes"),
    ],
    ids=["a large PNG", "a JPEG of many scans"],
)
def test_a_photo_that_would_take_the_memory_or_the_minutes_is_refused(content: bytes, words: str) -> None:
    with pytest.raises(FieldFault, match=words):
        kept_copy(content)


def test_two_shops_in_one_browser_have_cookies_of_their_own(database: Database) -> None:
    names = {create_app(database, key).config["SESSION_COOKIE_NAME"] for key in ("one", "two")}
    assert len(names) == 2


@pytest.mark.parametrize("port", [-1, 0, 70_000])
def test_a_port_that_is_none_is_refused_in_words(port: int, capsys: pytest.CaptureFixture[str]) -> None:
    assert start(port, demo=False) == 2
    assert f"{port} is no port" in capsys.readouterr().err
