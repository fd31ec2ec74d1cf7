"""'I have 1.6 m of 138 cm viscose crepe': reading the question, and what can be made. Yards by the 1959 agreement."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from playwright.sync_api import Page, expect

from nematex.core.errors import FieldFault
from nematex.core.pattern.facts import Wish
from nematex.usecases.held.drawer import Drawer
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.have import is_have, makes, read_have
from nematex.usecases.judging.mixed import read_choices
from nematex.usecases.judging.ranking import one_pairing


@pytest.mark.parametrize(
    ("text", "length_m", "width_cm", "kind"),
    [
        ("I have 1.6 m of 138 cm viscose crepe", 1.6, 138, "viscose crepe"),
        ('2 yards of 45" cotton lawn', 1.8288, 114.3, "cotton lawn"),
        ("2 1/2 yd linen, 55 in wide", 2.286, 139.7, "linen"),
        ("160 cm of 138 cm challis", 1.6, 138, "viscose challis"),
        ("what can I make from 0.8m ponte?", 0.8, None, "ponte"),
        ("3 m of 150 cm wide 180 gsm cotton twill", 3.0, 150, "cotton twill"),
    ],
)
def test_the_question_is_read(demo: Shop, text: str, length_m: float, width_cm: float | None, kind: str) -> None:
    assert is_have(text)
    found = read_have(demo.now(), text)
    assert found.length_m == pytest.approx(length_m)
    assert found.record is None
    assert width_cm is None or found.cloth.width.best == pytest.approx(width_cm)
    assert found.cloth.type is not None
    assert found.cloth.type.name == kind
    if "gsm" in text:
        assert found.cloth.weight.best == 180


@pytest.mark.parametrize("text", ["linen", "tiered skirt", "Kelp Ladder challis", "140 cm linen", "size 12 dress"])
def test_other_questions_are_none(text: str) -> None:
    assert not is_have(text)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("crepe 138 cm", "says no length"),
        ("1.6 m of", "names no cloth"),
        ("1.6 m of flimflam", "flimflam"),
        ("0.01 m of crepe", "from 0.05 to 200"),
        ("9999999 m of crepe", "from 0.05 to 200"),
    ],
)
def test_what_is_missing_is_named(demo: Shop, text: str, words: str) -> None:
    with pytest.raises(FieldFault, match=words):
        read_have(demo.now(), text)


@settings(max_examples=150, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    st.text(max_size=300)
    | st.lists(st.sampled_from("1.6 m 2 yd 138 cm of crepe × ½ ² ٣ \u202e 180gsm".split(" ")), max_size=12).map(" ".join)
)
def test_no_question_is_more_than_a_fault(demo: Shop, text: str) -> None:
    assert isinstance(is_have(text), bool)
    with suppress(FieldFault):
        assert 0 < read_have(demo.now(), text).length_m < 1000


def test_what_can_be_made_comes_first_and_takes_no_more_than_there_is(demo: Shop) -> None:
    state = demo.now()
    have = read_have(state, "2.4 m of 138 cm viscose crepe")
    rows = makes(demo, state, have)
    made = [row for row in rows if row.largest]
    assert made
    assert rows[: len(made)] == made
    assert all(row.takes_m <= 2.4 for row in made)
    assert all(row.takes_m > 2.4 for row in rows[len(made) :])
    assert len({row.said for row in rows}) == len(rows)
    assert all(
        "skirt" in row.pattern.facts.garment or "skirt" in row.pattern.facts.name for row in makes(demo, state, have, "skirt")
    )
    more = {row.pattern.id for row in makes(demo, state, read_have(state, "4 m of 138 cm viscose crepe")) if row.largest}
    assert {row.pattern.id for row in made} <= more


def test_a_cloth_of_the_shelf_is_known_by_its_name(demo: Shop) -> None:
    found = read_have(demo.now(), "1.5 m of Kelp Ladder challis")
    assert found.record is not None
    assert found.cloth is demo.now().shelf.cloths[demo.now().shelf.place[found.record.id]]


def test_from_the_front_page(page: Page) -> None:
    page.goto("/")
    page.get_by_label("What goes with a cloth or a pattern").fill("I have 2.4 m of 138 cm viscose crepe")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="What can be made of it?")).to_be_visible()
    expect(page.locator(".makes [data-row]").first).to_contain_text("size")
    page.get_by_label("How much of which cloth").fill("2 m of flimflam")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("flimflam")
    expect(page.get_by_label("How much of which cloth")).to_have_value("2 m of flimflam")


@pytest.mark.parametrize("text", ["9" * 5000, "²", "٣", "-1", "1.5", "x"])
def test_no_number_of_a_cloth_is_more_than_a_fault(text: str) -> None:
    with pytest.raises(FieldFault, match="is no cloth of this shelf"):
        read_choices({"cloth.yoke": text}, ["yoke"])


def test_how_the_shop_cuts_is_chosen_on_the_front_page(page: Page) -> None:
    page.goto("/pairing/have?q=2.4 m of 138 cm viscose crepe")
    before = page.locator(".makes .receipt ol").first.text_content()
    assert before
    assert "10 cm steps, from 50 cm" in before
    page.goto("/")
    page.get_by_label("The shop cuts in steps of").select_option("1/8 yd")
    expect(page.get_by_label("The shop cuts in steps of")).to_have_value("1/8 yd")
    page.goto("/pairing/have?q=2.4 m of 138 cm viscose crepe")
    expect(page.locator(".makes .receipt ol").first).to_contain_text("1/8 yd steps, from 1/2 yd")


def test_of_a_large_drawer_a_part_is_tried_and_words_reach_the_rest(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    state = demo.now()
    have = read_have(state, "4 m of 138 cm viscose crepe")
    every = {row.pattern.id for row in makes(demo, state, have)}
    monkeypatch.setattr("nematex.usecases.judging.have.MOST_TRIED", 4)
    some = {row.pattern.id for row in makes(demo, state, have)}
    assert len(some) <= 4
    assert some < every
    left = next(record for record in state.drawer.records if record.id in every - some)
    assert left.id in {row.pattern.id for row in makes(demo, state, have, left.facts.name)}


def test_a_typed_cloth_is_judged_as_one_of_the_shelf(demo: Shop) -> None:
    """What the page of many says is what the page of one pairing says."""
    state = demo.now()
    for record in state.shelf.records[:12]:
        have = read_have(state, f"3 m of {record.facts.name}")
        assert have.record
        for row in makes(demo, state, have):
            assert row.verdict is one_pairing(demo, state, row.pattern, have.cloth, Wish()).verdict


def test_a_pattern_that_cannot_be_judged_or_says_no_amount_is_left_out(demo: Shop) -> None:
    state = demo.now()
    have = read_have(state, "4 m of 138 cm viscose crepe")
    first, second, *rest = [row.pattern.id for row in makes(demo, state, have)]
    blind = {first: {"structure": None, "recommended": "", "details": ()}, second: {"requirements": ()}}
    records = [replace(each, facts=replace(each.facts, **blind.get(each.id, {}))) for each in state.drawer.records]
    drawer = Drawer.of(state.drawer.version, records, state.tables)
    with pytest.raises(FieldFault):
        drawer.demand(drawer.by_id[first], Wish())
    left = [row.pattern.id for row in makes(demo, replace(state, drawer=drawer), have)]
    assert not {first, second} & set(left)
    assert set(rest) & set(left)
