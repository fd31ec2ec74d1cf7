"""Corrections of rules and readings, and what every edge names as its origin.

A correction's effect is arithmetic on the tables; common practice, no source, for what a list leaves between its cloths.
"""

from __future__ import annotations

import re

import numpy as np
import pytest

from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.errors import FieldFault
from nematex.core.judging.corrected import Correction, corrected, shipped
from nematex.core.judging.demand import demand
from nematex.core.judging.judge import judge
from nematex.core.judging.matrix import matrix
from nematex.core.judging.verdict import Verdict
from nematex.core.judging.why import Edge, why
from nematex.core.pattern.facts import EdgeFix, Pattern, ReadingFix, Requirement, Wish
from nematex.core.pattern.interpretation_fixes import waits
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import assess_one

TABLES = trade_tables()


LIST = Pattern(
    name="made up", structure="woven", recommended="Medium weight wovens such as linen or crepe", details=("gathers",)
)


def test_an_edge_set_for_a_pattern_takes_the_place_of_what_was_read() -> None:
    before = demand(LIST, Wish(), TABLES).weight["woven"]
    fixed = Pattern(**{**LIST.__dict__, "edge_fixes": (EdgeFix("weight list woven", "high", 180, "too thick for us"),)})
    after = demand(fixed, Wish(), TABLES)
    assert (after.weight["woven"].low, after.weight["woven"].high) == (before.low, 180)
    edge = next(each for each in why(after, TABLES) if (each.window, each.side) == ("weight list woven", "high"))
    assert edge.read == before.high
    assert edge.origin.words == "set by hand: too thick for us"


def test_a_rules_number_moves_every_pattern_that_rests_on_it() -> None:
    row = "medium (woven)", "pattern_hi_gsm"
    now = shipped(TABLES, "weight words", *row)
    assert now == 275
    changed = corrected(TABLES, [Correction("weight words", *row, 300.0)])
    assert demand(LIST, Wish(), changed).weight["woven"].high == 300
    assert demand(LIST, Wish(), TABLES).weight["woven"].high == 275
    assert shipped(changed, "weight words", *row) == 300
    for table, name, field, value in (
        ("details", "gathers", "thick_hi_mm", 0.4), ("cloth names", "linen", "bend_hi_cm", 4.0),
        ("hand words", "crisp", "bend_lo_cm", 2.0), ("judging", "width", "selvedge_loss_cm", 3.0),
    ):  # fmt: skip
        assert shipped(corrected(TABLES, [Correction(table, name, field, value)]), table, name, field) == value
    assert corrected(TABLES, [Correction("weight words", "feather (woven)", "pattern_hi_gsm", 1)]) is TABLES
    with pytest.raises(FieldFault, match="would end before it begins"):
        corrected(TABLES, [Correction("weight words", *row, 10.0)])


def test_words_mean_what_the_shop_says_and_wait_when_they_are_gone() -> None:
    fix = ReadingFix("crepe", ("wool crepe",), "a winter house")
    read = demand(Pattern(**{**LIST.__dict__, "reading_fixes": (fix,)}), Wish(), TABLES)
    assert next(item.types for item in read.interpretation.cloths if item.words == "crepe") == ("wool crepe",)
    moon = {"structure": "woven", "recommended": "moonweave or linen"}
    assert demand(Pattern(**moon), Wish(), TABLES).unread == ("moonweave",)
    known = demand(Pattern(**moon, reading_fixes=(ReadingFix("moonweave", ("linen light",), "x"),)), Wish(), TABLES)
    assert known.unread == ()
    assert ("linen light",) in [item.types for item in known.interpretation.cloths]
    nothing = demand(Pattern(**{**LIST.__dict__, "reading_fixes": (ReadingFix("crepe", (), "a slip"),)}), Wish(), TABLES)
    assert [item.words for item in nothing.interpretation.cloths] == ["linen"]
    assert not waits(fix, "linen, crepe")
    assert waits(fix, "linen, crepes de luxe are gone".replace("crepes", "silks"))


