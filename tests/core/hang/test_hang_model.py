"""The hang model against figures from a 3-D sheet simulation (own prototype: triangle membrane, hinge bending)."""

from __future__ import annotations

import math

import numpy as np
import pytest

from nematex.core.cloth.measuring.draped_disc import draped_disc
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.hang.cowl import cowl
from nematex.core.hang.elastica import curve, drawn_curve
from nematex.core.hang.hem import POINTS, Cut, fold_depth_cm, fold_length_cm, hang
from nematex.core.hang.silhouettes import SILHOUETTES, cut_of, silhouette
from nematex.core.hang.words import alone, compared, cowl_alone, cowl_compared


def cone(top_cm: float, hem_cm: float, length_cm: float) -> Cut:
    down = np.linspace(0, length_cm, POINTS)
    radius = top_cm + (hem_cm - top_cm) * down / length_cm
    return Cut(tuple(down), tuple(2 * math.pi * radius), tuple(radius), (top_cm,) * POINTS)


def tier(top_cm: float, gather: float, length_cm: float, overdone: bool) -> Cut:
    down = np.linspace(0, length_cm, POINTS)
    radius = top_cm * (1 + (gather - 1) * down / length_cm)
    around = (2 * math.pi * top_cm * gather,) * POINTS
    return Cut(tuple(down), around, tuple(radius), (top_cm,) * POINTS, overdone)


@pytest.mark.parametrize(("bend", "length", "wave"), [(1.2, 40, 10.22), (3.2, 40, 21.33), (2, 6, 9.33)])
def test_the_length_of_a_fold(bend: float, length: float, wave: float) -> None:
    assert fold_length_cm(bend, length) == pytest.approx(wave, abs=0.005)


@pytest.mark.parametrize(("bend", "sheet_cm"), [(1.2, 17.5), (2.0, 19.3), (3.2, 21.8)])
def test_a_cone_hangs_as_the_sheet_does_within_two_per_cent(bend: float, sheet_cm: float) -> None:
    assert hang(cone(15.3, 27, 40), bend).hem_radius_cm == pytest.approx(sheet_cm, rel=0.02)


@pytest.mark.parametrize(("bend", "model_cm", "sheet_cm"), [(1.2, 15.6, 16.7), (2.0, 17.7, 17.2), (3.2, 20.7, 18.9)])
def test_a_tier_is_overdone_by_the_model_and_drawn_toward_the_middle(bend: float, model_cm: float, sheet_cm: float) -> None:
    assert hang(tier(13, 1.8, 35, False), bend).hem_radius_cm == pytest.approx(model_cm, abs=0.1)
    assert hang(tier(13, 1.8, 35, True), bend).hem_radius_cm == pytest.approx(sheet_cm, rel=0.035)


@pytest.mark.parametrize("name", [name for name in SILHOUETTES if name != "cowl"])
def test_stiffer_cloth_stands_further_out_and_folds_less(name: str) -> None:
    found = [hang(cut_of(name), bend) for bend in (0.8, 1.5, 2.5, 4.0)]
    radii = [each.widest_radius_cm for each in found]
    assert radii == sorted(radii)
    assert [each.folds for each in found] == sorted((each.folds for each in found), reverse=True)
    for each in found:
        assert (np.diff(each.fall_cm) >= 0).all()
        assert each.fall_cm[-1] <= cut_of(name).length_cm + 1e-9
        assert (each.radius_cm <= np.array(cut_of(name).pattern_radius_cm) + 1e-9).all()


@pytest.mark.parametrize("length", [0.1, 0.3, 1.0, 1.3, 2.0, 2.4, 4.4, 6.0, 10.0, 20.0])
def test_a_curve_for_drawing_is_the_solved_one_within_a_hair(length: float) -> None:
    drawn, solved = drawn_curve(length), curve(length, 60)
    assert drawn.reach[-1] == pytest.approx(solved.reach[-1], rel=0.002)
    assert drawn.drop[-1] == pytest.approx(solved.drop[-1], rel=0.002, abs=0.001)


def test_trousers_hang_nearly_alike() -> None:
    fluid, stiff = (hang(cut_of("wide leg"), bend).widest_radius_cm for bend in (0.9, 4.0))
    assert stiff - fluid < 0.1 * stiff
    assert SILHOUETTES["wide leg"].caveat


def test_the_wave_of_a_fold_is_as_long_as_the_cloth_in_it() -> None:
    depth = fold_depth_cm(1.5, 10.0)
    along = np.linspace(0, 10, 20001)
    arc = np.trapezoid(np.sqrt(1 + (depth * 2 * np.pi / 10 * np.cos(2 * np.pi * along / 10)) ** 2), along)
    assert arc == pytest.approx(15.0, rel=1e-6)
    assert fold_depth_cm(1.0, 10.0) == 0


@pytest.mark.parametrize("bend", [0.8, 1.2, 2.0, 3.2, 4.0, 5.0])
def test_the_disc_holds_the_area_of_its_coefficient(bend: float) -> None:
    disc = draped_disc(bend)
    coefficient = 100 * (disc.area_cm2 - math.pi * 81) / (math.pi * 144)
    assert coefficient == pytest.approx(disc.drape_pct.best, abs=1e-6)
    turn = np.linspace(0, 2 * math.pi, 721)[:-1]
    outline = np.array([disc.radius_cm(angle) for angle in turn])
    assert outline.min() >= 9
    assert outline.max() <= 15
    assert (outline**2).mean() * math.pi == pytest.approx(disc.area_cm2, rel=1e-6)


def test_a_cowl_falls_deeper_and_closer_in_softer_cloth() -> None:
    soft, stiff = cowl(18, 1.0), cowl(18, 3.0)
    assert soft.depth_cm > stiff.depth_cm
    assert soft.stands_off_cm < stiff.stands_off_cm
    assert soft.folds > stiff.folds
    # A chain between points 20 cm apart, worked by hand with 10/a = 2: length 10·sinh 2 = 36.269, sag 5·(cosh 2 − 1) = 13.811.
    assert cowl(16.2686 + 1.5, 1.0).depth_cm == pytest.approx(13.811, abs=0.001)
    assert "chest" in cowl_alone(soft)
    assert "closer to the chest than canvas" in cowl_compared(soft, stiff, "canvas")


def test_what_it_means_in_words() -> None:
    kind = silhouette("A-line skirt")
    soft, crisp = hang(cut_of(kind.name), 1.2), hang(cut_of(kind.name), 3.2)
    assert compared(kind, crisp, soft, "the crepe") == (
        "Stands 5 cm further out at the hem than the crepe, on each side, in 4 folds instead of 8."
    )
    assert "Hangs as wide as itself, with as many folds" in compared(kind, soft, soft, "itself")
    assert alone(kind, soft).startswith("About 37 cm across at the hem, in about 8 folds")


@pytest.mark.parametrize(
    ("name", "length", "gather", "field"),
    [("ball gown", None, None, "garment"), ("cocoon", 5, None, "length_cm"), ("gathered skirt", None, 9, "gather")],
)
def test_what_cannot_be_hung_is_said(name: str, length: float | None, gather: float | None, field: str) -> None:
    with pytest.raises(FieldFault) as fault:
        cut_of(name, length, gather)
    assert fault.value.field == field
    if name == "ball gown":
        assert isinstance(fault.value, UnknownChoice)
        assert "cocoon" in str(fault.value)


def test_a_bending_length_no_cloth_has_is_refused() -> None:
    with pytest.raises(FieldFault, match=r"between 0\.3 and 9 cm"):
        hang(cut_of("cocoon"), 20)
