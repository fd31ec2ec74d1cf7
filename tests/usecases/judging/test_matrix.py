"""The matrix by itself, and the hang's page and drawings. Common practice, no source; geometry worked by hand."""

from __future__ import annotations

import csv
import io
import re
from functools import partial

import numpy as np
import pytest

from nematex.core.errors import FieldFault
from nematex.core.hang.hem import hang
from nematex.core.hang.silhouettes import cut_of
from nematex.core.judging.matrix import Matrix, matrix
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Pattern, Size, Wish
from nematex.tables import trade_tables
from nematex.usecases.hang.view import aimed_cm, hang_view, usual_garment
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.matrix_view import (
    Asked,
    best_csv,
    best_for_cloths,
    best_for_patterns,
    grid,
    left_out,
    left_out_csv,
)
from nematex.usecases.judging.mixed import mixed, read_choices
from nematex.usecases.pattern.sizes import figures_of, read_body
from nematex.web.drawing.silhouette import TILT, draw

SUITS, CARE, OPEN, NOT = Verdict.SUITS, Verdict.WITH_CARE, Verdict.UNPROVEN, Verdict.AGAINST
SMALL = Matrix(
    np.array([[SUITS, NOT, OPEN], [CARE, NOT, NOT]], dtype=np.int8),
    np.array([[90, 5, 40], [60, 3, 2]], dtype=np.float32),
    {},
)


def test_best_are_those_that_are_not_against_in_their_order() -> None:
    assert SMALL.best_cloths(0, 10).tolist() == [0, 2]
    assert SMALL.best_cloths(0, 1).tolist() == [0]
    assert SMALL.best_patterns(0, 10).tolist() == [0, 1]
    assert SMALL.best_patterns(1, 10).tolist() == []


def test_who_is_left_out() -> None:
    assert SMALL.suited_by_nothing().tolist() == [1, 2]
    assert SMALL.suited_by_nothing(OPEN).tolist() == [1]
    enough = np.array([[True, True, True], [False, True, True]])
    assert SMALL.without_cloth(enough).tolist() == [1]  # what does for it is there, but not enough of it


def test_progress_is_said_once_for_each_pattern(demo: Shop) -> None:
    said: list[tuple[int, int]] = []
    drawer, shelf = demo.now().drawer, demo.now().shelf
    demands = [partial(drawer.demand, record, Wish()) for record in drawer.records]
    one = matrix(shelf.columns, demands, drawer.tables, 1, lambda done, total: said.append((done, total)))
    two = matrix(shelf.columns, demands, drawer.tables, 2)
    assert said == [(n, len(demands)) for n in range(1, len(demands) + 1)]
    assert (one.verdict == two.verdict).all()
    assert (one.score == two.score).all()
    assert (one.open_checks == two.open_checks).all()


def test_a_block_of_the_grid_and_its_pages(demo: Shop) -> None:
    whole = grid(demo, demo.now(), Asked())
    assert (len(whole.rows), whole.patterns_total, len(whole.cloths)) == (22, 22, 40)
    second = grid(demo, demo.now(), Asked(cloth_page=2))
    assert not {cloth.id for cloth in whole.cloths} & {cloth.id for cloth in second.cloths}
    assert len(whole.cloths) + len(second.cloths) == whole.cloths_total
    linen = grid(demo, demo.now(), Asked(cloth_words="linen", pattern_words="shorts", in_stock=True))
    assert [row.pattern.code for row in linen.rows] == ["TP-25"]
    assert all("linen" in f"{cloth.facts.name} {cloth.facts.cloth} {cloth.facts.fibres}" for cloth in linen.cloths)
    lining = next(record for record in demo.now().shelf.records if record.code == "LF-316")
    assert lining.id not in {cloth.id for cloth in (*whole.cloths, *second.cloths)}  # linings only where they are asked for
    assert grid(demo, demo.now(), Asked(cloths=(lining.id,))).cloths == [lining]


def test_the_ten_best_of_each(demo: Shop) -> None:
    rows, total = best_for_patterns(demo, demo.now(), 1)
    assert total == 22
    for row in rows:
        assert len(row.found) <= 10
        assert [verdict for _, verdict in row.found] == sorted(verdict for _, verdict in row.found)
    cloths, count = best_for_cloths(demo, demo.now(), 1)
    assert len(cloths) == 40
    assert count == grid(demo, demo.now(), Asked()).cloths_total
    lonely, bare = left_out(demo, demo.now())
    table = list(csv.reader(io.StringIO(best_csv(demo, demo.now(), True))))
    assert len(table) == count + 1
    assert table[1][:3] == [
        cloths[0].of.code,
        cloths[0].of.facts.name,
        f"{cloths[0].found[0][0].code} {cloths[0].found[0][0].facts.name}",
    ]
    assert len(list(csv.reader(io.StringIO(best_csv(demo, demo.now(), False))))) == total + 1
    assert len(list(csv.reader(io.StringIO(left_out_csv(demo, demo.now()))))) == len(lonely) + len(bare) + 1
    suited = {row.of.code for row in cloths if row.found and row.found[0][1] <= CARE}
    assert not suited & {record.code for record in lonely}
    assert all(record.facts.requirements for record in bare)


