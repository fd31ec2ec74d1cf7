"""The page of rules and hands tells how often hands agree, by reason."""

from __future__ import annotations

from conftest import Site
from playwright.sync_api import Page, expect

from nematex.demo.judged import agreement
from nematex.tables import trade_tables


def test_the_page_says_how_often_hands_agree_by_reason(page: Page, site: Site) -> None:
    page.goto("/hands")
    told = agreement(trade_tables())
    agreed, size = (sum(pair[at] for pair in told.values()) for at in (0, 1))
    expect(page.get_by_text(f"{size} judged pairings")).to_contain_text(f"{agreed} agree")
    rows = page.locator("#agreement ~ .scroll").first.locator("tr")
    expect(rows).to_have_count(len(told) + 1)
    for reason, (good, of) in told.items():
        expect(rows.filter(has_text=reason).first).to_contain_text(f"{good}{of}")


def test_the_middle_school_is_chosen_where_nothing_is_said(page: Page, site: Site) -> None:
    page.goto(f"/pairing/pattern/{site.pattern('TP-22')}")
    schools = page.get_by_role("group", name="School")
    expect(schools.locator("[aria-current]")).to_have_text("by kin")
    schools.get_by_role("link", name="by the hand").click()
    expect(page.get_by_role("group", name="School").locator("[aria-current]")).to_have_text("by the hand")
