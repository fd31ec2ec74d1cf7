"""Small words for templates: the address with one choice changed, Markdown that cannot break out, a size range."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from urllib.parse import urlencode

from flask import request
from markupsafe import Markup

from nematex.core.cloth import print_scale
from nematex.core.hang.hem import MODERATE_CM
from nematex.core.judging.demand import read_pattern
from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.envelope.interpretation import BETWEEN
from nematex.core.pattern.envelope.marked import Marked, marked
from nematex.core.pattern.look import look_of
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.quantity import saying
from nematex.web.drawing import swatch
from nematex.web.drawing.garment import Figure, drawn_figure
from nematex.web.drawing.swatch import Tile
from nematex.web.rooms.common import now, shop


def query(only: list[str] | None = None, **changes: object) -> str:
    """The query of this page with some values changed; None takes one out."""
    kept = [(name, value) for name, value in request.args.items(multi=True) if only is None or name in only]
    kept = [(name, value) for name, value in kept if name not in changes]
    return urlencode([*kept, *((name, str(value)) for name, value in changes.items() if value is not None)])


def pairs(value: str) -> tuple[str, str]:
    """A choice whose label is its value."""
    return value, value


def figure(number: float) -> str:
    """A measured number with as many figures as it is worth: 1.83, 14.5, 122."""
    places = 0 if abs(number) >= 100 else 1 if abs(number) >= 10 else 2
    text = f"{number:.{places}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def scale_word(size_cm: float) -> str:
    """How large a print is, in a word."""
    return print_scale.scale_word(size_cm, now().tables)


def drawing(record: PatternRecord, view: str | None = None, bend_cm: float = MODERATE_CM) -> Figure:
    """The drawing of a pattern's garment, as it hangs in a cloth of this bending length."""
    return drawn_figure(look_of(record.facts, now().tables, view), bend_cm)


def dressed(
    pattern: PatternRecord, record: ClothRecord, bend_cm: float, draw: Callable[..., Markup], size: str, view: str | None
) -> Markup:
    """A garment in a cloth, drawn once and kept while cloth and pattern are the same."""
    key = ("worn", id(record), id(pattern), size, view, bend_cm)
    return shop().memory.of(key, (record, pattern), lambda: draw(record, pattern, size, view, bend_cm))


def hand_word(bend_cm: float) -> str:
    """How a cloth handles, in a word."""
    return saying.hand_word(bend_cm, now().tables)


def remembered(what: str, of: object, draw: Callable[..., Markup], *more: object) -> Markup:
    """A drawing of something that does not change, drawn once and kept while the thing itself is the same."""
    return shop().memory.of((what, id(of), more), (of,), lambda: draw(of, *more))


def tile(record: ClothRecord) -> Tile:
    """The print of a cloth, laid out once while the cloth is the same."""
    return shop().memory.of(("tile", id(record)), (record,), lambda: swatch.tile(record))


def as_read(record: PatternRecord) -> dict[str, list[Marked]]:
    """The envelope's two texts with what was understood of them, by the field each stands in."""
    reading = read_pattern(record.facts, now().tables)
    texts = {"recommended": record.facts.recommended or "", "avoid": record.facts.avoid or ""}
    second = len(texts["recommended"]) + len(BETWEEN) if texts["recommended"] else 0
    starts = {"recommended": 0, "avoid": second}
    return {name: marked(text, reading.heaps, reading.clauses, starts[name]) for name, text in texts.items() if text}


def text_as_read(text: str) -> list[Marked]:
    """A line that was pasted, with what was understood of it."""
    reading = read_envelope(text, now().tables)
    return marked(text, reading.heaps, reading.clauses)


@dataclass(frozen=True)
class Piece:
    """A piece of what is said: in brackets it stands beside, small."""

    text: str
    beside: bool


def spoken_pieces(text: str) -> list[Piece]:
    """'140 g/m² (4.1 oz/yd²), light' in its pieces; the brackets stay with what they hold."""
    return [Piece(piece, piece.startswith("(")) for piece in re.split(r"(\([^()]*\))", text) if piece]
