"""The lay, as scripts see it: JSON in, JSON out. Each answer is laid out again here and held against geometry (shapely).

Optimal lengths are those of sets that tile without a gap: rectangles put together by hand, Moroń's squared rectangle
(1925, from memory), the tangram. Garments are of our own drafting.
"""

from __future__ import annotations

import json
import math
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from lay_pieces import MORON, TANGRAM, box, dress, piece, shirt, trousers
from shapely import Polygon, unary_union
from shapely.affinity import rotate, scale, translate

from nematex.core.amount.lay.compact import compacted
from nematex.core.amount.lay.pieces import CannotLie, Strip
from nematex.core.amount.lay.placed import Lay, faults
from nematex.core.amount.lay.solve import task
from nematex.core.errors import FieldFault
from nematex.usecases.lay.improver import can_improve, improved
from nematex.usecases.lay.laid import lay_out
from nematex.usecases.lay.text import as_json, read_task, written

WIDTHS = (112, 140, 150)
GARMENTS = {"dress": dress(), "shirt": shirt(), "trousers": trousers()}


def laid(pieces: list[dict[str, Any]], width_cm: float, **more: Any) -> dict[str, Any]:
    """The answer to a task, checked against geometry."""
    asked = {"width_cm": width_cm, "seconds": 0, "pieces": pieces} | more
    answer: dict[str, Any] = json.loads(as_json(written(lay_out(read_task(json.dumps(asked))))))
    check(asked, answer)
    return answer


def check(asked: dict[str, Any], answer: dict[str, Any]) -> None:
    """Mirror in y, turn about the origin, shift: every copy on the cloth, once, over no other, on its grain and print."""
    by_id, folded = {each["id"]: each for each in asked["pieces"]}, asked.get("folded", False)
    height = asked["width_cm"] / (2 if folded else 1)
    found = []
    for placed in answer["placements"]:
        cut = by_id[placed["id"]]
        shape = Polygon(cut["outline_cm"])
        if cut["kind"] == "fold" and not folded:
            shape = unary_union([shape, scale(shape, 1, -1, origin=(0, 0))])
        if placed["mirrored"]:
            shape = scale(shape, 1, -1, origin=(0, 0))
        shape = translate(rotate(shape, placed["turn_deg"], origin=(0, 0)), placed["x_cm"], placed["y_cm"])
        x0, y0, x1, y1 = shape.bounds
        assert x0 > -1e-4
        assert y0 > -1e-4
        assert y1 < height + 1e-4
        assert x1 < answer["length_cm"] + 1e-4
        if not cut.get("free"):
            assert placed["turn_deg"] in ((0,) if asked.get("with_nap") else (0, 180))
            repeat = asked.get("print") or {}
            for shift, length in (
                (placed["x_cm"], repeat.get("repeat_length_cm")),
                (placed["y_cm"], repeat.get("repeat_width_cm")),
            ):
                assert not length or abs(math.remainder(shift, length)) < 1e-4
        if cut["kind"] == "fold" and folded:
            assert abs(y0) < 1e-4
        found.append(shape)
    assert all(one.intersection(other).area < 0.01 for at, one in enumerate(found) for other in found[:at])
    for cut in asked["pieces"]:
        copies = [placed for placed in answer["placements"] if placed["id"] == cut["id"]]
        assert len(copies) == cut["count"] // (2 if folded and cut["kind"] == "pair" else 1)
        if cut["kind"] == "pair" and not folded:
            assert sum(placed["mirrored"] for placed in copies) * 2 == len(copies)
    assert answer["lower_bound_cm"] <= answer["length_cm"] + 1e-3
    used = 100 * sum(shape.area for shape in found) / (height * answer["length_cm"])
    assert answer["utilisation_pct"] == pytest.approx(used, abs=0.02)


@pytest.mark.parametrize(
    ("pieces", "width_cm", "length_cm"),
    [
        ([piece("third", box(50, 100 / 3), 3)], 100, 50),
        ([piece("a", box(60, 40)), piece("b", box(40, 60)), piece("c", box(40, 40)), piece("d", box(60, 60))], 100, 100),
        ([piece("half", box(50, 70), 2)], 140, 50),
        ([piece("wide", box(50, 80), 3), piece("small", box(20, 30), 4)], 140, 150),  # two wide ones never lie side by side
        (MORON, 32, 33),
        (MORON, 33, 32),
        ([piece("triangle", [(0, 0), (100, 0), (0, 50)], 2)], 50, 100),
        ([piece("strip", box(20, 90), free=True), piece("block", box(90, 60))], 80, 90),  # turned, the strip lies beside it
    ],
)
def test_lays_that_are_known_to_be_the_shortest(pieces: list[dict[str, Any]], width_cm: float, length_cm: float) -> None:
    assert laid(pieces, width_cm)["length_cm"] == pytest.approx(length_cm, abs=0.01)


