"""A second round of judged pairings: verdicts written down before the rules were run on them, by the trade's principles.

Common practice, no source. `fields` are the keys of `nematex assess`; several verdicts mean that hands disagree.
"""

from __future__ import annotations

from typing import Any

S, C, U, A = "suits", "with care", "unproven", "against"

SECOND_ROUND: list[tuple[dict[str, Any], dict[str, Any], set[str]]] = [
    # (cloth, rest, expected, note)
    (
        {"cloth": "viscose crepe"},
        {
            "pattern": {
                "garment": "blouse",
                "structure": "woven",
                "recommended": "lightweight fabrics with drape such as viscose, silk, crepe",
            }
        },
        {S},
    ),
    (
        {"cloth": "linen", "weight_gsm": 200},
        {
            "pattern": {
                "garment": "blouse",
                "structure": "woven",
                "recommended": "lightweight fabrics with drape such as viscose, silk, crepe",
            }
        },
        {A, C, U},
    ),
    (
        {"cloth": "chambray", "weight_gsm": 130},
        {
            "pattern": {
                "garment": "trousers",
                "structure": "woven",
                "recommended": "medium to heavy weight: denim, twill, corduroy",
            }
        },
        {A},
    ),
    (
        {"cloth": "linen", "weight_gsm": 210, "hand": "moderate"},
        {
            "pattern": {
                "garment": "trousers",
                "structure": "woven",
                "recommended": "medium to heavy weight: denim, twill, corduroy",
            }
        },
        {S, C},
    ),
    (
        {"cloth": "stretch denim", "weight_gsm": 320, "stretch_cross_pct": 20},
        {"pattern": {"garment": "jeans", "structure": "woven", "recommended": "denim", "details": ["jeans"]}},
        {S},
    ),
    (
        {"cloth": "ponte"},
        {
            "pattern": {
                "garment": "pencil skirt",
                "structure": "woven",
                "recommended": "gabardine, wool suiting, cotton twill",
                "details": ["darts"],
            }
        },
        {C},
    ),
    (
        {"cloth": "cotton jersey"},
        {
            "pattern": {
                "garment": "pencil skirt",
                "structure": "woven",
                "recommended": "gabardine, wool suiting, cotton twill",
                "details": ["darts"],
            }
        },
        {A},
    ),
    (
        {"cloth": "scuba"},
        {
            "pattern": {
                "garment": "dress",
                "structure": "knit",
                "recommended": "stable knits such as ponte, scuba, double knits",
                "min_stretch_cross_pct": 15,
            }
        },
        {S},
    ),
    (
        {"cloth": "viscose jersey"},
        {
            "pattern": {
                "garment": "dress",
                "structure": "knit",
                "recommended": "stable knits such as ponte, scuba, double knits",
                "min_stretch_cross_pct": 15,
            }
        },
        {A, C},
    ),
    ({"cloth": "ponte", "stretch_cross_pct": 22}, {"pattern": {"structure": "knit", "min_stretch_cross_pct": 25}}, {C}),
    ({"cloth": "ponte", "stretch_cross_pct": 18}, {"pattern": {"structure": "knit", "min_stretch_cross_pct": 25}}, {A}),
    (
        {"cloth": "swim jersey", "stretch_cross_pct": 80, "stretch_length_pct": 70},
        {"pattern": {"structure": "knit", "garment": "leggings", "min_stretch_cross_pct": 50, "min_stretch_length_pct": 50}},
        {S},
    ),
    (
        {"cloth": "cotton jersey", "stretch_cross_pct": 55, "stretch_length_pct": 20},
        {"pattern": {"structure": "knit", "garment": "leggings", "min_stretch_cross_pct": 50, "min_stretch_length_pct": 50}},
        {A},
    ),
    (
        {"cloth": "double gauze"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "dress",
                "recommended": "cotton lawn, viscose, linen",
                "details": ["gathers", "full sleeve"],
            }
        },
        {S},
    ),
    (
        {"cloth": "quilting cotton"},
        {"pattern": {"structure": "woven", "garment": "dress", "recommended": "viscose, crepe, silk", "details": ["gathers"]}},
        {A, U},
    ),
    (
        {"cloth": "quilting cotton", "weight_gsm": 145},
        {
            "pattern": {
                "structure": "woven",
                "garment": "shirt",
                "recommended": "cotton poplin, shirting, chambray, lawn",
                "details": ["shirt collar"],
            }
        },
        {S, C},
    ),
    (
        {"cloth": "organza"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "top",
                "parts": [{"name": "body", "fit": "close"}, {"name": "sleeve", "fit": "free", "details": ["balloon sleeve"]}],
                "recommended": "cotton lawn, silk",
            },
            "part": "sleeve",
        },
        {S},
    ),
    (
        {"cloth": "chiffon"},
        {"pattern": {"structure": "woven", "garment": "blouse", "recommended": "georgette, crepe de chine, silk"}},
        {S, C},
    ),
    (
        {"cloth": "chiffon"},
        {"pattern": {"structure": "woven", "garment": "trousers", "recommended": "crepe de chine, silk, satin"}},
        {A},
    ),
    (
        {"cloth": "cotton voile"},
        {"pattern": {"structure": "woven", "garment": "trousers", "recommended": "linen, cotton lawn, viscose"}},
        {A},
    ),
    (
        {"cloth": "cotton voile"},
        {"pattern": {"structure": "woven", "garment": "trousers", "recommended": "linen, cotton lawn, viscose", "lined": True}},
        {S, C},
    ),
    (
        {"cloth": "cotton voile"},
        {"pattern": {"structure": "woven", "garment": "dress", "recommended": "cotton lawn, batiste"}},
        {S},
    ),
    (
        {"cloth": "wool coating"},
        {"pattern": {"structure": "woven", "garment": "coat", "recommended": "wool coating, boiled wool"}},
        {S},
    ),
    (
        {"cloth": "boiled wool"},
        {"pattern": {"structure": "woven", "garment": "coat", "recommended": "wool coating, melton, tweed"}},
        {C},
    ),
    (
        {"cloth": "wool crepe"},
        {"pattern": {"structure": "woven", "garment": "coat", "recommended": "wool coating, melton, tweed"}},
        {A, U},
    ),
    (
        {"cloth": "denim", "weight_gsm": 271},
        {
            "pattern": {
                "structure": "woven",
                "garment": "jacket",
                "recommended": "medium weight wovens such as linen, cotton twill or denim",
            }
        },
        {S},
    ),
    (
        {"cloth": "denim", "weight_gsm": 271},
        {"pattern": {"structure": "woven", "garment": "skirt", "recommended": "medium weight wovens"}},
        {S},
    ),
    (
        {"cloth": "upholstery cotton"},
        {"pattern": {"structure": "woven", "garment": "jacket", "recommended": "denim, canvas, jacquard"}},
        {C},
    ),
    (
        {"cloth": "acetate lining"},
        {"pattern": {"structure": "woven", "garment": "blouse", "recommended": "satin, crepe de chine"}},
        {C},
    ),
    (
        {"cloth": "sequin knit"},
        {"pattern": {"structure": "knit", "garment": "tee", "recommended": "cotton jersey, viscose jersey"}},
        {A, U, C},
    ),
    (
        {"cloth": "stretch velvet", "stretch_cross_pct": 60},
        {"pattern": {"structure": "knit", "garment": "dress", "recommended": "velvet, ponte, jersey"}},
        {S},
    ),
    (
        {"cloth": "cotton velvet"},
        {"pattern": {"structure": "knit", "garment": "dress", "recommended": "velvet, ponte, jersey"}},
        {A},
    ),
    (
        {"cloth": "modal jersey"},
        {
            "pattern": {
                "structure": "knit",
                "garment": "top",
                "details": ["cowl"],
                "recommended": "viscose jersey, slinky jersey",
            }
        },
        {S},
    ),
    (
        {"cloth": "ponte"},
        {
            "pattern": {
                "structure": "knit",
                "garment": "top",
                "details": ["cowl"],
                "recommended": "viscose jersey, slinky jersey",
            }
        },
        {A},
    ),
    (
        {"cloth": "french terry", "weight_gsm": 250},
        {"pattern": {"structure": "knit", "garment": "joggers", "recommended": "French terry, sweatshirting"}},
        {S},
    ),
    (
        {"cloth": "polar fleece"},
        {"pattern": {"structure": "knit", "garment": "hoodie", "recommended": "sweatshirt fleece, French terry"}},
        {S, C},
    ),
    (
        {"cloth": "cotton poplin"},
        {"pattern": {"structure": "woven", "garment": "pyjamas", "recommended": "cotton lawn, poplin, brushed cotton"}},
        {S},
    ),
    (
        {"cloth": "satin", "fibres": "100% silk"},
        {"pattern": {"structure": "woven", "garment": "pyjamas", "recommended": "satin, cotton lawn"}},
        {S},
    ),
    (
        {"cloth": "polyester poplin", "fibres": "65% polyester 35% cotton"},
        {"pattern": {"structure": "woven", "garment": "pyjamas", "recommended": "cotton lawn, poplin, brushed cotton"}},
        {C},
    ),
    (
        {"cloth": "taffeta"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "skirt",
                "details": ["gathers"],
                "recommended": "cotton, linen, chambray",
            }
        },
        {C, A, U},
    ),
    (
        {"cloth": "linen look viscose"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "shirt",
                "recommended": "light linen, viscose, chambray",
                "details": ["collar"],
            }
        },
        {S, C},
    ),
    (
        {"cloth": "lyocell twill", "weight_gsm": 200},
        {
            "pattern": {
                "structure": "woven",
                "garment": "trousers",
                "recommended": "viscose twill, crepe, linen",
                "details": ["wide leg"],
            },
            "look": "flowing",
        },
        {S},
    ),
    (
        {"cloth": "textured crepe"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "trousers",
                "recommended": "viscose twill, crepe, linen",
                "details": ["wide leg"],
            },
            "look": "flowing",
        },
        {S, C},
    ),
    (
        {"cloth": "seersucker"},
        {"pattern": {"structure": "woven", "garment": "shorts", "recommended": "linen, cotton poplin, chambray"}},
        {S},
    ),
    (
        {"cloth": "canvas"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "dungarees",
                "recommended": "denim, canvas, corduroy",
                "details": ["ties"],
            }
        },
        {C, S},
    ),
    (
        {"cloth": "heavy denim"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "apron dress",
                "recommended": "linen, denim, canvas",
                "details": ["ties"],
            }
        },
        {A, C},
    ),
    (
        {"cloth": "cotton lawn"},
        {"pattern": {"structure": "either", "garment": "top", "recommended": "jersey or light wovens such as lawn"}},
        {S},
    ),
    (
        {"cloth": "cotton jersey"},
        {"pattern": {"structure": "either", "garment": "top", "recommended": "jersey or light wovens such as lawn"}},
        {S},
    ),
    (
        {"cloth": "ponte"},
        {"pattern": {"structure": "either", "garment": "top", "recommended": "light jersey or light wovens such as lawn"}},
        {A, C, U},
    ),
    ({"cloth": "viscose challis"}, {"pattern": {"recommended": "natural fibres: cotton, linen", "structure": "woven"}}, {C}),
    (
        {"cloth": "textured crepe", "fibres": "100% polyester"},
        {"pattern": {"recommended": "natural fibres such as cotton, linen", "structure": "woven"}},
        {A},
    ),
    (
        {"cloth": "cotton lawn"},
        {
            "pattern": {
                "structure": "woven",
                "recommended": "medium weight wovens such as linen, chambray",
                "avoid": "very lightweight or sheer fabrics",
            }
        },
        {A, U},
    ),
    (
        {"cloth": "linen", "print": {"direction": "one-way", "scale_cm": 5}},
        {"pattern": {"structure": "woven", "recommended": "linen, cotton", "avoid": "directional prints"}},
        {A},
    ),
    (
        {"cloth": "needlecord"},
        {"pattern": {"structure": "woven", "recommended": "denim, linen, twill", "avoid": "napped fabrics"}},
        {A},
    ),
    (
        {"cloth": "cotton jersey", "recovery_pct": 60, "stretch_cross_pct": 40},
        {"pattern": {"structure": "knit", "details": ["bodycon"], "min_stretch_cross_pct": 30}},
        {A, C},
    ),
    ({"cloth": "soft tulle"}, {"pattern": {"structure": "knit", "garment": "dress", "recommended": "jersey"}}, {A}),
    (
        {"structure": "knit", "weight_gsm": 200, "stretch_cross_pct": 50, "hand": "soft"},
        {"pattern": {"structure": "knit", "recommended": "cotton jersey, modal jersey"}},
        {S},
    ),
    (
        {"structure": "woven", "weight_gsm": 130},
        {"pattern": {"structure": "woven", "recommended": "lawn, poplin, chambray"}},
        {U},
    ),
    ({"structure": "woven"}, {"pattern": {"structure": "woven", "recommended": "viscose crepe"}}, {U}),
    (
        {"cloth": "viscose jersey", "weight_gsm": 240},
        {
            "pattern": {
                "structure": "knit",
                "details": ["bodycon"],
                "min_stretch_cross_pct": 40,
                "recommended": "medium weight jersey",
            }
        },
        {S},
    ),
    (
        {"cloth": "waffle cotton", "width_cm": 140},
        {"pattern": {"structure": "woven", "garment": "dressing gown", "recommended": "waffle, towelling, brushed cotton"}},
        {S},
    ),
    (
        {"cloth": "towelling"},
        {"pattern": {"structure": "woven", "garment": "dressing gown", "recommended": "waffle, brushed cotton, double gauze"}},
        {C, S, A},
    ),
    (
        {"cloth": "batik cotton", "width_cm": 110},
        {
            "pattern": {
                "structure": "woven",
                "garment": "dress",
                "recommended": "cotton, linen",
                "requirements": [{"view": "A", "sizes": ["10"], "width_cm": 150, "length_m": 2}],
            }
        },
        {C},
    ),
    (
        {"cloth": "double georgette"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "dress",
                "details": ["tiers"],
                "recommended": "viscose, crepe, cotton lawn",
            },
            "look": "flowing",
        },
        {S},
    ),
    (
        {"cloth": "viscose lawn", "weight_gsm": 100},
        {"pattern": {"structure": "woven", "garment": "dress", "recommended": "cotton lawn, cotton voile"}},
        {S, C},
    ),
    (
        {"cloth": "cotton lawn"},
        {"pattern": {"structure": "woven", "garment": "dress", "recommended": "viscose, crepe, challis"}},
        {C, S},
    ),
    (
        {"cloth": "cotton poplin"},
        {"pattern": {"structure": "woven", "garment": "dress", "recommended": "viscose, crepe, challis"}},
        {A, U, C},
    ),
    (
        {"cloth": "crepe jersey", "stretch_cross_pct": 20},
        {"pattern": {"structure": "woven", "garment": "shift dress", "recommended": "crepe, linen, wool crepe"}},
        {C},
    ),
    (
        {"cloth": "stretch lace"},
        {"pattern": {"structure": "woven", "garment": "dress", "recommended": "lace, brocade, satin"}},
        {A},
    ),
    (
        {"cloth": "lace"},
        {"pattern": {"structure": "woven", "garment": "dress", "recommended": "lace, brocade, satin", "lined": True}},
        {S},
    ),
    (
        {"cloth": "broderie anglaise"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "top",
                "recommended": "cotton lawn, linen, cotton",
                "details": ["gathers"],
            }
        },
        {S},
    ),
    (
        {"cloth": "bamboo viscose jersey"},
        {"pattern": {"structure": "knit", "garment": "tee", "recommended": "cotton jersey"}},
        {S, C},
    ),
    (
        {"cloth": "sweatshirt fleece"},
        {"pattern": {"structure": "knit", "garment": "tee", "recommended": "cotton jersey, viscose jersey"}},
        {A},
    ),
    (
        {"cloth": "rib knit"},
        {
            "pattern": {
                "structure": "knit",
                "garment": "hoodie",
                "parts": [{"name": "cuffs"}],
                "recommended": "sweatshirt fleece; rib for cuffs",
            },
            "part": "cuffs",
        },
        {S},
    ),
    (
        {"cloth": "cotton twill"},
        {"pattern": {"structure": "woven", "garment": "skirt", "details": ["elastic waist"], "recommended": "linen, chambray"}},
        {A, C, U},
    ),
    (
        {"cloth": "linen", "weight_gsm": 180},
        {
            "pattern": {
                "structure": "woven",
                "garment": "skirt",
                "details": ["elastic waist", "gathers"],
                "recommended": "linen, chambray",
            }
        },
        {S},
    ),
    (
        {"cloth": "wool suiting"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "blazer",
                "details": ["notched lapels", "tailoring"],
                "recommended": "wool suiting, gabardine, linen",
            }
        },
        {S},
    ),
    (
        {"cloth": "viscose twill"},
        {
            "pattern": {
                "structure": "woven",
                "garment": "blazer",
                "details": ["notched lapels", "tailoring"],
                "recommended": "wool suiting, gabardine, linen",
            }
        },
        {A, U, C},
    ),
]