@pytest.mark.parametrize("name", ["A-line skirt", "gathered skirt", "wide leg", "full sleeve", "cocoon"])
@pytest.mark.parametrize("bend", [0.8, 2.0, 4.0])
def test_what_is_drawn_is_what_was_reckoned(name: str, bend: float) -> None:
    found = hang(cut_of(name), bend)
    drawn = draw(found)
    points = [tuple(map(float, pair.split())) for pair in re.findall(r"-?[\d.]+ -?[\d.]+", drawn.outline)]
    xs, ys = [x for x, _ in points], [y for _, y in points]
    assert max(xs) == pytest.approx(-min(xs), abs=0.02)  # one side is the other's mirror
    assert found.widest_radius_cm - 0.1 <= max(xs) <= found.widest_radius_cm + found.fold_depth_cm + 0.1
    assert max(ys) <= found.fall_cm[-1] + TILT * (max(xs) + 0.1)
    assert min(ys) == 0
    assert (drawn.hollows == "") == (found.fullness <= 1.02)


def test_the_look_aims_within_the_patterns_window(demo: Shop) -> None:
    drawer = demo.now().drawer
    skirt = next(record for record in drawer.records if record.code == "TP-21")
    flowing, structured = aimed_cm(0, skirt, drawer), aimed_cm(100, skirt, drawer)
    window = drawer_window(demo)
    assert (flowing, structured) == pytest.approx(window)
    # Without a pattern: 1.3, 2.0 and 2.8 cm at shares of 0.2, 0.5 and 0.8.
    assert [round(aimed_cm(look, None, drawer), 2) for look in (20, 50, 80)] == [1.3, 2.0, 2.8]
    assert usual_garment(skirt, demo.now().tables) == "gathered skirt"
    assert usual_garment(None, demo.now().tables) == "A-line skirt"


def drawer_window(shop: Shop) -> tuple[float, float]:
    skirt = next(record for record in shop.now().drawer.records if record.code == "TP-21")
    window = shop.now().drawer.demand(skirt, Wish()).bending_length["woven"]
    return window.low, window.high


def test_a_heavier_cloth_of_the_same_stiffness_hangs_softer(demo: Shop) -> None:
    shelf, drawer = demo.now().shelf, demo.now().drawer
    cloth = next(record for record in shelf.records if record.code == "LF-301")
    at = shelf.place[cloth.id]
    best, weight = shelf.cloths[at].bending_length.best, shelf.cloths[at].weight.best
    heavy = hang_view(shelf, drawer, [cloth.id], None, {f"weight.{cloth.id}": str(weight * 8)})
    assert heavy.rows[0].bend_cm == pytest.approx(best / 2)  # c = (B/w)^⅓: eight times the weight, half the length
    # An A-line of 60 cm from 98 cm round to its full hem: the mean circumference times the length, times the weight.
    radius = 98 / (2 * np.pi)
    area_m2 = 2 * np.pi * (radius + 0.2925 * 60 / 2) * 60 / 1e4
    assert heavy.rows[0].piece_g == pytest.approx(area_m2 * weight * 8, rel=0.001)
    # A change to the pattern hangs with it: longer, and gathered as the added tier is.
    skirt = next(each for each in drawer.records if each.code == "TP-21")
    plain = hang_view(shelf, drawer, [cloth.id], skirt, {})
    changed = hang_view(shelf, drawer, [cloth.id], skirt, {"hacks": "lengthen(by_cm=12)|tier(ratio=2.2)"})
    assert (changed.length_cm, changed.gather) == (plain.length_cm + 12, 2.2)
    assert changed.changes[0] == "12 cm longer"
    many = hang_view(shelf, drawer, [record.id for record in shelf.records[:9]], None, {})
    assert len(many.rows) == 3
    wrong = [("look", look) for look in ("200", "nan", "inf")]
    wrong += [("length", "500"), ("length", "long"), (f"bend.{cloth.id}", "99"), (f"weight.{cloth.id}", "1")]
    for field, value in wrong:
        with pytest.raises(FieldFault):
            hang_view(shelf, drawer, [cloth.id], None, {field: value})


def test_measurements_are_read_in_either_system() -> None:
    body = read_body({"bust": "36", "hip": "38 1/2", "unit": "in"})
    assert body is not None
    assert (body.bust_cm, body.hip_cm) == pytest.approx((91.44, 97.79))
    assert read_body({"bust": "36 in"}) == read_body({"bust": "36", "unit": "in"})
    assert read_body({}) is None
    ease = read_body({"bust": "90", "ease": "−2"})  # smaller than the body, as a knit may be
    assert ease is not None
    assert ease.ease_cm == -2
    with pytest.raises(FieldFault, match="Waist"):
        read_body({"waist": "-70"})
    found = figures_of(next_pattern(), {"bust": "wide"}, trade_tables())
    assert found.fault is not None
    assert found.fault.field == "Full bust"
    assert found.covers == {"bust": (84, 92)}


def next_pattern() -> Pattern:
    return Pattern(name="made up", garment="top", structure="woven", sizes=(Size("10", 84), Size("12", 92)))


def test_a_part_without_a_cloth_waits_and_the_worst_counts(demo: Shop) -> None:
    shelf, drawer = demo.now().shelf, demo.now().drawer
    dress = next(record for record in drawer.records if record.code == "OR-16")
    ids = {record.code: record.id for record in shelf.records}
    assert mixed(demo, demo.now(), dress, {}, Wish()).verdict is None
    half = mixed(demo, demo.now(), dress, {"body": ids["SK-503"]}, Wish())
    assert half.parts[1].record is None
    assert half.joints == []
    whole = mixed(demo, demo.now(), dress, {"body": ids["SK-503"], "sleeve": ids["LF-317"]}, Wish())
    verdicts = [part.pairing.verdict for part in whole.parts if part.pairing] + [joint.verdict for joint, _ in whole.joints]
    assert whole.verdict == max(verdicts)
    with pytest.raises(FieldFault, match="no cloth of this shelf"):
        read_choices({"cloth.body": "x"}, ["body"])