@pytest.mark.parametrize("pieces", [TANGRAM, shirt()], ids=["tangram", "shirt"])
def test_the_librarys_lays_are_sound_once_pushed_together(pieces: list[dict[str, Any]]) -> None:
    """Whatever it brings first, whenever that is; its best of the tangram is a square of 80 cm, of which time decides."""
    asked = read_task(json.dumps({"width_cm": 140 if len(pieces) > 7 else 80, "pieces": pieces}))
    known = task([each.piece() for each in asked.pieces], asked.strip())
    assert can_improve(known)
    brought = next(placements for placements in improved(known, 30) if placements)
    pushed = compacted(brought, known.strip)
    assert pushed is not None
    found = Lay(known.strip, tuple(pushed), "strip packing")
    assert faults(found) == []
    assert found.length_cm >= known.bound_cm - 0.01


@pytest.mark.long
@pytest.mark.parametrize(("garment", "folded"), [("shirt", True), ("dress", False), ("trousers", False)])
def test_garments_at_three_widths_with_and_without_a_nap(garment: str, folded: bool) -> None:
    lengths = {}
    for width in WIDTHS:
        for nap in (False, True):
            answer = laid(GARMENTS[garment], width, folded=folded, with_nap=nap)
            lengths[width, nap] = answer["length_cm"]
    assert all(lengths[width, False] <= lengths[width, True] + 0.01 for width in WIDTHS)
    for nap in (False, True):
        assert lengths[150, nap] <= lengths[140, nap] + 0.01 <= lengths[112, nap] + 0.02


@pytest.mark.parametrize(
    "repeat", [{"repeat_length_cm": 6}, {"repeat_length_cm": 6.3, "repeat_width_cm": 8}, {"repeat_width_cm": 11}]
)
@pytest.mark.parametrize("folded", [False, True])
def test_pieces_keep_to_the_print(repeat: dict[str, float], folded: bool) -> None:
    plain = laid(shirt(), 150, folded=folded, with_nap=True)
    assert laid(shirt(), 150, folded=folded, with_nap=True, print=repeat)["length_cm"] >= plain["length_cm"] * 0.97


def test_one_seed_gives_one_lay_and_more_time_no_longer_one() -> None:
    first, second = laid(shirt(), 140, seed=4, folded=True), laid(shirt(), 140, seed=4, folded=True)
    assert first == second
    assert laid(shirt(), 140, seed=4, folded=True, seconds=4)["length_cm"] <= first["length_cm"]


@pytest.mark.parametrize(
    ("pieces", "more", "words"),
    [
        ([piece("sail", box(50, 160))], {}, "piece 'sail'.*160.0 cm across.*does not lie on 140.0 cm.*20.0 cm too wide"),
        (
            [piece("half", box(50, 80), 2, "pair")],
            {"folded": True},
            "does not lie on 70.0 cm .half the usable width.*10.0 cm too wide",
        ),
        ([piece("x", [(0, 0), (10, 10), (10, 0), (0, 10)])], {}, "piece 'x', outline.*crosses or touches itself"),
        ([piece("flat", [(0, 0), (10, 0), (5, 0)])], {}, "piece 'flat', outline"),
        ([piece("a", box(1, 1)), piece("a", box(2, 2))], {}, "id: 'a' stands twice"),
        ([piece("f", [(0, 5), (10, 5), (10, 9), (0, 9)], kind="fold")], {}, "fold_edge: 'y=0' is no outer edge.*y=5"),
        ([piece("f", box(10, 5), kind="fold", free=True)], {}, "free: True must be false"),
        ([piece("many", box(5, 5), 150), piece("more", box(5, 5), 150)], {}, "300 pieces in all are too many"),
        ([piece("huge", box(1e6, 5))], {}, "outline_cm.1.0"),
        ([piece("none", box(5, 5), 0)], {}, "count"),
        ([piece("odd", box(5, 5), kind="both")], {}, "kind: 'both'"),
        ([piece("a", box(5, 5))], {"colour": "red"}, "colour"),
        ([piece("a", box(5, 5))], {"width_cm": 0}, "width_cm"),
        ([piece("a", box(5, 5))], {"print": {"repeat_length_cm": -3}}, "repeat_length_cm"),
        ([], {}, "pieces"),
    ],
)
def test_what_cannot_be_laid_is_named(pieces: list[dict[str, Any]], more: dict[str, Any], words: str) -> None:
    with pytest.raises(FieldFault, match=words):
        lay_out(read_task(json.dumps({"width_cm": 140, "seconds": 1, "pieces": pieces} | more)))


