"""The camera view, its takes and its remote, in a browser and without a network."""

from __future__ import annotations

import io
import json
import math

import pytest
import webvtt
from conftest import Site, open_page
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.core.air.run_sheet import clock
from nematex.usecases.air.run_sheet import run_of
from nematex.usecases.air.takes import takes_of

AIR = "/programmes/1/air/"


def film(page: Page) -> None:
    page.goto(AIR)
    expect(page.locator("body")).to_have_attribute("data-kept", "yes")


def shown(page: Page) -> str:
    return page.locator("[data-shot]:not([hidden]) h1:visible").inner_text()


def test_a_take_by_keys_alone_is_logged_with_its_slips(page: Page, site: Site) -> None:
    film(page)
    parts = len(json.loads(page.locator("#plan").inner_text()))
    page.keyboard.press("ArrowRight")
    assert shown(page) == "Opening"
    page.keyboard.press("PageDown")  # as a clicker does
    first = page.locator("[data-shot]:not([hidden]) .facts .now")
    before = first.inner_text()
    page.keyboard.press("Space")
    assert first.inner_text() != before
    page.keyboard.press("s")
    page.keyboard.type("it is 236, not 320 g")
    page.keyboard.press("Enter")
    page.keyboard.press("n")
    page.keyboard.type("dog barked")
    page.keyboard.press("PageDown")  # what is typed is kept, and the next place comes
    assert shown(page).startswith("2. ")
    page.keyboard.press("ArrowLeft")
    assert shown(page).startswith("1. ")
    page.keyboard.press("p")
    expect(page.locator(".bar .off")).to_have_text("paused")
    page.wait_for_timeout(2100)  # a pause that would show in the clock
    page.keyboard.press("p")
    page.wait_for_timeout(1200)  # and what is filmed again
    page.keyboard.press("a")
    for _ in range(parts - 2):
        page.keyboard.press("ArrowRight")
    assert shown(page) == "Closing"
    page.keyboard.press("ArrowRight")
    assert shown(page) == "End of the take?"
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("status").last).to_have_text("all kept")
    [take] = takes_of(site.shop, 1)
    assert [(each.kind, each.text, each.replaced) for each in take.slips] == [
        ("slip", "it is 236, not 320 g", False), ("note", "dog barked", False),
    ]  # fmt: skip
    assert take.over
    assert page.locator(".clock b").inner_text() == clock(take.length_s)  # the browser's clock of the film is the shop's
    assert [each.kind for each in take.take.events].count("open") == parts + 2
    page.goto("/programmes/1/takes")
    expect(page.locator(".slips")).to_contain_text("it is 236, not 320 g")
    assert [part.again for part in take.parts].count(1) == 1
    expect(page.locator("td", has_text="filmed again")).to_contain_text("1. Ropewalk heavy flannel")
    page.get_by_label("Edit shifts by").fill("soon")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator(".fault").first).to_contain_text("shift")
    expect(page.get_by_label("Edit shifts by")).to_have_value("soon")
    page.get_by_label("Edit shifts by").fill("-3.5")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_label("Edit shifts by")).to_have_value("-3.5")
    cues = list(webvtt.from_buffer(io.StringIO(page.request.get("/programmes/1/takes/chapters.vtt").text())))
    assert cues[0].start == "00:00:00.000"
    site.complaints.clear()


def test_nothing_of_a_take_is_lost_without_a_network(page: Page, site: Site) -> None:
    """The network goes after the first part; the page is even closed and opened again before it comes back."""
    film(page)
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("status").last).to_have_text("all kept")
    page.context.set_offline(True)
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Space")
    page.keyboard.press("s")
    page.keyboard.type("said silk")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").last).to_contain_text("kept here, the shop does not answer")
    page.reload()
    assert shown(page).startswith("1. ")
    page.keyboard.press("ArrowRight")
    assert shown(page).startswith("2. ")
    assert len(takes_of(site.shop, 1)[0].take.events) == 1
    page.context.set_offline(False)
    expect(page.get_by_role("status").last).to_have_text("all kept")
    [take] = takes_of(site.shop, 1)
    assert [each.kind for each in take.take.events] == ["open", "open", "said", "slip", "open"]
    assert [each.text for each in take.slips] == ["said silk"]
    site.complaints.clear()


