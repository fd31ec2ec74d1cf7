"""Pairings with the verdict that a practitioner gives, each with the reason.

Common practice, no source: written from the principles of the trade before the rules were run on them. `fields` are
the keys of `nematex assess`; a set of two verdicts means that hands disagree between them.
"""

from __future__ import annotations

from typing import Any

S, C, U, A = "suits", "with care", "unproven", "against"

SUMMER_DRESS = {
    "garment": "dress",
    "structure": "woven",
    "recommended": "light to medium weight wovens such as linen, cotton lawn, double gauze or viscose",
}
TIERED_SKIRT = {
    "garment": "skirt",
    "structure": "woven",
    "details": ["tiers"],
    "recommended": "Lightweight wovens with drape: challis, lawn, crepe, double gauze.",
}
SHIRT = {
    "garment": "shirt",
    "structure": "woven",
    "details": ["shirt collar", "button band", "cuffs"],
    "recommended": "shirting, chambray, poplin, linen",
}
BODYCON = {
    "garment": "dress",
    "structure": "knit",
    "min_stretch_cross_pct": 25,
    "details": ["bodycon"],
    "recommended": "medium weight knits with at least 25% stretch across",
}
TEE = {"garment": "tee", "structure": "knit", "recommended": "cotton jersey, viscose jersey, modal jersey with 25% stretch"}
SHEATH = {
    "garment": "dress",
    "structure": "woven",
    "details": ["princess seams", "darts"],
    "recommended": "medium weight stable wovens: wool crepe, suiting, gabardine, cotton sateen",
}
WIDE = {
    "garment": "trousers",
    "structure": "woven",
    "details": ["wide leg"],
    "recommended": "medium weight wovens such as linen, lyocell twill, wool crepe",
}
DUNGAREES = {
    "garment": "dungarees",
    "structure": "woven",
    "details": ["dungarees"],
    "recommended": "medium to heavy weight wovens: denim, corduroy, twill, canvas",
}
HOODIE = {
    "garment": "hoodie",
    "structure": "knit",
    "details": ["hoodie"],
    "recommended": "French terry, sweatshirt fleece, ponte; ribbing for cuffs and hem band",
}
TUCKS = {
    "garment": "blouse",
    "structure": "woven",
    "details": ["pin tucks"],
    "recommended": "cotton lawn, fine linen, voile; viscose or crepe without the tucks",
}
BLOUSE_NO_TUCKS = {**TUCKS, "details": []}
COWL = {
    "garment": "top",
    "structure": "woven",
    "details": ["cowl"],
    "recommended": "silk, satin, viscose crepe, crepe de chine",
}
SLEEVED = {
    "garment": "dress",
    "structure": "knit",
    "recommended": "jersey with 40% stretch",
    "parts": [{"name": "body", "fit": "close"}, {"name": "sleeve", "fit": "free", "details": ["full sleeve"]}],
}
PYJAMAS = {
    "garment": "pyjamas",
    "structure": "woven",
    "nightwear": True,
    "recommended": "cotton lawn, brushed cotton, double gauze, viscose",
}
GOWN = {
    "garment": "dressing gown",
    "structure": "woven",
    "recommended": "waffle cotton, towelling, brushed cotton, double gauze",
}
KNOT = {
    "garment": "top",
    "structure": "knit",
    "details": ["knot"],
    "recommended": "light to medium weight jersey with 30% stretch",
}
FACED_KNIT = {
    "garment": "dress",
    "structure": "knit",
    "details": ["neck facing"],
    "recommended": "stable knits: ponte, scuba, double knits",
}
COAT = {
    "garment": "coat",
    "structure": "woven",
    "details": ["notched lapels"],
    "lined": True,
    "recommended": "wool coating, melton, tweed, boiled wool",
}
BIAS = {
    "garment": "dress",
    "structure": "woven",
    "details": ["bias cut"],
    "recommended": "satin, crepe de chine, viscose challis, cupro",
}
SHORTS = {
    "garment": "shorts",
    "structure": "woven",
    "details": ["elastic waist"],
    "recommended": "linen, cotton poplin, seersucker, viscose twill",
}
NO_KNITS = {"garment": "dress", "recommended": "light wovens", "avoid": "not suitable for knits or stiff fabrics"}
NATURAL = {
    "garment": "smock",
    "structure": "woven",
    "recommended": "natural fibres: light to medium weight linen, cotton or hemp",
}
CORSET = {"garment": "top", "structure": "woven", "details": ["boning"], "recommended": "cotton sateen, brocade, denim, linen"}
WRAP = {
    "garment": "dress",
    "structure": "woven",
    "details": ["wrap front"],
    "recommended": "viscose, crepe, light linen, cotton lawn",
}
SWIM = {"garment": "swimsuit", "structure": "knit", "recommended": "swim jersey with 60% four-way stretch and good recovery"}