def test_a_wide_piece_is_a_fault_of_its_own() -> None:
    with pytest.raises(CannotLie):
        lay_out(read_task(json.dumps({"width_cm": 40, "pieces": shirt()})))


@pytest.mark.parametrize(
    "text", ["", "{", "[]", "[" * 100_000, "null", '{"width_cm": 1e999}', '{"pieces": NaN}', "x" * 5_000_000]
)
def test_no_text_is_more_than_a_fault(text: str) -> None:
    with pytest.raises(FieldFault):
        read_task(text)


CORNER = st.tuples(st.floats(0, 70), st.floats(0, 60)).map(lambda point: (round(point[0], 2), round(point[1], 2)))


@settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much])
@given(
    outlines=st.lists(st.lists(CORNER, min_size=3, max_size=7), min_size=1, max_size=5),
    counts=st.lists(st.integers(1, 3), min_size=5, max_size=5),
    kinds=st.lists(st.sampled_from(["single", "pair", "free"]), min_size=5, max_size=5),
    width=st.floats(70, 160).map(lambda width: round(width, 1)),
    flags=st.tuples(st.booleans(), st.booleans(), st.booleans()),
)
def test_whatever_is_laid_lies_well(
    outlines: list[list[tuple[float, float]]], counts: list[int], kinds: list[str], width: float, flags: tuple[bool, bool, bool]
) -> None:
    folded, nap, printed = flags
    pieces = [
        piece(
            f"p{at}",
            list(corners),
            counts[at] * (2 if kinds[at] == "pair" else 1),
            "pair" if kinds[at] == "pair" else "single",
            free=kinds[at] == "free",
        )
        for at, corners in enumerate(outlines)
        if Polygon(corners).is_valid and Polygon(corners).area > 1
    ]
    if not pieces:
        return
    more = {"print": {"repeat_length_cm": 7.5, "repeat_width_cm": 5}} if printed else {}
    try:
        laid(pieces, width, folded=folded, with_nap=nap, seconds=0, **more)
    except FieldFault as fault:
        assert "does not lie on" in str(fault)  # noqa: PT017


def test_of_a_pair_cut_through_both_layers_the_second_is_the_mirrored_one() -> None:
    for placed in laid(shirt(), 140, folded=True)["placements"]:
        kind = next(each["kind"] for each in shirt() if each["id"] == placed["id"])
        assert placed["mirrored"] == (kind == "pair" and placed["copy"] % 2 == 0)


def test_a_piece_whose_upper_edge_is_on_the_fold_is_turned_over() -> None:
    upper = {"id": "u", "outline_cm": [[0, 0], [30, 5], [30, 20], [0, 20]], "kind": "fold", "fold_edge": "y=20"}
    asked = {"width_cm": 60, "folded": True, "seconds": 0, "pieces": [upper]}
    answer = json.loads(as_json(written(lay_out(read_task(json.dumps(asked))))))
    placed = answer["placements"][0]
    assert placed["mirrored"]
    assert placed["y_cm"] == pytest.approx(20)  # y = 20 turned over is −20, and lies at 0


def test_very_many_pieces_or_corners_are_laid_without_being_pushed() -> None:
    """Pushing grows with the square of both; beyond a size it is left, and what is laid is sound all the same."""
    ring = [(20 + 20 * math.cos(t / 120 * math.pi), 20 + 19 * math.sin(t / 120 * math.pi)) for t in range(240)]
    for pieces in ([piece("ring", ring, 4)], [piece("flag", [(0, 0), (15, 2), (14, 11), (1, 9)], 80, "pair")]):
        known = read_task(json.dumps({"width_cm": 140, "pieces": pieces}))
        assert not task([each.piece() for each in known.pieces], known.strip()).is_small
        laid(pieces, 140)
    assert task(
        [each.piece() for each in read_task(json.dumps({"width_cm": 140, "pieces": shirt()})).pieces], Strip(140)
    ).is_small
