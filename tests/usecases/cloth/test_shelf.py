"""The shelf: every filter against a plain reading of the cloths, saved filters, comparing, one change to many."""

from __future__ import annotations

import io
import re
from collections.abc import Callable
from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal

import numpy as np
import pytest
from conftest import Site, tried_app
from flask.testing import FlaskClient
from openpyxl import load_workbook
from playwright.sync_api import Page, expect

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import SHEERNESS
from nematex.core.colour.difference import delta_e, lab_from_srgb, read_hex
from nematex.core.errors import FieldFault
from nematex.store.cloth.cloths import save_cloths
from nematex.store.records import ClothRecord
from nematex.tables import trade_tables
from nematex.usecases.cloth.browse import browse_cloths, found_cloths
from nematex.usecases.cloth.bulk import apply_bulk, bulk_changes
from nematex.usecases.cloth.shelf_filter import SORTS, read_filter
from nematex.usecases.cloth.together import AT_ONCE
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import run_job
from nematex.usecases.quantity.saying import hand_word
from nematex.usecases.tasks.runners import runners
from nematex.web.rooms.cloth import chosen

Fits = Callable[[ClothRecord, Cloth], bool]
RUST = (0xA4, 0x45, 0x2A)


def _near(record: ClothRecord, cloth: Cloth) -> bool:
    colours = {*record.colours, *(one for way in record.colourways for one in way.colours)}
    return any(float(delta_e(lab_from_srgb(read_hex(one)), lab_from_srgb(RUST))) <= 12 for one in colours)


def _price(record: ClothRecord) -> float:
    price = record.sale_price_per_m or record.price_per_m
    return float(price) if price is not None else float("inf")


def _season(record: ClothRecord, cloth: Cloth) -> str:
    return record.season or (cloth.type.season if cloth.type else "")


def _those(shop: Shop, fits: Fits) -> list[ClothRecord]:
    shelf = shop.now().shelf
    return [record for record, cloth in zip(shelf.records, shelf.cloths, strict=True) if fits(record, cloth)]


def test_a_sale_that_ends_is_over_on_a_shelf_that_was_read_before(demo: Shop) -> None:
    """The shop stays in hand for weeks: its prices are those of the day that is asked for."""
    last = date(2026, 11, 30)
    with demo.database.work() as work:
        ending = replace(demo.now().shelf.records[4], price_per_m=Decimal(20), sale_price_per_m=Decimal(8))
        save_cloths(work, [replace(ending, more={**ending.more, "sale_until": last.isoformat()})])
    shelf = demo.now().shelf
    for day in (last, last + timedelta(days=1), date(2020, 1, 1), date(2031, 1, 1)):
        asked = [record.price_on(day) for record in shelf.records]
        np.testing.assert_array_equal(
            shelf.filed.price_on(day), [np.nan if each is None else float(each) for each in asked], str(day)
        )
    at = shelf.place[ending.id]
    assert [shelf.filed.price_on(day)[at] for day in (last, last + timedelta(days=1))] == [8, 20]


