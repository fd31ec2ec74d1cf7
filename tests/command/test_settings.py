"""The list of settings is the program's: each that the code reads stands in docs/settings.md, and no other."""

from __future__ import annotations

import re

from conftest import ROOT

INNER = {
    "NEMATEX_GIVEN_DATABASE": "told by start to who watches",
    "NEMATEX_DRILL_CLOCK": "told by the drill to its processes",
    "NEMATEX_SHOTS": "for whoever takes the pictures of the docs",
}


def test_every_setting_is_told_and_none_that_is_not() -> None:
    sources = [ROOT / "nematex", *(ROOT / "src").rglob("*.py"), *(ROOT / "src").rglob("*.c")]
    read = {name for path in sources for name in re.findall(r"\b(?:NEMATEX|DATABASE|REDIS)_[A-Z_]+\b", path.read_text())}
    told = set(re.findall(r"^\| `([A-Z_]+)`", (ROOT / "docs/settings.md").read_text(), re.M))
    assert told == read - set(INNER)
