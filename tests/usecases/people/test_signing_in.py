"""Signing in, waiting after wrong tries, codes and links; against RFC 6238's own test values where there are some."""

from __future__ import annotations

import threading
from collections.abc import Callable
from datetime import datetime, timedelta

import pyotp
import pytest

from nematex.core.errors import FieldFault
from nematex.core.people.password import PasswordFault
from nematex.core.people.waiting import wait_s
from nematex.store.database import Database
from nematex.store.people.passkeys import add_passkey
from nematex.store.people.persons import Person
from nematex.usecases.held.shop import Shop
from nematex.usecases.people import codes, inviting, signing_in, staff
from nematex.usecases.people.hashing import hashed, is_right
from nematex.usecases.people.set_up import make_owner
from nematex.usecases.people.signing_in import SignInRefused, Tried

NOON = datetime(2026, 11, 27, 12)
WORD = "copper lantern orchard 9"


@pytest.fixture
def shop(database: Database) -> Shop:
    found = Shop(database)
    make_owner(found, "Wren Applegarth", WORD, "", NOON)
    return found


def enter(shop: Shop, word: str = WORD, code: str = "", at: datetime = NOON, name: str = "Wren Applegarth") -> str:
    return signing_in.sign_in(shop, Tried(name, word, code), at)


def owner(shop: Shop) -> Person:
    return staff.staff(shop, NOON).people[0]


def number(person: Person) -> int:
    assert person.id is not None
    return person.id


def test_the_codes_are_those_of_rfc_6238() -> None:
    """RFC 6238, appendix B, SHA-1: eight digits, of which a phone shows the last six (values from memory)."""

    published = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"  # "12345678901234567890"
    for at, eight in ((59, "94287082"), (1111111109, "07081804"), (1234567890, "89005924"), (20000000000, "65353130")):
        assert codes._step_of(published, eight[-6:], datetime.fromtimestamp(at)) == at // 30


def test_one_gets_in_by_the_password_and_stays_until_it_runs_out(shop: Shop) -> None:
    token = enter(shop)
    assert signing_in.who_is(shop, token, NOON) is not None
    assert signing_in.who_is(shop, token + "x", NOON) is None
    assert signing_in.who_is(shop, token, NOON + signing_in.IDLE + timedelta(minutes=1)) is None
    at = NOON
    while at < NOON + signing_in.LONGEST_SIGN_IN - timedelta(hours=6):  # somebody who comes every six hours
        at += timedelta(hours=6)
        assert signing_in.who_is(shop, token, at) is not None
    assert signing_in.who_is(shop, token, at + timedelta(hours=7)) is None
    signing_in.sign_out(shop, token)
    assert signing_in.who_is(shop, token, NOON) is None


def test_the_database_holds_neither_password_nor_token(shop: Shop) -> None:
    token = enter(shop)
    with shop.database.engine.connect() as connection:
        for table in ("person", "sign_in", "trail"):
            rows = repr(connection.exec_driver_sql(f"select * from {table}").fetchall())
            assert WORD not in rows
            assert token not in rows
            assert table == "trail" or "argon2id" in rows or table == "sign_in"


@pytest.mark.parametrize("word", ["", "mistaken", WORD + " ", WORD.upper(), "x" * 5000, "é" * 200])
def test_a_wrong_password_is_refused_in_the_same_words_as_a_name_that_nobody_has(shop: Shop, word: str) -> None:
    with pytest.raises(SignInRefused) as wrong:
        enter(shop, word)
    with pytest.raises(SignInRefused) as nobody:
        enter(shop, WORD, name="Nobody Here")
    assert str(wrong.value) == str(nobody.value)
    assert not word or word not in str(wrong.value)


def test_after_three_wrong_tries_even_the_right_one_waits(shop: Shop) -> None:
    for _ in range(3):
        with pytest.raises(SignInRefused):
            enter(shop, "wrong")
    with pytest.raises(SignInRefused):
        enter(shop)
    assert enter(shop, at=NOON + timedelta(seconds=wait_s(3) + 1))
    with pytest.raises(SignInRefused):
        enter(shop, "wrong", at=NOON + timedelta(minutes=1))
    assert enter(shop, at=NOON + timedelta(minutes=1)), "the count began anew"


def test_wrong_tries_at_once_are_all_counted(shop: Shop) -> None:
    def wrong() -> None:
        with pytest.raises(SignInRefused):
            enter(shop, "wrong")

    at_once([wrong] * 6)
    with pytest.raises(SignInRefused):
        enter(shop, at=NOON + timedelta(seconds=1))


def at_once(acts: list[Callable[[], object]]) -> None:
    threads = [threading.Thread(target=act) for act in acts]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join(60)


def test_two_who_set_the_shop_up_at_once_make_one_owner(database: Database) -> None:
    shop, made, late = Shop(database), [], []

    def set_up(name: str) -> None:
        try:
            made.append(make_owner(shop, name, WORD, "", NOON))
        except FieldFault as fault:
            late.append(str(fault))

    at_once([lambda name=f"Owner {n}": set_up(name) for n in range(5)])  # type: ignore[misc]
    assert (len(made), len(late)) == (1, 4)
    assert "too late" in late[0]


@pytest.mark.parametrize(
    "word", ["copper lantern orchard 9", "ж" * 4 + "длинная фраза", "🧵🪡 seams and selvedges 71", "Y2$kd8#Pqz!vL0"]
)
def test_a_password_of_any_letters_is_known_again(word: str) -> None:
    assert is_right(hashed(word), word)
    assert not is_right(hashed(word), word[:-1])
    assert not is_right("", word)


