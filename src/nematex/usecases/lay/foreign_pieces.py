"""Pieces out of a stranger's SVG or DXF, in the process behind the fence. Lengths in cm.

A file's unit is its own: SVG by its width and viewBox, DXF by $INSUNITS. Curves are read as short straight edges.
"""

from __future__ import annotations

import io
import math
import re
from itertools import islice
from xml.etree.ElementTree import Element

import numpy as np
from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException
from ezdxf import filemanagement as dxf
from ezdxf.lldxf.const import DXFError
from ezdxf.path import make_path
from svgpathtools import Line, parse_path

from nematex.core.amount.lay.pieces import MOST_COPIES, MOST_CORNERS, Piece, Point, checked_all
from nematex.core.errors import FieldFault

CURVE_POINTS = 12
LONGEST_PATH = 200_000
SAME_CM, JOINED_CM = 1e-6, 0.05
OUTLINES = ("LWPOLYLINE", "POLYLINE", "SPLINE", "ELLIPSE", "CIRCLE")
CM_PER = {"cm": 1.0, "mm": 0.1, "in": 2.54, "pt": 2.54 / 72, "px": 2.54 / 96, "": 2.54 / 96}
CM_OF_INSUNITS = {1: 2.54, 2: 30.48, 4: 0.1, 5: 1.0, 6: 100.0}  # the codes of DXF: inch, foot, mm, cm, m (from memory)
SVG = "{http://www.w3.org/2000/svg}"
_LENGTH = re.compile(r"\s*([0-9.]+)\s*(cm|mm|in|pt|px|)\s*$")
OUR_LAYER = re.compile(r"(?P<id>.+)__(?P<kind>pair|single|fold)(?P<count>\d+)(?:_y(?P<fold>-?[\d.]+))?(?P<free>_free)?$")


def plain_pieces(content: bytes, kind: str) -> list[list[object]]:
    """As plain values, in the process behind the fence."""
    found = read_svg(content) if kind == "svg" else read_dxf(content)
    return [[each.id, each.outline_cm, each.count, each.kind, each.fold_y_cm, each.free] for each in found]


def _unit(root: Element) -> float:
    """How many cm one unit of the drawing is."""
    wide, box = _LENGTH.match(root.get("width", "")), (root.get("viewBox") or "").replace(",", " ").split()
    if wide and len(box) == 4 and float(box[2]) > 0:
        return float(wide[1]) * CM_PER[wide[2]] / float(box[2])
    if wide is None and box:
        raise FieldFault("SVG width", root.get("width", ""), "must say how large the drawing is, such as 120cm")
    return CM_PER[wide[2]] if wide else CM_PER[""]


NO_PATH = (ValueError, IndexError, ZeroDivisionError, OverflowError, TypeError, AssertionError, AttributeError)


def _edges(d: str, name: str) -> list[list[complex]]:
    """Each segment of a path as points; the library lets odd text through until it is reckoned with."""
    if len(d) > LONGEST_PATH:
        raise FieldFault(f"path {name!r}", f"{len(d)} letters", "is too long")
    try:
        path = parse_path(d)
        steps = [1 if isinstance(each, Line) else CURVE_POINTS for each in path]
        return [[complex(each.point(at / count)) for at in range(count + 1)] for each, count in zip(path, steps, strict=True)]
    except NO_PATH as fault:
        raise FieldFault(f"path {name!r}", d[:40], f"cannot be read: {fault}") from None


def _corners(d: str, name: str, scale: float) -> list[Point]:
    """The outline of one closed path, in cm."""
    edges = _edges(d, name)
    if not edges:
        raise FieldFault(f"path {name!r}", d[:40], "holds no line")
    if len(edges) > MOST_CORNERS:
        raise FieldFault(f"path {name!r}", len(edges), f"edges are too many; at most {MOST_CORNERS}")
    found = [edges[0][0]]
    for edge in edges:
        if not abs(edge[0] - found[-1]) <= SAME_CM / scale:
            raise FieldFault(f"path {name!r}", d[:40], "is more than one line; each piece needs a path of its own")
        found += edge[1:]
    if not abs(found[0] - found[-1]) <= JOINED_CM / scale:
        raise FieldFault(f"path {name!r}", d[:40], "is open; its end must meet its beginning")
    points = [(each.real * scale, each.imag * scale) for each in found[:-1]]
    if not all(math.isfinite(value) for point in points for value in point):
        raise FieldFault(f"path {name!r}", d[:40], "holds a number that is none")
    return points


