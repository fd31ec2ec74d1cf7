"""A fourth round of judged pairings, principle by principle, with as many against as the work has.

Common practice, no source. Written down before the rules were changed for them, by the same hand as the rules: they
show consistency, not truth. Each entry: cloth, pattern and choices, the verdicts a practitioner would accept, and why.
"""

from __future__ import annotations

from typing import Any

S, C, U, A = "suits", "with care", "unproven", "against"

Judged = tuple[dict[str, Any], dict[str, Any], set[str], str]


def _of(garment: str, recommended: str, *details: str, structure: str = "woven", **more: Any) -> dict[str, Any]:
    return {"garment": garment, "structure": structure, "recommended": recommended, "details": list(details), **more}


def _rows(pattern: dict[str, Any], *judged: tuple[dict[str, Any] | str, set[str], str], **choices: Any) -> list[Judged]:
    return [
        ({"cloth": cloth} if isinstance(cloth, str) else cloth, {"pattern": pattern, **choices}, expected, why)
        for cloth, expected, why in judged
    ]


VOILE_SHIRT = _of("blouse", "Lightweight wovens: cotton voile, lawn, silk crepe de chine", "button band", "collar", "cuffs")
CANVAS_JACKET = _of(
    "jacket", "Medium to heavy weight wovens such as canvas, denim, corduroy or wool suiting", "collar", "patch pockets"
)
WOOL_COAT = _of("coat", "wool coating, boiled wool, tweed", "collar", "cuffs", lined=True)
KNOTTED = _of("top", "Light stretch velvet, viscose jersey or slinky jersey", "knot front", structure="knit")
CRISP_SHIRT = _of("shirt", "crisp cotton lawn, poplin or shirting", "shirt collar", "button band")
MORE_BODY = _of("dress", "Viscose challis, double gauze, or a light woven with a little more body")
TUNIC_KNIT = _of("tunic", "Jersey, ponte, French terry", structure="knit", avoid="thin knits, very stretchy knits")
CARDIGAN = _of(
    "cardigan", "Sweater knits, ponte, boiled wool", structure="knit", avoid="Not suitable for drapey or thin knits."
)
EITHER_TOP = _of("top", "Lawn, challis, jersey, interlock", structure="either", avoid="heavy knits")
VELVET_TOP = _of("top", "Stretch velvet, jersey, ponte", structure="knit")
VELVET_SKIRT = _of("skirt", "Needlecord, velvet, denim, wool suiting", "darts", "waistband")
PARTS = _of(
    "sweatshirt",
    "French terry, sweatshirt fleece, with stretchy rib bands",
    structure="knit",
    parts=[{"name": "body", "fit": "loose"}, {"name": "neckband"}, {"name": "hem band"}, {"name": "sleeve", "fit": "loose"}],
)
TEE = _of(
    "tee",
    "Cotton jersey or viscose jersey with at least 25% stretch",
    structure="knit",
    parts=[{"name": "body"}, {"name": "neckband"}, {"name": "yoke"}, {"name": "pocket"}],
)
PANELLED = _of(
    "dress",
    "Ponte or double knit with 20% stretch",
    structure="knit",
    parts=[{"name": "body"}, {"name": "panel"}, {"name": "collar"}],
)
OCCASION = _of("dress", "For an occasion, use sheer fabrics; for every day cotton lawn or viscose", "gathers")
EVENING = _of("blouse", "Lawn and challis; sheers for special occasions", "full sleeve")
SKIP_TUCKS = _of("blouse", "Cotton lawn, poplin, fine linen. Viscose crepe works if you skip the tucks.", "pin tucks")
VERSION = _of("blouse", "Lawn, batiste; crepe de chine for the version without tucks", "pin tucks")
LEFT_OFF = _of("dress", "Linen, chambray, and viscose twill when the collar is left off", "shirt collar")
SUMMER = _of("dress", "Cotton lawn, linen, viscose challis, double gauze")
TROUSERS = _of("trousers", "Linen, lyocell twill, wool suiting, cotton twill", "waistband", "fly")
LEGGINGS = _of("leggings", "Activewear jersey with 50% four-way stretch and good recovery", structure="knit")
BLAZER = _of("jacket", "Wool suiting, tweed, linen, corduroy", "notched lapels", "welt pockets", lined=True)
PENCIL = _of("skirt", "Gabardine, wool suiting, stretch cotton twill", "darts", "back vent")
CAMISOLE = _of("camisole", "Silk satin, crepe de chine, viscose satin", "bias cut", "spaghetti straps")
JEANS = _of("jeans", "Denim, 10 to 14 oz, with or without stretch", "fly", "topstitching")
KIMONO = _of("kimono", "Viscose, silk, lightweight crepe, chiffon")
GOWN = _of("dressing gown", "Towelling, waffle, brushed cotton, double gauze")
RAIN = _of("parka", "Waxed cotton, ripstop, softshell", "hood", "zip")
SWING = _of("skirt", "Lightweight, drapey wovens", "circle skirt")
BOMBER = _of(
    "jacket",
    "Medium weight wovens or stable knits such as ponte or scuba; ribbing for the bands",
    structure="either",
    parts=[{"name": "body"}, {"name": "waistband"}],
)
WRAP_KNIT = _of("dress", "Viscose jersey, modal jersey, light ponte", "wrap front", structure="knit")
SCUBA_SKIRT = _of("skirt", "Scuba, ponte or heavy double knit", "box pleats", structure="knit")
COWL = _of("dress", "Satin, crepe de chine, viscose jersey", "cowl", structure="either")

