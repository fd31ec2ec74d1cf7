"""The lexicon: its rows hold together, and a shop's words find the right row."""

from __future__ import annotations

import pytest

from nematex.core.cloth.fibres import read_fibres
from nematex.tables import trade_tables

TABLES = trade_tables()
LEXICON = TABLES.lexicon


def test_it_holds_at_least_120_names_in_both_vocabularies() -> None:
    assert len(LEXICON.types) >= 120
    for ours, theirs in (
        ("viscose challis", "rayon challis"),
        ("viscose jersey", "rayon spandex knit"),
        ("towelling", "terry cloth"),
    ):
        assert LEXICON.find(theirs) is LEXICON.get(ours)


def test_every_row_can_be_defended() -> None:
    for row in LEXICON.types:
        assert row.structure in ("woven", "knit", "net"), row.name
        assert all(0 < span.low < span.high for span in (row.weight_gsm, row.bend_cm, row.thickness_mm)), row.name
        assert row.all_fibres <= set(TABLES.fibres.by_name), row.name
        # A cloth cannot be denser than its fibre: cotton 1.5 g/cm³ (handbook value, from memory), and air is in every cloth.
        density = (row.weight_gsm.low / 10_000) / (row.thickness_mm.high / 10)
        assert 0.01 < density < 0.9, row.name
        assert row.stretch_cross_pct.low <= row.stretch_cross_pct.high, row.name


def test_no_name_stands_for_two_rows() -> None:
    names = [name for kind in LEXICON.types for name in (kind.name, *kind.aliases)]
    assert len(names) == len(set(names))


@pytest.mark.parametrize(
    ("name", "fibres", "structure", "expected"),
    [
        ("Bean Row lawn", "100% cotton", None, "cotton lawn"),
        ("Thrift lawn", "100% viscose", None, "viscose lawn"),
        ("Hull denim", "98% cotton 2% elastane", None, "stretch denim"),
        ("velvet", None, "knit", "stretch velvet"),
        ("velvet", None, "woven", "cotton velvet"),
        ("rayon", None, None, "viscose challis"),
        ("Harbour jersey", "100% linen", "knit", "linen jersey"),
    ],
)
def test_fibre_and_structure_decide_between_namesakes(
    name: str, fibres: str | None, structure: str | None, expected: str
) -> None:
    content = read_fibres(fibres, TABLES.fibres) if fibres else None
    found = LEXICON.find(name, content, structure)
    assert found is not None
    assert found.name == expected


def test_handles_like_finds_the_kin() -> None:
    # Common practice, no source: a viscose lawn hangs like a challis and not like a cotton lawn.
    lawn = LEXICON.get("viscose lawn")
    near = LEXICON.nearest(lawn.weight_gsm.middle, lawn.bend_cm.middle, 3, "woven", 5)
    assert "cotton lawn" not in near
    assert {"viscose challis", "modal woven"} & set(near)


def test_groups_name_only_known_rows() -> None:
    assert all(kind in LEXICON.types for kinds in LEXICON.groups.values() for kind in kinds)
