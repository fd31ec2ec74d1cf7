"""Every kind and every fibre has a page; what serves a pattern is in the order of its verdicts."""

from __future__ import annotations

from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.kinds import every_kind, fibre_page, kind_page, kinds_for


def test_every_kind_and_every_fibre_has_a_page(demo: Shop) -> None:
    state = demo.now()
    for kind in state.tables.lexicon.types:
        found = kind_page(state, kind.name)
        assert found is not None
        assert found.kind is kind
        assert all(words for label, words in found.facts if label != "Season"), kind.name
    for name in state.tables.fibres.by_name:
        assert fibre_page(state, name) is not None
    assert kind_page(state, "unobtainium") is None
    assert fibre_page(state, "unobtainium") is None


def test_every_kind_stands_once_in_the_list_of_all(demo: Shop) -> None:
    state = demo.now()
    listed = [kind.name for kinds in every_kind(state, "").values() for kind, _ in kinds]
    assert sorted(listed) == sorted(kind.name for kind in state.tables.lexicon.types)


def test_what_serves_a_pattern_is_in_the_order_of_its_verdicts_and_nothing_refused_is_in_it(demo: Shop) -> None:
    state = demo.now()
    for pattern in state.drawer.records:
        verdicts = [row.verdict for row in kinds_for(state, pattern, Wish())]
        assert verdicts == sorted(verdicts)
        assert Verdict.AGAINST not in verdicts
        assert verdicts, pattern.facts.name