FILTERS: list[tuple[dict[str, str], Fits]] = [
    ({"structure": "knit"}, lambda record, cloth: cloth.structure == "knit"),
    ({"hand": "crisp"}, lambda record, cloth: hand_word(cloth.bending_length.best, trade_tables()) == "crisp"),
    ({"sheer": "semi-sheer"}, lambda record, cloth: SHEERNESS[round(cloth.sheer.best)] == "semi-sheer"),
    ({"print_kind": "check"}, lambda record, cloth: record.print_kind == "check"),
    ({"direction": "one-way"}, lambda record, cloth: record.facts.print.direction == "one-way"),
    ({"scale": "huge"}, lambda record, cloth: (record.facts.print.scale_cm or 0) > 20),
    # 4 oz/yd² is 135.6 g/m².
    ({"weight_from": "4 oz"}, lambda record, cloth: cloth.weight.best >= 135.62),
    ({"weight_to": "90"}, lambda record, cloth: cloth.weight.best <= 90),
    ({"stretch_from": "50 %"}, lambda record, cloth: cloth.stretch_cross.best >= 50),
    ({"width_from": "60 in"}, lambda record, cloth: cloth.width.best >= 152.4),
    ({"stock_from": "25 m"}, lambda record, cloth: (record.stock_m or 0) >= 25),
    ({"price_to": "£9.60"}, lambda record, cloth: _price(record) <= 9.6),
    ({"fibre": "rayon"}, lambda record, cloth: bool(cloth.fibres and cloth.fibres.share("viscose"))),
    ({"season": "spring"}, lambda record, cloth: "spring" in _season(record, cloth) or "all year" in _season(record, cloth)),
    ({"new_since": "2026-11-01"}, lambda record, cloth: record.arrived is not None and record.arrived >= date(2026, 11, 1)),
    ({"near": "#a4452a"}, _near),
    ({"structure": "woven", "weight_to": "90", "q": "lawn"},
     lambda record, cloth: cloth.weight.best <= 90 and "lawn" in f"{record.facts.name} {record.facts.cloth}"),
]  # fmt: skip


@pytest.mark.parametrize(("asked", "fits"), FILTERS, ids=[" ".join(asked) for asked, _ in FILTERS])
def test_each_filter_keeps_what_fits_and_nothing_else(demo: Shop, asked: dict[str, str], fits: Fits) -> None:
    shelf = demo.now().shelf
    chosen, faults = read_filter(asked, trade_tables())
    assert not faults
    found = {shelf.records[at].code for at in found_cloths(shelf, chosen)}
    wanted = {record.code for record in _those(demo, fits)}
    assert found == wanted
    assert wanted


def test_needs_measuring_are_those_whose_deciding_numbers_are_only_typical(demo: Shop) -> None:
    shelf = demo.now().shelf
    found = {shelf.records[at].code for at in found_cloths(shelf, read_filter({"needs": "1"}, trade_tables())[0])}
    assert "XX-901" in found
    assert "GM-101" not in found


def test_every_sort_is_a_sort_of_the_same_cloths(demo: Shop) -> None:
    shelf = demo.now().shelf
    everything = set(range(len(shelf.records)))
    for sort in SORTS:
        order = found_cloths(shelf, read_filter({"sort": sort, "near": ""}, trade_tables())[0])
        assert set(map(int, order)) == everything
    lightest = [
        shelf.cloths[at].weight.best for at in found_cloths(shelf, read_filter({"sort": "lightest"}, trade_tables())[0])
    ]
    assert lightest == sorted(lightest)
    nearest = found_cloths(shelf, read_filter({"near": "rust"}, trade_tables())[0])
    far = [shelf.filed.distance(read_filter({"near": "rust"}, trade_tables())[0].near or RUST)[at] for at in nearest]
    assert far == sorted(far)


def test_what_cannot_be_read_is_named_and_the_rest_still_narrows(demo: Shop) -> None:
    asked = {"weight_from": "heavyish", "near": "mauvelous", "structure": "felt", "fibre": "kevlarette", "price_to": "9.60"}
    chosen, faults = read_filter(asked, trade_tables())
    assert len(faults) == 4
    assert any("mauve" in str(fault) for fault in faults)
    assert browse_cloths(demo.now().shelf, chosen).total < len(demo.now().shelf.records)


def test_the_shelf_page_filters_saves_compares_and_forgets(page: Page, site: Site) -> None:
    page.goto("/shelf")
    page.get_by_label("structure").select_option("knit")
    expect(page).to_have_url(re.compile("structure=knit"))
    page.get_by_label("stretch from").fill("50 %")
    page.get_by_role("button", name="Find").click()
    expect(page).to_have_url(re.compile("stretch_from=50"))
    rows = page.locator("li[data-row]")
    expect(rows.first).to_be_visible()
    count = rows.count()
    assert 0 < count < 20
    page.get_by_label("Save this filter as").fill("stretchy")
    page.get_by_role("button", name="Save").click()
    page.get_by_role("link", name="clear").click()
    page.get_by_role("link", name="stretchy").click()
    expect(rows).to_have_count(count)
    for at in (0, 1, 2):
        rows.nth(at).get_by_role("checkbox").check()
    page.get_by_role("button", name="Compare the ticked").click()
    expect(page.get_by_role("heading", level=2)).to_have_count(3)
    expect(page.locator("svg.hang")).to_have_count(3)
    page.go_back()
    page.get_by_role("button", name="Forget stretchy").click()
    expect(page.get_by_role("link", name="stretchy")).to_have_count(0)


