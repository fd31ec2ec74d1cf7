"""Two garments of one envelope: each its own list, sizes and amounts. What a sewist reads there: common practice, no source."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.pattern.paste import read_paste
from nematex.tables import trade_tables
from nematex.usecases.pattern.pasted import paste_into, place_lines

TABLES = trade_tables()
SET = """Sanderling hoodie & joggers
Hoodie: French terry, sweatshirting
Joggers: ponte; wobblecloth
Sizes XS S M
Bust 80 86 92
Hip 88 94 100
Hoodie
150 cm: 1.6 1.7 1.8 m
Joggers
150 cm: 1.2 1.3 1.4 m
Notions: cord, elastic"""


def garments(text: str) -> dict[str, dict[str, Any]]:
    return {each["garment"]: each for each in read_paste(text, TABLES).as_row().get("garments", [])}


def lengths(row: dict[str, Any]) -> list[float]:
    return [each["length_m"] for each in row["requirements"]]


def test_each_garment_has_its_own_list_and_amounts_and_what_is_said_once_is_for_both() -> None:
    found = garments(SET)
    assert {name: (row["name"], row["recommended"], lengths(row)) for name, row in found.items()} == {
        "hoodie": ("Sanderling hoodie", "French terry, sweatshirting", [1.6, 1.7, 1.8]),
        "joggers": ("Sanderling joggers", "ponte; wobblecloth", [1.2, 1.3, 1.4]),
    }
    assert {row["notions"] for row in found.values()} == {"cord, elastic"}
    assert all([size["hip_cm"] for size in row["sizes"]] == [88, 94, 100] for row in found.values())
    assert read_paste(SET, TABLES).unread == []


@pytest.mark.parametrize(
    ("text", "wanted"),
    [
        ("Turnstone suit\nBlazer: tweed. Trousers: gabardine.\nBlazer 150 cm 1.9 m\nTrousers 150 cm 1.5 m",
         {"blazer": ("tweed", [1.9]), "trousers": ("gabardine", [1.5])}),
        ("Dipper top and shorts set\nCotton lawn, linen\nTop 140 cm: 1.2 m\nShorts 140 cm: 1.1 m",
         {"top": ("Cotton lawn, linen", [1.2]), "shorts": ("Cotton lawn, linen", [1.1])}),
        ("Blouse and skirt.\nRecommended: for the blouse lawn, voile; for the skirt linen.\nBlouse, 140 cm wide: 1.5 m\n"
         "Skirt, 140 cm wide: 1.3 m", {"blouse": ("lawn, voile", [1.5]), "skirt": ("linen", [1.3])}),
        ("Kiebitz Jacke und Hose\nJacke: Walk\nHose: Gabardine\nJacke 150 cm breit: 1,8 m\nHose 150 cm breit: 1,5 m",
         {"jacket": ("Walk", [1.8]), "trousers": ("Gabardine", [1.5])}),
        ("Jacket\nFabrics: tweed\n150 cm: 2 m\n\nTrousers\nFabrics: gabardine\n150 cm: 1.6 m",
         {"jacket": ("tweed", [2.0]), "trousers": ("gabardine", [1.6])}),
        ("Plover pyjama set: shirt with a collar, trousers with a drawstring.\nFlannel, lawn\nShirt 150 cm 1.9 m\n"
         "Trousers 150 cm 2.1 m", {"shirt": ("Flannel, lawn", [1.9]), "trousers": ("Flannel, lawn", [2.1])}),
    ],
)  # fmt: skip
def test_ways_to_say_two_garments(text: str, wanted: dict[str, tuple[str, list[float]]]) -> None:
    found = {name: (row["recommended"].strip(".;"), lengths(row)) for name, row in garments(text).items()}
    assert found == wanted


@pytest.mark.parametrize(
    "text",
    [
        "Dunlin wrap dress, worn over trousers\nLawn\n140 cm: 3 m", "Dress and tunic lengths\nLinen\nA: 150 cm 2.5 m",
        "Tunic and dresses\nDress A 150 cm 2.4 m\nTunic B 150 cm 1.9 m", "A dress with a gathered skirt and cuffs.\nLawn",
        "Jumpsuit with a shirred bodice and shorts.", "Wren dress\nSkirt lining 140 cm: 1.2 m",
    ],
)  # fmt: skip
def test_one_garment_with_parts_views_or_company_is_one(text: str) -> None:
    assert garments(text) == {}


@given(st.lists(st.sampled_from([*SET.splitlines(), "", "Lining 140 cm: 1 m", "Blazer and skirt", "not a line"]), max_size=14))
def test_every_line_is_read_for_a_garment_or_told_as_unread(lines: list[str]) -> None:
    draft = read_paste("\n".join(lines), TABLES)
    assert [line.text for line in draft.lines] == (lines or [""])
    of_garments = {line.number for each in draft.garments for line in each.lines}
    assert not draft.garments or of_garments == {line.number for line in draft.lines}


def test_the_form_turns_to_the_other_garment_and_keeps_what_was_typed() -> None:
    first, _ = paste_into({"envelope": SET, "house": "Orrel Patterns"}, TABLES, ())
    typed = {**first, "notes": "a gift", "recommended": first["recommended"].replace("\n", "\r\n")}
    second, draft = paste_into(typed, TABLES, {"op01"}, "joggers")
    assert (second["name"], second["recommended"], second["notes"]) == ("Sanderling joggers", "ponte; wobblecloth", "a gift")
    assert second["house"] == "Orrel Patterns"
    assert draft.texts["garment"] == second["held"] == "joggers"
    changed = {**first, "recommended": "only velvet"}
    assert paste_into(changed, TABLES, (), "joggers")[0]["recommended"] == "only velvet"


@pytest.mark.parametrize("place", ["requirements", "sizes", "notes", "avoid", "details"])
def test_a_piece_that_was_not_read_can_be_put_into_any_field(place: str) -> None:
    values, draft = paste_into({"envelope": "Wren top\nFabrics: lawn, wobblecloth, voile"}, TABLES, ())
    placed = place_lines({**values, "piece-2-0": place}, draft, TABLES)
    assert placed["recommended"] == "lawn, voile"
    assert placed[place].endswith("wobblecloth")