def _number(element: Element, name: str, usual: float) -> float:
    try:
        return float(element.get(name, usual))
    except ValueError:
        raise FieldFault(f"path {element.get('id', '')!r}, {name}", element.get(name, ""), "is no number") from None


def read_svg(content: bytes) -> list[Piece]:
    """The pieces of an SVG; raises FieldFault naming the path."""
    try:
        root = ElementTree.fromstring(content, forbid_dtd=True)
    except (ElementTree.ParseError, DefusedXmlException, ValueError, LookupError) as fault:
        raise FieldFault("file", type(fault).__name__, f"is no SVG that may be read: {fault}") from None
    if root.tag not in (f"{SVG}svg", "svg"):
        raise FieldFault("file", root.tag[:40], "is no SVG")
    scale = _unit(root)
    paths = [each for each in root.iter() if each.tag in (f"{SVG}path", "path")]
    if any(each.get("transform") for each in root.iter()):
        raise FieldFault("SVG transform", "transform", "is not read; save the drawing with its transforms applied")
    if not 0 < len(paths) <= MOST_COPIES:
        raise FieldFault("file", f"{len(paths)} paths", f"must hold from 1 to {MOST_COPIES} paths, one for each piece")
    return checked_all([_svg_piece(each, at, scale) for at, each in enumerate(paths, 1)])


def _svg_piece(element: Element, at: int, scale: float) -> Piece:
    name = element.get("id") or f"piece {at}"
    shift = _number(element, "data-shift", 0.0)
    outline = [(round(x, 4), round(y - shift, 4)) for x, y in _corners(element.get("d", ""), name, scale)]
    fold = re.fullmatch(r"y=(-?[\d.]+)", element.get("data-fold", ""))
    kind = element.get("data-kind", "single")
    if kind not in ("pair", "single", "fold"):
        raise FieldFault(f"path {name!r}, data-kind", kind, "must be pair, single or fold")
    count = _number(element, "data-count", 1)
    free = element.get("data-free") == "true"
    return Piece(name, tuple(outline), int(min(max(count, 0), 10_000)), kind, float(fold[1]) if fold else None, free)  # type: ignore[arg-type]


def read_dxf(content: bytes) -> list[Piece]:
    """The pieces of a DXF: each closed polyline or spline; raises FieldFault naming its layer."""
    try:
        drawing = dxf.read(io.StringIO(content.decode("utf-8", "replace")))
    except (DXFError, ValueError, KeyError, IndexError, TypeError, AttributeError, OverflowError) as fault:
        raise FieldFault("file", type(fault).__name__, f"is no DXF that can be read: {fault}") from None
    units = int(drawing.units)
    if units not in CM_OF_INSUNITS:
        raise FieldFault("DXF $INSUNITS", units, "says no unit of length; set it to inches, mm, cm or m")
    found = [
        each for each in drawing.modelspace() if each.dxftype() in ("LWPOLYLINE", "POLYLINE", "SPLINE", "ELLIPSE", "CIRCLE")
    ]
    if not 0 < len(found) <= MOST_COPIES:
        raise FieldFault("file", f"{len(found)} outlines", f"must hold from 1 to {MOST_COPIES} closed polylines")
    return checked_all([_dxf_piece(each, at, CM_OF_INSUNITS[units]) for at, each in enumerate(found, 1)])


def _dxf_piece(entity: object, at: int, scale: float) -> Piece:
    layer = str(entity.dxf.layer)  # type: ignore[attr-defined]
    path = make_path(entity)
    flat = islice(path.flattening(JOINED_CM / scale), MOST_CORNERS + 1)  # counted while they are made
    points = [(point.x * scale, point.y * scale) for point in flat]
    if len(points) > MOST_CORNERS:
        raise FieldFault(f"layer {layer!r}", len(points), f"corners are too many; at most {MOST_CORNERS}")
    if len(points) < 3 or np.hypot(*(np.array(points[0]) - np.array(points[-1]))) > JOINED_CM:
        raise FieldFault(f"layer {layer!r}", f"{len(points)} points", "is open; its end must meet its beginning")
    outline = tuple((round(x, 4), round(y, 4)) for x, y in points[:-1])
    ours = OUR_LAYER.match(layer)
    if ours is None:
        return Piece(layer if layer != "0" else f"piece {at}", outline)
    fold = float(ours["fold"]) if ours["fold"] is not None else None
    return Piece(ours["id"], outline, int(ours["count"]), ours["kind"], fold, bool(ours["free"]))  # type: ignore[arg-type]
