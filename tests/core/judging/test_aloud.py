"""What is said to a viewer: plain, of every case, and never twice down a list. Common practice, no source."""

from __future__ import annotations

import re
from typing import Any

import pytest
from judged_fourth_round import FOURTH_ROUND
from judged_second_round import SECOND_ROUND

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.judging.demand import demand
from nematex.core.judging.judge import gravest_first
from nematex.core.judging.pairing import Pairing, pair
from nematex.core.judging.saying.aloud import each_its_own
from nematex.core.judging.saying.cases import CASES
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.quantity.said import Units
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import parse
from nematex.usecases.assess.schema import PairingIn

TABLES = trade_tables()
JARGON = re.compile(r"g/m|oz/|bend|window|edge:|typical|stated|measured|judged|\{|asks \d|%|None|The list")


def _pairing(cloth: ClothFacts, pattern: Pattern, units: Units = Units.METRIC) -> Pairing:
    return pair(known_cloth(cloth, TABLES), demand(pattern, Wish(), TABLES), TABLES, units)


def _judged() -> list[tuple[dict[str, Any], dict[str, Any]]]:
    return [(row[0], row[1]) for row in (*SECOND_ROUND, *FOURTH_ROUND)]


@pytest.mark.parametrize("units", Units)
def test_every_judged_pairing_is_said_in_plain_words(units: Units) -> None:
    for cloth, rest in _judged():
        known, asked = parse(PairingIn.model_validate({"cloth": cloth, **rest}), TABLES)
        said = pair(known, asked, TABLES, units).spoken
        assert said, (cloth, rest)
        for one in said:
            assert not JARGON.search(one), one
            assert one[0].isupper() or one[0].isdigit(), one
            assert one.endswith("."), one
            assert len(one) <= 200, one


def test_every_case_that_is_found_has_its_words_aloud() -> None:
    cases = TABLES.sayings.cases
    rooms = {room for room, _ in CASES.values()}
    fine = {"suits", "named", "like", "unasked", "woven_free", "woven_named"}
    missing = [
        (room, case)
        for room in rooms
        for case in cases[room]
        if case not in fine and case not in cases.get(f"aloud_{room}", {})
    ]
    assert missing == []


def test_a_list_says_nothing_twice() -> None:
    pattern = Pattern(garment="skirt", structure="woven", details=("tiers",), recommended="challis, lawn, double gauze, crepe")
    kinds = [kind.name for kind in TABLES.lexicon.types if kind.structure == "woven"]
    spoken = [(name, _pairing(ClothFacts(cloth=name), pattern).spoken) for name in kinds]
    found = each_its_own(spoken)
    assert len(set(found)) == len(found) == len(kinds)
    assert len({one.split(";")[0] for one in found[:40]}) > 8  # by what decides, and not by their names alone


def test_what_a_viewer_hears_follows_the_facts_and_the_shops_units() -> None:
    pattern = Pattern(garment="skirt", structure="woven", details=("tiers",), recommended="challis, lawn")
    facts = ClothFacts(cloth="viscose challis", weight_gsm=110, shrink_length_pct=7.0, sheer="opaque")
    metric, imperial = (_pairing(facts, pattern, units).sentence for units in (Units.METRIC, Units.IMPERIAL))
    assert metric == "Light enough to gather without bulk; not see-through; wash it first, it gives up 7 cm in a metre."
    assert imperial.endswith("it gives up 2½ inches in a yard.")  # 7 % of 36 in is 2.52 in
    voile = ClothFacts(cloth="cotton voile", sheer="semi-sheer", print=Print(direction="one-way"))
    shows = _pairing(voile, Pattern(garment="blouse", structure="woven", recommended="voile", lined=True)).sentence
    assert "it shows, and the lining takes care of that" in shows
    assert "the print runs one way" in shows


def test_what_stands_in_the_way_is_said_of_what_asked_for_it() -> None:
    heavy = _pairing(ClothFacts(cloth="heavy denim"), Pattern(garment="skirt", structure="woven", details=("tiers",)))
    assert heavy.sentence == "Too heavy for the tiers."
    stiff = _pairing(ClothFacts(cloth="canvas", weight_gsm=120), Pattern(structure="woven", recommended="viscose challis"))
    assert stiff.sentence.startswith("Too stiff")


def test_nothing_is_praised_for_what_only_the_list_forgives() -> None:
    # Named, so they suit; but a voile is not crisp and a viscose twill holds no sharp press.
    shirt = Pattern(garment="blouse", structure="woven", recommended="cotton voile, lawn", details=("button band",))
    said = _pairing(ClothFacts(cloth="cotton voile", sheer="opaque"), shirt).spoken
    assert not any("Crisp enough" in one for one in said)
    pleats = Pattern(garment="trousers", structure="woven", recommended="viscose twill, linen", details=("pleats",))
    assert not any("holds a press" in one for one in _pairing(ClothFacts(cloth="viscose twill"), pleats).spoken)
    assert any("holds a press" in one for one in _pairing(ClothFacts(cloth="linen"), pleats).spoken)


@pytest.mark.parametrize("cloth", [kind.name for kind in TABLES.lexicon.types if kind.structure == "woven"])
def test_what_cannot_be_got_into_is_refused_for_that(cloth: str) -> None:
    """A woven on a close pattern for knits: its weight or its drape is no matter. Common practice, no source."""
    pattern = Pattern(garment="tee", structure="knit", recommended="cotton jersey with 30 % stretch")
    found = pair(known_cloth(ClothFacts(cloth=cloth), TABLES), demand(pattern, Wish(), TABLES), TABLES)
    if found.checks["stretch"].verdict is Verdict.AGAINST:
        assert gravest_first(found.checks)[0][0] == "stretch"
        assert "stretch" in found.sentence or "give" in found.sentence
    assert found.verdict is not Verdict.SUITS
