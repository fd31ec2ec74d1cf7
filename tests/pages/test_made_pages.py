"""Files are made by the worker: the page that waits opens one by itself, says what failed, and can be stopped."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Any

import pypdfium2
import pytest
import zxingcpp
from conftest import Site, open_page, served, tried_app
from flask.testing import FlaskClient
from playwright.sync_api import Browser, Error, Page, expect
from test_pages import faults
from werkzeug.test import TestResponse

from nematex.core.errors import FieldFault
from nematex.store import jobs
from nematex.store.cloth.readings import add_photo
from nematex.store.records import Photo
from nematex.usecases.air.sew_along import acts
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.behind import BEHIND_AFTER_S
from nematex.usecases.jobs.running import Runner, run_job
from nematex.usecases.tasks.runners import runners
from nematex.web.books import drawn_jobs

LABELS = "/print/labels.pdf?cloth=1&cloth=2"
Held = list[tuple[dict[str, Runner], int]]


@pytest.fixture
def held(monkeypatch: pytest.MonkeyPatch) -> Held:
    """The jobs that were asked, which nobody does until the test says so."""
    found: Held = []
    monkeypatch.setattr(asking, "SOON_S", 0.1)
    monkeypatch.setattr("nematex.web.app.at_once", lambda _shop, more: lambda _kind, job_id: found.append((more, job_id)))
    return found


@pytest.fixture
def client(demo: Shop, held: Held) -> FlaskClient:
    app = tried_app(demo.database)
    app.config.update(WTF_CSRF_ENABLED=False)
    return app.test_client()


@pytest.fixture
def waiting(browser: Browser, demo: Shop, held: Held) -> Iterator[tuple[Page, Site]]:
    serving = served(demo.database)
    site = Site(next(serving), demo)
    page = open_page(browser, site)
    yield page, site
    page.context.close()
    next(serving, None)
    assert not site.complaints
    assert not site.strangers


def _broken(_handle: Any) -> str:
    raise FieldFault("paper", "torn", "cannot be drawn on")


def test_the_waiting_page_opens_the_pages_when_they_are_drawn(waiting: tuple[Page, Site], held: Held) -> None:
    page, site = waiting
    page.goto("/shelf")
    page.locator("input[name=cloth]").first.check()
    page.get_by_role("button", name="Labels").click()
    expect(page.get_by_role("status")).to_contain_text("Your file is being made.")
    ((more, number),) = held
    with page.expect_response(lambda answer: answer.headers.get("content-type") == "application/pdf") as answered:
        run_job(site.shop.database, number, more)
    assert answered.value.ok
    try:
        page.wait_for_url(answered.value.url)  # its first letters come before the browser has left the page that waited
    except Error as fault:
        if "ERR_ABORTED" not in fault.message:  # so where a browser without windows keeps a PDF instead of showing it
            raise
    page.goto("/shelf")
    site.complaints.clear()  # beside a PDF the browser looks for an icon, and for parts of itself
    site.strangers[:] = [url for url in site.strangers if not url.startswith(("chrome:", "chrome-extension:"))]
    assert len(held) == 1  # it is not made a second time


def test_a_list_that_is_kept_as_a_file_leaves_the_page_with_a_way_to_it(waiting: tuple[Page, Site], held: Held) -> None:
    page, site = waiting
    page.goto("/shelf/export.csv?q=kelp")
    expect(page.get_by_role("status")).to_be_visible()
    with page.expect_download() as kept:
        run_job(site.shop.database, held[0][1], held[0][0])
    assert kept.value.suggested_filename == "cloths.csv"
    assert "Kelp Ladder challis" in kept.value.path().read_text()
    expect(page.get_by_role("link", name="Open it again")).to_be_visible()


def test_what_cannot_be_made_is_said_and_asked_for_once_more(waiting: tuple[Page, Site], held: Held) -> None:
    page, site = waiting
    page.goto("/programmes/1/book")
    expect(page.get_by_role("status")).to_be_visible()
    run_job(site.shop.database, held[0][1], {"book": _broken})
    expect(page.get_by_role("alert")).to_contain_text("It could not be made. paper: 'torn' cannot be drawn on")
    page.get_by_role("link", name="Try once more").click()
    expect(page.get_by_role("status")).to_be_visible()
    assert len({number for _, number in held}) == 2


def test_stopping_leads_back_to_where_one_came_from(waiting: tuple[Page, Site], held: Held) -> None:
    page, site = waiting
    page.goto("/programmes/1/wall")
    page.locator("form[action$='/book'] button").click()
    page.get_by_role("button", name="Stop making it").click()
    page.wait_for_url("**/programmes/1/wall")
    found = asking.look(site.shop.database, held[0][1])
    assert found
    assert found[0].state == "cancelled"


def test_a_swatch_photo_is_kept_at_once_and_what_it_tells_opens_when_it_is_read(
    waiting: tuple[Page, Site], held: Held, axe: str
) -> None:
    page, site = waiting
    page.goto(f"/photo/{site.cloth('GM-106')}")
    page.get_by_role("button", name="Take one with the simulated camera").click()
    expect(page.get_by_role("heading", name="Reading the photo")).to_be_visible()
    assert faults(page, axe) == []
    page.set_viewport_size({"width": 390, "height": 800})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    address = page.url
    ((_, number),) = held
    run_job(site.shop.database, number, runners(site.shop))
    expect(page.get_by_role("heading", name="What the photo tells")).to_be_visible()
    assert page.url == address
    expect(page.get_by_text("Taken with the simulated camera")).to_be_visible()
    page.reload()
    assert len(held) == 1  # it is not read a second time


def test_a_photo_that_cannot_be_read_says_why_and_can_be_sent_again(client: FlaskClient, demo: Shop, held: Held) -> None:
    cloth = demo.now().shelf.records[0].id
    with demo.database.work() as work:
        number = add_photo(work, Photo(0, cloth, "swatch", b"no picture", 20, {}))
    address = f"/photo/{cloth}/{number}"
    assert client.get(address).status_code == 202
    state = f"{address}/now/{held[0][1]}"
    assert client.get(state).json == {"done": 0, "total": 0, "next": None, "failed": False, "why": ""}
    assert client.post(address, data={"kind": "motif"}).location == address  # nothing can stand that is not read
    run_job(demo.database, held[0][1], runners(demo))
    failed = client.get(state).json
    assert failed
    assert (failed["next"], failed["failed"], "no picture that is known here" in failed["why"]) == (None, True, True)
    assert len(held) == 1  # who waits asks for nothing anew
    assert client.get(f"{address}/now/999").status_code == 404
    client.application.extensions["shop"].enqueue = lambda _kind, job_id: run_job(demo.database, job_id, runners(demo))
    answer = client.get(address)
    assert answer.status_code == 400
    assert "The photo could not be read. photo: " in answer.text


def _key(answer: TestResponse) -> str:
    found = re.search(r"/made/([\w.-]+)/now", answer.text)
    assert found
    return found[1]


def test_what_staff_asked_for_is_no_strangers(client: FlaskClient, demo: Shop, held: Held) -> None:
    key = _key(client.get(LABELS))
    run_job(demo.database, held[0][1], drawn_jobs(client.application))
    assert client.get(f"/made/{key}").mimetype == "application/pdf"
    client.application.config["DEMO_ROLE"] = ""
    assert client.get(f"/made/{key}").status_code == 404
    assert client.get(f"/made/{key}/now").status_code == 404


def test_a_stranger_waits_for_a_public_sheet_and_is_not_told_why_it_failed(client: FlaskClient, demo: Shop, held: Held) -> None:
    number = acts.all_of(demo)[0].id
    acts.open_to_all(demo, number, is_open=True)
    client.application.config["DEMO_ROLE"] = ""
    address = f"/along/{acts.all_of(demo)[0].public_key}/checklist.pdf"
    first, second = client.get(address), client.get(address)
    assert "Stop making it" not in first.text
    run_job(demo.database, held[0][1], {"sheet": _broken})
    run_job(demo.database, held[1][1], drawn_jobs(client.application))
    failed = client.get(f"/made/{_key(first)}/now").json
    assert failed
    assert (failed["failed"], failed["why"]) == (True, "")
    assert client.get(f"/made/{_key(first)}").status_code == 410
    assert client.get(f"/made/{_key(second)}").mimetype == "application/pdf"


def test_an_address_that_was_not_given_leads_nowhere(client: FlaskClient, held: Held) -> None:
    key = _key(client.get(LABELS))
    for wrong in (str(held[0][1]), key[:-1], key[:-1] + ("a" if key[-1] != "a" else "b"), "x" * 5000, "1.\x00"):
        assert client.get(f"/made/{wrong}").status_code == 404, wrong
        assert client.get(f"/made/{wrong}/now").status_code == 404, wrong
        assert client.post(f"/made/{wrong}/stop").status_code == 404, wrong


def test_what_the_worker_made_is_what_the_page_would_have_made(client: FlaskClient, demo: Shop, held: Held) -> None:
    waiting = client.get("/shelf/export.json?q=kelp")
    run_job(demo.database, held[0][1], drawn_jobs(client.application))
    made = client.get(f"/made/{_key(waiting)}")
    assert made.headers["content-disposition"] == 'attachment; filename="cloths.json"'
    assert [each["name"] for each in json.loads(made.data)] == ["Kelp Ladder challis"]


@pytest.mark.parametrize("place", ["http://127.0.0.1:8765", "https://10.20.30.40:8443"])
def test_labels_lead_to_the_address_by_which_the_shop_was_asked(
    client: FlaskClient, demo: Shop, held: Held, place: str
) -> None:
    """Drawn by PDFium and read by ZXing, as a phone would."""
    client.application.config.update(TRUSTED_HOSTS=None)
    client.get(LABELS, base_url=place)
    run_job(demo.database, held[0][1], drawn_jobs(client.application))
    made = asking.content_of_job(demo.database, held[0][1])
    assert made
    found = zxingcpp.read_barcodes(pypdfium2.PdfDocument(made)[0].render(scale=4).to_pil())
    assert sorted(each.text for each in found) == [f"{place}/shelf/1", f"{place}/shelf/2"]


def test_only_the_newest_files_are_kept_and_the_page_says_so(
    client: FlaskClient, demo: Shop, held: Held, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(jobs, "KEPT_WITH_PARTS", {"sheet": 2})
    keys = []
    for _ in range(4):
        keys.append(_key(client.get(LABELS)))
        run_job(demo.database, held[-1][1], drawn_jobs(client.application))
    assert [client.get(f"/made/{key}").status_code for key in keys] == [404, 404, 200, 200]


def test_more_labels_than_are_drawn_at_once_are_refused_in_words(client: FlaskClient, demo: Shop, held: Held) -> None:
    record = demo.now().shelf.records[0]
    asked = "&".join(f"cloth={number}" for number in range(record.id, record.id + len(demo.now().shelf.records)))
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("nematex.web.rooms.cloth.aids.MOST_LABELS", 3)
        patch.setattr("nematex.usecases.jobs.asking.SOON_S", 5)
        demo_jobs = drawn_jobs(client.application)
        client.application.extensions["shop"].enqueue = lambda _kind, number: run_job(demo.database, number, demo_jobs)
        answer = client.get(f"/print/labels.pdf?{asked}")
    assert answer.status_code == 400
    assert "are too many labels at once; at most 3" in answer.text
    assert not held


def test_a_page_that_waits_says_when_all_work_in_the_background_is_behind(waiting: tuple[Page, Site], held: Held) -> None:
    page, site = waiting
    now = datetime.now()
    with site.shop.database.work() as work:
        first = jobs.add_job(work, "sheet", "another", "{}", {}, 0)
        jobs.set_job(work, first, made_at=now - timedelta(seconds=BEHIND_AFTER_S["sets"] + 61))
    page.goto("/shelf/export.csv?q=kelp")
    expect(page.get_by_text("2 jobs are not done, the first was asked 3 minutes ago")).to_be_visible()
    told = page.request.get("/health/lanes").json()
    assert told["lanes"]["sets"]["behind"]
    assert told["lanes"]["lays"] == {"open": 0, "oldest_s": 0, "behind": False}
    with site.shop.database.work() as work:
        jobs.set_job(work, first, state="done")
    page.reload()
    expect(page.get_by_text("Your file is being made")).to_be_visible()
    assert page.request.get("/health/lanes").json()["behind"] == ""
    with page.expect_download():
        run_job(site.shop.database, held[-1][1], held[-1][0])