@pytest.mark.parametrize("at_once", [AT_ONCE, 1])
def test_many_cloths_are_changed_together_after_a_look(
    page: Page, site: Site, at_once: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    """By the page itself, and by the worker as where they are very many."""
    monkeypatch.setattr(chosen, "AT_ONCE", at_once)
    page.goto("/shelf?fibre=wool")
    total = int(re.sub(r"\D", "", page.locator(".answers-head .soft").first.inner_text()))
    page.get_by_role("link", name=f"change all {total}").click()
    page.get_by_label("What").select_option("season")
    page.get_by_label("becomes").fill("winter")
    page.get_by_role("button", name="What would change?").click()
    expect(page.get_by_text(f"{total} would change, 0 are so already.")).to_be_visible()
    page.get_by_role("button", name=f"Change {total}").click()
    woollen = _those(site.shop, lambda _, cloth: bool(cloth.fibres and cloth.fibres.share("wool")))
    assert {record.season for record in woollen} == {"winter"}
    page.goto(f"/shelf/together?cloth={woollen[0].id}&field=price_per_m&text=cheap")
    expect(page.get_by_role("alert")).to_contain_text("“cheap” is not a price")
    expect(page.get_by_label("becomes")).to_have_value("cheap")
    site.complaints.clear()


@pytest.fixture
def by_worker(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> tuple[FlaskClient, list[int]]:
    """A browser of the shop, and the jobs it asked for, which nobody does until the test says so."""
    monkeypatch.setattr(chosen, "AT_ONCE", 1)
    monkeypatch.setattr(asking, "SOON_S", 0.05)
    app = tried_app(demo.database)
    app.config.update(WTF_CSRF_ENABLED=False)
    asked: list[int] = []
    app.extensions["shop"].enqueue = lambda _kind, job_id: asked.append(job_id)
    return app.test_client(), asked


CHANGE = "/shelf/together?all=1&fibre=wool&field=season&text=winter"


def test_a_change_by_the_worker_is_waited_for_shown_and_made(by_worker: tuple[FlaskClient, list[int]], demo: Shop) -> None:
    client, asked = by_worker
    many = len(_those(demo, lambda _, cloth: bool(cloth.fibres and cloth.fibres.share("wool"))))
    waits = client.get(CHANGE, follow_redirects=True)
    assert "Looking what would change." in waits.text
    assert client.get(f"/shelf/together/{asked[0]}/now").json == {"done": 0, "total": many, "next": None}
    run_job(demo.database, asked[0], runners(demo))
    there = client.get(f"/shelf/together/{asked[0]}/now").json
    assert there
    page = client.get(there["next"])
    sign = re.search(r'name="shown" value="(\w+)"', page.text)
    assert sign
    assert f"{many} would change" in page.text
    form = {"all": "1", "fibre": "wool", "field": "season", "text": "winter", "shown": sign[1]}
    waits = client.post("/shelf/together", data=form, follow_redirects=True)
    assert "all of them or none" in waits.text
    before = {record.id: record.season for record in demo.now().shelf.records}
    run_job(demo.database, asked[1], runners(demo))
    done = client.get(f"/shelf/together/{asked[1]}")
    assert (done.status_code, done.location) == (302, "/shelf")
    after = {record.id: record.season for record in demo.now().shelf.records}
    assert {season for number, season in after.items() if before[number] != season} == {"winter"}
    assert sum(before[number] != season for number, season in after.items()) == many


def test_a_colleagues_change_meanwhile_is_told_and_nothing_is_made(
    by_worker: tuple[FlaskClient, list[int]], demo: Shop
) -> None:
    client, asked = by_worker
    client.get(CHANGE)
    run_job(demo.database, asked[0], runners(demo))
    sign = re.search(r'name="shown" value="(\w+)"', client.get(f"/shelf/together/{asked[0]}").text)
    assert sign
    woollen = _those(demo, lambda _, cloth: bool(cloth.fibres and cloth.fibres.share("wool")))
    apply_bulk(demo, woollen[:1], "season", "autumn", trade_tables(), "somebody else")
    before = {record.id: record.season for record in demo.now().shelf.records}
    client.post(CHANGE, data={"shown": sign[1]})
    run_job(demo.database, asked[1], runners(demo))
    told = client.get(f"/shelf/together/{asked[1]}")
    assert told.status_code == 400
    assert "was changed by somebody else for some of these cloths" in told.text
    assert 'value="winter"' in told.text  # what was typed is there
    assert {record.id: record.season for record in demo.now().shelf.records} == before


def test_a_change_that_is_stopped_is_not_made(by_worker: tuple[FlaskClient, list[int]], demo: Shop) -> None:
    client, asked = by_worker
    client.get(CHANGE)
    told = client.post(f"/shelf/together/{asked[0]}/stop", follow_redirects=True)
    assert told.status_code == 400
    assert "It was stopped before it began." in told.text
    run_job(demo.database, asked[0], runners(demo))
    assert " would change, " not in client.get(f"/shelf/together/{asked[0]}").text
    assert client.get("/shelf/together/999999").status_code == 404
    for wrong, said in (("&field=cloud&text=x", "cloud"), ("&field=hand&text=lovely", "lovely")):
        answer = client.get(f"/shelf/together?all=1{wrong}")
        assert answer.status_code == 400  # at once, without the worker
        assert said in answer.text
    assert len(asked) == 1


def test_a_change_to_many_leaves_all_else_as_it_was(demo: Shop) -> None:
    records = demo.now().shelf.records
    for change in bulk_changes(records, "vat", "plus VAT", trade_tables()):
        assert change.old.facts == change.new.facts
        assert (change.old.bolts, change.old.colourways, change.old.photo_id, change.old.stock_m) == (
            change.new.bolts, change.new.colourways, change.new.photo_id, change.new.stock_m,
        )  # fmt: skip
    with pytest.raises(FieldFault, match="Handle"):
        bulk_changes(records, "hand", "lovely", trade_tables())
    with pytest.raises(FieldFault):
        bulk_changes(records, "code", "X", trade_tables())


def test_the_spreadsheet_holds_what_the_filter_found(page: Page, site: Site) -> None:
    reply = page.request.get(f"{site.base}/shelf/export.xlsx?structure=knit")
    sheet = load_workbook(io.BytesIO(reply.body())).active
    assert sheet is not None
    header, *rows = list(sheet.iter_rows(values_only=True))
    knits = [record.code for record in _those(site.shop, lambda _, cloth: cloth.structure == "knit")]
    assert [row[header.index("code")] for row in rows] == knits
    weights = [row[header.index("weight_gsm")] for row in rows]
    assert all(isinstance(each, int | float) for each in weights if each is not None)


def test_the_cloth_page_shows_the_whole_record(page: Page, site: Site) -> None:
    page.goto(f"/shelf/{site.cloth('GM-106')}")
    for words in ("slate", "oyster", "21 m", "wash at 40 °C", "with VAT", "in steps of 10 cm", "at least 50 cm"):
        expect(page.locator("main")).to_contain_text(words)
    page.goto(f"/shelf/{site.cloth('XX-902')}")
    expect(page.locator("main")).to_contain_text("do not name the maker")
    page.goto(f"/shelf/{site.cloth('GM-101')}")
    page.get_by_role("link", name="beside a hand").click()
    expect(page.get_by_role("link", name="on a ruler")).to_be_visible()
    page.get_by_role("link", name="scarlet").click()
    expect(page).to_have_url(re.compile("near=%23c4472f"))
