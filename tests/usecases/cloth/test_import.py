"""Price lists as spreadsheets, in the background, remembered per supplier, and taken back."""

from __future__ import annotations

import io
import re
import threading
import zipfile

import pytest
from conftest import Site, open_page, tried_app
from openpyxl import Workbook
from playwright.sync_api import Browser, Page, expect

from nematex.core.errors import FieldFault
from nematex.store.cloth import uploads
from nematex.store.cloth.readings import readings_of
from nematex.tables import trade_tables
from nematex.usecases.cloth.bulk import apply_bulk
from nematex.usecases.cloth.exchange import cloths_csv, cloths_json, cloths_xlsx
from nematex.usecases.cloth.lists import importing
from nematex.usecases.cloth.lists.choosing import choose_columns
from nematex.usecases.cloth.lists.importing import apply, preview, send
from nematex.usecases.cloth.lists.job import job_state, latest_lists, start_applying, start_reading, start_undoing, stop_job
from nematex.usecases.cloth.lists.undo import undo
from nematex.usecases.files.formats import sheet_from_file
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import run_job
from nematex.usecases.tasks import runners

HEADER = ("Art. No", "Fabric", "Composition", "Width", "Weight", "Price", "In stock")
ROWS = (
    ("GM-106", "Slate Roof poplin", "100% cotton", "142 cm", 121, "£9.90/m", 41),
    ("GM-101", "Bean Row lawn", "100% cotton", "137 cm", 82, "£17.00/m", 9.8),
    ("GM-190", "New Moon sateen", "97% cotton 3% elastane", "140 cm", 190, "£14/m", 30.5),
)


