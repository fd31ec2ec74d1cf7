"""In the browser: what is taken away comes back, and what is typed stays."""

from __future__ import annotations

from conftest import Site
from playwright.sync_api import Page, expect


def test_a_removed_cloth_is_put_back_from_the_line_that_says_so(page: Page, site: Site) -> None:
    number = site.cloth("GM-101")
    page.goto(f"/shelf/{number}")
    page.get_by_role("button", name="Remove").click()
    page.get_by_role("button", name="Really remove?").click()
    expect(page.get_by_role("status")).to_contain_text("Bean Row lawn is in the bin")
    page.get_by_role("button", name="Put it back").click()
    page.goto(f"/shelf/{number}")
    expect(page.get_by_role("heading", name="Bean Row lawn")).to_be_visible()


def test_the_bin_says_what_hangs_on_a_cloth_and_asks_before_it_lets_go(page: Page, site: Site) -> None:
    state = site.shop.now()
    number = state.times_picked.most_common(1)[0][0]
    record, _ = state.cloth(number) or (None, None)
    assert record is not None
    programme = next(each for each in state.programmes if any(pick.cloth_id == number for pick in each.picks))
    page.goto(f"/shelf/{number}")
    page.get_by_role("button", name="Remove").click()
    page.get_by_role("button", name="Really remove?").click()
    page.goto(f"/programmes/{programme.id}")
    expect(page.get_by_text(f"The cloth “{record.facts.name} ({record.code})” is in the bin.")).to_be_visible()
    page.goto("/bin")
    row = page.get_by_role("row", name=record.facts.name)
    expect(row).to_contain_text("picks" if state.times_picked[number] > 1 else "pick")
    row.get_by_role("button", name="Let go").click()
    expect(row.get_by_text("Really, with")).to_be_visible()
    page.goto(f"/programmes/{programme.id}")
    page.get_by_role("button", name="Put the cloth back").first.click()
    expect(page.locator("article")).to_have_count(len(programme.picks))
    expect(page.get_by_text("is in the bin")).to_have_count(0)


def test_an_own_line_is_kept_when_another_pick_is_moved_and_when_the_field_is_left(page: Page, site: Site) -> None:
    programme = next(each for each in site.shop.now().programmes if len(each.picks) > 2)
    first, second = programme.picks[:2]
    page.goto(f"/programmes/{programme.id}")
    page.locator(f"#line-{first.id}").fill("Light as a kite")
    page.get_by_role("button", name="Move pick 2 down").click()
    expect(page.locator(f"#line-{first.id}")).to_have_value("Light as a kite")
    page.locator(f"#line-{second.id}").fill("Left by the link")
    page.locator(f"#line-{second.id}").press("Tab")
    expect(page.locator(f"[data-said='{second.id}']")).to_have_text("kept")
    page.goto("/shelf")
    page.goto(f"/programmes/{programme.id}")
    expect(page.locator(f"#line-{second.id}")).to_have_value("Left by the link")


def test_two_windows_on_one_cloth_are_merged_or_asked(page: Page, site: Site) -> None:
    number = site.cloth("GM-101")
    page.goto(f"/shelf/{number}/edit")
    other = page.context.new_page()
    other.goto(f"/shelf/{number}/edit")
    other.get_by_label("Care").fill("40 °C")
    other.get_by_label("Season").fill("autumn")
    other.get_by_role("button", name="Save").click()
    expect(other.get_by_text("40 °C").first).to_be_visible()
    page.get_by_label("Notes").fill("from the window")
    page.get_by_label("Season").fill("spring")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("clashes with what somebody else saved while this form was open")
    expect(page.get_by_label("Notes")).to_have_value("from the window")
    page.get_by_role("button", name="Take theirs").click()
    expect(page.get_by_label("Season")).to_have_value("autumn")
    page.get_by_role("button", name="Save").click()
    record, _ = site.shop.now().cloth(number) or (None, None)
    assert record is not None
    assert (record.care, record.season, record.notes) == ("40 °C", "autumn", "from the window")
    site.complaints.clear()  # the browser notes the 400 of the form that asked
