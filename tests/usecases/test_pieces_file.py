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
from nematex.fence import fenced, unfenced
from nematex.usecases.lay.pieces_file import pieces_dxf, pieces_svg, read_pieces
from nematex.usecases.lay.text import read_task

pytestmark = pytest.mark.breaking

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
    found = read_pieces(text.encode(), f"pieces.{kind}", unfenced)
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
    found = read_pieces(svg(f'<path id="a" d="{SQUARE}"/>', head), "a.svg", unfenced)
    assert found[0].polygon.area == pytest.approx(side_cm**2, rel=1e-3)


def test_curves_are_read_as_short_edges() -> None:
    circle = "M10 0A10 10 0 0 1 -10 0A10 10 0 0 1 10 0Z"
    found = read_pieces(svg(f'<path id="a" d="{circle}"/>'), "a.svg", unfenced)
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
        read_pieces(content, "pieces", unfenced)


@settings(max_examples=200, deadline=None)
@given(
    st.text("MLHVCSQTAZ mlhvcsqtaz0123456789.,-+e", max_size=120).map(lambda d: svg(f'<path id="p" d="{d}"/>'))
    | st.binary(max_size=200)
    | st.binary(max_size=80).map(lambda noise: b"0\nSECTION\n2\nENTITIES\n" + noise + b"\n0\nENDSEC\n0\nEOF\n")
    | st.text(max_size=80).map(svg)
)
def test_no_file_is_more_than_a_fault(content: bytes) -> None:
    with suppress(FieldFault):
        found = read_pieces(content, "x.dxf", unfenced)
        assert found
        assert all(len(each.outline_cm) >= 3 for each in found)


def dxf_of(entity: str) -> bytes:
    """A DXF in cm with one entity, its codes and values a line each."""
    drawing = pieces_dxf(pieces(shirt())[:1])
    at = drawing.index("ENTITIES") + len("ENTITIES\n")
    return (drawing[:at] + entity.replace("|", "\n") + "\n" + drawing[drawing.index("  0\nENDSEC", at) :]).encode()


ODD = {
    "no width": svg(f'<path d="{SQUARE}"/>', 'width="0cm" height="0cm" viewBox="0 0 1 1"'),
    "two points": svg(f'<path d="{SQUARE}"/>', 'width="1.2.3cm" viewBox="0 0 1 1"'),
    "a point alone": svg(f'<path d="{SQUARE}"/>', 'width=".cm" viewBox="0 0 1 1"'),
    "letters for a box": svg(f'<path d="{SQUARE}"/>', 'width="1cm" viewBox="a b c d"'),
    "no end": svg(f'<path d="{SQUARE}"/>', 'width="1cm" viewBox="0 0 inf 1"'),
    "a fold of points": svg(f'<path d="{SQUARE}" data-kind="fold" data-fold="y=1.2.3"/>'),
    "a fold of one": svg(f'<path d="{SQUARE}" data-kind="fold" data-fold="y=."/>'),
    "no count": svg(f'<path d="{SQUARE}" data-count="nan"/>'),
    "no shift": svg(f'<path d="{SQUARE}" data-shift="nan"/>'),
    "a long name": svg(f'<path id="{"a" * 5000}" d="{SQUARE}"/>'),
    "a circle without end": dxf_of("  0|CIRCLE|  8|0| 10|0.0| 20|0.0| 40|inf"),
    "a huge circle": dxf_of("  0|CIRCLE|  8|0| 10|0.0| 20|0.0| 40|1e11"),
    "a layer's fold": dxf_of("  0|CIRCLE|  8|a__fold1_y1.2.3| 10|0.0| 20|0.0| 40|5.0"),
    "a layer's count": dxf_of(f"  0|CIRCLE|  8|a__single{'9' * 5000}| 10|0.0| 20|0.0| 40|5.0"),
    "an ellipse of nothing": dxf_of("  0|ELLIPSE|  8|0| 10|0.0| 20|0.0| 11|0.0| 21|0.0| 40|0.5| 41|0.0| 42|6.28"),
    "a mesh": dxf_of("  0|POLYLINE|  8|0| 66|1| 70|16| 71|2| 72|2|  0|SEQEND"),
}


@pytest.mark.parametrize("what", ODD)
def test_odd_files_are_a_sentence_and_no_work(what: str) -> None:
    with suppress(FieldFault):  # or pieces that every later step can use
        found = read_pieces(ODD[what], "x.dxf", unfenced)
        assert all(len(each.id) <= 120 for each in found)
        json.dumps([each.outline_cm for each in found], allow_nan=False)


def test_behind_the_fence_it_is_the_same_and_has_an_end() -> None:
    known = pieces(shirt())
    assert read_pieces(pieces_svg(known).encode(), "a.svg") == read_pieces(pieces_svg(known).encode(), "a.svg", unfenced)
    for what in ("no width", "an ellipse of nothing"):
        with pytest.raises(FieldFault) as fault:
            read_pieces(ODD[what], "x.dxf")
        assert "\n" not in str(fault.value)
    for way in ("usecases.test_pieces_file:without_end", "usecases.test_pieces_file:without_measure"):
        with pytest.raises(FieldFault, match="takes too long or too much memory"):
            fenced(way, b"bytes")


def without_end(_content: bytes) -> None:
    while True:
        pass


def without_measure(_content: bytes) -> list[bytes]:
    return [b"x" * 2**28 for _ in range(100)]
