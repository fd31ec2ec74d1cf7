"""Kinds of cloth: those that serve a pattern, whether the shelf has them or not; one kind; one fibre."""

from __future__ import annotations

from conftest import Site
from playwright.sync_api import Page, expect


def test_a_patterns_kinds_are_reached_from_its_cloths_and_change_with_the_look(page: Page, site: Site) -> None:
    page.goto(f"/pairing/pattern/{site.pattern('OR-12')}")
    page.get_by_role("link", name="kinds for it, in stock or not").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Kinds of cloth for it, best first")
    first = page.locator(".kind-rows tbody tr").first
    expect(first).to_contain_text("names it")
    names = page.locator(".kind-rows .name")
    balanced = names.all_inner_texts()
    assert "viscose crepe" in balanced
    page.get_by_role("group", name="Look").get_by_role("link", name="structured").click()
    expect(page.get_by_role("group", name="Look").locator("[aria-current]")).to_have_text("structured")
    assert names.all_inner_texts() != balanced


def test_a_kind_that_the_shelf_has_not_is_said_too(page: Page, site: Site) -> None:
    page.goto(f"/kinds/for/{site.pattern('BR-46')}")
    row = page.locator(".kind-rows tr").filter(has_text="gabardine").first
    expect(row).to_contain_text("none")
    row.get_by_role("link", name="gabardine").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Gabardine")
    expect(page.locator("section").filter(has_text="Today's bolts of it").last).to_contain_text("None on the shelf.")
    expect(page.get_by_role("link", name="Merlin sheath")).to_be_visible()


def test_a_kind_tells_how_it_behaves_and_its_fibre_has_a_page(page: Page, site: Site) -> None:
    page.goto("/kinds?q=challis")
    page.get_by_role("link", name="viscose challis").click()
    facts = page.locator("dl.facts").first
    for label in ("Weighs", "Handle", "Wash", "Cut edges", "Iron", "To sew", "Made for"):
        expect(facts.get_by_text(label, exact=True)).to_be_visible()
    expect(page.get_by_role("link", name="Dusk Quay challis")).to_be_visible()
    page.get_by_role("link", name="Viscose (rayon)").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Viscose (rayon)")
    expect(page.get_by_role("link", name="viscose crepe", exact=True)).to_be_visible()


def test_what_is_no_kind_is_said(page: Page, site: Site) -> None:
    page.goto("/kinds?q=unobtainium")
    expect(page.get_by_text("No kind of cloth is called, made of or made for “unobtainium”")).to_be_visible()
    for address in ("/kinds/unobtainium", "/kinds/fibre/unobtainium"):
        assert page.request.get(address).status == 404


def test_handles_like_leads_to_the_kind(page: Page, site: Site) -> None:
    page.goto(f"/pairing/one/{site.pattern('OR-12')}/{site.cloth('GM-101')}")
    page.locator("a[href^='/kinds/']").first.click()
    expect(page.get_by_role("heading", name="Today's bolts of it")).to_be_visible()


def test_whom_a_pattern_does_not_reach_is_told_of_one_that_does_with_the_cloth_kept(page: Page, site: Site) -> None:
    pattern, ponte = site.pattern("TP-23"), site.cloth("SK-501")
    page.goto(f"/pairing/one/{pattern}/{ponte}")
    page.get_by_role("link", name="Which size").click()
    expect(page.get_by_role("link", name="Shingle ponte")).to_be_visible()
    page.get_by_label("Full bust").fill("150")
    page.get_by_label("Hip").fill("160")
    page.get_by_role("button", name="Which size?").click()
    expect(page.locator(".size-answer").first).to_contain_text("does not reach")
    expect(page.get_by_text("No other pattern of the drawer has that look and reaches.")).to_be_visible()
    expect(page.get_by_role("link", name="Shingle ponte")).to_be_visible()
