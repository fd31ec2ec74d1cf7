"""A third round of judged pairings: parts, options, ease, off the list, sheer, the nearest relative.

Common practice, no source. By the same hand as the rules, so they show consistency, not truth. Each entry: cloth,
pattern and choices, the verdicts that a practitioner would accept, and why.
"""

from __future__ import annotations

from typing import Any

JERSEY = {"cloth": "cotton jersey", "fibres": "95% cotton 5% elastane", "weight_gsm": 200}
TEE = {"structure": "knit", "recommended": "Light to medium weight jersey", "garment": "tee"}
SHIRT = {
    "structure": "woven",
    "recommended": "Light to medium weight wovens: poplin, chambray, lawn, linen",
    "garment": "shirt",
}
SHIFT = {"structure": "woven", "recommended": "Medium weight wovens with body: linen, cotton sateen, crepe", "garment": "dress"}


def _sized(**finished: float) -> list[dict[str, Any]]:
    return [{"label": "12", "bust_cm": 92, "hip_cm": 98, **{f"finished_{name}_cm": value for name, value in finished.items()}}]


THIRD_ROUND: list[tuple[dict[str, Any], dict[str, Any], set[str], str]] = [
    # -- what a knit must give -----------------------------------------------------------------------
    ({**JERSEY, "stretch_cross_pct": 40}, {"pattern": {**TEE, "sizes": _sized(bust=80)}}, {"suits"},
     "15 % to go round and 10 to move: 40 is plenty"),
    ({**JERSEY, "stretch_cross_pct": 20}, {"pattern": {**TEE, "sizes": _sized(bust=80)}}, {"against"},
     "25 % is needed and 20 is there"),
    ({**JERSEY, "stretch_cross_pct": 23}, {"pattern": {**TEE, "sizes": _sized(bust=80)}}, {"with care"},
     "a tenth short: the next size up"),
    ({**JERSEY, "stretch_cross_pct": 20}, {"pattern": {**TEE, "sizes": _sized(bust=98)}}, {"suits", "with care"},
     "a tee with ease asks no stretch of its own"),
    ({"cloth": "cotton jersey", "fibres": "100% cotton", "stretch_cross_pct": 40, "weight_gsm": 190},
     {"pattern": {**TEE, "sizes": _sized(bust=80)}}, {"with care"}, "it gives, but without elastane it bags where it is tight"),
    ({**JERSEY, "stretch_cross_pct": 30}, {"pattern": {**TEE, "sizes": _sized(bust=92, hip=80)}}, {"with care"},
     "the hip decides: 22.5 % and 10 to move, 30 is a tenth short"),
    ({"cloth": "cotton poplin", "weight_gsm": 120}, {"pattern": {**SHIRT, "sizes": _sized(bust=88)}}, {"suits", "with care"},
     "of a woven no stretch is reckoned, whatever its finished measurements say"),
    # -- parts ------------------------------------------------------------------------------------------
    ({"cloth": "tulle", "weight_gsm": 40}, {"pattern": {**TEE, "parts": [{"name": "body"}, {"name": "sleeve", "fit": "free",
     "details": ["full sleeve"]}]}, "part": "sleeve"}, {"suits", "with care"}, "a free sleeve may be of net on a jersey body"),
    ({"cloth": "tulle", "weight_gsm": 40}, {"pattern": {**TEE, "parts": [{"name": "body"}, {"name": "sleeve", "fit": "free"}]},
     "part": "body"}, {"against"}, "the body must be got into"),
    ({"cloth": "chambray", "weight_gsm": 160, "bending_length_cm": 1.7}, 
     {"pattern": {**TEE, "parts": [{"name": "body", "fit": "loose"}]}, "part": "body"},
     {"with care", "against"}, "a loose body may be made in a woven if it goes over the shoulders"),
    ({"cloth": "rib knit", "stretch_cross_pct": 70}, {"pattern": {**TEE, "parts": [{"name": "neckband"}]}, "part": "neckband"},
     {"suits", "with care"}, "rib is what bands are made of"),
    ({"cloth": "cotton poplin", "weight_gsm": 120}, {"pattern": {**SHIRT, "parts": [{"name": "yoke"}, {"name": "body"}]},
     "part": "yoke"}, {"suits"}, "a contrast yoke in poplin on a shirt"),
    # -- options: what is made decides ------------------------------------------------------------------
    ({"cloth": "viscose challis", "weight_gsm": 110, "bending_length_cm": 1.3},
     {"pattern": {**SHIRT, "options": [{"name": "collar", "part": "collar", "details": ["shirt collar"]}]}},
     {"with care", "against"}, "a fluid challis slips in a collar"),
    ({"cloth": "viscose challis", "weight_gsm": 110, "bending_length_cm": 1.3},
     {"pattern": {**SHIRT, "options": [{"name": "collar", "part": "collar", "details": ["shirt collar"]}]}, "options": []},
     {"suits", "with care"}, "without the collar it only falls softer than the list"),
    ({"cloth": "georgette", "fibres": "100% polyester", "weight_gsm": 90, "sheer": "slightly sheer"},
     {"pattern": {"structure": "woven", "recommended": "Light wovens: lawn, voile, georgette", "options": [
         {"name": "tucks", "views": ["A"], "details": ["pin tucks"]}]}, "view": "A"}, {"with care"},
     "a slippery synthetic does not hold a tuck, though the list names it"),
    ({"cloth": "georgette", "fibres": "100% polyester", "weight_gsm": 90, "sheer": "slightly sheer"},
     {"pattern": {"structure": "woven", "recommended": "Light wovens: lawn, voile, georgette", "options": [
         {"name": "tucks", "views": ["A"], "details": ["pin tucks"]}]}, "view": "B"}, {"suits"}, "view B has no tucks"),
    # -- off the list, knowingly --------------------------------------------------------------------------
    ({"cloth": "ponte", "weight_gsm": 260, "stretch_cross_pct": 18, "bending_length_cm": 2.2}, {"pattern": SHIFT}, {"with care"},
     "a stable knit in a shift for wovens"),
    ({"cloth": "viscose jersey", "weight_gsm": 220, "stretch_cross_pct": 70}, {"pattern": SHIFT}, {"against"},
     "a stretchy jersey in a pattern for wovens"),
    ({"cloth": "stretch cotton sateen", "weight_gsm": 220, "stretch_cross_pct": 15}, {"pattern": SHIFT}, {"suits"},
     "comfort stretch: sizes as usual"),
    ({"structure": "knit", "name": "a half-way jersey", "stretch_cross_pct": 6, "stretch_length_pct": 30, "weight_gsm": 200,
      "known": {"stretch_length_pct": "measured", "stretch_cross_pct": "measured"}},
     {"pattern": {**TEE, "min_stretch_cross_pct": 25}}, {"with care"}, "turned by 90° the stretch goes round the body"),
    ({"structure": "knit", "name": "a half-way jersey", "stretch_cross_pct": 6, "stretch_length_pct": 30, "weight_gsm": 200,
      "print": {"direction": "one-way"}}, {"pattern": {**TEE, "min_stretch_cross_pct": 25}}, {"against"},
     "a one-way print cannot be turned"),
    # -- sheer -------------------------------------------------------------------------------------------
    ({"cloth": "cotton voile", "weight_gsm": 70, "sheer": "semi-sheer"},
     {"pattern": {"structure": "woven", "garment": "trousers", "recommended": "Lightweight linen, poplin, chambray"}}, {"against"},
     "nothing is worn beneath unlined legs"),
    ({"cloth": "cotton voile", "weight_gsm": 70, "sheer": "semi-sheer"},
     {"pattern": {"structure": "woven", "garment": "trousers", "lined": True, "recommended": "Lightweight wovens: lawn, voile"}},
     {"suits", "with care"}, "lined legs may be of voile"),
    ({"cloth": "cotton voile", "weight_gsm": 70, "sheer": "semi-sheer"},
     {"pattern": {"structure": "woven", "garment": "blouse", "recommended": "Lightweight wovens: lawn, voile"}}, {"with care"},
     "it shows; a viewer has to be told to wear something beneath"),
    # -- the nearest relative ------------------------------------------------------------------------------
    ({"cloth": "textured crepe", "weight_gsm": 210, "bending_length_cm": 1.3},
     {"pattern": {"structure": "woven", "recommended": "chiffon or denim"}}, {"with care"}, "between the two, and like neither"),
    ({"cloth": "light denim", "weight_gsm": 240}, {"pattern": {"structure": "woven", "recommended": "chiffon or denim"}},
     {"suits", "with care"}, "near enough to the denim"),
]  # fmt: skip
