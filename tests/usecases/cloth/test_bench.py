"""The bench's arithmetic: every measurement typed as in a worked example, and taken by every simulated instrument."""

from __future__ import annotations

from itertools import pairwise

import pytest

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.measuring.drape_coefficient import drape_from_bending
from nematex.core.cloth.measuring.square_and_wash import (
    disc_area_cm2,
    shrinkage_pct,
    weight_from_bolt_gsm,
    weight_from_piece_gsm,
)
from nematex.core.errors import FieldFault
from nematex.devices.bench import FAULTS
from nematex.store.records import ClothRecord
from nematex.tables import trade_tables
from nematex.usecases.cloth.bench.acts import work_out
from nematex.usecases.cloth.bench.measures import MEASURES
from nematex.usecases.cloth.bench.moves import moves
from nematex.usecases.cloth.bench.sheet import Outcome
from nematex.usecases.cloth.bench.simulated import photographed, simulated_bench, taken, truth_of
from nematex.usecases.cloth.lacks.worth import worth_measuring
from nematex.usecases.cloth.readings import keep_readings
from nematex.usecases.held.drawer import spread
from nematex.usecases.held.shop import Shop
from nematex.usecases.photo.at_the_bench import read_photos

SEEDS = range(12)


def _cloth(shop: Shop, code: str) -> tuple[ClothRecord, Cloth]:
    shelf = shop.now().shelf
    at = next(at for at, record in enumerate(shelf.records) if record.code == code)
    return shelf.records[at], shelf.cloths[at]


def _typed(shop: Shop, name: str, method: str, values: dict[str, str], code: str = "GM-101") -> Outcome:
    record, cloth = _cloth(shop, code)
    measure = MEASURES[name]
    return work_out(measure, measure.method(method), values, cloth, record, trade_tables())


def _values(outcome: Outcome) -> dict[str, float | str | None]:
    return {each.property: each.word if each.number is None else each.number for each in outcome.readings}


def test_weight_by_area() -> None:
    # Mass over area, ISO 3801 / EN 12127 (from memory). Worked: 1.2 g on 100 cm² = 120 g/m²; a 11.28 cm disc is 100 cm².
    assert weight_from_piece_gsm(1.2, 100) == 120
    assert disc_area_cm2(11.2838) == pytest.approx(100, abs=1e-3)
    # Worked: 12 kg over 40 m × 1.5 m = 200 g/m².
    assert weight_from_bolt_gsm(12, 40, 150) == 200


def test_shrinkage_by_a_marked_square() -> None:
    # ISO 5077 (from memory), its sign turned: 50 cm before, 48.5 after = 3 % shrunk; growing is negative.
    assert shrinkage_pct(50, 48.5) == pytest.approx(3)
    assert shrinkage_pct(50, 50.5) == pytest.approx(-1)


