"""What single details decide: their own remedy, and how light a sheer may be. Common practice, no source."""

from __future__ import annotations

import pytest

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.judging.demand import demand
from nematex.core.judging.judge import CheckAnswer
from nematex.core.judging.pairing import pair
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Pattern, Wish
from nematex.tables import trade_tables

TABLES = trade_tables()


def judged(cloth: dict[str, object], **pattern: object) -> dict[str, CheckAnswer]:
    known = known_cloth(ClothFacts(**cloth), TABLES)  # type: ignore[arg-type]
    return pair(known, demand(Pattern(**pattern), Wish(), TABLES), TABLES).checks  # type: ignore[arg-type]


def test_a_detail_that_wants_a_press_says_its_own_remedy() -> None:
    # Common practice, no source: pleats want a cloth that takes a press; a puckered one does not.
    pleats = TABLES.details.find("pleats")
    assert pleats is not None
    assert pleats.press_min is not None
    plain = {"structure": "woven", "recommended": "cotton lawn, wool crepe", "details": ("pleats",)}
    soft = next(kind for kind in TABLES.lexicon.types if kind.press < pleats.press_min and kind.structure == "woven")
    answer = judged({"cloth": soft.name}, **plain)["fibre"]
    assert answer.verdict is not Verdict.SUITS
    assert answer.decided.finding.detail == pleats
    assert pleats.remedy in answer.remedy.casefold()


def test_a_crisp_sheer_may_be_light_where_it_is_gathered_and_a_heavy_one_may_not() -> None:
    # Common practice, no source: organza stands in gathers at any weight below the list's; weight is not its question.
    gathered = {"structure": "woven", "recommended": "cotton poplin, linen", "details": ("full sleeve",)}
    light = judged({"cloth": "organza", "weight_gsm": 35, "bending_length_cm": 4.0, "sheer": "sheer"}, **gathered)
    opaque = judged({"cloth": "cotton lawn", "weight_gsm": 35, "bending_length_cm": 4.0, "sheer": "opaque"}, **gathered)
    assert light["weight"].verdict < opaque["weight"].verdict


@pytest.mark.parametrize(
    ("cloth", "fibres", "recommended", "avoid", "verdict"),
    [
        ("satin", "100% polyester", "lightweight wovens", "polyester", "against"),
        ("satin", "60% polyester 40% cotton", "lightweight wovens", "polyester", "against"),
        ("cotton lawn", "100% polyester", "lightweight wovens", "polyester", "against"),  # the label, not the name
        ("satin", "100% silk", "lightweight wovens", "polyester", "suits"),
        ("satin", None, "lightweight wovens", "polyester", "suits"),  # satin may be silk: nobody knows
        ("cotton lawn", None, "lightweight wovens", "polyester", "suits"),
        ("polyester poplin", None, "lightweight wovens", "polyester", "against"),  # its kind never is anything else
        ("satin", "100% polyester", "lightweight polyester fabrics", "", "suits"),
        ("cotton lawn", "100% cotton", "lightweight polyester fabrics", "", "with care"),
        ("silk habotai", None, "lightweight polyester fabrics", "silk", "against"),
    ],
)
def test_fibres_that_the_envelope_names_without_a_cloth(
    cloth: str, fibres: str | None, recommended: str, avoid: str, verdict: str
) -> None:
    # Common practice, no source: a fibre ruled out rules out what is made of it; one asked for leaves the rest with care.
    answer = judged({"cloth": cloth, "fibres": fibres}, structure="woven", recommended=recommended, avoid=avoid)
    assert answer["fibre"].verdict.word == verdict