def xlsx(rows: tuple[tuple[object, ...], ...], header: tuple[str, ...] = HEADER) -> bytes:
    book = Workbook()
    sheet = book.active
    assert sheet is not None
    sheet.append(header)
    for row in rows:
        sheet.append(row)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def bomb(unpacked: int = 400 * 2**20) -> bytes:
    """A spreadsheet of a few hundred kilobytes that unpacks to hundreds of megabytes of nothing."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("xl/workbook.xml", "<workbook/>")
        with archive.open("xl/worksheets/sheet1.xml", "w") as part:
            for _ in range(unpacked // 2**20):
                part.write(b" " * 2**20)
    return out.getvalue()


def _send(page: Page, name: str, content: bytes, supplier: str = "") -> None:
    page.goto("/import")
    page.get_by_label("File").set_input_files({"name": name, "mimeType": "application/octet-stream", "buffer": content})
    page.get_by_label("Supplier: remembers").fill(supplier)
    page.get_by_role("button", name="Look at it").click()


def test_a_spreadsheet_is_looked_at_put_on_the_shelf_and_taken_back_to_the_same_bytes(page: Page, site: Site) -> None:
    before = [page.request.get(f"{site.base}/shelf/export.{kind}").body() for kind in ("csv", "json")]
    _send(page, "gannet.xlsx", xlsx(ROWS), "Gannet Mill")
    expect(page.get_by_text("1 new, 2 changed, 0 the same as on the shelf, 0 with faults.")).to_be_visible()
    expect(page.get_by_text(re.compile("of Gannet Mill on the shelf are not in this list"))).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("GM-101.*price: 16 → 17"))).to_be_visible()
    page.get_by_label("set the stock of the").check()
    page.get_by_role("button", name="Put 3 on the shelf").click()
    expect(page.get_by_role("heading", name="On the shelf")).to_be_visible()
    after = page.request.get(f"{site.base}/shelf/export.csv").body()
    assert b"GM-190" in after
    assert next(record for record in site.shop.now().shelf.records if record.code == "GM-102").stock_m == 0
    page.get_by_role("button", name="Take this import back").click()
    expect(page.get_by_role("heading", name="Taken back")).to_be_visible()
    expect(page.get_by_text("1 cloth went into the")).to_be_visible()
    assert [page.request.get(f"{site.base}/shelf/export.{kind}").body() for kind in ("csv", "json")] == before


def test_a_change_made_since_is_not_undone(demo: Shop) -> None:
    upload = send(demo, "a.xlsx", xlsx(ROWS))
    apply(demo, upload)
    apply(demo, send(demo, "b.csv", b"code,name,price\nGM-101,Bean Row lawn,18\n"))
    undone = undo(demo, upload)
    assert undone is not None
    assert ("GM-101", "price_per_m") in undone.left
    now = {record.code: record for record in demo.now().shelf.records}
    assert now["GM-101"].price_per_m == 18
    assert "GM-190" not in now
    assert undo(demo, upload) is None


def test_looking_at_many_lists_never_costs_the_way_back_of_one_that_was_applied(demo: Shop) -> None:
    applied = send(demo, "new.csv", b"code,name,cloth\nZZ-1,New lawn,cotton lawn\n")
    apply(demo, applied)
    for number in range(25):
        send(demo, f"look-{number}.csv", b"code,name,cloth\nZZ-2,Other,cotton lawn\n")
    undone = undo(demo, applied)
    assert undone is not None
    assert undone.removed == 1
    assert sum(not each.applied for each in latest_lists(demo)) == 21  # this one too, now that it is taken back


def test_the_readings_of_an_import_go_with_it(demo: Shop) -> None:
    cloth = next(record for record in demo.now().shelf.records if record.code == "GM-106")
    with demo.database.work() as work:
        before = readings_of(work, cloth.id)
    upload = send(demo, "a.xlsx", xlsx(ROWS))
    apply(demo, upload)
    with demo.database.work() as work:
        assert len(readings_of(work, cloth.id)) > len(before)
    undo(demo, upload)
    with demo.database.work() as work:
        assert readings_of(work, cloth.id) == before


def test_a_supplier_s_columns_are_remembered(demo: Shop) -> None:
    header = ("Ref", "Designation", "Zq", "Laize")
    first = send(demo, "a.xlsx", xlsx((("Z-1", "Fog lawn", 80, "140 cm"),), header), "Orrery Weavers")
    choose_columns(demo, first, {0: "code", 1: "name", 2: "weight_gsm", 3: "width_cm"})
    apply(demo, first)
    second = preview(demo, send(demo, "b.xlsx", xlsx((("Z-2", "Mist lawn", 85, "138 cm"),), header), "Orrery Weavers"))
    assert second is not None
    assert second.remembered
    assert second.changes[0].record.facts.weight_gsm == 85
    stranger = preview(demo, send(demo, "c.xlsx", xlsx((("Z-3", "Haar lawn", 85, "138 cm"),), header), "Low Ferry Textiles"))
    assert stranger is not None
    assert not stranger.remembered
    assert "weight_gsm" not in stranger.mapping.values()


def test_what_goes_out_as_a_spreadsheet_comes_in_the_same(demo: Shop) -> None:
    records = demo.now().shelf.records
    found = preview(demo, send(demo, "cloths.xlsx", cloths_xlsx(records)))
    assert found is not None
    assert found.faults == []
    assert (found.count("same"), found.count("new"), found.count("changed")) == (len(records), 0, 0)
    assert cloths_csv(records).count("\r\n") == len(records) + 1
    assert cloths_json(records).count('"code"') == len(records)


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (bomb(), "would unpack to 4\\d\\d MB; at most 150 MB are opened"),
        (b"PK\x03\x04" + b"junk" * 50, "damaged spreadsheet"),
        (xlsx(ROWS)[:-400], "damaged spreadsheet"),
        (xlsx(()), "no rows|holds no|one row|is empty"),
    ],
)
def test_spreadsheets_that_are_none_are_refused(content: bytes, said: str) -> None:
    with pytest.raises(FieldFault, match=said):
        sheet_from_file(content, "list.xlsx")


def test_a_bomb_and_a_renamed_program_are_refused_in_the_browser(page: Page, site: Site) -> None:
    for content, words in ((bomb(), "would unpack to"), (b"MZ" + bytes(range(256)) * 20, "list.xlsx")):
        _send(page, "list.xlsx", content, "Gannet Mill")
        expect(page.get_by_role("alert")).to_contain_text(words)
        expect(page.get_by_label("Supplier: remembers")).to_have_value("Gannet Mill")
    site.complaints.clear()  # the browser notes each refusal as an error


@pytest.fixture
def held_up(monkeypatch: pytest.MonkeyPatch) -> tuple[threading.Event, threading.Event]:
    """A worker beside the pages that stops at an import's first chunk: set when it is there, and what lets it go on."""
    halted, go_on = threading.Event(), threading.Event()
    keep = importing.keep_cloths

    def slow(*given: object, **more: object) -> None:
        halted.set()
        assert go_on.wait(300)
        keep(*given, **more)  # type: ignore[arg-type]

    monkeypatch.setattr(importing, "keep_cloths", slow)
    monkeypatch.setattr(asking, "SOON_S", 0.05)
    beside = lambda *given: threading.Thread(target=run_job, args=given).start()  # noqa: E731
    monkeypatch.setattr(runners, "run_job", beside)
    return halted, go_on


def _put_on_the_shelf(browser: Browser, site: Site) -> Page:
    page = open_page(browser, site)
    _send(page, "gannet.xlsx", xlsx(ROWS))
    page.get_by_role("button", name="Put 3 on the shelf").click()
    return page


