"""Verdicts by hand beside the rules': kept, counted, and turned into a number to look at. Common practice, no source."""

from __future__ import annotations

from dataclasses import replace

import pytest
from conftest import empty
from sqlalchemy import text

from nematex.command.mariadb import LocalMariaDB
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.pattern.facts import Wish
from nematex.store.database import Database
from nematex.store.judging.overrides import bin_override, overrides_of
from nematex.store.programme.programmes import add_pick, programme, save_programme
from nematex.store.records import Pick
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.overrides import counted, decide, disagreements, latest
from nematex.usecases.judging.ranking import one_pairing
from nematex.usecases.programme.notes import entries


def say(shop: Shop, pattern_code: str, cloth_code: str, verdict: str, reason: str = "tried it", **more: str) -> None:
    shelf, drawer = shop.now().shelf, shop.now().drawer
    pattern = next(record for record in drawer.records if record.code == pattern_code)
    at = next(at for at, record in enumerate(shelf.records) if record.code == cloth_code)
    pairing = one_pairing(shop, shop.now(), pattern, shelf.cloths[at], Wish())
    decide(shop, pattern, shelf.records[at], pairing, {"verdict": verdict, "reason": reason, **more})


def clear(shop: Shop) -> None:
    with shop.database.work() as work:
        for said in overrides_of(work):
            bin_override(work, said.id)


def test_a_verdict_by_hand_is_kept_with_what_the_rules_said_then(demo: Shop) -> None:
    clear(demo)
    say(demo, "TP-21", "OW-204", "suits", "  gathers   without a lump ", by="presenter", made="1")
    with demo.database.work() as work:
        (said,) = overrides_of(work)
        assert len(overrides_of(work)) == 1
    assert (said.verdict, said.reason, said.by_whom, said.made) == ("suits", "gathers without a lump", "presenter", True)
    assert said.rules != "suits"
    assert said.check in ("weight", "drape", "fibre")
    assert counted(demo) == {"all": 1, "agree": 0, "made up": 1}
    assert latest(demo, pattern_id=said.pattern_id) == {(said.cloth_id, said.pattern_id): said}
    say(demo, "TP-21", "OW-204", "against", "the second one sagged")
    assert latest(demo)[said.cloth_id, said.pattern_id].verdict == "against"  # the latest counts, the first is kept
    assert counted(demo)["all"] == 2


@pytest.mark.parametrize(
    ("given", "field"),
    [({"verdict": "lovely"}, "your verdict"), ({"verdict": "suits", "reason": "  "}, "reason"),
     ({"verdict": "suits", "reason": "x" * 601}, "reason")],
)  # fmt: skip
def test_what_cannot_be_kept_is_said(demo: Shop, given: dict[str, str], field: str) -> None:
    with pytest.raises(FieldFault) as fault:
        say(demo, "TP-21", "OW-204", **given)
    assert fault.value.field == field
    if field == "your verdict":
        assert isinstance(fault.value, UnknownChoice)


def test_cases_are_gathered_under_the_number_that_decided(demo: Shop) -> None:
    clear(demo)
    # Three cloths heavier than "light" for one skirt, each found right when it was made up.
    shelf, drawer = demo.now().shelf, demo.now().drawer
    skirt = next(record for record in drawer.records if record.code == "TP-21")
    heavy = []
    for at, record in enumerate(shelf.records):
        answer = one_pairing(demo, demo.now(), skirt, shelf.cloths[at], Wish())
        check = answer.checks["weight"]
        worst = max(answer.checks.values(), key=lambda each: each.verdict)
        if (
            worst is check
            and check.decided.finding.window
            and check.decided.finding.window.name == "weight list woven"
            and check.verdict.value
        ):
            heavy.append((shelf.cloths[at].weight.best, record.code))
    chosen = sorted(heavy)[:3]
    assert len(chosen) == 3
    for _, code in chosen:
        say(demo, "TP-21", code, "suits", "fine in the made-up skirt", made="1")
    (found,) = disagreements(demo, demo.now())
    assert (found.check, found.side, found.milder, found.stricter) == ("weight", "high", 3, 0)
    assert found.origin is not None
    assert (found.origin.table, found.origin.row) == ("weight words", "light (woven)")
    # Of three values the third quarter is the second: what it would have to reach for most of them.
    reach = sorted(weight for weight, _ in chosen)[1]
    assert f"three in four of these would agree with up to {reach:.3g} g/m²" in found.proposal
    assert "it is 150 g/m²" in found.proposal
    assert [case.edge for case in found.cases] == [150.0] * 3