TYPED = [
    ("weight", "square", {"side-0": "10", "grams-0": "0.81", "grams-1": "0.83", "grams-2": "0.82"}, {"weight_gsm": 82.0}),
    ("weight", "disc", {"diameter-0": "11.2838", "grams-0": "0.8"}, {"weight_gsm": 80.0}),
    # 1 oz/yd² = 33.906 g/m², from the international pound and yard.
    ("weight", "ounces", {"ounces-0": "2.5"}, {"weight_gsm": 84.764}),
    ("weight", "bolt", {"kilograms-0": "4.8", "metres-0": "40", "width-0": "150"}, {"weight_gsm": 80.0}),
    # ASTM D1388 option A (from memory): half the overhang.
    ("ramp", "ramp", {"along_up-0": "4.2", "along_down-0": "4.0", "across_up-0": "3.8", "across_down-0": "3.6"},
     {"bend_along_cm": 2.05, "bend_across_cm": 1.85, "bending_length_cm": 1.95}),
    # ISO 9073-9 (from memory): (480.66 − 254.47) / (706.86 − 254.47) = 50 %.
    ("disc", "area", {"area-0": "480.66"}, {"drape_coefficient_pct": 50.0}),
    ("hand", "hand", {"hand-0": "soft"}, {"hand": "soft"}),
    # ASTM D2594 (from memory): 10 → 12.5 cm is 25 %; back to 10.5 is a recovery of 80 %.
    ("stretch", "gauge", {"relaxed-0": "10", "across-0": "12.5", "along-0": "11", "after-0": "10.5"},
     {"stretch_cross_pct": 25.0, "stretch_length_pct": 10.0, "recovery_pct": 80.0}),
    # Opacity as R over black by R over white: 0.40 / 0.42 is nearly 1.
    ("sheer", "tones", {"on_black-0": "0.40", "on_white-0": "0.405", "bare_black-0": "0.04", "bare_white-0": "0.88"},
     {"sheer": "opaque"}),
    ("sheer", "card", {"sheer-0": "semi-sheer"}, {"sheer": "semi-sheer"}),
    ("thickness", "stack", {"layers-0": "10", "height-0": "2.1", "height-1": "2.3"}, {"thickness_mm": 0.22}),
    ("width", "tape", {"full-0": "140", "usable-0": "137.5", "usable-1": "137"}, {"width_cm": 137.0, "width_full_cm": 140.0}),
    ("shrink", "wash", {"before-0": "50", "along_after-0": "48.5", "across_after-0": "49.5"},
     {"shrink_length_pct": 3.0, "shrink_width_pct": 1.0}),
    # Grades of the grey scale (ISO 105-A03, from memory): kept as they are typed.
    ("fastness", "white", {"colour_fastness-0": "4.5"}, {"colour_fastness": 4.5}),
    ("sewing", "eye", {"fray-0": "freely", "crease-0": "some", "press-0": "well"},
     {"fray": "freely", "crease": "some", "press": "well"}),
]  # fmt: skip


def test_every_measurement_typed(demo: Shop) -> None:
    covered = set()
    for name, method, values, wanted in TYPED:
        outcome = _typed(demo, name, method, values | {"by": "buyer"})
        assert _values(outcome) == {
            key: pytest.approx(value, abs=0.002) if isinstance(value, float) else value for key, value in wanted.items()
        }
        assert {each.by_whom for each in outcome.readings} == {"buyer"}
        assert outcome.lines or method == "card"
        covered.add((name, method))
    by_photo = {("disc", "photo"), ("sheer", "photos")}
    assert covered | by_photo == {(measure.name, method.name) for measure in MEASURES.values() for method in measure.methods}


@pytest.mark.parametrize(
    ("name", "method", "values", "said"),
    [
        ("weight", "square", {"side-0": "10"}, "Mass on the scale.*is missing"),
        ("weight", "square", {"side-0": "10", "grams-0": "lots"}, "Mass on the scale, 1.*lots.*not a number"),
        ("weight", "square", {"side-0": "10", "grams-0": "0.029"}, "cannot be right.*ounces instead of grams"),
        ("stretch", "gauge", {"relaxed-0": "10", "across-0": "4.9"}, "Pulled across.*inches instead of cm"),
        ("disc", "area", {"area-0": "90"}, "cannot be: the stand alone is 254 cm²"),
        ("hand", "hand", {"hand-0": "nice"}, "It feels.*fluid.*stiff"),
        (
            "sheer",
            "tones",
            {"on_black-0": "0.5", "on_white-0": "0.2", "bare_black-0": "0.04", "bare_white-0": "0.88"},
            "swapped",
        ),
        ("sewing", "eye", {}, "choose at least one"),
    ],
)
def test_what_cannot_be_is_refused_with_its_box_and_rule(
    demo: Shop, name: str, method: str, values: dict[str, str], said: str
) -> None:
    with pytest.raises(FieldFault, match=said):
        _typed(demo, name, method, values)


