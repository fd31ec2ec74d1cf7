"""Chapters as text and as WebVTT, read by a parser from outside (webvtt-py, of the W3C's format)."""

from __future__ import annotations

import io
from html import unescape

import pytest
import webvtt as parser
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.air.chapter_text import chapter_lines, webvtt

MARKS = (
    (0.0, "Opening"),
    (40.9, "1. Kelp Ladder challis for Whimbrel tiered skirt"),
    (3725.2, "2. <Signal> & Flags --> poplin"),
)


def test_lines_round_down_and_have_hours_in_all_or_none() -> None:
    assert chapter_lines(MARKS[:2]) == ["0:00 Opening", "0:40 1. Kelp Ladder challis for Whimbrel tiered skirt"]
    assert chapter_lines(MARKS)[0] == "0:00:00 Opening"
    assert chapter_lines(MARKS)[2].startswith("1:02:05 ")
    assert chapter_lines(()) == []


def test_webvtt_is_read_back_by_its_parser() -> None:
    found = list(parser.from_buffer(io.StringIO(webvtt(MARKS, 4000.5))))
    assert [(each.start, each.end) for each in found] == [
        ("00:00:00.000", "00:00:40.900"), ("00:00:40.900", "01:02:05.200"), ("01:02:05.200", "01:06:40.500"),
    ]  # fmt: skip
    assert [each.identifier for each in found] == ["1", "2", "3"]
    assert unescape(found[2].text) == "2. <Signal> & Flags --> poplin"


@pytest.mark.parametrize("marks", [(), ((0.0, ""),), ((0.0, "a\n\nb"),)])
def test_what_is_odd_is_still_webvtt(marks: tuple[tuple[float, str], ...]) -> None:
    assert len(list(parser.from_buffer(io.StringIO(webvtt(marks, 0.0))))) == len(marks)


@given(st.lists(st.text(max_size=40), min_size=1, max_size=8))
def test_any_titles_stay_cues_of_their_own(titles: list[str]) -> None:
    marks = [(20.0 * at, title) for at, title in enumerate(titles)]
    assert len(list(parser.from_buffer(io.StringIO(webvtt(marks, 500.0))))) == len(titles)
