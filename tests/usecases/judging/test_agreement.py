"""Every way to ask gives one answer, over the whole demo shop; and every edge can be traced to its words."""

from __future__ import annotations

import csv
import io
from dataclasses import replace
from functools import partial

import numpy as np
import pytest
from conftest import Site, tried_app
from playwright.sync_api import Page

from nematex.core.amount.length import amount
from nematex.core.amount.many import lengths_m
from nematex.core.cloth.columns import columns
from nematex.core.cloth.lexicon import key
from nematex.core.errors import FieldFault
from nematex.core.judging.checks.finding import Finding
from nematex.core.judging.corrected import shipped
from nematex.core.judging.judge import judge
from nematex.core.judging.matrix import matrix
from nematex.core.judging.why import why
from nematex.core.pattern.facts import Pattern, Wish
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import assess_one
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import run_job
from nematex.usecases.judging import whole_matrix
from nematex.usecases.judging.matrix_view import Asked, grid_csv
from nematex.usecases.judging.overrides import latest
from nematex.usecases.judging.why_view import drop_rule, edges_of, rules_set, set_edge
from nematex.usecases.pattern.exchange import flat_pattern, patterns_json
from nematex.usecases.pattern.importing import import_patterns
from nematex.usecases.tasks.runners import runners

TABLES = trade_tables()


def grid_of_pages(page: Page, blocks: int) -> dict[tuple[str, str], str]:
    """(pattern, cloth) → the verdict that the matrix page says aloud."""
    found = {}
    for block in range(1, blocks + 1):
        page.goto(f"/matrix?cp={block}")
        for label in page.locator(".grid a.cell").evaluate_all("cells => cells.map(each => each.getAttribute('aria-label'))"):
            names, verdict = label.split(", by hand ")[0].rsplit(": ", 1)
            pattern, cloth = names.split(" in ", 1)
            found[pattern, cloth] = verdict
    return found


def test_single_column_and_page_agree_on_every_pairing_of_the_demo_shop(page: Page, site: Site) -> None:
    shelf, drawer = site.shop.now().shelf, site.shop.now().drawer
    singles = [columns([cloth], TABLES).single(0) for cloth in shelf.cloths]
    whole = matrix(shelf.columns, [partial(drawer.demand, each, Wish()) for each in drawer.records], TABLES)
    offered = shelf.columns.used_for("lining", "furnishing", "trim", "household")
    pages = grid_of_pages(page, 2)
    table = list(csv.reader(io.StringIO(grid_csv(site.shop, site.shop.now(), Asked()))))
    hands, compared = latest(site.shop), 0
    assert hands
    for line, record in enumerate(drawer.records):
        asked = drawer.demand(record, Wish())
        column = judge(shelf.columns, asked, TABLES).verdict
        row = next(each for each in table if each[0] == record.code)
        for at, cloth in enumerate(shelf.records):
            single = judge(singles[at], asked, TABLES).verdict_of(0)
            assert single == column[at] == whole.verdict[line, at], (record.facts.name, cloth.facts.name)
            if not offered[at]:
                assert pages[record.facts.name, cloth.facts.name] == single.word, (record.facts.name, cloth.facts.name)
                cell = row[table[0].index(f"{cloth.code} {cloth.facts.name}")]
                hand = hands.get((cloth.id, record.id))
                assert cell == (f"{single.word} (by hand {hand.verdict})" if hand else single.word)
                compared += 1
    assert compared == len(pages) == len(drawer.records) * int((~offered).sum())


