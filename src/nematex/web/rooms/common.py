"""What the rooms share: the shop of this application, and looking up or answering 'not here'."""

from __future__ import annotations

from collections.abc import Iterable
from urllib.parse import urlsplit

from flask import Response, abort, current_app, flash, g, request

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import STRUCTURES
from nematex.core.errors import UnknownChoice
from nematex.core.judging.verdict import Verdict
from nematex.core.sent_json import read_sent
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import Filters

LONGEST_ADDRESS = 2000
MOST_JSON = 2**16
LONGEST_NUMBER = 9  # digits; more is no page and no row


def shop() -> Shop:
    found: Shop = current_app.extensions["shop"]
    return found


def now() -> State:
    """The shop's state, taken once for each request."""
    if "state" not in g:
        g.state = shop().now()
    state: State = g.state
    return state


def find_cloth(cloth_id: int) -> tuple[ClothRecord, Cloth]:
    return now().cloth(cloth_id) or abort(404)


def find_pattern(pattern_id: int) -> PatternRecord:
    return now().pattern(pattern_id) or abort(404)


def tell_binned(kind: str, row_id: int, name: str) -> None:
    """Say on the next page that something went into the bin, with the way back."""
    flash({"kind": kind, "id": row_id, "name": name[:120]}, "binned")  # type: ignore[arg-type]


def json_sent() -> dict[str, object]:
    """What was sent as JSON; nothing where it is none, too long or nested without end."""
    content = request.get_data()
    try:
        told = read_sent(content) if len(content) <= MOST_JSON else None
    except ValueError:
        told = None
    return told if isinstance(told, dict) else {}


def as_number(text: str) -> int | None:
    """A whole number as it stands in an address; None for anything else."""
    return int(text) if text.isdecimal() and text.isascii() and len(text) <= LONGEST_NUMBER else None


def whole_number(name: str, default: int = 1) -> int:
    number = as_number(request.args.get(name, ""))
    return default if number is None else number


def numbers(texts: Iterable[str]) -> list[int]:
    """Those of the texts that are whole numbers, each once."""
    return list(dict.fromkeys(number for text in texts if (number := as_number(text)) is not None))


def came_from() -> str:
    """The path of the page that led here; "" where the browser does not say, or says nonsense."""
    try:
        return urlsplit(request.referrer or "").path
    except ValueError:
        return ""


def inside(back: str, otherwise: str) -> str:
    """An address of this shop to go back to, or the other one where it leads elsewhere."""
    plain = back.startswith("/") and not back.startswith(("//", "/\\")) and back.isprintable()
    return back if plain and len(back) <= LONGEST_ADDRESS else otherwise


def filters() -> Filters:
    """The filters in the address; raises UnknownChoice."""
    structure, verdict = request.args.get("structure", ""), request.args.get("verdict", "")
    if structure and structure not in STRUCTURES:
        raise UnknownChoice("structure", structure, STRUCTURES, "structure")
    words = [each.word for each in Verdict]
    if verdict and verdict not in words:
        raise UnknownChoice("verdict", verdict, words, "verdict")
    return Filters(
        q=request.args.get("q", "")[:200],
        structure=structure,
        verdict=verdict,
        in_stock="in_stock" in request.args,
        set_aside="set_aside" in request.args,
        garment=request.args.get("garment", "")[:120],
        difficulty=request.args.get("difficulty", "")[:40],
        season=request.args.get("season", "")[:80],
        page=whole_number("page"),
    )


def download(text: str | bytes, filename: str, kind: str) -> Response:
    return Response(text, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{filename}"'})
