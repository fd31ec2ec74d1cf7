"""The rules' numbers and sayings are checked when they are read: a misspelt key is a fault at the start that names it."""

from __future__ import annotations

import copy
import string
import tomllib
from importlib.resources import files
from typing import Any

import pytest

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.errors import TableFault
from nematex.core.judging.checks.finding import Asker, Rule
from nematex.core.judging.combination import Joint, PartCloth
from nematex.core.judging.saying.blanks import BLANKS
from nematex.core.judging.saying.cases import CASES
from nematex.core.judging.saying.joint import blanks_of
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.said import Units
from nematex.core.rules import read_rules
from nematex.core.sayings import read_sayings
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import cloth_facts, pattern_facts
from nematex.usecases.assess.schema import ClothIn, PatternIn

RAW = tomllib.loads(files("nematex.data").joinpath("judging.toml").read_text())
WORDS = tomllib.loads(files("nematex.data").joinpath("sayings/en.toml").read_text())


def changed(section: str, key: str, value: object) -> dict[str, Any]:
    raw = copy.deepcopy(RAW)
    raw[section][key] = value
    return raw


@pytest.mark.parametrize(
    ("raw", "named"),
    [
        (changed("tolerance", "wieght", 0.1), "tolerance: wieght"),
        ({name: rows for name, rows in RAW.items() if name != "score"}, "score"),
        ({**RAW, "shares": {"suits": 0.7, "care": 0.75}}, "shares: against"),
        (changed("tolerance", "weight", "much"), "must be a number"),
        (changed("tolerance", "weight", True), "must be a number"),
        (changed("fibre", "comfort_stretch_pct", [25, 8]), "the lower first"),
        (changed("sizing", "drafted_cup", 1.5), "whole number"),
        (changed("cautions", "sheds", "faux fur"), "must be a list"),
        ({**RAW, "look": 3}, "must be a section"),
    ],
)
def test_a_table_that_is_not_sound_is_named(raw: dict[str, Any], named: str) -> None:
    with pytest.raises(TableFault, match=named):
        read_rules(raw)


def test_every_rule_has_its_cases_and_every_blank_is_known() -> None:
    sayings = read_sayings(WORDS, "en")
    assert set(CASES) == set(Rule)
    between = {room for room in sayings.cases if room.startswith("between_")}
    assert {room for room, _ in CASES.values()} | {"lining", "receipt"} == set(sayings.cases) - between
    side = PartCloth("body", "close", known_cloth(ClothFacts(cloth="cotton lawn"), trade_tables()))
    of_two = set(blanks_of(Joint("weight", ("body", "yoke"), Verdict.SUITS, "close", side, side), "", Units.METRIC))
    assert {asker.value for asker in Asker} == set(sayings.askers)
    for room, cases in sayings.cases.items():
        for case, saying in cases.items():
            if room in ("lining", "receipt"):
                continue  # filled where they are said: tests/core/beneath, tests/core/amount
            for text in (saying.reason, saying.remedy):
                blanks = {name for _, name, _, _ in string.Formatter().parse(text) if name}
                assert blanks <= (of_two if room in between else set(BLANKS)), (room, case)


def test_no_number_of_the_rules_is_typed_into_a_sentence() -> None:
    """What is left are the lengths of a measurement, not limits: 10 × 10 cm, a mark of 10 cm, a turn by 90°."""
    allowed = {"10", "100", "90"}
    for cases in read_sayings(WORDS, "en").cases.values():
        for saying in cases.values():
            for text in (saying.reason, saying.remedy):
                words = "".join(letter if letter.isdigit() else " " for letter in text).split()
                assert set(words) <= allowed, text


def test_reasons_are_said_in_the_units_that_lead() -> None:
    # 1 oz/yd² = 33.906 g/m² and 1 in = 2.54 cm, exactly.
    from nematex.core.judging.demand import demand
    from nematex.core.judging.pairing import pair
    from nematex.core.pattern.facts import Wish

    tables = trade_tables()
    cloth = known_cloth(cloth_facts(ClothIn(cloth="cotton lawn", weight_gsm=67.812, bending_length_cm=2.54)), tables)  # type: ignore[call-arg]
    pattern = pattern_facts(PatternIn(structure="woven", recommended="fabrics of 101.718 to 135.624 gsm"), tables)
    asked = demand(pattern, Wish(), tables)
    imperial = pair(cloth, asked, tables, Units.IMPERIAL).checks
    assert "2.0 oz/yd² (stated)" in imperial["weight"].reason
    assert "3.0 to 4.0 oz/yd²" in imperial["weight"].reason
    assert "1.00 in (measured)" in imperial["drape"].reason
    metric = pair(cloth, asked, tables).checks
    assert "68 g/m² (stated)" in metric["weight"].reason
    assert (metric["weight"].margin, metric["weight"].verdict) == (imperial["weight"].margin, imperial["weight"].verdict)
