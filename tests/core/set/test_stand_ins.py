"""Stand-ins: distances worked by hand from the steps that stand in the table (common practice, no source)."""

from __future__ import annotations

from math import log, sqrt

import numpy as np
import pytest

from nematex.core.cloth.columns import ClothColumns, columns
from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.cloth.likeness import distances, steps
from nematex.core.quantity.arrays import Floats
from nematex.core.set.stand_ins import differs, in_use, nearest
from nematex.tables import trade_tables

TABLES = trade_tables()
RULE = TABLES.judging.likeness
COUNTS = RULE.counts


def shelf(*cloths: dict[str, object]) -> ClothColumns:
    usual = {"width_cm": 140.0, "sheer": "opaque", "bending_length_cm": 1.6, "stretch_cross_pct": 2.0}
    return columns([known_cloth(ClothFacts(**(usual | each)), TABLES) for each in cloths], TABLES)  # type: ignore[arg-type]


def how_like(found: ClothColumns, colour_off: Floats) -> Floats:
    return distances(found, 0, steps(found, 0, colour_off, RULE), TABLES)


def test_a_distance_by_hand() -> None:
    found = shelf(
        {"cloth": "viscose challis", "weight_gsm": 120.0},
        {"cloth": "viscose challis", "weight_gsm": 144.0},  # 184 to 160 of what is compared: 1.15 times, one step
        {"cloth": "viscose challis", "weight_gsm": 120.0, "bending_length_cm": 2.2},  # two steps of 0.3 cm
        {"cloth": "jersey", "weight_gsm": 120.0},
    )
    off = np.zeros(4)
    said = how_like(found, off)
    assert said[0] == np.inf  # itself
    one = log((144 + RULE.weight_from_gsm) / (120 + RULE.weight_from_gsm)) / log(RULE.weight_times)
    assert said[1] == pytest.approx(RULE.measured * sqrt(COUNTS["weight"] * one**2))
    assert said[2] == pytest.approx(RULE.measured * sqrt(COUNTS["drape"] * 4))
    assert said[3] == np.inf  # a knit never stands in for a woven
    assert nearest(said, np.ones(4, dtype=np.bool_), 3) == [1, 2]
    assert nearest(said, np.array([True, False, True, True]), 3) == [2]
    assert differs(steps(found, 0, off, RULE), 2) == [("drape", pytest.approx(2))]


def test_what_they_are_counts_beside_what_they_measure() -> None:
    found = shelf(*({"cloth": name, "weight_gsm": 120.0} for name in ("viscose challis", "viscose lawn", "crepe de chine")))
    said = how_like(found, np.zeros(3))
    kinds = RULE.kinds
    challis, lawn = (set(TABLES.lexicon.get(name).end_uses) for name in ("viscose challis", "viscose lawn"))
    assert said[1] == pytest.approx(kinds.another + kinds.use * (1 - len(challis & lawn) / len(challis | lawn)))
    assert said[2] > said[1] + kinds.family  # another make and surface, and of silk


def test_cloths_that_suit_other_patterns_are_further_apart() -> None:
    found = shelf(*[{"cloth": "viscose challis", "weight_gsm": 120.0}] * 3)
    label = TABLES.judging.stand_in.unlabelled  # of none of them the fibre is known
    verdicts = np.array([[0, 0, 3], [0, 0, 3], [3, 3, 0], [0, 3, 0]], dtype=np.int8)
    said = in_use(found, 0, how_like(found, np.zeros(3)), verdicts, TABLES)
    counts = TABLES.judging.stand_in.disagreement
    assert said[1] == pytest.approx(label + counts / 4)  # one pattern of four
    assert said[2] == pytest.approx(label + counts * 3 / 4)


def test_a_colour_counts_and_one_that_is_not_known_counts_as_a_step() -> None:
    found = shelf(*[{"cloth": "viscose challis", "weight_gsm": 120.0}] * 3)
    said = how_like(found, np.array([0.0, 24.0, np.nan]))
    steps_off = [RULE.measured * sqrt(COUNTS["colour"] * (24 / RULE.colour_off) ** 2), RULE.measured * sqrt(COUNTS["colour"])]
    assert said[1:] == pytest.approx(steps_off)


def test_kinds_are_as_far_apart_either_way_and_a_kind_is_nearest_to_itself() -> None:
    apart = TABLES.apart[:-1, :-1]
    assert (apart == apart.T).all()
    assert (np.diag(apart) == 0).all()
    assert (apart[~np.eye(len(apart), dtype=np.bool_)] >= RULE.kinds.another).all()


def test_kinds_without_a_use_in_common_are_no_answer_and_what_is_not_known_is_a_poor_one() -> None:
    index = TABLES.lexicon.index
    assert TABLES.apart[index["swim jersey"], index["viscose jersey"]] == np.inf
    assert (TABLES.apart[:-1, -1] == RULE.kinds.unknown).all()
    assert (TABLES.apart[-1] == 0).all()  # nothing is known of what is asked for: anything may be like it
