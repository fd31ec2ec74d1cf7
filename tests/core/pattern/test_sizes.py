"""Ease, the stretch it asks, the size to make, and a knit in a pattern for wovens.

Body sizes: ASTM D5585-95, adult female misses figure type, sizes 2–20, in inches (from memory). Everything else is
arithmetic worked by hand, or common practice, no source.
"""

from __future__ import annotations

import csv
import itertools

import pytest
from conftest import PUBLISHED

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.errors import FieldFault
from nematex.core.judging.demand import demand
from nematex.core.judging.pairing import pair
from nematex.core.judging.size_advice import knit_in_woven
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.ease import eases, needed_stretch
from nematex.core.pattern.facts import Pattern, Size, Wish
from nematex.core.pattern.sizing import Body, choose_size, covers, cup_of
from nematex.tables import trade_tables

TABLES = trade_tables()
with (PUBLISHED / "body_sizes.csv").open(encoding="utf-8") as file:
    ASTM = [{name: text if name == "size" else float(text) for name, text in row.items()} for row in csv.DictReader(file)]
MISSES = tuple(
    Size(str(row["size"]), *(round(float(row[f"{place}_in"]) * 2.54, 2) for place in ("bust", "waist", "hip"))) for row in ASTM
)
DRESS = Pattern(name="made up", garment="dress", structure="woven", sizes=MISSES)
SKIRT = Pattern(name="made up", garment="skirt", structure="woven", sizes=MISSES)


@pytest.mark.parametrize("size", MISSES, ids=lambda size: size.label)
def test_the_published_body_gets_its_own_size(size: Size) -> None:
    body = Body(size.bust_cm, size.waist_cm, size.hip_cm)
    for pattern in (DRESS, SKIRT):
        (choice,) = choose_size(pattern, body, TABLES)
        assert choice.size == size.label
        assert not any("grade" in reason for reason in choice.reasons)


@pytest.mark.parametrize(("smaller", "larger"), list(itertools.pairwise(MISSES)), ids=lambda size: size.label)
def test_between_sizes_the_larger(smaller: Size, larger: Size) -> None:
    assert smaller.bust_cm
    assert larger.bust_cm
    assert smaller.hip_cm
    assert larger.hip_cm
    middle = (smaller.bust_cm + larger.bust_cm) / 2
    (choice,) = choose_size(DRESS, Body(bust_cm=middle), TABLES)
    assert choice.size == larger.label
    assert "between" in choice.reasons[0]
    assert "take in" in choice.reasons[0]


def test_tops_go_by_the_bust_and_skirts_by_the_hip() -> None:
    body = Body(bust_cm=36 * 2.54, hip_cm=43 * 2.54)  # bust of a 10, hip of a 16
    (dress,) = choose_size(DRESS, body, TABLES)
    (skirt,) = choose_size(SKIRT, body, TABLES)
    assert (dress.size, skirt.size) == ("10", "16")
    assert "grade from 10 at the bust to 16 at the hip" in dress.reasons


def test_the_smaller_size_where_its_ease_is_what_is_wanted() -> None:
    loose = Pattern(garment="dress", sizes=(Size("10", 88, finished_bust_cm=104), Size("12", 92, finished_bust_cm=108)))
    assert choose_size(loose, Body(90), TABLES)[0].size == "12"
    assert choose_size(loose, Body(90, ease_cm=12), TABLES)[0].size == "10"  # 104 − 90 = 14 cm of ease
    assert choose_size(loose, Body(90, ease_cm=15), TABLES)[0].size == "12"


def test_the_ease_wanted_speaks_only_where_it_decides() -> None:
    roomy = Pattern(garment="dress", sizes=(
        Size("10", 88, hip_cm=94, finished_bust_cm=104, finished_hip_cm=114), Size("12", 92, hip_cm=98)))  # fmt: skip
    (choice,) = choose_size(roomy, Body(bust_cm=90, hip_cm=96, ease_cm=12), TABLES)
    assert choice.size == "10"  # by the bust, with 14 cm of ease
    assert "grade from 10 at the bust to 12 at the hip" in choice.reasons


def test_a_body_below_the_smallest_size_is_told_so() -> None:
    (choice,) = choose_size(DRESS, Body(bust_cm=70), TABLES)
    assert choice.size == "2"
    assert choice.reasons == ("bust 70 cm is 11.3 cm less than its smallest, 2: take in",)  # 32 in are 81.28 cm


def test_one_size_up_to_wear_over_and_no_size_beyond_the_largest() -> None:
    assert choose_size(DRESS, Body(bust_cm=36 * 2.54), TABLES, over=True)[0].size == "12"
    assert "none larger" in choose_size(DRESS, Body(bust_cm=44.5 * 2.54), TABLES, over=True)[0].reasons[-1]
    (none,) = choose_size(DRESS, Body(bust_cm=120), TABLES)
    assert none.size is None
    assert "7 cm more than its largest" in none.reasons[0]  # 120 − 44.5 in (113.03 cm)


def test_bands_overlap_and_each_answers() -> None:
    banded = Pattern(
        garment="top",
        sizes=(Size("12", 95, band="straight"), Size("14", 100, band="straight"),
               Size("12 (curve)", 95, band="curve", cup="D DD"), Size("14 (curve)", 100, band="curve", cup="D DD")),
    )  # fmt: skip
    straight, curve = choose_size(banded, Body(bust_cm=100, high_bust_cm=90), TABLES)
    assert (straight.band, curve.band) == ("straight", "curve")
    # Full less high bust is 10 cm: a D. Drafted for B, the straight band is chosen by 90 + 2 × 2.54 = 95.1 cm.
    assert straight.size == "12"
    assert curve.size == "14 (curve)"
    assert "enlarge the front" in straight.reasons[0]
    assert "cut that cup" in curve.reasons[0]


