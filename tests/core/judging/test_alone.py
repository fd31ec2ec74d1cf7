"""A cloth alone, as plain numbers, is judged as it is among others, to the last bit of every margin."""

from __future__ import annotations

import numpy as np
from judged_pairings import PAIRINGS

from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.judging.demand import Demand, demand
from nematex.core.judging.judge import NAMES, Judgement, judge
from nematex.core.judging.matrix import matrix
from nematex.core.pattern.facts import Wish
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import cloth_facts, pattern_facts
from nematex.usecases.assess.schema import ClothIn, PatternIn

TABLES = trade_tables()
WISHES = (Wish(), Wish(look="flowing", school="list"), Wish(look="structured"))


def cloths() -> list[Cloth]:
    """Every cloth of the lexicon, every fourth of them with numbers, and those of the pairings that hands judged."""
    kinds = [
        ClothFacts(cloth=kind.name, weight_gsm=kind.weight_gsm.high * 1.1, stretch_cross_pct=20)
        if place % 4 == 0
        else ClothFacts(cloth=kind.name, fibres="60% viscose, 35% polyester, 5% elastane" if place % 4 == 1 else None)
        for place, kind in enumerate(TABLES.lexicon.types)
    ]
    judged = [cloth_facts(ClothIn(**cloth)) for cloth, _, _, _ in PAIRINGS]
    return [known_cloth(facts, TABLES) for facts in [*kinds, *judged, ClothFacts(cloth="foundling", structure="woven")]]


def demands() -> list[Demand]:
    """What the envelopes of those pairings ask, for each look, by list and by hand."""
    asked = {repr(rest["pattern"]): rest["pattern"] for _, rest, _, _ in PAIRINGS}.values()
    return [
        demand(pattern_facts(PatternIn(**fields), TABLES), WISHES[place % len(WISHES)], TABLES)
        for place, fields in enumerate(asked)
    ]


def said(judged: Judgement, cloth: Cloth, place: int) -> list[object]:
    """What the presenter reads of each check."""
    answers = [judged.explain(name, cloth, place) for name in NAMES]
    return [(each.verdict, each.margin, each.reason, each.remedy, each.window) for each in answers]


def test_every_finding_on_a_cloth_is_the_same_alone_and_among_others() -> None:
    held, compared = cloths(), 0
    among = columns(held, TABLES)
    singles = [among.single(place) for place in range(len(held))]
    for asked in demands():
        together = judge(among, asked, TABLES)
        every = [finding for found in together.findings.values() for finding in found]
        for place in range(compared % 7, len(held), 7):
            alone = judge(singles[place], asked, TABLES)
            found = [finding for check in alone.findings.values() for finding in check]
            assert [each.name for each in found] == [each.name for each in every]
            assert [each.verdict for each in found] == [each.verdict[place] for each in every]
            np.testing.assert_array_equal([each.margin for each in found], [each.margin[place] for each in every])
            assert alone.verdict_of(0) is together.verdict_of(place)
            assert alone.score_of(0) == together.score_of(place)
            assert said(alone, held[place], 0) == said(together, held[place], place)
            compared += 1
    assert compared > 1000


def test_the_matrix_of_one_cloth_is_a_column_of_the_matrix_of_all() -> None:
    among, asked = columns(cloths(), TABLES), [lambda one=one: one for one in demands()]
    whole = matrix(among, asked, TABLES)  # type: ignore[arg-type]
    for place in range(0, len(among), 5):
        column = matrix(among.take(np.array([place])), asked, TABLES)  # type: ignore[arg-type]
        expected = whole.taken(np.arange(len(asked)), np.array([place]))
        np.testing.assert_array_equal(column.verdict, expected.verdict)
        np.testing.assert_array_equal(column.score, expected.score)
        np.testing.assert_array_equal(column.open_checks, expected.open_checks)
