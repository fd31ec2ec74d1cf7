"""A shop that becomes somebody's, or comes back from a backup, opens to nobody by what was given out before."""

from __future__ import annotations

import hashlib
from datetime import datetime, timedelta

import pytest
from conftest import tried_app
from flask.testing import FlaskClient
from sqlalchemy import text

from nematex.core.errors import FieldFault
from nematex.store.database import Database
from nematex.store.settings import put
from nematex.usecases.air.remote import new_remote
from nematex.usecases.air.sew_along import acts as along
from nematex.usecases.held.shop import Shop
from nematex.usecases.people import inviting, signing_in, staff
from nematex.usecases.people.clean_cut import who_came_back
from nematex.usecases.people.set_up import make_owner
from nematex.usecases.people.signing_in import SignInRefused, Tried
from nematex.usecases.programme.acts import open_to_all
from nematex.usecases.stock.polling import OWN_TILL, SETTING

pytestmark = pytest.mark.breaking

NOW = datetime.now().replace(microsecond=0)
WORD = "copper lantern orchard 9"
CODE = "the code that start printed"


def client_of(database: Database, role: str = "owner") -> FlaskClient:
    app = tried_app(database, role)
    app.config.update(SET_UP_CODE=CODE, WTF_CSRF_ENABLED=False)
    return app.test_client()


def shown(shop: Shop) -> str:
    """The public address of a sew-along."""
    number = along.all_of(shop)[0].id
    along.open_to_all(shop, number, True)
    kept = along.found(shop, number)
    assert kept is not None
    return f"/along/{kept.public_key}"


def given_out(shop: Shop) -> dict[str, str]:
    """One address of each kind of link, as it was given out."""
    programme = shop.now().programmes[0].id
    open_to_all(shop, programme, True)
    book = next(one.public_key for one in shop.now().programmes if one.id == programme)
    sew_along = shown(shop)
    return {
        "look-book": f"/look/{book}",
        "sew-along": sew_along,
        "calendar": f"{sew_along}/calendar.ics",
        "remote": f"/remote/{new_remote(shop, programme, NOW)}",
    }


def answers(client: FlaskClient, links: dict[str, str]) -> set[int]:
    return {client.get(link).status_code for link in links.values()}


def test_the_made_up_shops_owner_makes_no_links(demo: Shop) -> None:
    answer = client_of(demo.database).post("/people/invite", data={"role": "owner"})
    assert answer.status_code == 400
    assert "nobody owns this shop yet" in answer.text
    with pytest.raises(FieldFault, match="nobody owns"):
        inviting.invite(demo, "Somebody", "owner", "me", NOW)


def test_becoming_owned_ends_all_that_was_given_out_before(demo: Shop) -> None:
    visitor = client_of(demo.database)
    links = given_out(demo)
    with demo.database.work() as work:  # as an earlier program let the made-up shop's owner do
        put(work, SETTING, "http://127.0.0.1:9/anybodys")
        put(work, OWN_TILL, "http://127.0.0.1:7/stock")
        planted = {"hash": hashlib.sha256(b"planted").hexdigest(), "at": NOW, "end": NOW + timedelta(days=3)}
        columns = "token_hash, name, role, made_by, made_at, ends_at"
        work.execute(text(f"insert into invitation ({columns}) values (:hash, '', 'owner', '', :at, :end)"), planted)
    assert answers(visitor, links) == {200}
    assert visitor.get("/invitation/planted").status_code == 200
    form = {"code": CODE, "name": "Wren Applegarth", "password": WORD, "again": WORD}
    assert client_of(demo.database).post("/set-up", data=form).status_code == 302
    assert answers(visitor, links) == {404}
    assert visitor.get("/invitation/planted").status_code == 404
    assert demo.now().settings[SETTING] == "http://127.0.0.1:7/stock", "the till of its own, and nobody else's"


def test_of_an_owner_who_could_not_be_made_nothing_ended(demo: Shop) -> None:
    links = given_out(demo)
    with pytest.raises(FieldFault):
        make_owner(demo, "Wren Applegarth", "short", "", NOW)
    assert answers(client_of(demo.database), links) == {200}


