"""Pasted envelopes, in many hands: texts, size tables, amounts, notions. Invented; common practice, no source."""

from __future__ import annotations

import random
from typing import Any

import pytest
from pasted_envelopes import PASTED

from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.paste import Draft, read_paste
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.core.quantity.scan import once
from nematex.tables import trade_tables
from nematex.usecases.pattern.exchange import pattern_record

TABLES = trade_tables()
MEASUREMENTS = ("bust", "waist", "hip", "high_bust", "finished_bust", "finished_hip")


def _check_amounts(draft: Draft, expected: dict[str, Any]) -> None:
    found = [
        (row["view"], row["use"], row["width_cm"], row["length_m"], row["sizes"][0] if row["sizes"] else None)
        for row in draft.requirements
    ]
    for view, use, width_cm, length_m, size in expected.get("need", []):
        near = pytest.approx(width_cm, abs=0.06), pytest.approx(length_m, abs=0.0005)
        assert any((*row[:2], row[4]) == (view, use, size) and row[2:4] == near for row in found), found
    if "rows" in expected:
        assert len(found) == expected["rows"], found
    if "nap" in expected:
        assert [row["width_cm"] for row in draft.requirements if row["with_nap"]] == expected["nap"]


@pytest.mark.parametrize(("text", "expected"), PASTED, ids=[f"{n}" for n in range(len(PASTED))])
def test_a_pasted_envelope_is_read(text: str, expected: dict[str, Any]) -> None:
    draft = read_paste(text, TABLES)
    row = draft.as_row()
    for name, value in expected.items():
        if name == "labels":
            assert [size["label"] for size in draft.sizes] == value
        elif name == "bands":
            assert list(dict.fromkeys(size["band"] for size in draft.sizes)) == value
        elif name in MEASUREMENTS:
            assert [size.get(f"{name}_cm") for size in draft.sizes] == pytest.approx(value, abs=0.06)
        elif name == "cup":
            assert {size["cup"] for size in draft.sizes} == {value}
        elif name == "cloths":
            reading = read_envelope(row["recommended"], TABLES)
            assert value <= {kind for named in reading.cloths for kind in named.types}
        elif name == "options":
            assert {each["name"]: each["views"] for each in draft.options} == value
        elif name == "parts":
            assert {each["name"]: each["fit"] for each in draft.parts} == value
        elif name == "faults":
            assert [any(part in line.fault for line in draft.faults) for part in value] == [True] * len(value)
        elif name not in ("need", "rows", "nap", "unread"):
            assert row.get(name) == value, (name, row)
    _check_amounts(draft, expected)
    if "faults" not in expected:
        assert not draft.faults
        assert len(draft.unread) <= expected.get("unread", 0), [line.text for line in draft.unread]


@pytest.mark.parametrize("text", [text for text, expected in PASTED if "faults" not in expected])
def test_what_is_read_can_be_saved(text: str) -> None:
    """The draft is a pattern, once code, name and what it is made of are there; nothing in it is refused."""
    row = read_paste(text, TABLES).as_row()
    record = pattern_record({"code": "X-1", "name": "Made up", "structure": "woven", **row}, trade_tables())
    assert len(record.facts.sizes) == len(row.get("sizes", []))
    assert len(record.facts.requirements) == len(row.get("requirements", []))


def test_there_are_sixty_texts_in_many_hands() -> None:
    assert len(PASTED) >= 60


@pytest.mark.parametrize(
    ("text", "values"),
    [
        ("2 1/2 2½ 2.5 2,5 2-1/2", [2.5] * 5),
        ("⅝ 5/8", [0.625, 0.625]),
        ("84 cm / 33 in", [84.0]),
        ('150cm/60"', [150.0]),
        ("33 34½ 36¼", [33.0, 34.5, 36.25]),
        ("BR-50 8oz", []),
    ],
)
def test_figures_in_every_writing(text: str, values: list[float]) -> None:
    assert [each.value for each in once(text)] == values


@pytest.mark.parametrize("text", ["petite and tall", "see chart", "bust 84", "84.5"])
def test_what_is_no_list_of_sizes(text: str) -> None:
    assert read_sizes(text) is None


@pytest.mark.parametrize(
    ("text", "fault"),
    [
        ("Sizes " + "8 " * 400, "a row of a table has at most 600"),
        ("1" * 20000, None),
        ("Suitable for linen §0 and §1 crepe", None),
        ("Bust 84\n§3 §4\n\t|;\n[]()\n½⅝/0", "give one for each"),
        ("Size | Bust | Waist\n8 | | \n| 84 | 66\n8 | 84", None),
        ("Size | Finished high bust | Bust | Cup\n8 | 90 | 84 | B", None),
    ],
)
def test_nothing_that_is_pasted_breaks_the_page(text: str, fault: str | None) -> None:
    draft = read_paste(text, TABLES)
    assert any(fault in line.fault for line in draft.faults) if fault else not draft.faults
    pattern_record({"code": "X-1", "name": "Made up", "structure": "woven", **draft.as_row()}, trade_tables())


@pytest.mark.parametrize("seed", range(12))
def test_damaged_envelopes_are_read_or_said_not_to_be(seed: int) -> None:
    rng = random.Random(seed)
    for text, _ in PASTED:
        letters = list(text)
        for _ in range(8):
            at = rng.randrange(len(letters))
            if rng.random() < 0.5:
                del letters[at : at + 2]
            letters.insert(at, rng.choice("0 9½/|\t\n;:-§"))
        draft = read_paste("".join(letters), TABLES)
        known = {size["label"] for size in draft.sizes}
        assert len(known) == len(draft.sizes)
        for row in draft.requirements:
            assert 0 < row["length_m"] <= 15
            assert 70 <= row["width_cm"] <= 320


def test_a_mixed_fraction_is_no_range_of_two() -> None:
    draft = read_paste("Sizes 8 10 12\nBust 32-1/2 34-1/2 36-1/2 in", TABLES)
    assert [size["bust_cm"] for size in draft.sizes] == [82.5, 87.6, 92.7]  # 1 in = 2.54 cm
    draft = read_paste("Sizes 8 10\nBust 84-88 88-92 cm", TABLES)
    assert [size["bust_cm"] for size in draft.sizes] == [88.0, 92.0]


@pytest.mark.parametrize("said", ["none", "no", "not required", "optional"])
def test_no_lining_is_no_lining(said: str) -> None:
    assert not read_paste(f"Lining: {said}", TABLES).as_row().get("lined")


def test_without_nap_is_not_with_nap() -> None:
    text = "Sizes 8 10 12\nNap: {}\n115 cm 2.6 2.6 2.7 m"
    for word, with_nap in (("without nap", False), ("no", False), ("with nap", True)):
        rows = read_paste(text.format(word), TABLES).as_row()["requirements"]
        assert {row["with_nap"] for row in rows} == {with_nap}, word


def test_a_pdf_to_print_at_home_is_a_pdf() -> None:
    assert read_paste("Format: PDF (print at home)", TABLES).as_row()["sold_as"] == "PDF"
    assert read_paste("Format: paper and PDF", TABLES).as_row()["sold_as"] == "paper and PDF"


def test_a_sentence_that_only_names_a_view_leaves_the_others_whole() -> None:
    draft = read_paste("Dunlin dress\nA dress with pin tucks and a shirt collar. View A. Lined.", trade_tables())
    assert {"pin tucks", "shirt collar"} <= set(draft.details)
