"""Bending, the heavy elastica, the drape coefficient and colour difference against published formulas and values."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.cloth.measuring.bending import (
    bending_length_cm,
    bias_bending_length_cm,
    flexural_rigidity_mg_cm,
    flexural_rigidity_un_m,
    peirce_bending_length_cm,
)
from nematex.core.cloth.measuring.drape_coefficient import (
    bending_from_drape,
    drape_coefficient_pct,
    drape_from_bending,
    folds_from_bending,
)
from nematex.core.errors import FieldFault
from nematex.core.hang.elastica import bending_length_on_ramp_cm, curve, overhang_in_bending_lengths


def test_the_ramp_halves_the_overhang() -> None:
    # ASTM D1388 / ISO 9073-7 option A, from memory: c = overhang / 2 on the 41.5° ramp, G = w·c³.
    assert bending_length_cm(4.6) == 2.3
    # Worked: 150 g/m² = 15 mg/cm², c = 2 cm: G = 15 · 8 = 120 mg·cm = 11.77 µN·m.
    assert flexural_rigidity_mg_cm(150, 2.0) == pytest.approx(120)
    assert flexural_rigidity_un_m(150, 2.0) == pytest.approx(11.768, abs=1e-3)


@pytest.mark.parametrize(
    ("length", "reach", "drop", "chord", "tip"),
    [
        # From a prototype of the same equation by another solver; ±1e-5 and ±0.001°.
        (0.5, 0.499930, 0.007811, 0.895, 1.193),
        (1, 0.991246, 0.123471, 7.100, 9.460),
        (2, 1.448849, 1.281261, 41.487, 53.865),
        (3, 1.101868, 2.590655, 66.959, 81.602),
        (6, 0.617994, 5.750860, 83.867, 89.982),
    ],
)
def test_the_elastica_gives_the_prototype_s_table(length: float, reach: float, drop: float, chord: float, tip: float) -> None:
    found = curve(length)
    assert found.reach[-1] == pytest.approx(reach, abs=1e-5)
    assert found.drop[-1] == pytest.approx(drop, abs=1e-5)
    assert found.chord_deg == pytest.approx(chord, abs=2e-3)
    assert found.tip_deg == pytest.approx(tip, abs=2e-3)


def test_a_short_strip_bends_as_a_beam_does() -> None:
    # Euler and Bernoulli: a cantilever under its own weight drops w·L⁴/(8·B), which in units of c is L⁴/8.
    assert curve(0.1).drop[-1] == pytest.approx(0.1**4 / 8, rel=1e-3)


def test_a_long_strip_hangs_as_the_asymptote_says() -> None:
    assert curve(40.0).reach[-1] == pytest.approx(math.sqrt(2 / 40), rel=0.02)


@pytest.mark.parametrize(("angle", "percent"), [(10, 0.11), (20, 0.42), (30, 0.96), (41.5, 1.88), (60, 4.42), (70, 7.33)])
def test_peirce_s_formula_errs_as_known(angle: float, percent: float) -> None:
    # Peirce 1930, from memory: c = L·(cos(θ/2)/(8·tan θ))^⅓; its error against the exact curve, from a prototype.
    exact = 1 / overhang_in_bending_lengths(angle)
    assert 100 * (peirce_bending_length_cm(1, angle) / exact - 1) == pytest.approx(percent, abs=0.01)


def test_at_the_standard_angle_the_overhang_is_twice_the_bending_length() -> None:
    assert overhang_in_bending_lengths(41.5) == pytest.approx(2.00035, abs=1e-5)
    assert bending_length_on_ramp_cm(4.0, 41.5) == pytest.approx(bending_length_cm(4.0), rel=2e-4)


def test_the_drape_coefficient_is_the_share_of_the_ring() -> None:
    # ISO 9073-9 / BS 5058, from memory: 30 cm disc on an 18 cm stand.
    assert drape_coefficient_pct(math.pi * 81) == 0
    assert drape_coefficient_pct(math.pi * 225) == pytest.approx(100)
    assert drape_coefficient_pct(math.pi * (81 + 72)) == pytest.approx(50)
    with pytest.raises(FieldFault, match="check the scale"):
        drape_coefficient_pct(100)


def test_stiffness_and_drape_convert_by_the_sheet_s_table() -> None:
    # A simulated sheet's values (prototype); uncertainty −15/+5 points.
    for bend, drape in ((0.8, 24), (1.2, 36), (1.5, 47), (2.0, 66), (2.5, 75.5), (3.2, 88), (4.0, 95.6), (5.0, 97.8)):
        estimate = drape_from_bending(bend)
        assert estimate.best == pytest.approx(drape)
        assert (estimate.low, estimate.high) == (pytest.approx(drape - 15), pytest.approx(min(100, drape + 5)))
        assert bending_from_drape(drape).best == pytest.approx(bend)
    assert folds_from_bending(2.1) == (5, 7)


@given(st.floats(0.3, 6.5), st.floats(0.01, 0.4))
def test_stiffer_never_drapes_more(bend: float, more: float) -> None:
    assert drape_from_bending(bend + more).best >= drape_from_bending(bend).best
    low, high = bending_from_drape(60).low, bending_from_drape(60).high
    assert low < bending_from_drape(60).best < high


def test_the_bias_hangs_no_stiffer_than_the_stiffer_grain() -> None:
    assert bias_bending_length_cm(2.0, 2.0) == pytest.approx(2.0)
    assert 1.5 < bias_bending_length_cm(1.5, 3.0) < 3.0
