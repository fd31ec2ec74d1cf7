"""The practice room: questions of the shop's own cloths, the working, and when they come again."""

from __future__ import annotations

from datetime import date, datetime, timedelta

import pytest
from conftest import Site, open_page
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.core.errors import FieldFault
from nematex.core.judging.verdict import Verdict
from nematex.store.air.practice import card
from nematex.usecases.air.practice.questions import is_known, next_question, read_question
from nematex.usecases.air.practice.room import answer_question, read_who, standing
from nematex.usecases.judging.overrides import latest

NOW = datetime(2026, 11, 20, 12)


def right(site: Site, key: str) -> dict[str, str]:
    question = read_question(site.shop, site.shop.now(), key)
    assert question is not None
    if question.known:
        return {"number": f"{question.known.best:g}"}
    return {"verdict": question.right[0].word, "reason": question.decides[0]}


def test_a_run_of_questions_of_every_kind_and_each_verdict(site: Site) -> None:
    """Forty answers: no question twice while it is known, all kinds, all verdicts, and cases where hands and rules part."""
    shop, state, seen, parted = site.shop, site.shop.now(), {}, 0
    for _ in range(40):
        question = next_question(shop, state, "ada", NOW.date())
        assert question is not None
        assert question.key not in seen
        seen[question.key] = question.pairing.verdict if question.pairing else None
        parted += question.hand is not None
        if question.known:
            assert is_known(question.known)
        answer_question(shop, state, "ada", question.key, right(site, question.key), NOW)
    assert {key.split(":")[0] for key in seen} == {"pairing", "weight", "drape"}
    assert {Verdict.SUITS, Verdict.WITH_CARE, Verdict.AGAINST} <= set(seen.values())
    assert parted >= 1
    found = standing(shop, "ada", NOW.date())
    assert (found.met, found.due, found.right) == (40, 0, found.asked)
    assert all(each.bias == pytest.approx(0.0) for each in found.judged if each.offs)
    assert standing(shop, "ada", NOW.date() + timedelta(days=1)).due == 40
    assert standing(shop, "bo", NOW.date()).met == 0


def test_what_is_wrong_comes_again_today_but_not_at_once(site: Site) -> None:
    shop, state = site.shop, site.shop.now()
    first = next_question(shop, state, "ada", NOW.date())
    assert first is not None
    wrong = {"verdict": "against" if Verdict.AGAINST not in first.right else "suits", "reason": "width", "number": "2900"}
    answer_question(shop, state, "ada", first.key, wrong, NOW)
    with shop.database.work() as work:
        kept = card(work, "ada", first.key)
    assert kept is not None
    assert (kept.drill, kept.due) == (True, NOW.date())
    for _ in range(3):
        other = next_question(shop, state, "ada", NOW.date())
        assert other is not None
        assert other.key != first.key
        answer_question(shop, state, "ada", other.key, right(site, other.key), NOW)
    again = next_question(shop, state, "ada", NOW.date())
    assert again is not None
    assert again.key == first.key


def test_where_hands_and_rules_part_either_counts(site: Site) -> None:
    shop, state = site.shop, site.shop.now()
    said = next(each for each in latest(shop).values() if each.verdict != each.rules)
    question = read_question(shop, state, f"pairing:{said.cloth_id}:{said.pattern_id}")
    assert question is not None
    assert question.hand is not None
    assert {each.word for each in question.right} == {said.verdict, question.pairing.verdict.word if question.pairing else ""}


@pytest.mark.parametrize(
    "key", ["", "pairing", "pairing:1", "weight:999999", "weight:²", "drape:1:2", "x:1", "pairing:1:" + "9" * 40]
)
def test_keys_of_nothing(site: Site, key: str) -> None:
    assert read_question(site.shop, site.shop.now(), key) is None
    with pytest.raises(FieldFault, match="cannot be asked"):
        answer_question(site.shop, site.shop.now(), "ada", key, {}, NOW)


def test_answers_that_are_none(site: Site) -> None:
    shop, state = site.shop, site.shop.now()
    weight = next(
        f"weight:{record.id}"
        for record, cloth in zip(state.shelf.records, state.shelf.cloths, strict=True)
        if is_known(cloth.weight)
    )
    for number in ("", "0", "-3", "heavy", "9" * 5000, "1e400", "3001"):
        with pytest.raises(FieldFault):
            answer_question(shop, state, "ada", weight, {"number": number}, NOW)
    assert standing(shop, "ada", NOW.date()).met == 0
    assert read_who("  \n ") == "presenter"
    assert len(read_who("x" * 100_000)) == 40


def test_practising_in_the_browser(page: Page, site: Site, axe: str, browser: Browser) -> None:
    page.goto("/programmes")
    page.get_by_role("link", name="practice room").click()
    page.get_by_label("Who practises").fill("Ada")
    page.get_by_role("button", name="Change").click()
    expect(page.locator(".standing h2")).to_have_text("Ada")
    kinds = set()
    for _ in range(6):
        key = page.locator("[name=question]").get_attribute("value") or ""
        kinds.add(key.split(":")[0])
        said = right(site, key)
        assert faults(page, axe) == []
        shown = page.locator(".practised").inner_text()
        if "number" in said:
            assert f"{float(said['number']):.0f} g/m²" not in shown  # it is hidden
            page.get_by_label("Your judgement").fill(said["number"])
        else:
            page.get_by_role("button", name="Answer").click()
            expect(page.locator(".fault").first).to_contain_text("verdict")
            site.complaints.clear()
            page.keyboard.press(str([each.word for each in Verdict].index(said["verdict"]) + 1))
            page.get_by_label("What decides").select_option(said["reason"])
        page.get_by_role("button", name="Answer").click()
        expect(page.locator("main h2").first).to_have_text("Right" if "verdict" in said else "Spot on")
        expect(page.locator("main")).to_contain_text("This one comes again tomorrow.")
        assert faults(page, axe) == []
        page.get_by_role("link", name="Next question").click()
        page.wait_for_url("**/practice")
    assert kinds == {"pairing", "weight", "drape"}
    phone = open_page(browser, site, 390)
    phone.goto("/practice")
    assert faults(phone, axe) == []
    assert phone.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    phone.context.close()
    assert standing(site.shop, "Ada", date.today()).met == 6
    site.complaints.clear()