def test_a_cloth_between_chiffon_and_denim_is_like_neither() -> None:
    wide = {"structure": "woven", "recommended": "chiffon or denim"}
    soft = assess_one({"cloth": {"cloth": "textured crepe", "weight_gsm": 210, "bending_length_cm": 1.3}, "pattern": wide})
    assert soft["verdict"] == "with care"
    assert re.search("Like none of the cloths named: 210 g/m² bending at 1.3 cm", soft["checks"]["fibre"]["reason"])
    assert assess_one({"cloth": {"cloth": "denim", "weight_gsm": 350}, "pattern": wide})["verdict"] == "suits"


def _edges() -> list[Edge]:
    """The edges that every detail, every weight and hand word, cloths, widths and stretch set in some pattern."""
    patterns = [
        Pattern(structure=structure, details=(detail.name,), recommended="lawn" if structure == "woven" else "cotton jersey")
        for detail in TABLES.details.rows
        for structure in ("woven", "knit")
    ]
    patterns += [Pattern(structure="either", recommended=f"{word.word} fabrics") for word in TABLES.weight_words]
    patterns += [Pattern(structure="woven", recommended=f"{word} wovens") for word in TABLES.pattern_hands]
    patterns += [Pattern(structure="woven", recommended="linen", avoid=f"{word} fabrics") for word in TABLES.avoid_hands]
    patterns += [Pattern(structure="woven", recommended="linen", avoid=f"{w.word} fabrics") for w in TABLES.weight_words]
    patterns.append(Pattern(structure="knit", recommended="ponte, scuba", widest_piece_cm=120.0))
    table = (Requirement("A", (), 140, 2.0), Requirement("A", (), 115, 2.6))
    patterns.append(Pattern(structure="woven", recommended="linen", requirements=table))
    return [
        edge
        for look in ("flowing", "structured")
        for one in patterns
        for edge in why(demand(one, Wish(look=look), TABLES), TABLES)
    ]


def test_every_edge_names_the_number_that_it_was_read_from() -> None:
    edges = _edges()
    places = {(edge.origin.table, edge.origin.row, edge.origin.field) for edge in edges if edge.origin.value is not None}
    assert {table for table, _, _ in places} == {
        "cloth names", "weight words", "hand words", "hand words ruled out", "details", "judging"
    }  # fmt: skip
    for edge in edges:
        assert edge.window
        assert edge.origin.words
        if edge.origin.value is not None:
            assert shipped(TABLES, edge.origin.table, edge.origin.row, edge.origin.field) == edge.origin.value, edge
    told = {field for table, _, field in places if table == "details"}
    asked = {
        "weight_lo_gsm",
        "weight_hi_gsm",
        "knit_weight_hi_gsm",
        "thick_hi_mm",
        "bend_lo_cm",
        "bend_hi_cm",
        "stretch_lo_pct",
    }
    assert asked | {"flowing_bend_lo_cm", "width_lo_cm"} <= told
    assert {field for table, _, field in places if table == "judging"} >= {"selvedge_loss_cm", "class_slack_cm"}


def test_a_correction_stands_where_it_says_and_nowhere_else() -> None:
    places = sorted({(e.origin.table, e.origin.row, e.origin.field) for e in _edges() if e.origin.value is not None})
    for place in places[::9]:
        was = shipped(TABLES, *place)
        assert was is not None
        moved = was * (1.02 if "_hi_" in place[2] else 0.98)
        tables = corrected(TABLES, [Correction(*place, moved)])
        assert shipped(tables, *place) == moved
        others = [other for other in places if other != place]
        changed = [other for other in others if shipped(tables, *other) != shipped(TABLES, *other)]
        assert [other for other in changed if other[1:] != place[1:]] == [], place


