"""In the browser: no page offers a role what the table of access refuses it, and none withholds what it lets it do."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from urllib.parse import urlsplit

import pytest
from conftest import Site, open_page, served, tried_app
from playwright.sync_api import Browser, expect
from test_access import expected
from werkzeug.exceptions import HTTPException

from nematex.usecases.held.shop import Shop

SEEN = """() => ({
  links: [...document.querySelectorAll("a[href]")].map((each) => each.href),
  forms: [...document.forms].map((form) => ({
    method: form.method.toUpperCase(),
    address: form.getAttribute("action") ? new URL(form.getAttribute("action"), location.href).href : location.href,
    open: [...form.elements].filter((each) => each.type !== "hidden" && each.tagName !== "FIELDSET" && !each.disabled).length,
    shut: form.classList.contains("not-yours"),
  })),
  others: [...document.querySelectorAll("button[formaction]")].map((each) => ({
    method: (each.getAttribute("formmethod") || each.form.method).toUpperCase(), address: each.formAction,
  })),
})"""


@pytest.fixture(params=["viewer", "buyer", "presenter"])
def tried(demo: Shop, request: pytest.FixtureRequest) -> Iterator[tuple[str, Site]]:
    serving = served(demo.database, request.param)
    yield request.param, Site(next(serving), demo)
    next(serving, None)


def _pages(shop: Shop) -> list[str]:
    state = shop.now()
    cloth, pattern, programme = state.shelf.records[0].id, state.drawer.records[0].id, state.programmes[0].id
    one = f"/programmes/{programme}"
    return [
        "/", "/shelf", f"/shelf/{cloth}", "/bench", f"/bench/{cloth}", "/quality", "/patterns", f"/patterns/{pattern}",
        f"/pairing/one/{pattern}/{cloth}", f"/pairing/cloth/{cloth}", f"/pairing/one/{pattern}/{cloth}/beneath", "/programmes",
        one, f"{one}/brief", f"{one}/wall", f"{one}/run", f"{one}/notes", f"{one}/takes", f"{one}/set", "/sew-alongs",
        "/kit", "/kits", "/log", "/stock", "/hands", f"/patterns/{pattern}/why",
    ]  # fmt: skip


def test_a_role_is_offered_what_it_may_do_and_nothing_else(browser: Browser, tried: tuple[str, Site]) -> None:
    role, site = tried
    page = open_page(browser, site)
    url_map, table = tried_app(site.shop.database, role).url_map.bind("127.0.0.1"), expected()

    def lets(method: str, address: str) -> bool | None:
        try:
            endpoint, _ = url_map.match(urlsplit(address).path, method)
        except HTTPException:
            return None  # of another site, or an anchor
        return endpoint == "static" or endpoint in ("door.sign_out", "door.try_as") or role in table[(endpoint, method)]

    refused = allowed = 0
    for path in _pages(site.shop):
        answer = page.goto(path)
        assert answer is not None
        if not lets("GET", page.url):
            assert answer.status == 403
            continue
        assert answer.status == 200, path
        expect(page.locator("main")).to_be_visible()
        found: dict[str, list[Any]] = page.evaluate(SEEN)
        assert [link for link in found["links"] if link.startswith(site.base) and lets("GET", link) is False] == [], path
        assert [each for each in found["others"] if lets(each["method"], each["address"]) is False] == [], path
        for form in found["forms"]:
            if lets(form["method"], form["address"]):
                allowed += 1
                assert not form["shut"], (path, form)
            else:
                refused += 1
                assert (form["open"], form["shut"]) == (0, True), (path, form)
        assert "· ·" not in page.locator("main").inner_text(), path
    assert allowed > 20
    assert refused > {"viewer": 30, "buyer": 10, "presenter": 0}[role]
    site.complaints.clear()