def test_an_import_that_is_stopped_has_changed_nothing(
    browser: Browser, site: Site, held_up: tuple[threading.Event, threading.Event]
) -> None:
    halted, go_on = held_up
    page = _put_on_the_shelf(browser, site)
    assert halted.wait(300)
    page.get_by_role("button", name="Stop").click()
    go_on.set()
    expect(page.get_by_text("It was stopped. Nothing was changed.")).to_be_visible()
    expect(page.get_by_role("button", name="Put 3 on the shelf")).to_be_visible()
    assert not any(record.code == "GM-190" for record in site.shop.now().shelf.records)
    page.context.close()


def test_an_import_goes_on_when_the_browser_leaves(
    browser: Browser, site: Site, held_up: tuple[threading.Event, threading.Event]
) -> None:
    """The import is held at its first chunk until the browser has seen the bar and gone."""
    halted, go_on = held_up
    page = _put_on_the_shelf(browser, site)
    expect(page.get_by_role("progressbar")).to_be_visible()
    assert halted.wait(300)
    address = page.url
    page.context.close()
    go_on.set()
    again = open_page(browser, site)
    again.goto(address)
    expect(again.get_by_role("heading", name="On the shelf")).to_be_visible()
    assert any(record.code == "GM-190" for record in site.shop.now().shelf.records)
    again.context.close()


