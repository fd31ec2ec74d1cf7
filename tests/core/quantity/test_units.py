"""Unit factors against the international yard and pound agreement and against the library pint."""

from __future__ import annotations

import pint
import pytest

from nematex.core.cloth.measuring.bending import bending_length_cm, flexural_rigidity_mg_cm
from nematex.core.cloth.measuring.stretch import recovery_pct, stretch_pct
from nematex.core.errors import FieldFault
from nematex.core.quantity.units import eighths, gsm_from_oz_yd2, oz_yd2_from_gsm, price_per_metre, say_length, say_weight

UREG = pint.UnitRegistry()


def test_ounce_per_square_yard_is_the_published_factor() -> None:
    # International yard and pound agreement, 1959: 1 yd = 0.9144 m, 1 oz = 28.349523125 g; 1 oz/yd² = 33.906 g/m².
    assert gsm_from_oz_yd2(1) == pytest.approx(33.906, abs=0.0005)
    assert gsm_from_oz_yd2(1) == pytest.approx(UREG("1 ounce / yard**2").to("gram / meter**2").magnitude, rel=1e-12)
    assert oz_yd2_from_gsm(gsm_from_oz_yd2(6.5)) == pytest.approx(6.5)


def test_eight_ounce_denim() -> None:
    # Common practice, no source: 8 oz denim is 271 g/m².
    assert gsm_from_oz_yd2(8) == pytest.approx(271, abs=0.5)


@pytest.mark.parametrize(
    ("yards", "said"), [(0.01, "1/8"), (2.5, "2 1/2"), (2.51, "2 5/8"), (3.0, "3"), (2.99, "3"), (1.3716 / 0.9144, "1 1/2")]
)
def test_yards_round_up_to_eighths(yards: float, said: str) -> None:
    assert eighths(yards) == said


def test_both_systems_are_said() -> None:
    assert say_weight(220) == "220 g/m² (6.5 oz/yd²)"
    assert say_length(2.3, metric_first=False) == "2 5/8 yd (2.3 m)"


def test_price_of_a_quarter_yard() -> None:
    # Worked example of the trade (no source): 14.45 per quarter yard is 57.80 per yard.
    assert price_per_metre(14.45, 91.44 / 4) * 0.9144 == pytest.approx(57.80)


def test_bending_length_is_half_the_overhang() -> None:
    # ASTM D1388 option A (from memory): c = overhang / 2 at 41.5°; G = w·c³ (150 g/m² = 15 mg/cm², c 2 cm → 120 mg·cm).
    assert bending_length_cm(4.6) == pytest.approx(2.3)
    assert flexural_rigidity_mg_cm(150, 2.0) == pytest.approx(120.0)
    with pytest.raises(FieldFault, match="overhang_cm"):
        bending_length_cm(0)


def test_stretch_and_recovery_of_a_marked_length() -> None:
    # As ASTM D2594 reckons (from memory): 10 cm pulled to 13 is 30 %; back to 10.3 is 90 % recovery.
    assert stretch_pct(10, 13) == pytest.approx(30)
    assert recovery_pct(10, 13, 10.3) == pytest.approx(90)
    with pytest.raises(FieldFault, match="relaxed length of 10"):
        stretch_pct(10, 9)
