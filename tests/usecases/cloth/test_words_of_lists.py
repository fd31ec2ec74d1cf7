"""Words that nobody knows in a list: asked once, remembered, and only the rows that have them are read again.

All lists are invented; that such words occur, and what they mean, is common practice, no source.
"""

from __future__ import annotations

import random

import pytest
from conftest import Site
from hypothesis import given
from hypothesis import strategies as st
from playwright.sync_api import Page, expect
from sqlalchemy import delete

from nematex.core.cloth.contradictions import unsettled
from nematex.core.cloth.estimates import placed_cloth
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.store.models import JobRow
from nematex.tables import trade_tables
from nematex.usecases.cloth.lists.choosing import mend_row
from nematex.usecases.cloth.lists.importing import apply, preview, send, told_here
from nematex.usecases.cloth.lists.job import start_reading
from nematex.usecases.cloth.lists.preview import Preview
from nematex.usecases.cloth.lists.reread import change_and_read
from nematex.usecases.cloth.lists.told import as_told, forget_told, has_word, keep_told, meant_by
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.matrix_view import offered_cloths

TABLES = trade_tables()
LIST = """Artikel;Bezeichnung;Zusammensetzung;Gewicht;Breite;Farbe
K-1;Zwirnel blau;100% Baumwolle;220 g/m2;150 cm;blau
K-2;Zwirnel rost;100% Baumwolle;225 g/m2;150 cm;rost
K-3;Baumwollzwirnel;100% Baumwolle;230 g/m2;150 cm;nebelfarn
K-4;Möwe Popeline;100% Baumwolle;115 g/m2;145 cm;weiß
K-5;Ufer Brombel;95% Viskose 5% Elastan;;150 cm;grün
"""


def sent_and_seen(shop: Shop, text: str = LIST) -> tuple[int, Preview]:
    sent = send(shop, "liste.csv", text.encode())
    found = preview(shop, sent)
    assert found is not None
    return sent, found


def kinds(found: Preview) -> dict[str, str | None]:
    records = [row.record for row in found.rows if row.record]
    placed = {each.code: placed_cloth(each.facts, TABLES).type for each in records}
    return {code: kind.name if kind else None for code, kind in placed.items()}


def test_a_word_is_asked_once_for_the_list_with_what_its_rows_suggest(demo: Shop) -> None:
    _, found = sent_and_seen(demo)
    assert not found.bad  # no row is refused for a word
    asked = {(each.kind, each.word): each for each in found.strange(TABLES)}
    assert set(asked) == {("cloth", "Zwirnel"), ("cloth", "Baumwollzwirnel"), ("cloth", "Brombel"), ("colour", "nebelfarn")}
    zwirnel = asked["cloth", "Zwirnel"]
    assert zwirnel.rows == 2
    like = [TABLES.lexicon.get(name) for name in zwirnel.likely]
    assert like
    assert all("cotton" in each.all_fibres and each.structure == "woven" for each in like)
    assert asked["cloth", "Brombel"].likely == ()  # nobody has weighed it


def test_a_word_told_once_holds_for_this_list_and_for_the_next(demo: Shop) -> None:
    sent, _ = sent_and_seen(demo)
    keep_told(demo, "cloth", "Zwirnel", "twill")
    keep_told(demo, "cloth", "brombel", "viscose jersey")
    keep_told(demo, "colour", "nebelfarn", "sage")
    found = preview(demo, sent)
    assert found is not None
    assert found.strange(TABLES) == []
    twill = TABLES.lexicon.find("twill")
    assert twill is not None
    assert kinds(found) == dict.fromkeys(("K-1", "K-2", "K-3"), twill.name) | {
        "K-4": "cotton poplin", "K-5": "viscose jersey"
    }  # fmt: skip
    assert {kind for kind, *_ in told_here(demo, found)} == {"cloth", "colour"}
    _, later = sent_and_seen(demo, LIST.replace("K-", "L-"))
    assert later.strange(TABLES) == []
    forget_told(demo, "cloth", "ZWIRNEL")
    again = preview(demo, sent)
    assert again is not None
    assert {each.word for each in again.strange(TABLES)} == {"Zwirnel", "Baumwollzwirnel"}


def test_only_a_name_is_asked_no_more(demo: Shop) -> None:
    sent, _ = sent_and_seen(demo)
    for word in ("Zwirnel", "Baumwollzwirnel", "Brombel", "Ufer"):
        keep_told(demo, "cloth", word, "")
    found = preview(demo, sent)
    assert found is not None
    assert [each.kind for each in found.strange(TABLES)] == ["colour"]


@pytest.mark.parametrize(
    ("kind", "said", "meant", "fault"),
    [
        ("cloth", "Zwirnel", "mooncloth", UnknownChoice),
        ("colour", "nebelfarn", "twill", UnknownChoice),
        ("fibre", "wolle2", "twill", UnknownChoice),
        ("smell", "Zwirnel", "twill", UnknownChoice),
        ("cloth", "   ", "twill", FieldFault),
        ("cloth", "z" * 100_000, "twill", FieldFault),
    ],
)
def test_what_a_word_cannot_mean_is_refused(demo: Shop, kind: str, said: str, meant: str, fault: type[FieldFault]) -> None:
    with pytest.raises(fault):
        keep_told(demo, kind, said, meant)


