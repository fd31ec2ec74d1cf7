"""Each address asked as each role and as nobody: let in exactly where `stored/access.csv` says so.

The table is no product of the rules: it was written out once, read line by line, and changes on purpose alone
(`python tests/pages/test_access.py` prints what the program does now).
"""

from __future__ import annotations

import csv
import re
from datetime import datetime, timedelta

import pytest
from conftest import ROOT, tried_app
from flask import Flask
from flask.testing import FlaskClient
from werkzeug.test import TestResponse

from nematex.core.people.rights import ROLES
from nematex.store.people.persons import change_person
from nematex.tables import rights
from nematex.usecases.held.shop import Shop
from nematex.usecases.people import staff
from nematex.usecases.people.inviting import accept, invite
from nematex.usecases.people.set_up import make_owner
from nematex.web.guard.table import OPEN, right_of

TABLE = ROOT / "tests/stored/access.csv"
# What a viewer may send: nothing of it changes cloth, pattern, programme or rule. Written by hand.
VIEWERS_ACTS = {
    "account.code", "account.elsewhere", "account.password", "account.prove", "door.accept", "door.come_in",
    "door.make_owner", "door.sign_out", "door.try_as", "lay.ask", "lay.stop", "lay.try_moves", "made.stop", "passkeys.come_in",
    "passkeys.make", "passkeys.options_in", "passkeys.options_new", "passkeys.remove", "practice.answer", "practice.who",
    "remote.pair", "remote.pressed", "shelf.keep_filter",
}  # fmt: skip
WORD = "copper lantern orchard 9"


def addresses(app: Flask) -> list[tuple[str, str, str]]:
    """(endpoint, method, an address with numbers that nothing has)."""
    found = []
    for rule in app.url_map.iter_rules():
        address = re.sub(r"<any\(([^,)]*)[^)]*\):\w+>", r"\1", rule.rule)
        address = re.sub(r"<int:\w+>", "999999999", address)
        address = re.sub(r"<(?:path:)?\w+>", "none", address)
        found += [(rule.endpoint, method, address) for method in sorted((rule.methods or set()) & {"GET", "POST"})]
    return sorted(set(found))


def let_in(answer: TestResponse) -> bool:
    asked_to_sign_in = answer.status_code == 302 and answer.location.startswith("/sign-in?back=")
    refused = answer.status_code == 403 and "Not yours to do" in answer.text
    return not (asked_to_sign_in or refused or (answer.status_code == 401 and "Sign in again" in answer.text))


def client_of(shop: Shop, role: str) -> FlaskClient:
    app = tried_app(shop.database, role)
    app.config.update(WTF_CSRF_ENABLED=False)
    return app.test_client()


def seen(shop: Shop) -> dict[tuple[str, str], list[str]]:
    """(endpoint, method) → who is let in."""
    found: dict[tuple[str, str], list[str]] = {}
    for role in ("", *ROLES):
        client = client_of(shop, role)
        for endpoint, method, address in addresses(client.application):
            if endpoint in ("door.sign_out", "door.try_as"):
                continue  # they change who asks
            answer = client.open(address, method=method)
            assert answer.status_code < 500, (address, role, answer.text[:500])
            came = found.setdefault((endpoint, method), [])
            if let_in(answer) and (role or "nobody") not in came:
                came.append(role or "nobody")
    return found


def expected() -> dict[tuple[str, str], list[str]]:
    with open(TABLE, encoding="utf-8", newline="") as file:
        return {(row["endpoint"], row["method"]): row["let in"].split() for row in csv.DictReader(file)}


def test_every_address_lets_in_exactly_whom_the_table_names(demo: Shop) -> None:
    assert seen(demo) == expected()


def test_a_viewer_changes_nothing_of_the_shop(demo: Shop) -> None:
    app = tried_app(demo.database)
    acts = {endpoint for endpoint, method, _ in addresses(app) if method == "POST"}
    open_to_viewers = {one for one in acts if (right := right_of(one, "POST")) == OPEN or "viewer" in rights()[right].roles}
    assert open_to_viewers - VIEWERS_ACTS == set()


def test_nobody_sees_anything_of_the_shop() -> None:
    """Written by hand: what is open to all is the door, what was made public, the phone's remote and what machines watch."""
    rooms = {endpoint.split(".")[0] for (endpoint, _), who in expected().items() if "nobody" in who}
    assert rooms <= {"door", "public", "look", "remote", "wellness", "static", "passkeys", "made"}  # a public sheet is made too


@pytest.mark.parametrize("header", ["X-Forwarded-For", "X-Forwarded-Host", "Forwarded", "X-Real-Ip"])
def test_the_made_up_shop_is_open_to_its_own_machine_alone(demo: Shop, header: str) -> None:
    client = client_of(demo, "presenter")
    assert client.get("/shelf").status_code == 200
    assert client.get("/shelf", headers={header: "127.0.0.1"}).status_code == 302
    assert client.get("/shelf", environ_base={"REMOTE_ADDR": "192.168.1.20"}).status_code == 302
    assert client.get("/shelf", headers={"Host": "shop.elsewhere.test"}).status_code == 400


def test_what_is_to_be_guessed_is_tried_a_few_times_a_minute(demo: Shop) -> None:
    app = tried_app(demo.database, limited=True)
    app.config.update(WTF_CSRF_ENABLED=False)
    client = app.test_client()
    tried = [client.post("/sign-in", data={"name": "Wren", "password": f"guess {n}"}).status_code for n in range(25)]
    assert (tried[0], tried[-1]) == (400, 429)
    codes = [client.get(f"/remote/AAAAA{n}").status_code for n in range(25)]
    assert (codes[0], codes[-1]) == (404, 429)
    told = client.get("/remote/BBBBBB")
    assert told.headers["Retry-After"]
    assert "is the most" in told.text
    elsewhere = client.post("/sign-in", data={"name": "Wren"}, environ_base={"REMOTE_ADDR": "192.168.1.9"})
    assert elsewhere.status_code == 400, "another address is not made to wait"