PAIRINGS: list[tuple[dict[str, Any], dict[str, Any], set[str], str]] = [
    ({"cloth": "cotton lawn"}, {"pattern": SUMMER_DRESS}, {S}, "named on the list"),
    ({"cloth": "linen", "weight_gsm": 185}, {"pattern": SUMMER_DRESS}, {S}, "any linen counts as linen on an envelope"),
    ({"cloth": "viscose lawn", "weight_gsm": 105}, {"pattern": SUMMER_DRESS}, {S}, "handles like the viscose named"),
    (
        {"cloth": "cotton poplin", "weight_gsm": 120},
        {"pattern": SUMMER_DRESS},
        {S},
        "by the hand: weight and drape as the list",
    ),
    ({"cloth": "cotton poplin", "weight_gsm": 120}, {"pattern": SUMMER_DRESS, "school": "list"}, {C}, "by the list: not named"),
    ({"cloth": "canvas"}, {"pattern": SUMMER_DRESS}, {A}, "far too heavy and stiff"),
    ({"cloth": "heavy denim"}, {"pattern": SUMMER_DRESS}, {A}, "far too heavy and stiff"),
    ({"cloth": "cotton jersey"}, {"pattern": SUMMER_DRESS}, {A}, "a stretchy knit in a pattern for wovens"),
    ({"cloth": "organza"}, {"pattern": SUMMER_DRESS}, {A, U, C}, "stands off; sheer; no cloth for it unlined"),
    ({"cloth": "georgette", "weight_gsm": 80}, {"pattern": SUMMER_DRESS}, {S, C}, "softer than the list, sheer: line it"),
    (
        {"cloth": "viscose challis", "weight_gsm": 120, "bending_length_cm": 1.3},
        {"pattern": TIERED_SKIRT, "look": "flowing"},
        {S},
        "named, flows",
    ),
    (
        {"cloth": "cotton lawn", "weight_gsm": 80, "bending_length_cm": 2.0},
        {"pattern": TIERED_SKIRT},
        {S},
        "named; stands a little",
    ),
    (
        {"cloth": "quilting cotton", "bending_length_cm": 2.8, "weight_gsm": 145},
        {"pattern": TIERED_SKIRT},
        {A},
        "stands off where drape is asked",
    ),
    ({"cloth": "double gauze"}, {"pattern": TIERED_SKIRT}, {S}, "named; still gathers"),
    ({"cloth": "denim"}, {"pattern": TIERED_SKIRT}, {A}, "too heavy to gather"),
    ({"cloth": "shirting"}, {"pattern": SHIRT}, {S}, "named"),
    ({"cloth": "gingham", "weight_gsm": 120}, {"pattern": SHIRT}, {S}, "a plain cotton of shirt weight"),
    ({"cloth": "viscose crepe"}, {"pattern": SHIRT}, {A}, "no edge for collar and band"),
    ({"cloth": "cotton poplin", "weight_gsm": 115}, {"pattern": SHIRT}, {S}, "named"),
    ({"cloth": "wool coating"}, {"pattern": SHIRT}, {A}, "a coat cloth"),
    (
        {"cloth": "stretch poplin", "weight_gsm": 125, "stretch_cross_pct": 15},
        {"pattern": SHIRT},
        {S},
        "comfort stretch in a woven pattern: sizes as usual",
    ),
    (
        {"cloth": "ponte", "weight_gsm": 280, "stretch_cross_pct": 30},
        {"pattern": BODYCON},
        {S},
        "medium weight, enough stretch",
    ),
    (
        {"cloth": "ponte", "weight_gsm": 280, "stretch_cross_pct": 23},
        {"pattern": BODYCON},
        {C},
        "asked 25, has 23: next size up",
    ),
    (
        {"cloth": "ponte", "weight_gsm": 280, "stretch_cross_pct": 12},
        {"pattern": BODYCON},
        {A},
        "a stretch limit is never given up",
    ),
    ({"cloth": "slinky jersey", "weight_gsm": 190}, {"pattern": BODYCON}, {A}, "thin slinky jersey shows everything"),
    (
        {"cloth": "slinky jersey", "weight_gsm": 190},
        {"pattern": {**BODYCON, "details": ["bodycon", "ruching"]}},
        {S},
        "ruched, the folds hide",
    ),
    ({"cloth": "denim"}, {"pattern": BODYCON}, {A}, "a woven in a fitted knit pattern"),
    ({"cloth": "stretch denim", "stretch_cross_pct": 28}, {"pattern": BODYCON}, {A}, "a woven all the same"),
    ({"cloth": "cotton jersey", "weight_gsm": 180}, {"pattern": TEE}, {S}, "named"),
    ({"cloth": "cotton poplin"}, {"pattern": TEE}, {A}, "a woven in a fitted knit pattern"),
    ({"cloth": "lyocell jersey", "weight_gsm": 190}, {"pattern": TEE}, {S}, "handles like the modal jersey named"),
    ({"cloth": "wool crepe"}, {"pattern": SHEATH}, {S}, "named"),
    (
        {"cloth": "ponte", "weight_gsm": 270, "stretch_cross_pct": 25},
        {"pattern": SHEATH},
        {C},
        "a stable knit in a sheath: cut the measured size, baste, take in",
    ),
    ({"cloth": "scuba crepe"}, {"pattern": SHEATH}, {C}, "a stable knit in a sheath"),
    ({"cloth": "viscose jersey"}, {"pattern": SHEATH}, {A}, "a stretchy knit in a woven pattern"),
    ({"cloth": "chiffon"}, {"pattern": SHEATH}, {A}, "no body, no weight"),
    ({"cloth": "brocade", "weight_gsm": 220}, {"pattern": SHEATH}, {S, C}, "brocade for best"),
    ({"cloth": "linen"}, {"pattern": WIDE}, {S}, "named, some body"),
    ({"cloth": "viscose challis", "weight_gsm": 135}, {"pattern": WIDE}, {C}, "soft: with care for a held line"),
    (
        {"cloth": "viscose twill", "weight_gsm": 170},
        {"pattern": {**WIDE}, "look": "flowing"},
        {S},
        "soft is right when flowing is wanted",
    ),
    ({"cloth": "single gauze"}, {"pattern": WIDE}, {A}, "sheer trousers: nothing can be worn beneath"),
    ({"cloth": "denim", "weight_gsm": 340}, {"pattern": DUNGAREES}, {S}, "named workwear cloth"),
    ({"cloth": "corduroy"}, {"pattern": DUNGAREES}, {S}, "named"),
    ({"cloth": "cotton lawn"}, {"pattern": DUNGAREES}, {A}, "far too light"),
    ({"cloth": "moleskin"}, {"pattern": DUNGAREES}, {S}, "handles like the twill named"),
    ({"cloth": "french terry"}, {"pattern": HOODIE}, {S}, "named"),
    ({"cloth": "viscose jersey", "weight_gsm": 170}, {"pattern": HOODIE}, {A, C, U}, "too thin and limp for a hoodie"),
    ({"cloth": "cotton twill"}, {"pattern": HOODIE}, {A}, "a woven in a knit pattern"),
    ({"cloth": "cuff rib"}, {"pattern": HOODIE, "part": "cuffs"}, {S}, "rib for cuffs"),
    ({"cloth": "cotton lawn"}, {"pattern": TUCKS}, {S}, "named, takes a press"),
    ({"cloth": "viscose crepe"}, {"pattern": TUCKS}, {C}, "named only without the tucks"),
    ({"cloth": "viscose crepe"}, {"pattern": BLOUSE_NO_TUCKS}, {S}, "the condition is kept"),
    ({"cloth": "georgette", "fibres": "100% polyester"}, {"pattern": TUCKS}, {C, A}, "polyester will not hold a tuck"),
    ({"cloth": "satin"}, {"pattern": COWL}, {S}, "named; fluid"),
    ({"cloth": "cotton poplin", "bending_length_cm": 2.5}, {"pattern": COWL}, {A}, "a stiff cowl stands off"),
    ({"cloth": "soft tulle"}, {"pattern": SLEEVED, "part": "sleeve"}, {S, C}, "free sleeve: any stretch, also none"),
    ({"cloth": "soft tulle"}, {"pattern": SLEEVED, "part": "body"}, {A}, "the fitted body needs a knit"),
    (
        {"cloth": "soft tulle"},
        {
            "pattern": {
                "structure": "knit",
                "recommended": "jersey",
                "parts": [{"name": "sleeve", "details": ["balloon sleeve"]}],
            },
            "part": "sleeve",
        },
        {S},
        "a balloon sleeve is free of the body, said or not",
    ),
    ({"cloth": "canvas"}, {"pattern": DUNGAREES}, {S}, "named: canvas always means canvas"),
    (
        {"cloth": "lyocell twill"},
        {"pattern": DUNGAREES},
        {C, U, A},
        "twill beside denim and canvas is not the fluid kind",
    ),
    (
        {"cloth": "cotton lawn"},
        {"pattern": {"structure": "knit", "recommended": "cotton, rayon or bamboo with 30% stretch"}},
        {A},
        "cotton among knits is cotton jersey",
    ),
    ({"cloth": "duchess satin"}, {"pattern": BIAS}, {A}, "satin beside challis is no duchess satin"),
    ({"cloth": "brushed cotton"}, {"pattern": PYJAMAS}, {S}, "named"),
    ({"cloth": "satin", "fibres": "100% polyester", "weight_gsm": 110}, {"pattern": PYJAMAS}, {C}, "synthetic to sleep in"),
    ({"cloth": "waffle cotton", "width_cm": 150}, {"pattern": GOWN}, {S}, "named, wide"),
    ({"cloth": "brushed cotton", "width_cm": 110}, {"pattern": GOWN}, {C}, "narrow for a dressing gown"),
    ({"cloth": "viscose jersey", "weight_gsm": 180}, {"pattern": KNOT}, {S}, "thin enough to knot"),
    ({"cloth": "ponte", "weight_gsm": 300}, {"pattern": KNOT}, {A}, "a lump in the knot"),
    ({"cloth": "ponte"}, {"pattern": FACED_KNIT}, {S}, "stable knit, holds a facing"),
    ({"cloth": "viscose jersey", "weight_gsm": 160}, {"pattern": FACED_KNIT}, {A}, "a thin knit facing flips"),
    ({"cloth": "wool coating"}, {"pattern": COAT}, {S}, "named"),
    ({"cloth": "viscose challis"}, {"pattern": COAT}, {A}, "no coat cloth"),
    ({"cloth": "crepe de chine"}, {"pattern": BIAS}, {S}, "named, fluid"),
    ({"cloth": "canvas"}, {"pattern": BIAS}, {A}, "will not hang on the bias"),
    (
        {"cloth": "viscose challis", "print": {"direction": "one-way", "scale_cm": 14}},
        {"pattern": BIAS},
        {C},
        "a large one-way print lies crooked on the bias",
    ),
    ({"cloth": "seersucker"}, {"pattern": SHORTS}, {S}, "named"),
    ({"cloth": "heavy denim"}, {"pattern": SHORTS}, {A}, "will not gather on elastic"),
    ({"cloth": "cotton jersey"}, {"pattern": NO_KNITS}, {A}, "ruled out"),
    ({"cloth": "cotton lawn"}, {"pattern": NO_KNITS}, {S}, "a light woven"),
    ({"cloth": "taffeta", "bending_length_cm": 3.3}, {"pattern": NO_KNITS}, {A}, "stiff cloth is ruled out"),
    ({"cloth": "linen cotton", "fibres": "55% linen 45% cotton"}, {"pattern": NATURAL}, {S}, "natural"),
    (
        {"cloth": "viscose slub", "fibres": "100% viscose", "weight_gsm": 140},
        {"pattern": NATURAL},
        {C},
        "regenerated is not natural, and breathes",
    ),
    ({"cloth": "polyester poplin", "fibres": "100% polyester"}, {"pattern": NATURAL}, {A}, "synthetic where natural is asked"),
    ({"cloth": "viscose challis"}, {"pattern": CORSET}, {A}, "cannot carry bones"),
    ({"cloth": "brocade"}, {"pattern": CORSET}, {S}, "named, firm"),
    ({"cloth": "viscose crepe"}, {"pattern": WRAP}, {S}, "fluid, does not gape"),
    ({"cloth": "canvas"}, {"pattern": WRAP}, {A}, "gapes"),
    ({"cloth": "swim jersey"}, {"pattern": SWIM}, {S}, "named"),
    ({"cloth": "cotton jersey", "stretch_cross_pct": 30}, {"pattern": SWIM}, {A}, "half the stretch asked"),
    (
        {"cloth": "upholstery cotton"},
        {"pattern": {"garment": "jacket", "structure": "woven", "recommended": "canvas, denim, heavy linen"}},
        {C},
        "furnishing cloth works in an unlined jacket",
    ),
    (
        {"structure": "woven", "hand": "soft", "weight_gsm": 130, "fibres": "100% viscose"},
        {"pattern": SUMMER_DRESS},
        {S},
        "no name, but weighed and felt",
    ),
    ({"cloth": "polar fleece"}, {"pattern": SHEATH}, {A, U}, "a stretchy pile in a sheath"),
    (
        {"cloth": "linen light", "width_cm": 140},
        {"pattern": {**SUMMER_DRESS, "widest_piece_cm": 150}},
        {A},
        "the widest piece does not fit",
    ),
    (
        {"cloth": "linen light", "width_cm": 140},
        {"pattern": {**SUMMER_DRESS, "widest_piece_cm": 130}},
        {S},
        "the widest piece fits",
    ),
]