def test_the_pairing_page_and_the_command_line_say_the_same(page: Page, site: Site) -> None:
    shelf, drawer = site.shop.now().shelf, site.shop.now().drawer
    fields = ("recommended", "avoid", "structure", "garment", "details", "parts", "options", "sizes", "requirements", "notions",
              "min_stretch_cross_pct", "min_stretch_length_pct", "lined", "nightwear", "for", "widest_piece_cm")  # fmt: skip
    for record, place in zip(drawer.records, range(0, 83, 4), strict=False):
        cloth = shelf.records[place]
        facts = cloth.facts
        given = {n: getattr(facts, n) for n in ("name", "cloth", "fibres", "structure", "weight_gsm", "width_cm", "hand",
                 "sheer", "bending_length_cm", "drape_coefficient_pct", "stretch_cross_pct", "stretch_length_pct",
                 "recovery_pct",
                 "thickness_mm", "nap", "shrink_length_pct",
                 "deadstock")}  # fmt: skip
        printed = {"direction": facts.print.direction, "scale_cm": facts.print.scale_cm}
        flat = flat_pattern(record)
        answer = assess_one(
            {"cloth": {**given, "known": dict(facts.known), "print": printed}, "pattern": {n: flat[n] for n in fields}}
        )
        page.goto(f"/pairing/one/{record.id}/{cloth.id}")
        assert page.locator(".verdict.large").inner_text().strip() == answer["verdict"], (record.facts.name, facts.name)


def _words_of(pattern: Pattern) -> str:
    details = [*pattern.details, pattern.garment, *(word for part in pattern.parts for word in part.details)]
    options = [word for option in pattern.options for word in (option.name, *option.details)]
    return key(" / ".join([pattern.recommended, pattern.avoid, *details, *options]))


def _named(words: str, pattern: Pattern) -> bool:
    """Whether words that an edge is said to come from stand on the envelope, or are one of its details or numbers."""
    said, _, read_as = words.partition(", read as ")
    if read_as:
        return key(said.removeprefix("the ")) in _words_of(pattern) and TABLES.details.find(read_as) is not None
    detail = TABLES.details.find(words.removeprefix("the "))
    if detail:
        aliases = {alias for alias, row in TABLES.details.by_key.items() if row is detail}
        implied = TABLES.garments.find_within(pattern.garment)
        sleeps = pattern.nightwear and detail.name == "sleepwear"
        return (
            any(alias in _words_of(pattern) for alias in aliases) or bool(implied and detail.name in implied.details) or sleeps
        )
    numbers = ("the widest piece", "the cloth table", "least stretch on the envelope", "size ")
    bare = key(words.removeprefix("not ").strip("“”"))
    return words.startswith(numbers) or all(word in _words_of(pattern) for word in bare.split())


@pytest.mark.parametrize("look", ["structured", "balanced", "flowing"])
def test_every_edge_can_be_traced_to_its_words(demo: Shop, look: str) -> None:
    drawer, shelf = demo.now().drawer, demo.now().shelf
    traced = 0
    for record in drawer.records:
        for part in (None, *(each.name for each in record.facts.parts)):
            asked = drawer.demand(record, Wish(look=look, part=part))
            edges = why(asked, TABLES)
            for edge in edges:
                assert _named(edge.origin.words, record.facts), (record.facts.name, edge)
                if edge.origin.table and edge.origin.value is not None:
                    assert shipped(TABLES, edge.origin.table, edge.origin.row, edge.origin.field) == edge.origin.value, edge
            shown = {(edge.window, edge.side, edge.value) for edge in edges}
            judged = judge(shelf.columns, asked, TABLES)
            for finding in (each for found in judged.findings.values() for each in found if each.window):
                assert _edges(finding) <= shown, (record.facts.name, finding.rule)
                traced += 1
    assert traced > 100


def _edges(finding: Finding) -> set[tuple[str, str, float]]:
    """The edges that a finding holds cloths against: those that can be crossed."""
    window = finding.window
    assert window is not None
    sides = {("low", window.low), ("high", window.high)}
    return {(window.name, side, value) for side, value in sides if value not in (0.0, float("inf"), float("-inf"))}