def test_a_strangers_guesses_do_not_lock_anybody_out_of_their_own_browser(demo: Shop) -> None:
    number = make_owner(demo, "Wren Applegarth", WORD, "", datetime.now())
    own, stranger = client_of(demo, "presenter"), client_of(demo, "presenter")
    right = {"name": "wren  APPLEGARTH", "password": WORD}
    assert own.post("/sign-in", data=right).status_code == 302
    told = next(each for each in own.post("/sign-in", data=right).headers.getlist("Set-Cookie") if "nematex-known" in each)
    assert all(flag in told for flag in ("HttpOnly", "SameSite=Lax"))
    own.post("/sign-out")
    with demo.database.work() as work:  # as after many wrong tries
        change_person(work, number, failures=9, waits_until=datetime.now() + timedelta(hours=1))
    assert stranger.post("/sign-in", data=right).status_code == 400, "even the right one waits where nobody was let in before"
    for made_up in ("x", "", "eyJ.a.b", "é", "." * 3900):
        stranger.set_cookie("nematex-known", made_up)
        assert stranger.post("/sign-in", data=right).status_code == 400
    assert own.post("/sign-in", data={**right, "password": "guess"}).status_code == 400
    assert own.post("/sign-in", data=right).status_code == 302, "and a right one ends the waiting"
    stranger.set_cookie("nematex-known", own.get_cookie("nematex-known").value)  # type: ignore[union-attr]
    assert stranger.post("/sign-in", data={"name": "Tamsin Oake", "password": WORD}).status_code == 400


ELSEWHERE = ["https://elsewhere.test/", "//elsewhere.test", "/\\elsewhere.test", "javascript:alert(1)", "/\tx", ""]


@pytest.mark.parametrize("back", ELSEWHERE)
def test_nobody_is_led_away_after_signing_in(demo: Shop, back: str) -> None:
    make_owner(demo, "Wren Applegarth", WORD, "", datetime.now())
    given = {"name": "Wren Applegarth", "password": WORD, "back": back}
    assert client_of(demo, "presenter").post("/sign-in", data=given).location == "/"


@pytest.mark.parametrize(("query", "there"), [("q=lawn&page=2", "?q=lawn&page=2"), ("q=\r\nSet-Cookie: a=b", ""), ("é\r", "")])
def test_a_kept_filter_leads_to_the_shelf_whatever_stands_in_it(demo: Shop, query: str, there: str) -> None:
    answer = client_of(demo, "owner").post("/shelf/filters", data={"name": "mine", "query": query})
    assert (answer.status_code, answer.location) == (302, f"/shelf{there}")


def test_ids_of_others_and_secrets_that_were_tampered_with_open_nothing(demo: Shop) -> None:
    make_owner(demo, "Wren Applegarth", WORD, "", datetime.now())
    token = invite(demo, "Tamsin Oake", "viewer", "Wren", datetime.now())
    other = accept(demo, invite(demo, "", "viewer", "Wren", datetime.now()), "Orla Finch", WORD, datetime.now())
    client = client_of(demo, "presenter")
    for spoilt in (token[:-1], token + "A", token.swapcase(), token[::-1], "%00", "..", "a" * 4000):
        assert client.get(f"/invitation/{spoilt}").status_code == 404
        assert client.post(f"/invitation/{spoilt}", data={"name": "Eve", "password": WORD, "again": WORD}).status_code == 404
    client.post("/sign-in", data={"name": "Orla Finch", "password": WORD})
    assert client.get("/account").status_code == 200
    owners = staff.own(demo, 1).sign_ins
    desk = client_of(demo, "presenter")
    desk.post("/sign-in", data={"name": "Wren Applegarth", "password": WORD})
    (place,) = staff.own(demo, 1).sign_ins
    assert owners == []
    client.post("/account/sign-ins", data={"key": place.key})
    assert desk.get("/people").status_code == 200, "nobody ends another's sign-in"
    assert client.post(f"/people/{other.id}", data={"role": "owner", "was": "viewer"}).status_code == 403
    key = client.application.config["SESSION_COOKIE_NAME"]
    cookie = client.get_cookie(key)
    assert cookie is not None
    for spoilt in (cookie.value[:-1], cookie.value[:-4] + "AAAA", "x" + cookie.value, ""):
        client.set_cookie(key, spoilt)
        assert client.get("/shelf").status_code == 302


def test_a_look_book_is_open_to_all_until_it_is_withdrawn(demo: Shop) -> None:
    client, everybody = client_of(demo, "presenter"), {"REMOTE_ADDR": "203.0.113.9"}
    number = demo.now().programmes[0].id
    client.post(f"/programmes/{number}/wall/public", data={"act": "show"})
    key = demo.now().programmes[0].public_key
    assert key
    shown = client.get(f"/look/{key}", environ_base=everybody)
    assert shown.status_code == 200
    assert demo.now().programmes[0].name in shown.text
    assert shown.headers["X-Robots-Tag"] == "noindex"
    for spoilt in (key[:-1], key.swapcase(), key + "A", "x" * 4000):
        assert client.get(f"/look/{spoilt}", environ_base=everybody).status_code == 404
    client.post(f"/programmes/{number}/wall/public", data={"act": "hide"})
    assert client.get(f"/look/{key}", environ_base=everybody).status_code == 404


def print_table(shop: Shop) -> None:
    for (endpoint, method), who in sorted(seen(shop).items()):
        print(f"{endpoint},{method},{' '.join(who)}")
