"""The tables of the trade: every row names its source, and the documentation names what exists."""

from __future__ import annotations

import csv
import re
from importlib.resources import files
from itertools import pairwise

import pytest
from conftest import ROOT

from nematex.command.__main__ import _parser
from nematex.tables import properties, trade_tables

DATA = [path.name for path in files("nematex.data").iterdir() if path.name.endswith(".csv")]


@pytest.mark.parametrize("name", DATA)
def test_every_row_names_its_source(name: str) -> None:
    rows = list(csv.DictReader(files("nematex.data").joinpath(name).read_text(encoding="utf-8").splitlines()))
    assert rows
    assert all(row["source"].strip() for row in rows)
    assert all(None not in row for row in rows), "a row has more cells than the heading"


def test_weight_words_overlap_as_practitioners_use_them() -> None:
    # Common practice, no source: neighbouring words overlap, and a word on a pattern is wider than on a cloth.
    tables = trade_tables()
    words = ["light", "light to medium", "medium", "medium to heavy", "heavy"]
    for structure in ("woven", "knit"):
        rows = [tables.weight_word(word, structure) for word in words]
        for light, heavy in pairwise(rows):
            assert light.cloth_gsm.low < heavy.cloth_gsm.low < light.cloth_gsm.high
        for row in rows:
            assert row.pattern_gsm.low <= row.cloth_gsm.low
            assert row.pattern_gsm.high >= row.cloth_gsm.high


def test_eight_ounce_denim_is_a_wearable_middle() -> None:
    # Common practice, no source; 8 oz/yd² = 271 g/m².
    assert trade_tables().weight_word("medium", "woven").pattern_gsm.high >= 271.3


def test_hand_words_run_from_fluid_to_stiff() -> None:
    # Common practice, no source: bending length 0.8 to 1.4 fluid … above 3.2 stiff, neighbours overlapping.
    hands = [trade_tables().cloth_hands[word].bend_cm for word in ("fluid", "soft", "moderate", "crisp", "stiff")]
    assert (hands[0].low, hands[0].high, hands[-1].low) == (0.8, 1.4, 3.2)
    assert all(soft.low < stiff.low <= soft.high for soft, stiff in pairwise(hands))


def test_headings_stand_for_one_field_each() -> None:
    names = [name for field in properties().values() for name in field.headings]
    assert len(names) == len(set(names))


def test_the_readme_names_commands_and_pictures_that_exist() -> None:
    text = (ROOT / "README.md").read_text()
    commands = set(_parser()._subparsers._group_actions[0].choices)  # type: ignore[union-attr]
    assert {"start", "stop", "status", "test", "assess", "bench", "shots"} <= commands
    for path in re.findall(r"\]\(((?:docs/|CHANGELOG)[^)]+)\)", text):
        assert (ROOT / path).exists(), path


def test_the_example_of_the_reference_works() -> None:
    from nematex.usecases.assess.pairing import assess_text

    text = (ROOT / "docs/assess.md").read_text()
    found = re.search(r"echo '(\{.*?\})' \|", text, re.DOTALL)
    assert found is not None
    assert '"verdict": "suits"' in assess_text(found[1])


def test_licences_of_what_ships_are_beside_it() -> None:
    for line in (ROOT / "docs/licences.md").read_text().splitlines():
        for path in re.findall(r"`([^`]+\.LICENSE)`", line):
            assert (ROOT / path).stat().st_size > 500
    vendored = {path.name.split(".")[0].split("-latin")[0] for path in (ROOT / "src/nematex/web/static/vendor").iterdir()}
    licences = {path.stem for path in (ROOT / "src/nematex/web/static/vendor").glob("*.LICENSE")}
    assert vendored == licences