@pytest.mark.parametrize(
    ("bust", "high", "cup"), [(90, 90, "AA"), (92.5, 90, "A"), (95, 90, "B"), (97.6, 90, "C"), (110, 90, "F")]
)
def test_cups_go_by_the_inch(bust: float, high: float, cup: str) -> None:
    assert cup_of(Body(bust, high_bust_cm=high), 2.54) == cup


def test_what_cannot_be_sized_is_said() -> None:
    with pytest.raises(FieldFault, match="no size table"):
        choose_size(Pattern(name="x"), Body(90), TABLES)
    with pytest.raises(FieldFault, match="needs the bust or the hip"):
        choose_size(DRESS, Body(), TABLES)
    with pytest.raises(FieldFault, match="between 30 and 250"):
        Body(bust_cm=3)
    assert covers(DRESS, "bust") == pytest.approx((32 * 2.54, 44.5 * 2.54), abs=0.01)
    assert covers(Pattern(), "hip") is None


@pytest.mark.parametrize(
    ("body", "finished", "stretch"),
    [(100, 80, 25.0), (92, 80.5, 14.286), (96, 100, -4.0), (90, 90, 0.0), (110, 88, 25.0)],
)
def test_negative_ease_as_stretch(body: float, finished: float, stretch: float) -> None:
    (found,) = eases(Size("x", bust_cm=body, finished_bust_cm=finished))
    assert found.stretch_pct == pytest.approx(stretch, abs=0.001)  # 100·(body/finished − 1), by hand
    (needed,) = needed_stretch(Pattern(sizes=(Size("x", bust_cm=body, finished_bust_cm=finished),)), TABLES)
    assert needed.needed_pct == pytest.approx(stretch + 10 if stretch > 0 else 0, abs=0.001)


TIGHT = Pattern(
    name="made up", garment="top", structure="knit", recommended="jersey",
    sizes=(Size("S", bust_cm=88, finished_bust_cm=80), Size("M", bust_cm=96, finished_bust_cm=80)),
)  # fmt: skip


@pytest.mark.parametrize(
    ("stretch", "size", "verdict"),
    [
        (32, None, Verdict.SUITS),  # M: 96/80 is 20 %, and 10 to move: 30
        (28, None, Verdict.WITH_CARE),  # within 12 % of 30
        (22, None, Verdict.AGAINST),
        (22, "S", Verdict.SUITS),  # S: 88/80 is 10 %, and 10 to move: 20
        (18, "S", Verdict.WITH_CARE),
    ],
)
def test_a_knit_must_give_what_the_finished_garment_lacks(stretch: float, size: str | None, verdict: Verdict) -> None:
    cloth = known_cloth(
        ClothFacts(cloth="cotton jersey", stretch_cross_pct=stretch, fibres="95 % cotton, 5 % elastane"), TABLES
    )
    check = pair(cloth, demand(TIGHT, Wish(size=size), TABLES), TABLES).checks["stretch"]
    assert check.verdict is verdict, check.reason
    if verdict is not Verdict.SUITS:
        assert f"size {size or 'M'}: bust" in check.reason


def test_a_garment_with_ease_asks_no_stretch() -> None:
    roomy = Pattern(structure="knit", recommended="jersey", sizes=(Size("S", bust_cm=88, finished_bust_cm=100),))
    assert demand(roomy, Wish(), TABLES).stretch.by_ease is None


def test_a_stable_knit_in_a_pattern_for_wovens_is_taken_in() -> None:
    shift = Pattern(
        garment="dress", structure="woven",
        sizes=tuple(Size(str(2 * at + 10), 88 + 4 * at, finished_bust_cm=97 + 4 * at) for at in range(4)),
    )  # fmt: skip
    ponte = known_cloth(ClothFacts(cloth="ponte", stretch_cross_pct=20), TABLES)
    advice = knit_in_woven(ponte, shift, "14", TABLES)
    assert advice is not None
    # 20 % × 0.33 of 96 cm is 6.3 cm, less than the 9 cm of ease; with 4 cm between sizes that is one size.
    assert (advice.cut, advice.closer_cm, advice.sizes, advice.down_at_once) == ("14", 6.3, 1, "12")
    rigid = known_cloth(ClothFacts(cloth="ponte", stretch_cross_pct=5), TABLES)
    firm = knit_in_woven(rigid, shift, None, TABLES)
    assert firm is not None
    assert (firm.closer_cm, firm.sizes) == (1.6, 0)  # 5 % × 0.33 of 96 cm
    assert knit_in_woven(ponte, DRESS, "10", TABLES) is None


def test_the_usual_step_between_sizes_is_the_middle_one() -> None:
    busts = (84, 88, 92, 97, 102, 107)  # steps of 4, 4, 5, 5 and 5
    grown = Pattern(structure="woven", sizes=tuple(Size(str(b), b, finished_bust_cm=b + 9) for b in busts))
    ponte = known_cloth(ClothFacts(cloth="ponte", stretch_cross_pct=20), TABLES)
    advice = knit_in_woven(ponte, grown, "92", TABLES)
    assert advice is not None
    assert advice.receipt == (
        "Size 92: bust 92 cm, finished 101: ease 9.",
        "Stretch 20 %, of which 33 % may be used up: 6.1 cm of the body.",
        "Whichever is less: 6.1 cm closer, with 5 cm between sizes 1 of them.",
    )