def test_a_look_up_answers_without_the_shop(page: Page, site: Site) -> None:
    film(page)
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    page.context.set_offline(True)
    for asked, answer in (
        ("ounces?", "oz/yd²"),
        ("in a knit?", "knit"),
        ("how many colours", "this one"),
        ("up to which hip", "cm"),
    ):
        page.keyboard.press("/")
        page.keyboard.type(asked)
        expect(page.locator("#found li").first).to_contain_text(answer)
        page.keyboard.press("Escape")
    expect(page.locator(".look")).to_be_hidden()
    page.context.set_offline(False)
    site.complaints.clear()


def test_a_phone_is_the_remote(page: Page, browser: Browser, site: Site, axe: str) -> None:
    film(page)
    page.keyboard.press("ArrowRight")
    page.keyboard.press("r")
    expect(page.locator("#picture svg")).to_have_count(1)
    code = page.locator(".code").inner_text()
    page.keyboard.press("Escape")
    phone = open_page(browser, site, 390)
    phone.goto("/remote")
    phone.get_by_label("Code").fill("QQQQQQ")
    phone.keyboard.press("Enter")
    expect(phone.get_by_role("alert")).to_contain_text("is none that a camera view shows")
    assert faults(phone, axe) == []
    phone.get_by_label("Code").fill(f" {code[:3].lower()} {code[3:]}")
    phone.keyboard.press("Enter")
    expect(phone.locator("h1")).to_have_text("Opening")
    assert faults(phone, axe) == []
    phone.get_by_role("button", name="Next").click()
    expect(page.locator("[data-shot='1']")).to_be_visible()
    expect(phone.locator("h1")).to_contain_text("1. ")
    phone.get_by_role("button", name="Slip").click()
    expect(phone.get_by_role("status")).to_have_text("slip: kept")
    phone.get_by_label("Note").fill("light went out")
    phone.keyboard.press("Enter")
    phone.context.set_offline(True)
    phone.get_by_role("button", name="Next").click()
    expect(phone.get_by_role("status")).to_contain_text("Not sent: next.")
    phone.get_by_role("button", name="Slip").click()  # this one waits
    phone.context.set_offline(False)
    expect(phone.get_by_role("status")).to_have_text("slip: kept")
    phone.get_by_role("button", name="Pause, go").click()
    expect(page.locator(".bar .off")).to_have_text("paused")
    expect(page.get_by_role("status").last).to_have_text("all kept")
    [take] = takes_of(site.shop, 1)
    assert [(each.kind, each.text) for each in take.slips] == [("slip", ""), ("note", "light went out"), ("slip", "")]
    phone.context.close()
    assert page.request.get("/remote/ABCDEF").status == 404
    site.complaints.clear()


@pytest.mark.parametrize(("width", "height", "screen_mm"), [(1280, 800, 517.0), (1920, 1080, 531.0)])
def test_letters_are_large_enough_for_2_m(page: Page, site: Site, axe: str, width: int, height: int, screen_mm: float) -> None:
    """ISO 9241-303: capitals of at least 16 minutes of arc, 20 to 22 better (from memory).

    On screens of 24 inches, 16:10 and 16:9; capitals of Instrument Sans are 0.7 em high. Contrast is axe's (WCAG 2.2, 1.4.3).
    """
    page.set_viewport_size({"width": width, "height": height})
    film(page)

    def arc_minutes(selector: str) -> float:
        px = page.locator(selector).first.evaluate("node => parseFloat(getComputedStyle(node).fontSize)")
        capital_mm = 0.7 * px * screen_mm / width
        return 60 * math.degrees(math.atan(capital_mm / 2000))

    assert arc_minutes(".key-list:visible li") >= 16
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    here = "[data-shot]:not([hidden]) "
    assert arc_minutes(here + ".facts li") >= 20
    for small in (".facts small", ".facts .what", ".must p"):
        assert arc_minutes(here + small) >= 16, small
    assert arc_minutes(".bar span") >= 16
    assert faults(page, axe) == []
    for key in ("/", "s", "n", "?", "r"):  # what opens over it is accessible too
        page.keyboard.press(key)
        expect(page.locator(".look:visible, .ask:visible, .pairing:visible")).to_have_count(1)
        assert faults(page, axe) == [], key
        page.keyboard.press("Escape")
    outside = """() => [...document.querySelectorAll("[data-shot]:not([hidden]) *, .bar, .bar *")].filter((one) => {
      const box = one.getBoundingClientRect();
      return box.width && box.right > window.innerWidth + 1 && !one.closest("svg");
    }).map((one) => one.textContent)"""
    for _ in range(6):  # nothing that is shown lies outside, the longest title neither
        assert page.evaluate("document.documentElement.scrollHeight <= window.innerHeight")
        assert page.evaluate(outside) == []
        page.keyboard.press("ArrowRight")


