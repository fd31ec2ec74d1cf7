"""At which layer of an outfit a kind of garment is worn. Common practice, no source."""

from __future__ import annotations

from nematex.core.pattern.look import BOTTOMS

LAYERS = ("top", "bottom", "whole", "over", "sleep")
OVER = ("coat", "gown", "hoodie")
WHOLE_GARMENTS = ("dress", "slip", "jumpsuit", "dungarees")
SLEEP_WORDS = ("pyjama", "pajama", "nightshirt", "nightdress", "nightgown", "dressing gown", "robe")
OVER_WORDS = ("overshirt", "jacket", "cardigan", "gilet", "waistcoat", "shacket")


def layer_of(kind: str, garment: str = "") -> str:
    """The layer of a kind that is drawn; what its envelope calls it decides where a shirt is worn over others."""
    if any(word in garment.casefold() for word in SLEEP_WORDS):
        return "sleep"  # worn with nothing else
    if kind in OVER or any(word in garment.casefold() for word in OVER_WORDS):
        return "over"
    if kind in BOTTOMS:
        return "bottom"
    return "whole" if kind in WHOLE_GARMENTS else "top"