def test_only_the_rows_that_have_the_word_are_read_again_and_as_if_all_were(demo: Shop) -> None:
    rng = random.Random(7)
    names = ["Zwirnel blau", "Möwe Popeline", "Baumwollzwirnel", "Ufer Brombel", "Dünen Leinen", "Zwirnel"]
    rows = [f"R-{at};{rng.choice(names)};100% Baumwolle;{rng.randint(90, 300)} g/m2;150 cm;blau" for at in range(300)]
    sent, before = sent_and_seen(demo, LIST.splitlines()[0] + "\n" + "\n".join(rows) + "\n")
    for said, meant in (("zwirnel", "twill"), ("Brombel", "poplin"), ("Ufer", ""), ("zwirnel", "denim")):
        assert change_and_read(
            demo,
            sent,
            lambda s=said, m=meant: keep_told(demo, "cloth", s, m),
            lambda row, s=said: has_word(row.cells, "cloth", s),
        )
        at_once = preview(demo, sent)
        demo.previews.clear()
        with demo.database.work() as work:
            work.execute(delete(JobRow))  # nothing that was kept is at hand: it is read anew
        anew = preview(demo, sent)
        assert at_once is not None
        assert at_once == anew
        untouched = [row for row in before.rows if not has_word(row.cells, "cloth", said)]
        assert all(row in at_once.rows for row in untouched) or said != "zwirnel"
        before = at_once


def test_a_word_that_a_colleague_tells_at_the_same_moment_is_not_lost(demo: Shop) -> None:
    sent, _ = sent_and_seen(demo)

    def both() -> None:
        keep_told(demo, "cloth", "Zwirnel", "twill")
        keep_told(demo, "cloth", "Brombel", "viscose jersey")  # somebody else

    assert not change_and_read(demo, sent, both, lambda row: has_word(row.cells, "cloth", "Zwirnel"))
    found = preview(demo, sent)
    assert found is not None
    assert kinds(found)["K-5"] == "viscose jersey"


def test_a_mended_row_is_read_at_once_and_a_changed_code_reads_the_list_anew(demo: Shop) -> None:
    sent, _ = sent_and_seen(demo)
    assert change_and_read(demo, sent, lambda: mend_row(demo, sent, 2, {1: "Zwirnel denim"}), lambda row: row.row == 2)
    found = preview(demo, sent)
    assert found is not None
    assert kinds(found)["K-1"] is not None
    assert not change_and_read(demo, sent, lambda: mend_row(demo, sent, 3, {0: "K-1"}), lambda row: row.row == 3)
    assert start_reading(demo, sent)
    again = preview(demo, sent)
    assert again is not None
    assert [row.row for row in again.bad] == [3]


def test_a_cloth_that_nothing_places_comes_in_and_is_in_no_proposal(demo: Shop) -> None:
    sent, found = sent_and_seen(demo)
    fault = next(fault for fault in found.left_out_cells if fault.value == "Ufer Brombel")
    assert "it is taken for a woven" in fault.message
    apply(demo, sent)
    state = demo.now()
    offered = offered_cloths(state)
    proposed = {record.code: bool(offered[state.shelf.place[record.id]]) for record in state.shelf.records}
    assert not proposed["K-1"]
    assert not proposed["K-5"]
    assert proposed["K-4"]
    odd = next(record for record in state.shelf.records if record.code == "K-5")
    assert "Nothing says what kind of cloth it is" in unsettled(placed_cloth(odd.facts, TABLES))[0].text


words = st.text("abcdefgäß ", min_size=1, max_size=8).map(str.strip).filter(bool)


@given(st.dictionaries(words.map(str.casefold), words, max_size=5), st.text(max_size=80))
def test_what_is_told_is_found_wherever_it_changes_a_text(told: dict[str, str], text: str) -> None:
    found = as_told(text, "cloth", {"cloth": told})
    if found != text:
        assert any(has_word([text], "cloth", word) for word in told)
    if not meant_by(text, "cloth", {"cloth": told}):
        assert found == text


def test_the_page_asks_and_remembers(page: Page, site: Site) -> None:
    page.goto("/import")
    page.get_by_label("File").set_input_files({"name": "liste.csv", "mimeType": "text/csv", "buffer": LIST.encode()})
    page.get_by_role("button", name="Look at it").click()
    field = page.get_by_label("What is Zwirnel?")
    expect(field).to_be_visible()
    field.fill("mooncloth")
    field.press("Enter")
    expect(page.get_by_text("mooncloth").first).to_be_visible()
    page.get_by_label("What is Zwirnel?").fill("twill")
    page.get_by_label("What is Zwirnel?").press("Enter")
    expect(page.get_by_label("What is Zwirnel?")).to_have_count(0)
    expect(page.get_by_label("What is Baumwollzwirnel?")).to_have_count(0)
    page.get_by_text("told before").click()
    page.get_by_role("button", name="Ask about zwirnel again").click()
    expect(page.get_by_label("What is Zwirnel?")).to_be_visible()
    site.complaints.clear()  # the browser notes the 400 of the word that is no cloth
