"""Garments by rows: read from a pasted envelope, drawn as themselves, and judged. Common practice, no source."""

import pytest

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.judging.demand import demand
from nematex.core.judging.pairing import pair
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.pattern.look import look_of
from nematex.core.pattern.paste import read_paste
from nematex.tables import trade_tables

TABLES = trade_tables()
GARMENTS = [
    ("cape", "cape", "Wool coating, melton, boiled wool", "wool coating", "chiffon"),
    ("kimono", "kimono", "Viscose challis, crepe, silk habotai", "viscose challis", "canvas"),
    ("waistcoat", "waistcoat", "Wool suiting, linen, tweed", "wool suiting", "chiffon"),
    ("playsuit", "jumpsuit", "Viscose, cotton lawn, crepe", "viscose challis", "heavy denim"),
    ("cardigan", "tee", "Ponte, french terry, sweater knit", "ponte", "cotton poplin"),
    ("blazer", "coat", "Wool suiting, tweed, linen", "wool suiting", "cotton voile"),
    ("swimsuit", "swimsuit", "Swim jersey with 50 % stretch", "swim jersey", "cotton lawn"),
    ("apron", "apron", "Canvas, denim, heavy linen", "canvas", "chiffon"),
    ("culottes", "trousers", "Viscose twill, crepe, linen", "viscose twill", "chiffon"),
]


@pytest.mark.parametrize(("garment", "kind", "listed", "apt", "inapt"), GARMENTS)
def test_a_garment_is_read_drawn_and_judged(garment: str, kind: str, listed: str, apt: str, inapt: str) -> None:
    draft = read_paste(f"BR-7 Turnstone {garment}\nSuggested fabrics: {listed}\n", TABLES)
    assert draft.texts["garment"] == garment
    pattern = Pattern(garment=garment, recommended=draft.texts["recommended"])
    assert look_of(pattern, TABLES).kind == kind
    asked = demand(pattern, Wish(), TABLES)
    verdicts = [pair(known_cloth(ClothFacts(cloth=each), TABLES), asked, TABLES).verdict.word for each in (apt, inapt)]
    assert verdicts == ["suits", "against"]