def test_what_stands_out_is_said_before_it_is_kept(demo: Shop) -> None:
    def doubts(name: str, method: str, values: dict[str, str]) -> str:
        return " ".join(_typed(demo, name, method, values).doubts)

    assert "1.4 lies far from the others" in doubts(
        "weight", "square", {"side-0": "10", "grams-0": "0.82", "grams-1": "1.4", "grams-2": "0.83"}
    )
    assert "run one way only" in doubts("width", "tape", {"usable-0": "137", "usable-1": "142", "usable-2": "148"})
    assert "disagree" in doubts("ramp", "ramp", {"along_up-0": "4", "along_up-1": "6", "across_up-0": "4"})
    assert "inches instead of cm" in doubts("width", "tape", {"usable-0": "54"})
    assert "are the two exchanged" in doubts("width", "tape", {"usable-0": "140", "full-0": "137"}).lower()


SIMULATED = [
    ("weight", "square", "weight_gsm", 0.04),
    ("weight", "disc", "weight_gsm", 0.04),
    ("ramp", "ramp", "bend_along_cm", 0.06),
    ("width", "tape", "width_cm", 0.01),
]


@pytest.mark.parametrize(("name", "method", "property_", "within"), SIMULATED)
def test_a_simulated_instrument_finds_the_hidden_truth(
    demo: Shop, name: str, method: str, property_: str, within: float
) -> None:
    for code in ("GM-101", "LF-301", "SK-501", "OW-401"):
        record, cloth = _cloth(demo, code)
        true = getattr(truth_of(record, cloth), property_)
        for seed in SEEDS:
            bench = simulated_bench(record, cloth, "none", seed)
            measure = MEASURES[name]
            values = taken(bench, measure, measure.method(method), {})
            found = _values(work_out(measure, measure.method(method), values, cloth, record, trade_tables()))
            assert found[property_] == pytest.approx(true, rel=within), (code, seed)


def test_a_wrong_side_is_refused_before_an_instrument_is_set_up(demo: Shop) -> None:
    record, cloth = _cloth(demo, "GM-101")
    measure, bench = MEASURES["weight"], simulated_bench(record, cloth, "none", 1)
    with pytest.raises(FieldFault, match=r"Side of the square.*ten.*not a number"):
        taken(bench, measure, measure.method("square"), {"side-0": "ten"})
    typed_as_here = taken(bench, measure, measure.method("square"), {"side-0": "12,5"})
    assert float(typed_as_here["grams-0"]) == pytest.approx(1.5625 * 0.82, rel=0.05)


def test_stretch_recovery_and_shrinkage_are_found_too(demo: Shop) -> None:
    record, cloth = _cloth(demo, "SK-505")
    true = truth_of(record, cloth)
    for name, method, wanted in (
        ("stretch", "gauge", {"stretch_cross_pct": (true.stretch_cross_pct, 3), "recovery_pct": (true.recovery_pct, 4)}),
        ("shrink", "wash", {"shrink_length_pct": (true.shrink_length_pct, 0.2)}),
    ):
        measure = MEASURES[name]
        values = taken(simulated_bench(record, cloth, "none", 3), measure, measure.method(method), {})
        found = _values(work_out(measure, measure.method(method), values, cloth, record, trade_tables()))
        for key, (value, within) in wanted.items():
            assert found[key] == pytest.approx(value, abs=within)


def _caught(shop: Shop, code: str, name: str, method: str, fault: str, seed: int) -> bool:
    record, cloth = _cloth(shop, code)
    measure = MEASURES[name]
    values = taken(simulated_bench(record, cloth, fault, seed), measure, measure.method(method), {})
    try:
        return bool(work_out(measure, measure.method(method), values, cloth, record, trade_tables()).doubts)
    except FieldFault:
        return True


@pytest.mark.parametrize("fault", FAULTS[1:])
@pytest.mark.parametrize(("name", "method"), [("weight", "square"), ("ramp", "ramp"), ("width", "tape"), ("stretch", "gauge")])
def test_a_faulty_instrument_is_caught(demo: Shop, name: str, method: str, fault: str) -> None:
    caught = [_caught(demo, code, name, method, fault, seed) for code in ("GM-101", "LF-301", "SK-505") for seed in SEEDS]
    assert sum(caught) >= 0.95 * len(caught)