def test_what_a_device_sends_twice_or_wrongly(page: Page, site: Site) -> None:
    film(page)
    token = page.locator("meta[name=csrf]").get_attribute("content") or ""

    def send(what: object, programme: int = 1) -> tuple[int, str]:
        reply = page.request.post(
            f"/programmes/{programme}/air/takes", data=json.dumps(what),
            headers={"X-CSRFToken": token, "Content-Type": "application/json", "Referer": page.url},
        )  # fmt: skip
        return reply.status, reply.text()

    plan = [{"title": "Opening", "kind": "opening", "seconds": 30.0}]
    event = {"key": "event-0001", "kind": "open", "at": 0.0, "part": 0}
    take = {"key": "take-00001", "started": 1_795_000_000_000, "plan": plan, "events": [event]}
    assert send(take) == send(take) == (200, '{"kept":["event-0001"]}\n')
    assert len(takes_of(site.shop, 1)[0].take.events) == 1
    assert "another programme" in send(take, 2)[1]
    assert "is in the bin" in send({**take, "key": "take-00002"}, 999)[1]
    for wrong in (
        [], {}, {**take, "plan": []}, {**take, "events": [{**event, "at": 1e9}]}, {**take, "key": "a b"},
        {**take, "started": 1e30},
        {**take, "events": [{**event, "kind": "dance"}]}, {**take, "events": [{**event, "text": "x" * 100_000}]},
        {**take, "plan": [{**plan[0], "seconds": "NaN"}]},
    ):  # fmt: skip
        status, text = send(wrong)
        assert status == 400, wrong
        assert "fault" in text
    site.complaints.clear()


def test_a_shop_learns_its_pace_and_says_its_words(page: Page, site: Site) -> None:
    page.goto("/programmes/1/run")
    expect(page.locator("main")).to_contain_text("an estimate, until takes say more")
    page.get_by_label("How words are said").fill("flannel FLA-nel")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator(".fault").first).to_contain_text("must read like: challis = SHAL-ee")
    page.get_by_label("How words are said").fill("flannel = FLA-nel\nvelvet = VEL-vit")
    page.get_by_role("button", name="Keep", exact=True).click()
    film(page)
    expect(page.locator("[data-shot='1'] .said-like")).to_have_text("flannel: FLA-nel")
    programme = next(one for one in site.shop.now().programmes if one.id == 1)
    before = run_of(site.shop, site.shop.now(), programme).sheet
    token = page.locator("meta[name=csrf]").get_attribute("content") or ""
    plan = json.loads(page.locator("#plan").inner_text())
    at, events = 0.0, []
    for part, each in enumerate(plan):  # every part takes twice as long as estimated
        events.append({"key": f"event-{part:04}", "kind": "open", "at": at, "part": part})
        at += 2 * each["seconds"]
    events.append({"key": "event-over", "kind": "end", "at": at, "part": len(plan) - 1})
    page.request.post(
        f"{AIR}takes", data=json.dumps({"key": "take-slow", "started": 0, "plan": plan, "events": events}),
        headers={"X-CSRFToken": token, "Content-Type": "application/json", "Referer": page.url},
    )  # fmt: skip
    after = run_of(site.shop, site.shop.now(), programme).sheet
    places = len(plan) - 2
    expected = (places * 2.0 + 5) / (places + 5)
    assert after.timed[1].seconds / before.timed[1].seconds == pytest.approx(expected, rel=0.01)
    page.goto("/programmes/1/run")
    expect(page.locator("main")).to_contain_text(f"place × {expected:.2f}")
    site.complaints.clear()
