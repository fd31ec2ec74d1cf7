"""How see-through a cloth is, from its look over black and over white card.

Model: light goes through the cloth, is sent back by the card and comes through again, over and over:
R_g = R₀ + T²·g/(1 − R₀·g), with g the card's reflectance, R₀ the cloth's own reflectance and T its transmittance
(Kubelka's formula for a layer over a ground, from memory). Opacity is the contrast ratio C = R₀/R_white. The bare cards
in the same picture tell the camera's response. Limits between the words: common practice, no source.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from scipy.optimize import brentq

from nematex.core.errors import FieldFault

BLACK_CARD, WHITE_CARD = 0.04, 0.88  # reflectance of ordinary card, common practice, no source
OPAQUE, SLIGHTLY, SEMI = 0.95, 0.85, 0.65
DARK_BELOW = 0.08
T_OPAQUE, T_SLIGHTLY, T_SEMI = 0.15, 0.30, 0.50


@dataclass(frozen=True, slots=True)
class SeeThrough:
    """Own reflectance, transmittance, contrast ratio (all 0–1) and the word."""

    reflectance: float
    transmittance: float
    contrast_ratio: float
    word: str


def over_ground(reflectance: float, transmittance: float, ground: float) -> float:
    """Reflectance of a layer over a ground."""
    return reflectance + transmittance**2 * ground / (1 - reflectance * ground)


def contrast_ratio(over_black: float, over_white: float) -> float:
    """Reflectance over black divided by reflectance over white, both 0–1."""
    if not 0 <= over_black <= over_white * 1.02 or over_white <= 0:
        raise FieldFault("over_white", over_white, f"must not be darker than over black ({over_black:.3f})")
    return min(1.0, over_black / over_white)


def word_for(ratio: float, reflectance: float, transmittance: float) -> str:
    """The level of see-through in words; dark cloth is judged by what it lets through."""
    if reflectance < DARK_BELOW:
        limits, value = ((T_OPAQUE, T_SLIGHTLY, T_SEMI), transmittance)
        level = sum(value >= limit for limit in limits)
    else:
        level = sum(ratio < limit for limit in (OPAQUE, SLIGHTLY, SEMI))
    return ("opaque", "slightly sheer", "semi-sheer", "sheer")[level]


def see_through(cloth_on_black: float, cloth_on_white: float, black_card: float, white_card: float) -> SeeThrough:
    """From four linear tones of one picture (any scale): the cloth over both cards, and both cards bare."""
    if not 0 <= black_card < white_card:
        raise FieldFault("white_card", white_card, f"must be lighter than the black card ({black_card:.3f})")
    if white_card < 3 * max(black_card, 1e-4):
        raise FieldFault("white_card", white_card, "is too close to the black card; even out the light and take it again")

    def as_reflectance(tone: float) -> float:
        return BLACK_CARD + (tone - black_card) * (WHITE_CARD - BLACK_CARD) / (white_card - black_card)

    on_black, on_white = as_reflectance(cloth_on_black), as_reflectance(cloth_on_white)
    if on_white < on_black - 0.03:
        raise FieldFault("cloth_on_white", round(cloth_on_white, 4), "is darker than over black; the pictures look swapped")
    on_white = max(on_white, on_black)

    def squared_transmittance(own: float) -> float:
        return max(0.0, (on_black - own) * (1 - own * BLACK_CARD) / BLACK_CARD)

    def miss(own: float) -> float:
        return over_ground(own, math.sqrt(squared_transmittance(own)), WHITE_CARD) - on_white

    high = max(on_black, 1e-6)
    own = (
        brentq(miss, 0.0, high) if miss(0.0) > 0 > miss(high) - 1e-12 and miss(high) < 0 else (high if miss(high) >= 0 else 0.0)
    )
    through = math.sqrt(squared_transmittance(own))
    ratio = own / over_ground(own, through, WHITE_CARD) if own > 0 else 0.0
    return SeeThrough(own, through, ratio, word_for(ratio, own, through))