@pytest.mark.parametrize(("name", "method"), [("weight", "square"), ("width", "tape"), ("stretch", "gauge")])
def test_a_sound_instrument_is_seldom_doubted(demo: Shop, name: str, method: str) -> None:
    doubted = [_caught(demo, code, name, method, "none", seed) for code in ("GM-101", "LF-301", "SK-505") for seed in SEEDS]
    assert sum(doubted) <= 0.1 * len(doubted)


def test_the_camera_rig_s_photos_come_to_the_truth(demo: Shop) -> None:
    for code in ("GM-103", "OW-401", "LF-301"):
        record, cloth = _cloth(demo, code)
        bench = simulated_bench(record, cloth, "none", 5)
        true = truth_of(record, cloth)
        disc = MEASURES["disc"].method("photo")
        photos, values = photographed(bench, MEASURES["disc"], disc)
        values |= read_photos(demo, record, MEASURES["disc"], disc, photos, values)
        found = _values(work_out(MEASURES["disc"], disc, values, cloth, record, trade_tables()))
        wanted = drape_from_bending((true.bend_along_cm + true.bend_across_cm) / 2).best
        assert found["drape_coefficient_pct"] == pytest.approx(wanted, abs=2.5)
        cards = MEASURES["sheer"].method("photos")
        photos, values = photographed(bench, MEASURES["sheer"], cards)
        values |= read_photos(demo, record, MEASURES["sheer"], cards, photos, values)
        by_photo = _values(work_out(MEASURES["sheer"], cards, values, cloth, record, trade_tables()))["sheer"]
        tones = taken(bench, MEASURES["sheer"], MEASURES["sheer"].method("tones"), {})
        by_table = _values(
            work_out(MEASURES["sheer"], MEASURES["sheer"].method("tones"), tones, cloth, record, trade_tables())
        )["sheer"]
        assert by_photo == by_table


def test_what_a_measurement_moves_is_what_judging_again_says(demo: Shop) -> None:
    record, _ = _cloth(demo, "LF-302")
    outcome = _typed(demo, "ramp", "ramp", {"along_up-0": "2.6", "across_up-0": "2.4"}, "LF-302")
    before = moves(demo.now().drawer, record, outcome.readings)
    with demo.database.work() as work:
        keep_readings(work, record, outcome.readings)
    now, _ = _cloth(demo, "LF-302")
    assert now.facts.bending_length_cm == 1.25
    after = moves(demo.now().drawer, now, [])
    assert after.before == before.after
    assert after.moved == []
    assert sum(before.before.values()) == len(demo.now().drawer.records)
    assert before.moved


def test_of_many_patterns_a_part_is_held_against_a_measurement_and_said_so(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    record, cloth = _cloth(demo, "LF-302")
    drawer = demo.now().drawer
    outcome = _typed(demo, "ramp", "ramp", {"along_up-0": "2.6", "across_up-0": "2.4"}, "LF-302")
    every, asked = moves(drawer, record, outcome.readings), worth_measuring(drawer, cloth)
    monkeypatch.setattr("nematex.usecases.cloth.bench.moves.MOST_TRIED", 5)
    monkeypatch.setattr("nematex.usecases.cloth.lacks.worth.MOST_TRIED", 5)
    some = moves(drawer, record, outcome.readings)
    assert (some.tried, sum(some.before.values()), every.tried) == (5, 5, len(drawer.records))
    assert {one.pattern.id for one in some.moved} <= {one.pattern.id for one in every.moved}
    assert all(count <= asked[name] for name, count in worth_measuring(drawer, cloth).items())


@pytest.mark.parametrize(("held", "most"), [(0, 3), (3, 3), (7, 3), (1000, 400), (401, 400)])
def test_a_part_is_spread_over_all_of_them(held: int, most: int) -> None:
    found = spread(range(held), most)
    assert len(found) == min(held, most)
    gaps = {right - left for left, right in pairwise(found)}
    assert not gaps or max(gaps) - min(gaps) <= 1
    assert not held or found[0] == 0
