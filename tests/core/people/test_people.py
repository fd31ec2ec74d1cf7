"""Names, passwords, waiting and rights: who says so stands beside each."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.errors import FieldFault
from nematex.core.people.name import LONGEST_NAME, name_key, read_name
from nematex.core.people.password import LONGEST, SHORTEST, PasswordFault, read_password
from nematex.core.people.rights import ROLES, may
from nematex.core.people.waiting import FREE_TRIES, LONGEST_WAIT_S, wait_s
from nematex.tables import rights


def test_names_are_compared_without_case_and_composed() -> None:
    assert name_key("Zoë Ashdown") == name_key("ZOË  ASHDOWN".replace("  ", " ")) == name_key("Zoe\u0308 Ashdown")
    assert name_key("Zoë Ashdown") != name_key("Zoe Ashdown")
    assert read_name("  Zoe\u0308   Ashdown\n") == "Zoë Ashdown"
    for bad in ("", "x", "y" * 61):
        with pytest.raises(FieldFault, match="2 to 60"):
            read_name(bad)


@given(st.text(max_size=80))
def test_a_name_that_is_taken_is_taken_again_as_it_stands(text: str) -> None:
    try:
        kept = read_name(text)
    except FieldFault:
        return
    assert read_name(kept) == kept
    assert 2 <= len(kept) <= LONGEST_NAME
    assert name_key(kept) == name_key(name_key(kept))


def test_the_shortest_and_the_longest_name_are_names() -> None:
    assert read_name("Al") == "Al"
    assert read_name("y" * LONGEST_NAME) == "y" * LONGEST_NAME


def test_a_machine_that_tries_gets_less_than_a_hundred_tries_an_hour() -> None:
    """OWASP ASVS 4.0, 2.2.1 (from memory): no more than 100 failed tries an hour for one account."""
    spent, tries = 0, 0
    while spent < 3600:
        tries += 1
        spent += wait_s(tries)
    assert 3 < tries < 100
    assert [wait_s(n) for n in range(6)] == [0, 0, 0, 2, 4, 8]
    assert wait_s(10**9) == LONGEST_WAIT_S


@given(st.integers(0, 10**6))
def test_nobody_waits_shorter_after_one_more_wrong_try(failures: int) -> None:
    assert wait_s(failures) <= wait_s(failures + 1) <= LONGEST_WAIT_S
    assert (wait_s(failures) == 0) == (failures < FREE_TRIES)


@pytest.mark.parametrize(
    "word", ["short", "x" * 129, "aaaaaaaaaaaaaaaa", "passwordpassword", "qwertyuiopasdf", "wrenapplegarth1", "\n" * 20]
)
def test_passwords_that_are_guessed_are_refused_without_being_repeated(word: str) -> None:
    with pytest.raises(PasswordFault) as fault:
        read_password(word, ("Wren Applegarth",))
    assert word not in str(fault.value)
    assert "password" in str(fault.value)


@pytest.mark.parametrize(
    "word", ["copper lantern orchard 9", "ж" * 4 + "длинная фраза", "🧵🪡 seams and selvedges 71", "Y2$kd8#Pqz!vL0"]
)
def test_long_unlike_words_of_any_letters_will_do(word: str) -> None:
    """OWASP ASVS 4.0, 2.1.1, 2.1.2 and 2.1.4 (from memory)."""
    assert read_password(word, ()) == word


def test_twelve_letters_are_enough_and_a_hundred_and_twenty_eight_are_not_too_many() -> None:
    """OWASP ASVS 4.0, 2.1.1 and 2.1.2 (from memory): at least 12 letters are asked, 128 are allowed."""
    long = ("kelp ladder selvedge " * 9)[:LONGEST]
    assert (SHORTEST, LONGEST) == (12, 128)
    assert read_password("kq7 vx2 zp9w", ()) == "kq7 vx2 zp9w"
    assert read_password(long, ()) == long
    for wrong in ("kq7 vx2 zp9", long + "x"):
        with pytest.raises(PasswordFault, match=f"{len(wrong)} letters"):
            read_password(wrong, ())


def test_what_is_known_of_a_person_is_guessed_first() -> None:
    """OWASP ASVS 4.0, 2.1.7 (from memory): no word of the context."""
    word = "marrowstonecloth"
    assert read_password(word, ()) == word
    with pytest.raises(PasswordFault, match="guessed too soon"):
        read_password(word, ("Marrowstone Cloth Room", "marrowstone", "cloth"))


def test_the_fault_names_the_field_that_was_typed_into() -> None:
    with pytest.raises(PasswordFault) as fault:
        read_password("short", (), "new password")
    assert str(fault.value).startswith("new password: has 5 letters")
    assert fault.value.field == "new password"
    assert fault.value.value == ""


def test_each_role_may_what_the_one_below_it_may_and_the_owner_everything() -> None:
    """Common practice, no source."""
    table = rights()
    assert all(may("owner", right, table) for right in table)
    for right in table:
        held = [role for role in ROLES if may(role, right, table)]
        assert held, right
        assert set(held) <= set(ROLES)
    assert {right for right in table if may("viewer", right, table)} < {
        right for right in table if may("presenter", right, table)
    }
    assert not any(may("nobody", right, table) for right in table)
    with pytest.raises(KeyError):
        may("owner", "fly", table)
