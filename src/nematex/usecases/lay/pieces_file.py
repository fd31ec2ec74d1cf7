"""Pieces as files: SVG and DXF, written and read back. Lengths in cm; the grain runs along x, or along a piece's own line.

What somebody sends is read by `foreign_pieces.py`, behind the fence.
"""

from __future__ import annotations

import io
import re
from collections.abc import Callable, Iterable
from typing import Any
from xml.sax.saxutils import quoteattr

from nematex.core.amount.lay.pieces import Piece, Point, checked_all
from nematex.core.errors import FieldFault
from nematex.fence import fenced

MOST_BYTES = 4_000_000


def _d(outline: Iterable[Point]) -> str:
    return "M" + "L".join(f"{x:.4f} {y:.4f}" for x, y in outline) + "Z"


def pieces_svg(pieces: list[Piece]) -> str:
    """One path each, one below the other, with a grain line; cut and fold stand in its data attributes."""
    top, wide, rows = 0.0, 0.0, []
    for piece in pieces:
        xs, ys = zip(*piece.outline_cm, strict=True)
        shift = top - min(ys)
        own = {"id": piece.id, "data-count": piece.count, "data-kind": piece.kind, "data-shift": f"{shift:.4f}"}
        if piece.fold_y_cm is not None:
            own["data-fold"] = f"y={piece.fold_y_cm:g}"
        if piece.free:
            own["data-free"] = "true"
        attributes = " ".join(f"{name}={quoteattr(str(value))}" for name, value in own.items())
        outline = [(x, y + shift) for x, y in piece.outline_cm]
        middle, third = top + (max(ys) - min(ys)) / 2, (max(xs) - min(xs)) / 3
        rows.append(f'<path {attributes} d="{_d(outline)}" fill="none" stroke="#211f1b" stroke-width=".1"/>')
        rows.append(
            f'<line class="grain" x1="{min(xs) + third:.4f}" y1="{middle:.4f}" x2="{max(xs) - third:.4f}" y2="{middle:.4f}" '
            f'stroke="#211f1b" stroke-width=".1"/>'
        )
        top, wide = top + max(ys) - min(ys) + 1.0, max(wide, *xs)
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.2f}cm" height="{top:.2f}cm" viewBox="0 0 {wide:.2f} {top:.2f}">'
    )
    return "\n".join([head, *rows, "</svg>\n"])


def pieces_dxf(pieces: list[Piece]) -> str:
    """A closed polyline each, on a layer of its own whose name says how it is cut."""
    from ezdxf import filemanagement as dxf  # it weighs half a second: only who writes such a file waits for it

    drawing = dxf.new(units=5)  # cm
    space = drawing.modelspace()
    for piece in pieces:
        layer = f"{piece.id}__{piece.kind}{piece.count}"
        layer += f"_y{piece.fold_y_cm:g}" if piece.fold_y_cm is not None else ""
        layer += "_free" if piece.free else ""
        layer = re.sub(r'[<>/\\":;?*|=`]', "-", layer)
        drawing.layers.add(layer)
        space.add_lwpolyline([(x, y) for x, y in piece.outline_cm], close=True, dxfattribs={"layer": layer})
    text = io.StringIO()
    drawing.write(text)
    return text.getvalue()


Fence = Callable[..., Any]


def read_pieces(content: bytes, filename: str, fence: Fence = fenced) -> list[Piece]:
    """The pieces of a file, by what it begins with, read behind the fence; raises FieldFault."""
    if len(content) > MOST_BYTES:
        raise FieldFault("file", f"{len(content) // 1000} kB", f"is too large; at most {MOST_BYTES // 1_000_000} MB")
    if content.lstrip()[:1] == b"<":
        kind = "svg"
    elif content.lstrip()[:1].isdigit() or filename.casefold().endswith(".dxf"):
        kind = "dxf"
    else:
        raise FieldFault("file", filename, "is neither SVG nor DXF")
    return checked_all([_piece(each) for each in fence("nematex.usecases.lay.foreign_pieces:plain_pieces", content, kind)])


def _piece(told: list[Any]) -> Piece:
    """A piece that came through the fence; raises FieldFault for what is none."""
    name, outline, count, kind, fold, free = told
    points = tuple((float(x), float(y)) for x, y in outline)
    return Piece(str(name), points, int(count), kind, None if fold is None else float(fold), bool(free))