def test_a_restored_shop_lets_in_nobody_and_says_who_may_sign_in(demo: Shop) -> None:
    make_owner(demo, "Wren Applegarth", WORD, "", NOW)
    links = given_out(demo)
    token = signing_in.sign_in(demo, Tried("Wren Applegarth", WORD), NOW)
    invited = inviting.invite(demo, "Tern", "viewer", "Wren Applegarth", NOW)
    back = who_came_back(demo.database)
    assert [(one.name, one.role) for one in back.people] == [("Wren Applegarth", "owner")]
    assert signing_in.who_is(demo, token, NOW) is None
    assert inviting.invited(demo, invited, NOW) is None
    assert answers(client_of(demo.database), links) == {404}


def test_a_file_made_for_a_link_goes_with_it_and_with_a_change_of_hands(demo: Shop) -> None:
    make_owner(demo, "Wren Applegarth", WORD, "", NOW)
    app = tried_app(demo.database)
    app.extensions["shop"].enqueue = lambda _kind, _id: None  # nobody makes it yet: a page waits for it
    stranger = app.test_client()

    def waits() -> str:
        page = stranger.get(f"{shown(demo)}/checklist.pdf")
        assert page.status_code == 202
        address = page.text[page.text.index("/made/") :].split('"')[0]
        assert stranger.get(address).status_code == 200
        return address

    hidden = waits()
    along.open_to_all(demo, along.all_of(demo)[0].id, False)
    assert stranger.get(hidden).status_code == 404
    sold = waits()
    who_came_back(demo.database)
    assert stranger.get(sold).status_code == 404


REACHES_FAR = (
    ("/account/code", {"act": "begin"}),
    ("/account/code", {"act": "confirm", "code": "123456"}),
    ("/account/code", {"act": "end", "code": "123456"}),
    ("/passkeys/new", {}),
    ("/passkeys/keep", {"answer": "{}", "name": "phone"}),
    ("/passkeys/1/remove", {}),
    ("/people/invite", {"role": "owner"}),
    ("/people/1", {"act": "renew"}),
)


def test_a_tablet_left_alone_gives_nothing_away(database: Database) -> None:
    make_owner(Shop(database), "Wren Applegarth", WORD, "", NOW)
    client = client_of(database)
    client.post("/sign-in", data={"name": "Wren Applegarth", "password": WORD})
    with database.work() as work:
        work.execute(text("update sign_in set proved_at = :at"), {"at": datetime.now() - signing_in.PROOF_GOOD})
    for path, form in REACHES_FAR:
        answer = client.post(path, data=form)
        assert answer.location.startswith("/account/prove?back="), path
        asked = client.post(path, data=form, headers={"X-Asks": "data"})
        assert asked.status_code == 403
        assert asked.json is not None
        assert asked.json["to"].startswith("/account/prove"), path
    with database.work() as work:
        held = work.execute(text("select code_secret, (select count(*) from invitation) from person")).one()
    assert tuple(held) == ("", 0)
    assert client.post("/account/prove", data={"password": WORD, "back": "/account"}).location == "/account"
    for path, form in REACHES_FAR:
        assert not client.post(path, data=form).headers.get("Location", "").startswith("/account/prove"), path


def test_refused_sign_ins_are_listed_for_the_owner_and_no_password_typed_as_a_name_is_kept(database: Database) -> None:
    shop = Shop(database)
    make_owner(shop, "Wren Applegarth", WORD, "", NOW)
    for name, word in (("Wren Applegarth", "wrong"), ("Wren Applegarth", "wronger"), (WORD, "")):
        with pytest.raises(SignInRefused):
            signing_in.sign_in(shop, Tried(name, word, "", "a browser", "10.1.2.3"), NOW)
    found = staff.staff(shop, NOW).refused
    assert {(one.name, one.address, one.tries) for one in found} == {(None, "10.1.2.3", 1), ("Wren Applegarth", "10.1.2.3", 2)}
    with database.engine.connect() as connection:
        assert WORD not in str(connection.execute(text("select * from failed_sign_in")).all())
    client = client_of(database)
    client.post("/sign-in", data={"name": "Wren Applegarth", "password": WORD})
    page = client.get("/people").text
    assert "10.1.2.3" in page
    assert "nobody’s" in page


def test_limits_are_shared_by_all_processes(demo: Shop) -> None:
    """Two applications on one database stand for two processes: what one counts the other knows."""
    apps = [tried_app(demo.database, limited=True) for _ in range(2)]
    for app in apps:
        app.config["WTF_CSRF_ENABLED"] = False
    codes = [apps[at % 2].test_client().post("/remote", data={"code": f"wrong {at}"}).status_code for at in range(30)]
    assert codes.count(429) == 10, "twenty a minute for both together"
