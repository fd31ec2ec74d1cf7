"""In the browser: the first run, invitations, roles, codes, passkeys, the trail, and drafts that outlive a lost sign-in."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from datetime import datetime
from random import Random

import pyotp
import pytest
from conftest import WIDTHS, Site, open_page, served
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.usecases.held.shop import Shop
from nematex.usecases.people.inviting import accept, invite
from nematex.usecases.people.set_up import make_owner
from nematex.usecases.programme.acts import Line, change_picks
from nematex.usecases.programme.proposing.planning import put_in_order

WORD, OTHER = "copper lantern orchard 9", "violet harbour thistle 4"
CODE = "the code that start printed"


@pytest.fixture
def own(demo: Shop) -> Iterator[Site]:
    """The shop served under a name, as a browser's passkeys want it, with a set-up code."""
    serving = served(demo.database, "presenter", {"SET_UP_CODE": CODE})
    yield Site(next(serving).replace("127.0.0.1", "localhost"), demo)
    next(serving, None)


def owned(shop: Shop) -> None:
    make_owner(shop, "Wren Applegarth", WORD, "", datetime.now())


def sign_in(page: Page, name: str = "Wren Applegarth", word: str = WORD) -> None:
    page.goto("/sign-in")
    page.get_by_label("Name").fill(name)
    page.get_by_label("Password").fill(word)
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.wait_for_url("**/")


def test_from_the_made_up_shop_to_one_of_ones_own(browser: Browser, own: Site, axe: str) -> None:
    page = open_page(browser, own)
    page.goto("/")
    expect(page.get_by_text("you try it as its presenter")).to_be_visible()
    expect(page.get_by_role("link", name="Import")).to_have_count(0)
    page.get_by_role("button", name="buyer").click()
    expect(page.get_by_role("link", name="Import")).to_be_visible()
    page.goto("/set-up")
    page.get_by_label("Set-up code").fill("guessed")
    fill_in(page, "Wren Applegarth", WORD)
    expect(page.get_by_role("alert")).to_contain_text("code: 'guessed' is not the one that ./nematex start printed")
    page.get_by_label("Set-up code").fill(CODE)
    fill_in(page, "Wren Applegarth", "passwordpassword")
    expect(page.get_by_role("alert")).to_contain_text("guessed too soon")
    expect(page.get_by_label("Your name")).to_have_value("Wren Applegarth")
    fill_in(page, "Wren Applegarth", WORD)
    page.wait_for_url("**/")
    expect(page.get_by_role("link", name="Wren Applegarth")).to_be_visible()
    expect(page.get_by_text("you try it as")).to_have_count(0)
    page.goto("/people")
    page.get_by_label("Name, if you know").fill("Tamsin Oake")
    page.get_by_label("May do what").select_option("viewer")
    page.get_by_role("button", name="Make a link").click()
    link = page.locator("code.address").inner_text()
    assert link.startswith(own.base)
    assert faults(page, axe) == []
    guest = open_page(browser, own)
    guest.goto("/shelf/1")
    expect(guest.get_by_role("heading", name="Sign in")).to_be_visible()
    assert faults(guest, axe) == []
    guest.goto(link)
    assert faults(guest, axe) == []
    guest.get_by_label("Password").fill(OTHER)
    guest.get_by_label("The same once more").fill(OTHER)
    guest.get_by_role("button", name="Come in").click()
    guest.wait_for_url("**/")
    guest.goto("/people")
    expect(guest.get_by_role("alert")).to_contain_text("asks for an owner; you are signed in as viewer")
    guest.goto(link)
    expect(guest.get_by_role("alert")).to_contain_text("it works once")
    page.goto("/people")
    page.get_by_role("button", name="Tamsin Oake leaves").click()
    page.get_by_role("button", name="Tamsin Oake leaves").click()
    expect(page.get_by_role("row", name="Tamsin Oake")).to_contain_text("left on")
    guest.goto("/shelf")
    expect(guest.get_by_role("heading", name="Sign in")).to_be_visible()
    for each in (page, guest):
        each.context.close()


def fill_in(page: Page, name: str, word: str) -> None:
    page.get_by_label("Your name").fill(name)
    page.get_by_label("Password").fill(word)
    page.get_by_label("The same once more").fill(word)
    page.get_by_role("button", name="Make me the owner").click()