FOURTH_ROUND: list[Judged] = [
    # -- the designer's list outranks a general detail -----------------------------------------------------------
    *_rows(
        VOILE_SHIRT,
        ({"cloth": "cotton voile", "sheer": "slightly sheer"}, {S}, "named with the button band; this one barely shows"),
        ("cotton voile", {S}, "named: the designer knows how much a voile shows"),
        ("cotton lawn", {S}, "named"),
        ("crepe de chine", {S}, "named: the list outranks the collar's wish for body"),
        ({"cloth": "viscose lawn", "weight_gsm": 95}, {S, C}, "as soft as the silk named"),
        ("canvas", {A}, "no blouse cloth"),
        ("denim", {A}, "no blouse cloth"),
        ("duchess satin", {A}, "far too heavy and stiff"),
        ({"cloth": "cotton lawn", "weight_gsm": 210}, {A, U}, "a stated weight is no lawn's"),
        ("cotton jersey", {A}, "a stretchy knit"),
    ),
    *_rows(
        CANVAS_JACKET,
        ("canvas", {S}, "named; a jacket's collar may be stiff"),
        ("denim", {S}, "named"),
        ("corduroy", {S}, "named"),
        ({"cloth": "canvas", "weight_gsm": 340, "bending_length_cm": 4.2}, {S}, "a stiff canvas, as canvas is"),
        ({"cloth": "waxed cotton", "weight_gsm": 280}, {S, C}, "as stiff as the canvas named"),
        ("cotton lawn", {A}, "far too light"),
        ("viscose challis", {A}, "far too light and soft"),
        ("cotton poplin", {A}, "too light for a jacket"),
        ("french terry", {A, U}, "a knit"),
        ({"cloth": "wool suiting", "weight_gsm": 250}, {S}, "named"),
    ),
    *_rows(
        WOOL_COAT,
        ("wool coating", {S}, "named; a coat's collar is not a shirt's"),
        ({"cloth": "wool coating", "weight_gsm": 520, "bending_length_cm": 4.0}, {S}, "a heavy melton"),
        ("tweed", {S}, "named"),
        ("boiled wool", {S}, "named, knit or not"),
        ("wool crepe", {A, U, C}, "a dress weight"),
        ("shirting", {A}, "a shirt cloth"),
        ("polar fleece", {A, C, U}, "a stretchy pile: how stretchy decides"),
        ("chiffon", {A}, "no coat cloth"),
    ),
    # -- a weight word narrows its own noun; a name gives no pass beyond a number ------------------------------------
    *_rows(
        KNOTTED,
        ({"cloth": "stretch velvet", "weight_gsm": 350}, {A}, "light is asked and a knot is made: not 350 g/m²"),
        ({"cloth": "stretch velvet", "weight_gsm": 205}, {S, C}, "a light one"),
        ({"cloth": "viscose jersey", "weight_gsm": 180}, {S}, "named and thin"),
        ({"cloth": "viscose jersey", "thickness_mm": 2.0}, {A}, "a knot does not forgive 2 mm, named or not"),
        ("ponte", {A}, "too thick to knot"),
        ("sweatshirt fleece", {A}, "far too thick"),
        ("denim", {A}, "a woven"),
    ),
    *_rows(
        _of("dress", "Lightweight linen, lightweight denim, cotton lawn", "gathers"),
        ({"cloth": "denim", "weight_gsm": 380}, {A}, "a light denim is asked"),
        ({"cloth": "light denim", "weight_gsm": 180}, {S}, "named"),
        ({"cloth": "linen", "weight_gsm": 290}, {A}, "a heavy linen"),
        ({"cloth": "linen light", "weight_gsm": 140}, {S}, "named"),
        ("wool coating", {A}, "no dress cloth"),
    ),
    # -- a hand word narrows a named cloth's own range -------------------------------------------------------------------
    *_rows(
        CRISP_SHIRT,
        ({"cloth": "cotton lawn", "hand": "crisp"}, {S}, "a crisp lawn is at the crisp end of lawn"),
        ({"cloth": "cotton poplin", "hand": "crisp"}, {S}, "named"),
        ("shirting", {S}, "named"),
        ({"cloth": "viscose challis"}, {A}, "fluid"),
        ({"cloth": "crepe de chine"}, {A}, "fluid"),
        ({"cloth": "heavy denim"}, {A}, "stiff and heavy"),
    ),
    *_rows(
        _of("skirt", "Corduroy, denim, wool suiting", "darts", "waistband"),
        ({"cloth": "corduroy", "hand": "soft"}, {S}, "soft to touch, still a cord"),
        ({"cloth": "needlecord", "hand": "soft"}, {S, C}, "soft to touch, still a cord"),
        ({"cloth": "denim", "hand": "soft"}, {S}, "a washed denim"),
        ({"cloth": "corduroy", "bending_length_cm": 1.4}, {A, C}, "measured as limp: a number counts"),
        ("organza", {A}, "no skirt weight, sheer"),
    ),
    *_rows(
        MORE_BODY,
        ("viscose challis", {S}, "named"),
        ("double gauze", {S}, "named"),
        ({"cloth": "cotton poplin", "weight_gsm": 115}, {S}, "a light woven with more body"),
        ({"cloth": "cotton lawn"}, {S, C}, "light, some body"),
        ("canvas", {A}, "far too heavy"),
        ({"cloth": "upholstery cotton"}, {A}, "furnishing"),
    ),
    # -- an adjective before "knits" in avoid rules out those only ---------------------------------------------------------
    *_rows(
        TUNIC_KNIT,
        ("ponte", {S}, "named: not every knit is ruled out"),
        ({"cloth": "cotton jersey", "weight_gsm": 210, "stretch_cross_pct": 35}, {S}, "a jersey of some weight"),
        ({"cloth": "viscose jersey", "weight_gsm": 120, "stretch_cross_pct": 60}, {A}, "thin and very stretchy"),
        ({"cloth": "swim jersey", "stretch_cross_pct": 100}, {A, C}, "very stretchy"),
        ("denim", {A}, "a woven"),
        ({"cloth": "french terry", "weight_gsm": 260}, {S}, "named"),
    ),
    *_rows(
        CARDIGAN,
        ("ponte", {S}, "named"),
        ("boiled wool", {S}, "named"),
        ({"cloth": "viscose jersey", "weight_gsm": 160}, {A}, "drapey and thin"),
        ({"cloth": "slinky jersey"}, {A}, "drapey"),
        ("cotton poplin", {A, C}, "a woven"),
    ),
    *_rows(
        EITHER_TOP,
        ({"cloth": "cotton jersey", "weight_gsm": 170}, {S}, "named; only heavy knits are ruled out"),
        ("cotton lawn", {S}, "named"),
        ({"cloth": "ponte", "weight_gsm": 330}, {A}, "a heavy knit"),
        ({"cloth": "sweatshirt fleece", "weight_gsm": 340}, {A}, "a heavy knit"),
        ("canvas", {A}, "far too heavy"),
    ),
    *_rows(
        _of("shirt", "Cotton lawn, chambray, poplin", avoid="stretchy knits", structure="either"),
        ({"cloth": "viscose jersey", "stretch_cross_pct": 70}, {A}, "very stretchy"),
        ("cotton lawn", {S}, "named"),
    ),
    # -- a little elastane does not make a woven a knit ----------------------------------------------------------------------
    *_rows(
        VELVET_SKIRT,
        ({"cloth": "velvet", "fibres": "98% cotton 2% elastane"}, {S}, "a cotton velvet with comfort stretch"),
        ({"cloth": "velveteen", "fibres": "98% cotton 2% elastane"}, {S}, "woven all the same"),
        ({"cloth": "stretch velvet", "stretch_cross_pct": 60}, {A}, "a knit by its base, and stretchy"),
        ({"cloth": "velvet"}, {S, C, U}, "which velvet is a guess: nothing against rests on it"),
        ({"cloth": "needlecord", "fibres": "97% cotton 3% elastane"}, {S}, "comfort stretch"),
        ({"cloth": "cotton sateen", "fibres": "97% cotton 3% elastane", "weight_gsm": 190}, {S, C}, "comfort stretch"),
        ({"cloth": "cotton jersey", "fibres": "95% cotton 5% elastane"}, {A}, "a jersey"),
    ),
    *_rows(
        VELVET_TOP,
        ({"cloth": "velvet"}, {U, C}, "could be woven: measure the stretch across"),
        ({"cloth": "velvet", "fibres": "95% polyester 5% elastane"}, {S}, "a knit velvet by its content"),
        ({"cloth": "velvet", "structure": "woven"}, {A}, "a woven velvet"),
        ({"cloth": "cotton velvet", "fibres": "98% cotton 2% elastane"}, {A}, "a woven, 2 % or not"),
        ({"cloth": "stretch velvet"}, {S}, "named"),
    ),
    *_rows(
        _of("blouse", "Chiffon, georgette, crepe de chine", "full sleeve"),
        ("denim", {A}, "a plain denim is no chiffon"),
        ({"cloth": "georgette"}, {C, S}, "named; see-through"),
        ("chiffon", {C}, "named and sheer over the body"),
        ("canvas", {A}, "stiff and heavy"),
        ({"cloth": "crepe de chine"}, {S}, "named"),
    ),
    # -- parts are free of the body's list ---------------------------------------------------------------------------------------
    *_rows(TEE, ("ribbing", {S}, "rib is what a tee's band is made of"), part="neckband"),
    *_rows(TEE, ("stretch lace", {S, C}, "a stretch lace yoke"), ("cotton poplin", {C, A}, "a firm yoke in a tee"), part="yoke"),
    *_rows(TEE, ("cotton lawn", {S, C}, "a pocket asks no stretch"), ("stretch faux leather", {S, C}, "a pocket"), part="pocket"),
    *_rows(TEE, ("ribbing", {S, C}, "rib in a tee's body clings"), ("cotton poplin", {A}, "a woven tee"), part="body"),
    *_rows(
        PARTS,
        ({"cloth": "french terry", "stretch_cross_pct": 28}, {S, C}, "a self band on a loose sweatshirt"),
        ("cuff rib", {S}, "named for the bands"),
        ("denim", {A, C}, "a band has to give"),
        part="hem band",
    ),
    *_rows(
        PARTS,
        ({"cloth": "sweatshirt fleece", "stretch_cross_pct": 15}, {S}, "the stretch is asked of the bands, not of the body"),
        ({"cloth": "french terry", "stretch_cross_pct": 18}, {S}, "the same"),
        part="body",
    ),
    *_rows(PARTS, ("cotton jersey", {S, C}, "a lighter sleeve"), ("stretch velvet", {S, C}, "a velvet sleeve"), part="sleeve"),
    *_rows(PANELLED, ("stretch faux leather", {S, C}, "a leather-like panel"), ("ponte", {S, C}, "as the body; not every ponte gives 20 %"), part="panel"),
    *_rows(PANELLED, ("cotton poplin", {S, C}, "a shirting collar on a knit dress"), part="collar"),
    *_rows(BOMBER, ("ribbing", {S}, "ribbing is named for the bands"), part="waistband"),
    *_rows(
        BOMBER, ("ponte", {S}, "named"), ("cotton twill", {S, C}, "a medium woven, or a little above"), ("chiffon", {A}, "no jacket"),
        ({"cloth": "viscose jersey"}, {A, U, C}, "limp and stretchy"), part="body",
    ),
    # -- sheer fabrics for an occasion names them ---------------------------------------------------------------------------------
    *_rows(
        OCCASION,
        ("chiffon", {C}, "named; see-through over the body"),
        ("cotton lawn", {S}, "named"),
        ("denim", {A}, "no such dress"),
        ("scuba", {A, U}, "a thick knit"),
    ),
    *_rows(EVENING, ("organza", {C}, "named; see-through"), ("viscose challis", {S}, "named"), ("heavy denim", {A}, "no blouse")),
    # -- conditions in any wording --------------------------------------------------------------------------------------------------
    *_rows(
        SKIP_TUCKS,
        ("viscose crepe", {C}, "only if the tucks are skipped"),
        ("cotton lawn", {S}, "named"),
        ({"cloth": "satin", "fibres": "100% polyester"}, {A, C}, "polyester holds no tuck"),
        ("wool coating", {A}, "no blouse"),
    ),
    *_rows({**SKIP_TUCKS, "details": []}, ("viscose crepe", {S}, "the condition is kept")),
    *_rows(VERSION, ("crepe de chine", {C}, "named for the version without"), ("batiste", {S}, "named")),
    *_rows({**VERSION, "details": []}, ("crepe de chine", {S}, "the version without")),
    *_rows(LEFT_OFF, ("viscose twill", {C}, "only without the collar"), ("chambray", {S}, "named")),
    # -- sheer over the body is never plainly right --------------------------------------------------------------------------------
    *_rows(
        SUMMER,
        ("cotton voile", {C}, "handles like the lawn, and shows"),
        ({"cloth": "cotton lawn", "sheer": "sheer"}, {C}, "a lawn that shows"),
        ({"cloth": "cotton lawn", "sheer": "opaque"}, {S}, "a dark lawn"),
        ({"cloth": "cotton voile", "sheer": "opaque", "weight_gsm": 85}, {S}, "a dark voile that does not show"),
        ("single gauze", {C}, "shows"),
        ("organza", {A, U, C}, "stands off, and shows"),
        ("wool flannel", {A}, "a winter suit cloth"),
        ("polar fleece", {A, U}, "a fleece"),
    ),
    *_rows({**SUMMER, "lined": True}, ("cotton voile", {S}, "lined")),
    *_rows(KIMONO, ("chiffon", {S, C}, "worn over other clothes"), ("viscose crepe", {S}, "named"), ("canvas", {A}, "stands")),
    # -- the run of the week: right, and wrong ----------------------------------------------------------------------------------------
    *_rows(
        TROUSERS, ("linen", {S}, "named"), ("lyocell twill", {S}, "named"), ("chiffon", {A}, "sheer trousers"),
        ("single gauze", {A}, "sheer trousers"), ({"cloth": "cotton lawn"}, {A, U}, "too light for trousers"),
        ("wool coating", {A}, "a coat"), ({"cloth": "viscose jersey"}, {A}, "a stretchy knit"),
        ({"cloth": "stretch cotton twill"}, {S}, "a twill with comfort stretch"),
    ),
    *_rows(
        LEGGINGS, ({"cloth": "swim jersey", "stretch_cross_pct": 90, "stretch_length_pct": 60, "recovery_pct": 95}, {S}, "named"),
        ("ponte", {A}, "half the stretch"), ("cotton lawn", {A}, "a woven"), ("french terry", {A}, "too little stretch"),
        ({"cloth": "cotton jersey", "stretch_cross_pct": 40, "stretch_length_pct": 10}, {A}, "too little, and not both ways"),
        ("stretch denim", {A}, "a woven all the same"),
    ),
    *_rows(
        BLAZER, ("tweed", {S}, "named"), ("wool suiting", {S}, "named"), ("linen", {S}, "named"), ("georgette", {A}, "no jacket"),
        ("cotton voile", {A}, "no jacket"), ({"cloth": "ponte", "stretch_cross_pct": 25}, {C}, "a stable knit"),
        ("slinky jersey", {A}, "limp and stretchy"), ("swim jersey", {A}, "limp and stretchy"),
    ),
    *_rows(
        PENCIL, ("gabardine", {S}, "named"), ("chiffon", {A}, "no body"), ("rib knit", {A}, "stretchy"),
        ({"cloth": "ponte", "stretch_cross_pct": 28}, {C}, "a stable knit"), ("viscose challis", {A}, "no body for darts"),
        ("faux fur", {A}, "a pile"),
    ),
    *_rows(
        CAMISOLE, ("viscose satin", {S}, "named"), ("crepe de chine", {S}, "named"), ("denim", {A}, "stiff on the bias"),
        ("canvas", {A}, "stiff on the bias"), ("duchess satin", {A}, "a stiff satin"), ("tweed", {A}, "thick"),
    ),
    *_rows(
        JEANS, ({"cloth": "denim", "weight_gsm": 400}, {S}, "12 oz"), ({"cloth": "denim", "weight_gsm": 200}, {A}, "6 oz"),
        ("cotton lawn", {A}, "far too light"), ("wool crepe", {A}, "no wear in it"),
        ({"cloth": "stretch denim", "weight_gsm": 370}, {S}, "stretch is welcome"), ("ponte", {A, C}, "a knit"),
    ),
    *_rows(
        GOWN, ("towelling", {S}, "named"), ("waffle cotton", {S}, "named"), ({"cloth": "stiff net"}, {A}, "a net"),
        ("brocade", {A, C}, "stiff and not to wash"), ({"cloth": "polar fleece"}, {A, C, U}, "does not breathe"),
    ),
    *_rows(
        RAIN, ("waxed cotton", {S}, "named"), ("softshell", {S}, "named"), ("cotton voile", {A, C}, "no parka, though as light as a ripstop"),
        ("viscose jersey", {A}, "no parka"), ("crepe de chine", {A, C, U}, "no parka"),
    ),
    *_rows(
        SWING, ("viscose challis", {S}, "light and drapey"), ("viscose crepe", {S}, "light and drapey"), ("heavy denim", {A}, "stiff"),
        ("canvas", {A}, "stiff"), ("upholstery cotton", {A}, "stiff"), ({"cloth": "organza"}, {A, C, U}, "stands, and shows"),
    ),
    *_rows(
        WRAP_KNIT, ("viscose jersey", {S}, "named"), ("light ponte", {S}, "named"), ("scuba", {A, C}, "gapes"),
        ("cotton poplin", {A}, "a woven"), ("sweatshirt fleece", {A}, "thick and stiff"),
    ),
    *_rows(
        SCUBA_SKIRT, ("scuba", {S}, "named"), ("ponte", {S}, "named"), ("viscose jersey", {A, U}, "limp"),
        ("rib knit", {A, C, U}, "no pleat stands in it"), ("wool suiting", {A, C}, "a woven"),
    ),
    *_rows(
        COWL, ("satin", {S}, "named"), ("viscose jersey", {S}, "named"), ("canvas", {A}, "stands off"), ("taffeta", {A}, "stands off"),
        ("denim", {A}, "stands off"), ("boiled wool", {A}, "stands off"),
    ),
]  # fmt: skip