def test_a_large_shops_matrix_is_worked_out_by_the_worker(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(whole_matrix, "AT_ONCE", 10)
    monkeypatch.setattr(asking, "SOON_S", 0)
    app = tried_app(demo.database)
    client = app.test_client()
    asked: list[int] = []
    shop: Shop = app.extensions["shop"]
    shop.enqueue = lambda _kind, job_id: asked.append(job_id)
    assert "Holding every pattern against every cloth" in client.get("/matrix?view=left").text
    assert client.get("/matrix/state").get_json()["next"] is None
    assert len(asked) == 1  # what is asked already is not asked again
    worker = Shop(demo.database)
    run_job(demo.database, asked[0], runners(worker))
    judged_there, judged_here = whole_matrix.whole(shop, shop.now()), whole_matrix.whole(worker, worker.now())
    for mine, its in zip(judged_there._parts, judged_here._parts, strict=True):
        assert mine.dtype == its.dtype
        assert np.array_equal(mine, its)
    answer = client.get("/matrix/state?then=/matrix?view=left").get_json()
    assert answer["next"] == "/matrix?view=left"
    assert client.get("/matrix/state?then=//elsewhere").get_json()["next"] == "/matrix"
    assert "Cloths that nothing suits" in client.get("/matrix?view=left").text
    assert "Holding every pattern" not in client.get("/quality").text


def test_corrections_outlive_an_import_and_cannot_turn_a_range_about(demo: Shop) -> None:
    record = next(each for each in demo.now().drawer.records if each.code == "TP-21")
    given = {"window": "weight list woven", "side": "high", "value": "180", "reason": "two lengths in stock are heavier"}
    set_edge(demo, demo.now(), record, Wish(), given)
    text = patterns_json([record])  # as it was before the correction
    import_patterns(demo, "again.json", text.encode())
    after = next(each for each in demo.now().drawer.records if each.code == "TP-21")
    assert [fix.value for fix in after.facts.edge_fixes] == [180]
    with pytest.raises(FieldFault, match="before it begins"):
        set_edge(demo, demo.now(), after, Wish(), {**given, "side": "low", "value": "190"})

    for side, value in (("high", "400"), ("low", "300")):
        set_edge(demo, demo.now(), record, Wish(), {**given, "scope": "rule", "side": side, "value": value})
    first, second = rules_set(demo)
    with pytest.raises(FieldFault, match="would end before it begins"):
        drop_rule(demo, first.id)  # 300 to 150
    drop_rule(demo, second.id)
    drop_rule(demo, first.id)
    assert rules_set(demo) == []
    assert demo.now().drawer.tables is TABLES


def test_a_rule_set_here_moves_shelf_and_drawer_together(demo: Shop) -> None:
    record = next(each for each in demo.now().drawer.records if each.code == "BR-42")
    edges = [row for rows in edges_of(demo.now().drawer, record, Wish(), trade_tables()).values() for row in rows]
    cloth = next(row for row in edges if row.edge.origin.table == "cloth names" and row.rule)
    given = {"window": cloth.edge.window, "side": cloth.edge.side, "value": str(cloth.rule * 1.2 if cloth.rule else 0),
             "reason": "ours run heavier", "scope": "rule"}  # fmt: skip
    assert set_edge(demo, demo.now(), record, Wish(), given) is not None
    name = cloth.edge.origin.row
    assert demo.now().drawer.tables is demo.now().shelf.tables
    assert demo.now().drawer.tables.lexicon.get(name) != TABLES.lexicon.get(name)


def test_the_amounts_of_a_whole_shelf_are_those_of_each_cloth(demo: Shop) -> None:
    """By columns and one by one, also with prints that are not followed, other steps of the cut and changes to the pattern."""
    state = demo.now()
    changed = [
        replace(
            cloth,
            follow_print=(None, True, False)[at % 3],
            cut_step_cm=(None, 11.43, 5.0)[at % 3 - 1],
            least_cut_cm=(None, 20.0)[at % 2],
        )
        for at, cloth in enumerate(state.shelf.cloths)
    ]
    hacked = Wish(hacks=("lengthen(by_cm=12)", "tier(around_cm=200)", "flounce(depth_cm=60,fullness=1.3)", "no sleeve"))
    compared = 0
    for pattern in state.drawer.records:
        for cloths, wish in ((state.shelf.cloths, Wish()), (changed, hacked)):
            found = lengths_m(columns(cloths, TABLES), pattern.facts, wish, TABLES)
            single = [amount(cloth, pattern.facts, wish, TABLES) for cloth in cloths]
            if found is None:
                assert not any(single)
                continue
            assert found == pytest.approx([each.length_m for each in single if each])
            compared += len(cloths)
    assert compared > 3000