def test_a_code_and_a_passkey_of_ones_own(browser: Browser, own: Site, axe: str) -> None:
    owned(own.shop)
    page = open_page(browser, own)
    sign_in(page)
    line = page.context.new_cdp_session(page)
    line.send("WebAuthn.enable")
    device: dict[str, object] = {"protocol": "ctap2", "transport": "internal"}
    device |= {"hasResidentKey": True, "hasUserVerification": True}
    device |= {"isUserVerified": True, "automaticPresenceSimulation": True}
    line.send("WebAuthn.addVirtualAuthenticator", {"options": device})
    page.goto("/account")
    page.get_by_role("button", name="Make one").click()
    expect(page.get_by_text("this device since")).to_be_visible()
    page.get_by_role("button", name="Begin").click()
    secret = page.locator("#code ~ form code").inner_text()
    assert faults(page, axe) == []
    page.get_by_label("Six digits").fill("12345")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("alert").first).to_contain_text("not the code of this moment")
    page.get_by_label("Six digits").fill(pyotp.TOTP(secret).now())
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("status")).to_contain_text("They are not shown again")
    spare = page.locator(".told code").first.inner_text()
    page.get_by_role("button", name="Sign out").click()
    page.get_by_label("Name").fill("Wren Applegarth")
    page.get_by_label("Password").fill(WORD)
    page.get_by_role("button", name="Sign in", exact=True).click()
    expect(page.get_by_role("alert").first).to_contain_text("the phone's code is wanted")
    page.get_by_label("Password").fill(WORD)
    page.get_by_label("Code from your phone").fill(spare)
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.wait_for_url("**/")
    page.goto("/account")
    page.get_by_role("button", name="Sign out").click()
    page.get_by_role("button", name="Sign in with a passkey").click()
    page.wait_for_url("**/")
    page.goto("/account")
    page.get_by_role("button", name="Remove the passkey").click()
    expect(page.get_by_text("this device since")).to_have_count(0)
    page.context.close()


def test_what_was_typed_outlives_a_sign_in_that_ended(browser: Browser, own: Site) -> None:
    owned(own.shop)
    page = open_page(browser, own)
    sign_in(page)
    number = own.cloth("GM-101")
    page.goto(f"/shelf/{number}/edit")
    page.get_by_label("Notes").fill("Softer after one wash, held to the light.")
    page.wait_for_timeout(600)
    with own.shop.database.engine.begin() as connection:
        connection.exec_driver_sql("delete from sign_in")
    page.get_by_role("button", name="Save").first.click()
    expect(page.get_by_role("alert")).to_contain_text("Your sign-in has ended. Nothing of this form was saved")
    page.get_by_role("link", name="Sign in").click()
    page.get_by_label("Name").fill("Wren Applegarth")
    page.get_by_label("Password").fill(WORD)
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.goto(f"/shelf/{number}/edit")
    expect(page.get_by_text("was not saved")).to_be_visible()
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_label("Notes")).to_have_value("Softer after one wash, held to the light.")
    page.get_by_role("button", name="Save").first.click()
    page.wait_for_url(f"**/shelf/{number}")
    page.goto(f"/shelf/{number}/edit")
    expect(page.get_by_text("was not saved")).to_have_count(0)
    page.goto(f"/trail/cloth/{number}")
    expect(page.get_by_role("row", name="Wren Applegarth").first).to_contain_text("Softer after one wash")
    page.context.close()


@pytest.mark.parametrize("width", WIDTHS)
def test_the_pages_of_people_are_accessible_and_fit_a_phone(browser: Browser, own: Site, axe: str, width: int) -> None:
    owned(own.shop)
    accept(own.shop, invite(own.shop, "", "buyer", "Wren", datetime.now()), "Tamsin Oake", OTHER, datetime.now())
    page = open_page(browser, own, width)
    page.goto("/sign-in")
    assert faults(page, axe) == []
    sign_in(page)
    for address in ("/people", "/account", "/trail", "/trail/cloth", "/account/prove"):
        page.goto(address)
        assert faults(page, axe) == [], address
        assert page.evaluate("document.documentElement.scrollWidth <= innerWidth"), address
    page.context.close()
    assert own.complaints == []


def test_twenty_on_one_programmes_order_lose_nothing(demo: Shop) -> None:
    """Twenty move, twenty write a line of their own, at once: every line is kept, every pick is there once."""
    programme = max(demo.now().programmes, key=lambda one: len(one.picks))
    picks, faults_seen = [pick.id for pick in programme.picks], []

    def act(seed: int) -> None:
        chance = Random(seed)
        moved = chance.choice(picks)
        order = [each for each in picks if each != moved]
        order.insert(chance.randrange(len(picks)), moved)
        try:
            put_in_order(demo, programme.id, order, moved)
            pick = picks[seed % len(picks)]
            if seed < len(picks):
                change_picks(demo, programme.id, {pick: Line(f"line of {seed}", programme.picks[seed].line)})
        except Exception as fault:
            faults_seen.append(fault)

    threads = [threading.Thread(target=act, args=(seed,)) for seed in range(20)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join(120)
    assert faults_seen == []
    after = next(one for one in demo.now().programmes if one.id == programme.id)
    assert sorted(pick.id for pick in after.picks) == sorted(picks)
    assert {pick.line for pick in after.picks} == {f"line of {seed}" for seed in range(len(picks))}