def test_an_import_cut_short_has_changed_nothing_and_says_so(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    before = cloths_csv(demo.now().shelf.records)
    upload = send(demo, "a.xlsx", xlsx(ROWS))

    def broken(*_: object, **__: object) -> None:
        raise FieldFault("shelf", "x", "broke in the middle")

    monkeypatch.setattr(uploads, "add_steps", broken)
    start_applying(demo, upload, False)
    kept, _ = job_state(demo, upload) or pytest.fail("it is gone")
    assert (kept.state, kept.applied) == ("failed", False)
    assert "broke in the middle" in kept.message
    assert cloths_csv(demo.now().shelf.records) == before
    # A shop that was stopped while it worked: the state says "applying", and nobody works on it.
    with demo.database.work() as work:
        uploads.set_state(work, upload, state="applying", message="", job_id=None)
    stopped, _ = job_state(Shop(demo.database), upload) or pytest.fail("it is gone")
    assert stopped.state == "failed"
    assert "Nothing was changed; start it again." in stopped.message


def test_a_long_list_is_shown_as_the_worker_read_it_though_the_shelf_moved_on(
    demo: Shop, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Who looks at it does not wait for it to be read again; who applies it does."""
    monkeypatch.setattr(importing, "LONG_BYTES", 10)
    text = b"code,name,fibres,weight gsm,price\nGM-101,Bean Row lawn,100% cotton,75,12\nNEW-1,Some lawn,100% cotton,80,14\n"
    number = send(demo, "list.csv", text, "Some mill")
    assert start_reading(demo, number)
    read = preview(demo, number)
    record = next(each for each in demo.now().shelf.records if each.code == "GM-101")
    apply_bulk(demo, [record], "price_per_m", "99", trade_tables(), "somebody")
    demo.previews.clear()
    upload = job_state(demo, number)
    assert upload
    assert not importing.is_unread(demo, upload[0])
    with monkeypatch.context() as patch:
        patch.setattr(importing, "_understood", lambda *_: pytest.fail("was read again while somebody waited"))
        shown = preview(demo, number)
    assert read
    assert shown
    assert [(one.row, one.kind, one.fields) for one in shown.changes] == [
        (one.row, one.kind, one.fields) for one in read.changes
    ]
    found = apply(demo, number, False, lambda _done, _total: None)
    assert found
    moved = next(one for one in found.changes if one.record.code == "GM-101").fields
    assert any(old.startswith("99") for _, old, _ in moved)  # it knew the shelf as it is


def test_a_long_list_read_by_another_program_is_read_anew_by_the_worker(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(importing, "LONG_BYTES", 10)
    number = send(demo, "list.csv", b"code,name\nNEW-1,Some lawn\n", "Some mill")
    start_reading(demo, number)
    upload = job_state(demo, number)
    assert upload
    demo.previews.clear()
    assert not importing.is_unread(demo, upload[0])
    monkeypatch.setattr(asking, "_program", lambda: "a later one")
    assert importing.is_unread(demo, upload[0])
    assert start_reading(demo, number)
    upload = job_state(demo, number)
    assert upload
    assert not importing.is_unread(demo, upload[0])


def test_nobody_reads_a_long_list_in_the_workers_place(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    """Not while the worker reads it, not after it was put on the shelf and read by an earlier program, not when refused."""
    monkeypatch.setattr(importing, "LONG_BYTES", 10)
    number = send(demo, "list.csv", b"code,name,price\nNEW-1,Some lawn,14\n", "Some mill")
    app = tried_app(demo.database)
    app.config.update(WTF_CSRF_ENABLED=False)
    client, shop, asked = app.test_client(), app.extensions["shop"], []
    monkeypatch.setattr(asking, "SOON_S", 0.05)
    shop.enqueue = lambda _kind, job_id: asked.append(job_id)
    with monkeypatch.context() as patch:
        patch.setattr(importing, "_understood", lambda *_: pytest.fail("was read while somebody waited"))
        assert not start_reading(shop, number)
        assert client.get(f"/import/{number}").location == f"/import/{number}/progress"
        assert client.post(f"/import/{number}/columns", data={"column-0": "price"}).location == f"/import/{number}/progress"
    run_job(demo.database, asked[0], runners.runners(demo))
    assert "Some lawn" in client.get(f"/import/{number}").text
    assert start_applying(demo, number, sold_out=False)
    shop.previews.clear()
    monkeypatch.setattr(asking, "_program", lambda: "a later one")
    monkeypatch.setattr(importing, "_understood", lambda *_: pytest.fail("was read while somebody waited"))
    assert client.get(f"/import/{number}").location == f"/import/{number}/progress"
    upload = job_state(demo, number)
    assert upload
    assert upload[0].applied  # it can still be taken back


def test_a_list_that_is_being_applied_is_applied_as_it_was_shown(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    number = send(demo, "list.csv", b"code,name,price\nNEW-1,Some lawn,14\n", "Some mill")
    start_reading(demo, number)
    app = tried_app(demo.database)
    app.config.update(WTF_CSRF_ENABLED=False)
    client, shop, asked = app.test_client(), app.extensions["shop"], []
    monkeypatch.setattr(asking, "SOON_S", 0.05)
    shop.enqueue = lambda _kind, job_id: asked.append(job_id)
    assert not start_applying(shop, number, sold_out=False)
    chosen = {"column-0": "code", "column-1": "name", "column-2": ""}
    assert client.post(f"/import/{number}/columns", data=chosen).location == f"/import/{number}/progress"
    assert len(asked) == 1
    run_job(demo.database, asked[0], runners.runners(demo))
    upload = job_state(demo, number)
    assert upload
    assert (upload[0].state, upload[0].applied) == ("applying done", True)
    made = next(record for record in demo.now().shelf.records if record.code == "NEW-1")
    assert made.price_per_m == 14  # a colleague's choice of columns came too late


def test_taking_a_list_back_is_the_workers_and_is_waited_for(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    number = send(demo, "list.csv", b"code,name,price\nNEW-1,Some lawn,14\nNEW-2,,15\n", "Some mill")
    start_reading(demo, number)
    start_applying(demo, number, sold_out=False)
    monkeypatch.setattr(asking, "SOON_S", 0.05)
    app = tried_app(demo.database)
    app.config.update(WTF_CSRF_ENABLED=False)
    asked: list[int] = []
    app.extensions["shop"].enqueue = lambda _kind, job_id: asked.append(job_id)
    client = app.test_client()
    assert "NEW-2" in client.get(f"/import/{number}/bad-rows.csv").text
    assert "Taking it back" in client.post(f"/import/{number}/undo", follow_redirects=True).text
    assert "Taking it back" in client.post(f"/import/{number}/undo", follow_redirects=True).text
    assert len(asked) == 1  # a colleague's second press asks for nothing more
    assert "NEW-1" in {record.code for record in demo.now().shelf.records}
    run_job(demo.database, asked[0], runners.runners(demo))
    told = client.get(f"/import/{number}/state").json
    assert told
    assert "1 cloth went into the" in client.get(told["next"]).text
    assert "NEW-1" not in {record.code for record in demo.now().shelf.records}
    assert client.post(f"/import/{number}/undo").status_code == 404  # there is nothing to take back any more
    stopped = job_state(demo, number)
    assert stopped
    assert (stopped[0].applied, stopped[0].state) == (False, "")


def test_taking_a_list_back_that_is_stopped_leaves_it_on_the_shelf(demo: Shop) -> None:
    number = send(demo, "list.csv", b"code,name,price\nNEW-1,Some lawn,14\n", "Some mill")
    start_reading(demo, number)
    start_applying(demo, number, sold_out=False)
    demo.enqueue = lambda _kind, _job_id: None
    start_undoing(demo, number)
    stop_job(demo, number)
    kept = job_state(demo, number)
    assert kept
    assert (kept[0].applied, kept[0].state) == (True, "applying done")
    assert "NEW-1" in {record.code for record in demo.now().shelf.records}
