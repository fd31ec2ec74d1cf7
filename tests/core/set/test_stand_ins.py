"""Stand-ins: distances worked by hand from the steps that stand in the table (common practice, no source)."""

from __future__ import annotations

from math import log, sqrt

import numpy as np
import pytest

from nematex.core.cloth.columns import ClothColumns, columns
from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.set.stand_ins import differs, distances, nearest, steps
from nematex.tables import trade_tables

TABLES = trade_tables()
RULE = TABLES.judging.stand_in
COUNTS = RULE.counts


def shelf(*cloths: dict[str, object]) -> ClothColumns:
    usual = {"width_cm": 140.0, "sheer": "opaque", "bending_length_cm": 1.6, "stretch_cross_pct": 2.0}
    return columns([known_cloth(ClothFacts(**(usual | each)), TABLES) for each in cloths], TABLES)  # type: ignore[arg-type]


def test_a_distance_by_hand() -> None:
    found = shelf(
        {"cloth": "viscose challis", "weight_gsm": 120.0},
        {"cloth": "viscose challis", "weight_gsm": 138.0},  # 1.15 times as heavy: one step
        {"cloth": "viscose challis", "weight_gsm": 120.0, "bending_length_cm": 2.2},  # two steps of 0.3 cm
        {"cloth": "jersey", "weight_gsm": 120.0},
    )
    off = np.zeros(4)
    said = distances(found, 0, steps(found, 0, off, RULE), RULE)
    assert said[0] == np.inf  # itself
    assert said[1] == pytest.approx(sqrt(COUNTS["weight"] * (log(138 / 120) / log(RULE.weight_times)) ** 2))
    assert said[2] == pytest.approx(sqrt(COUNTS["drape"] * 4))
    assert said[3] == np.inf  # a knit never stands in for a woven
    assert nearest(said, np.ones(4, dtype=np.bool_), 3) == [1, 2]
    assert nearest(said, np.array([True, False, True, True]), 3) == [2]
    assert differs(steps(found, 0, off, RULE), 2) == [("drape", pytest.approx(2))]


def test_cloths_that_suit_other_patterns_are_further_apart() -> None:
    found = shelf(*[{"cloth": "viscose challis", "weight_gsm": 120.0}] * 3)
    verdicts = np.array([[0, 0, 3], [0, 0, 3], [3, 3, 0], [0, 3, 0]], dtype=np.int8)
    said = distances(found, 0, steps(found, 0, np.zeros(3), RULE), RULE, verdicts)
    assert said[1] == pytest.approx(RULE.disagreement / 4)  # one pattern of four
    assert said[2] == pytest.approx(RULE.disagreement * 3 / 4)


def test_a_colour_counts_and_one_that_is_not_known_counts_as_a_step() -> None:
    found = shelf(*[{"cloth": "viscose challis", "weight_gsm": 120.0}] * 3)
    said = distances(found, 0, steps(found, 0, np.array([0.0, 24.0, np.nan]), RULE), RULE)
    assert said[1:] == pytest.approx([sqrt(COUNTS["colour"] * (24 / RULE.colour_off) ** 2), sqrt(COUNTS["colour"])])
