"""Pieces in SVG and DXF: what we write reads back the same; what is malformed is a fault with a message, never more."""

from __future__ import annotations

import json
from contextlib import suppress
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from lay_pieces import dress, shirt, trousers

from nematex.core.amount.lay.pieces import Piece
from nematex.core.errors import FieldFault
from nematex.usecases.lay.pieces_file import pieces_dxf, pieces_svg, read_pieces
from nematex.usecases.lay.text import read_task

BOMB = b'<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]>'
SQUARE = "M0 0H10V10H0Z"


def pieces(which: list[dict[str, object]]) -> list[Piece]:
    return [each.piece() for each in read_task(json.dumps({"width_cm": 140, "pieces": which})).pieces]


def svg(paths: str, head: str = 'width="100cm" height="100cm" viewBox="0 0 100 100"') -> bytes:
    return f'<svg xmlns="http://www.w3.org/2000/svg" {head}>{paths}</svg>'.encode()


@pytest.mark.parametrize("garment", [shirt(), dress(), trousers()], ids=["shirt", "dress", "trousers"])
@pytest.mark.parametrize("kind", ["svg", "dxf"])
def test_what_we_write_reads_back_the_same(garment: list[dict[str, object]], kind: str) -> None:
    known = pieces(garment)
    known[-1] = replace(known[-1], free=True)
    text = pieces_svg(known) if kind == "svg" else pieces_dxf(known)
    found = read_pieces(text.encode(), f"pieces.{kind}")
    assert [(each.id, each.count, each.kind, each.fold_y_cm, each.free) for each in found] == [
        (each.id, each.count, each.kind, each.fold_y_cm, each.free) for each in known
    ]
    for one, other in zip(found, known, strict=True):
        assert one.polygon.symmetric_difference(other.polygon).area < 0.05


# 1 in = 2.54 cm (1959 agreement); CSS has 96 px to the inch (CSS Values and Units, from memory).
@pytest.mark.parametrize(
    ("head", "side_cm"),
    [
        ('width="100cm" height="100cm" viewBox="0 0 100 100"', 10.0),
        ('width="100mm" height="100mm" viewBox="0 0 100 100"', 1.0),
        ('width="10in" height="10in" viewBox="0 0 100 100"', 2.54),
        ('width="100px" height="100px"', 10 * 2.54 / 96),
        ("", 10 * 2.54 / 96),
    ],
)
def test_the_unit_of_a_drawing_is_its_own(head: str, side_cm: float) -> None:
    found = read_pieces(svg(f'<path id="a" d="{SQUARE}"/>', head), "a.svg")
    assert found[0].polygon.area == pytest.approx(side_cm**2, rel=1e-3)


def test_curves_are_read_as_short_edges() -> None:
    circle = "M10 0A10 10 0 0 1 -10 0A10 10 0 0 1 10 0Z"
    found = read_pieces(svg(f'<path id="a" d="{circle}"/>'), "a.svg")
    assert found[0].polygon.area == pytest.approx(314.16, rel=0.02)


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (svg('<path id="sail" d="M0 0L10 0L10 10"/>'), "path 'sail'.*is open"),
        (svg('<path id="eight" d="M0 0L10 10L10 0L0 10Z"/>'), "piece 'eight', outline.*crosses or touches itself"),
        (svg('<path id="two" d="M0 0H10V10Z M20 20H30V30Z"/>'), "path 'two'.*more than one line"),
        (svg('<path id="x" d="banana"/>'), "path 'x'"),
        (svg('<path id="x" d=""/>'), "path 'x'"),
        (svg(f'<g transform="scale(2)"><path d="{SQUARE}"/></g>'), "transform"),
        (svg(f'<path d="{SQUARE}"/>', 'viewBox="0 0 100 100"'), "must say how large"),
        (svg(f'<path id="p" d="{SQUARE}" data-kind="both"/>'), "data-kind: 'both'"),
        (svg(f'<path id="p" d="{SQUARE}" data-count="many"/>'), "data-count: 'many'"),
        (svg('<path id="far" d="M0 0H9999999V10H0Z"/>'), "are the units cm"),
        (svg(""), "0 paths"),
        (svg(f'<path d="{SQUARE}"/>' * 201), "201 paths"),
        (
            b'<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;">]><svg xmlns="http://www.w3.org/2000/svg">&b;</svg>',
            "no SVG that may be read",
        ),
        (b"<svg", "no SVG"),
        (b"<html></html>", "is no SVG"),
        (b"0\nSECTION\nbanana", "no DXF"),
        (b"PK\x03\x04", "neither SVG nor DXF"),
        (b"", "neither SVG nor DXF"),
        (b"<svg>" + b" " * 4_100_000, "too large"),
        (pieces_dxf(pieces(shirt())).replace("  9\n$INSUNITS\n 70\n5\n", "  9\n$INSUNITS\n 70\n0\n").encode(), "INSUNITS"),
    ],
)
def test_malformed_files_are_named(content: bytes, words: str) -> None:
    with pytest.raises(FieldFault, match=words):
        read_pieces(content, "pieces")


@settings(max_examples=200, deadline=None)
@given(
    st.text("MLHVCSQTAZ mlhvcsqtaz0123456789.,-+e", max_size=120).map(lambda d: svg(f'<path id="p" d="{d}"/>'))
    | st.binary(max_size=200)
    | st.binary(max_size=80).map(lambda noise: b"0\nSECTION\n2\nENTITIES\n" + noise + b"\n0\nENDSEC\n0\nEOF\n")
    | st.text(max_size=80).map(svg)
)
def test_no_file_is_more_than_a_fault(content: bytes) -> None:
    with suppress(FieldFault):
        read_pieces(content, "x.dxf")
