"""The parts page: every macro with made-up values, for looking at and for tests."""

from __future__ import annotations

from decimal import Decimal

from flask import Blueprint, render_template

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.judging.demand import demand
from nematex.core.judging.pairing import Pairing, pair
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.quantity.estimate import Known
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.cloth.bench.measures import MEASURES
from nematex.web.rooms.common import now

room = Blueprint("parts", __name__)
PATTERN = Pattern("Sample skirt", "skirt", "woven", "Lightweight wovens with drape: challis, lawn, crepe.", details=("tiers",))
WITH_DETAILS = (
    "tee", "shirt", "shirt with ruffle collar and full sleeves", "puff sleeve blouse", "wrap dress", "shift dress",
    "gathered dress with long sleeve", "sleeveless v-neck dress", "slip dress", "tiered skirt", "pencil skirt",
    "circle skirt with flounce", "pleated skirt", "trousers", "wide-leg trousers", "joggers", "shorts", "jumpsuit",
    "dungarees", "coat with notched lapels", "jacket with zip", "hoodie", "dressing gown", "cowl top", "knot front tee",
    "square neck top with flutter sleeve", "kimono sleeve tunic",
)  # fmt: skip
FACTS = (
    ClothFacts("Measured challis", "viscose challis", "100% viscose", weight_gsm=120, width_cm=140, bending_length_cm=1.3),
    ClothFacts("Judged poplin", "cotton poplin", "100% cotton", weight_gsm=150, hand="crisp"),
    ClothFacts("Typical slub", "viscose slub"),
    ClothFacts("Heavy canvas", "canvas", "100% cotton", weight_gsm=330),
)


def _pairing(facts: ClothFacts) -> Pairing:
    tables = now().tables
    return pair(known_cloth(facts, tables), demand(PATTERN, Wish(), tables), tables)


def _record(number: int, kind: str, direction: str) -> ClothRecord:
    facts = ClothFacts(f"{kind}, {direction}", "cotton lawn", print=Print(direction, 2.5))
    return ClothRecord(f"P-{number}", facts, Decimal("12.5"), "GBP", 4.0, "", ("#24404a", "#e6c98a", "#b8322a"), kind)


@room.get("/parts")
def parts() -> str:
    swatches = [
        _record(at, kind, direction)
        for at, (kind, direction) in enumerate(
            [
                ("solid", "none"),
                ("stripe", "two-way"),
                ("check", "all-over"),
                ("motif", "one-way"),
                ("motif", "two-way"),
                ("motif", "all-over"),
            ]
        )
    ]
    names = (*WITH_DETAILS, *(row.name for row in now().tables.garments.rows))
    garments = [PatternRecord(name, Pattern(name, name)) for name in names]
    return render_template(
        "parts.html",
        pairings=[_pairing(f) for f in FACTS],
        swatches=swatches,
        garments=garments,
        known=Known,
        measures=MEASURES.values(),
        hands={hand.word: hand for hand in now().tables.cloth_hands.values()}.values(),
    )
