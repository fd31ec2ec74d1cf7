"""The columns of the trade's tables as they are said."""

from __future__ import annotations

FIELDS = {
    "weight_lo_gsm": "lightest",
    "weight_hi_gsm": "heaviest",
    "knit_weight_hi_gsm": "heaviest knit",
    "pattern_lo_gsm": "lightest on a pattern",
    "pattern_hi_gsm": "heaviest on a pattern",
    "cloth_lo_gsm": "lightest as a cloth",
    "cloth_hi_gsm": "heaviest as a cloth",
    "bend_lo_cm": "softest",
    "bend_hi_cm": "stiffest",
    "flowing_bend_lo_cm": "softest where it should flow",
    "thick_hi_mm": "thickest",
    "stretch_cross_lo_pct": "least stretch across",
    "stretch_lo_pct": "least stretch",
    "width_lo_cm": "narrowest",
    "selvedge_loss_cm": "lost to the selvedges",
    "class_slack_cm": "so much narrower counts as the same class of width",
    "movement_pct": "for moving",
}


def field_word(name: str) -> str:
    """A column of a table of the trade, as it is said."""
    return FIELDS.get(name, name)


HEADED = ("weight", "drape", "width")  # said by the heading above already
FAMILIES = {"woven": "wovens", "knit": "knits"}
WINDOWS = {"list": "the list", "number": "the envelope's number", "words": "what is not named"}


def window_word(name: str) -> str:
    """A window's name as it is said under its check: 'weight gathers woven' → 'gathers, wovens'."""
    words = name.split()
    words = words[1:] if words[0] in HEADED and len(words) > 1 else words
    family = FAMILIES.get(words[-1], "")
    asked = " ".join(words[:-1] if family else words)
    said = WINDOWS.get(asked, asked.replace("bulk ", "bulk of ", 1) if asked.startswith("bulk ") else asked)
    return f"{said}, {family}" if family else said