@pytest.mark.parametrize(
    "place",
    [("nowhere", "linen", "weight_lo_gsm"), ("cloth names", "moonweave", "weight_lo_gsm"), ("details", "gathers", "why")],
)
def test_a_correction_of_no_known_place_changes_nothing(place: tuple[str, str, str]) -> None:
    assert shipped(TABLES, *place) is None
    assert corrected(TABLES, [Correction(*place, 1.0)]) is TABLES


KINDS = ("cotton lawn", "denim", "cotton jersey", "velvet", "chiffon", "ponte", "linen", "wool coating")


def test_the_matrix_is_every_judgement_and_finds_the_best_and_the_left_out() -> None:
    cloths = columns([known_cloth(ClothFacts(cloth=name), TABLES) for name in KINDS], TABLES)
    patterns = [
        Pattern(structure="woven", recommended="lawn, voile, chiffon", details=("gathers",)),
        Pattern(structure="woven", recommended="denim, canvas", details=("workwear",)),
        Pattern(structure="knit", recommended="ponte, scuba"),
    ]
    asked = [demand(one, Wish(), TABLES) for one in patterns]
    seen: list[tuple[int, int]] = []
    found = matrix(cloths, [lambda one=one: one for one in asked], TABLES, progress=lambda *at: seen.append(at))
    for threads in (1, 2):
        again = matrix(cloths, [lambda one=one: one for one in asked], TABLES, threads=threads)
        np.testing.assert_array_equal(found.verdict, again.verdict)
    assert seen == [(1, 3), (2, 3), (3, 3)]
    for line, one in enumerate(asked):
        judged = judge(cloths, one, TABLES)
        np.testing.assert_array_equal(found.verdict[line], judged.verdict)
        np.testing.assert_allclose(found.score[line], judged.score, rtol=1e-6)
        best = [place for place in judged.order() if judged.verdict[place] < Verdict.AGAINST]
        assert found.best_cloths(line, 2).tolist() == best[:2]
        for check, codes in judged.checks.items():
            bit = 1 << list(judged.checks).index(check)
            open_here = (judged.verdict != Verdict.AGAINST) & (codes == Verdict.UNPROVEN)
            np.testing.assert_array_equal((found.open_checks[line] & bit) > 0, open_here)
    by_cloth = [int(place) for place in np.argsort(-found.score[:, 0], kind="stable") if found.verdict[place, 0] < 3]
    assert found.best_patterns(0, 3).tolist() == by_cloth
    left = [place for place in range(len(KINDS)) if (found.verdict[:, place] > Verdict.WITH_CARE).all()]
    assert found.suited_by_nothing().tolist() == left
    enough = np.ones(found.verdict.shape, dtype=np.bool_)
    enough[1] = False
    assert 1 in found.without_cloth(enough).tolist()
    assert found.without_cloth(np.ones_like(enough)).tolist() == [
        line for line in range(3) if (found.verdict[line] > Verdict.WITH_CARE).all()
    ]
    total = sum(int(found.unproven(check).sum()) for check in ("fibre", "weight", "drape", "stretch", "width"))
    assert total == sum(int(code).bit_count() for code in found.open_checks.ravel())


def test_every_range_of_a_cloth_name_can_be_corrected_and_the_lexicon_still_finds_what_is_like_it() -> None:
    for field, value in (("weight_lo_gsm", 140.0), ("bend_hi_cm", 1.9), ("stretch_cross_hi_pct", 77.0)):
        tables = corrected(TABLES, [Correction("cloth names", "cotton jersey", field, value)])
        assert shipped(tables, "cloth names", "cotton jersey", field) == value
        assert tables.lexicon.nearest(180.0, 1.3, 40.0, "knit", count=3)[0] == "linen jersey"
    with pytest.raises(FieldFault) as fault:
        corrected(TABLES, [Correction("cloth names", "cotton jersey", "bend_hi_cm", 0.1)])
    low = shipped(TABLES, "cloth names", "cotton jersey", "bend_lo_cm")
    assert str(fault.value) == f"cotton jersey, bend: '{low:g} to 0.1' would end before it begins"