def test_hands_that_are_stricter_ask_whether_a_rule_lets_in_too_much(demo: Shop) -> None:
    clear(demo)
    say(demo, "OR-13", "SK-504", "against", "gaped")
    say(demo, "OR-12", "GM-102", one_verdict(demo, "OR-12", "GM-102"), "as the rules say")
    (found,) = disagreements(demo, demo.now())
    assert found.stricter == 1
    assert "lets in too much" in found.proposal
    assert counted(demo)["agree"] == 1


def one_verdict(shop: Shop, pattern_code: str, cloth_code: str) -> str:
    shelf, drawer = shop.now().shelf, shop.now().drawer
    pattern = next(record for record in drawer.records if record.code == pattern_code)
    at = next(at for at, record in enumerate(shelf.records) if record.code == cloth_code)
    return one_pairing(shop, shop.now(), pattern, shelf.cloths[at], Wish()).verdict.word


def test_mixed_options_go_into_the_programme_and_its_notes(demo: Shop) -> None:
    shelf, drawer = demo.now().shelf, demo.now().drawer
    dress = next(record for record in drawer.records if record.code == "OR-12")
    cloth = next(record for record in shelf.records if record.code == "LF-301")
    with demo.database.work() as work:
        number = save_programme(work, "Mixed", None, "")
        for options in (("long sleeve",), None, ()):
            add_pick(work, number, Pick(0, cloth.id, dress.id, options=options))
            work.flush()
        kept = programme(work, number)
    assert kept is not None
    assert [pick.options for pick in kept.picks] == [("long sleeve",), None, ()]
    mixed, drawn, bare = entries(demo, demo.now(), kept)
    assert mixed.made_with == "with long sleeve; without ties"
    assert drawn.made_with == ""
    assert bare.made_with == "without long sleeve, ties"
    assert mixed.pairing is not None
    assert not any(detail.name == "ties" for detail in mixed.pairing.demand.made.details)
    pyjamas = next(record for record in drawer.records if record.code == "PR-31")
    with demo.database.work() as work:
        add_pick(work, number, Pick(0, cloth.id, pyjamas.id, view="A long"))
        again = programme(work, number)
    assert again is not None
    assert entries(demo, demo.now(), again)[-1].notions == ("1 m elastic 25 mm", "5 buttons 12 mm")
    assert replace(kept, picks=()) == replace(again, picks=())


def test_a_shop_of_the_version_before_keeps_its_patterns_and_picks(mariadb: LocalMariaDB) -> None:
    database = Database(mariadb.url)
    empty(database)
    database.migrate("0002")
    with database.engine.begin() as connection:
        connection.execute(
            text(
                "insert into pattern (code, name, house, garment, structure, recommended, avoid, details, parts, lined, "
                "nightwear, wearer, requirements, sizes, difficulty, season, notions, notes) values ('A-1', 'Old shift', 'H', "
                "'dress', 'woven', 'linen or crepe', '', '[]', '[]', 0, 0, 'adult', "
                '\'[{"view": "A", "sizes": ["8"], "width_cm": 150, "length_m": 2.0, "with_nap": false}]\', '
                "'[{\"label\": \"8\", \"bust_cm\": 84, \"waist_cm\": null, \"hip_cm\": 90}]', 'easy', '', '1 zip 40 cm', '')"
            )
        )
    database.migrate()
    (record,) = Shop(database).now().drawer.records
    assert (record.facts.notions, record.sold_as, record.facts.options) == ("1 zip 40 cm", "", ())
    assert record.facts.requirements[0].use == "main"
    assert record.facts.sizes[0].finished_bust_cm is None
    database.close()