def test_a_phones_code_is_good_once_and_a_spare_one_too(shop: Shop) -> None:
    me, secret = owner(shop), codes.new_secret()
    with pytest.raises(FieldFault, match="not the code of this moment"):
        codes.start_code(shop, number(me), secret, "000000x", NOON)
    spare = codes.start_code(shop, number(me), secret, pyotp.TOTP(secret).at(NOON), NOON)
    later = NOON + timedelta(minutes=2)
    code = pyotp.TOTP(secret).at(later)
    with pytest.raises(SignInRefused):
        enter(shop, at=later)
    assert enter(shop, code=f" {code[:3]} {code[3:]} ", at=later)
    with pytest.raises(SignInRefused):
        enter(shop, code=code, at=later)
    assert enter(shop, code=spare[0].upper(), at=later)
    with pytest.raises(SignInRefused):
        enter(shop, code=spare[0], at=later)
    much_later = later + timedelta(minutes=10)
    with pytest.raises(PasswordFault):
        codes.stop_code(shop, number(me), "123456", much_later)
    codes.stop_code(shop, number(me), spare[1], much_later)
    assert enter(shop, at=much_later)


def test_a_link_works_once_also_for_two_at_once(shop: Shop) -> None:
    token = inviting.invite(shop, "Tamsin Oake", "viewer", "Wren", NOON)
    came, late = [], []

    def come(n: int) -> None:
        try:
            came.append(inviting.accept(shop, token, f"Guest number {n}", WORD, NOON))
        except FieldFault as fault:
            late.append(str(fault))

    at_once([lambda n=n: come(n) for n in range(4)])  # type: ignore[misc]
    assert (len(came), len(late)) == (1, 3)
    assert came[0].role == "viewer"
    assert all("not good any more" in each for each in late)


def test_a_link_runs_out_can_be_withdrawn_and_survives_a_bad_password(shop: Shop) -> None:
    token = inviting.invite(shop, "", "buyer", "Wren", NOON)
    with pytest.raises(FieldFault, match="12 to 128"):
        inviting.accept(shop, token, "Tamsin Oake", "short", NOON)
    assert inviting.invited(shop, token, NOON) is not None
    assert inviting.invited(shop, token, NOON + inviting.GOOD_FOR) is None
    staff.take_back(shop, staff.staff(shop, NOON).invited[0].key)
    assert inviting.invited(shop, token, NOON) is None
    for bad in ("", "x", token[:-1], token + "x", "%", "_" * 32, "é" * 90, "a" * 5000):
        assert inviting.invited(shop, bad, NOON) is None


def test_a_new_password_ends_every_sign_in(shop: Shop) -> None:
    here, elsewhere = enter(shop), enter(shop)
    with pytest.raises(PasswordFault, match="old password"):
        staff.change_password(shop, owner(shop), "wrong", "violet harbour thistle 4", here)
    staff.change_password(shop, owner(shop), WORD, "violet harbour thistle 4", here)
    assert signing_in.who_is(shop, here, NOON) is not None
    assert signing_in.who_is(shop, elsewhere, NOON) is None
    token = inviting.renew_password(shop, number(owner(shop)), "the machine", NOON)
    older = inviting.renew_password(shop, number(owner(shop)), "the machine", NOON)
    assert inviting.invited(shop, token, NOON) is None, "the later link alone is good"
    with shop.database.work() as work:
        add_passkey(work, number(owner(shop)), b"left by a stranger", b"key", 0, "phone", NOON)
    inviting.accept(shop, older, "", "saffron willow bobbin 12", NOON)
    assert signing_in.who_is(shop, here, NOON) is None
    assert staff.own(shop, number(owner(shop))).passkeys == []
    assert enter(shop, "saffron willow bobbin 12")


def test_the_last_owner_cannot_go_and_two_cannot_end_each_other(shop: Shop) -> None:
    first = owner(shop)
    with pytest.raises(FieldFault, match="last owner"):
        staff.end_person(shop, number(first), NOON)
    with pytest.raises(FieldFault, match="last owner"):
        staff.give_role(shop, number(first), "viewer", "owner")
    second = inviting.accept(shop, inviting.invite(shop, "", "owner", "Wren", NOON), "Tamsin Oake", WORD, NOON)
    faults = []

    def end(whom: int) -> None:
        try:
            staff.end_person(shop, whom, NOON)
        except FieldFault as fault:
            faults.append(str(fault))

    at_once([lambda: end(number(first)), lambda: end(number(second))])
    assert len(faults) == 1
    left = [one for one in staff.staff(shop, NOON).people if not one.ended_at]
    assert [one.role for one in left] == ["owner"]


def test_who_left_is_out_at_once_and_their_name_stays_taken(shop: Shop) -> None:
    guest = inviting.accept(shop, inviting.invite(shop, "", "viewer", "Wren", NOON), "Tamsin Oake", WORD, NOON)
    token = enter(shop, name="tamsin OAKE")
    staff.end_person(shop, number(guest), NOON)
    assert signing_in.who_is(shop, token, NOON) is None
    with pytest.raises(SignInRefused):
        enter(shop, name="Tamsin Oake")
    with pytest.raises(FieldFault, match="another person's"):
        inviting.accept(shop, inviting.invite(shop, "", "viewer", "Wren", NOON), "TAMSIN oake", WORD, NOON)


def test_a_role_that_a_colleague_changed_meanwhile_is_not_overwritten(shop: Shop) -> None:
    guest = inviting.accept(shop, inviting.invite(shop, "", "viewer", "Wren", NOON), "Tamsin Oake", WORD, NOON)
    staff.give_role(shop, number(guest), "buyer", "viewer")
    with pytest.raises(FieldFault, match="clashes"):
        staff.give_role(shop, number(guest), "presenter", "viewer")
    with pytest.raises(FieldFault, match="choose from: owner, buyer, presenter, viewer"):
        staff.give_role(shop, number(guest), "queen", "buyer")
