"""The brief of a programme: what it is for, how much it shows, what it must show and whom it must serve.

It is kept as the texts that were typed and read here; an empty field asks for nothing. Lengths in cm.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.quantity.reader import read_length_cm, to_number
from nematex.core.rules.reckoning import KindRules

SEASONS = ("spring", "summer", "autumn", "winter")
AUDIENCES = ("beginners", "people of some experience", "those who sew for children")
GROUNDS = ("dark", "light")
MOST_SLOTS = 40
LONGEST = 300  # letters of a field
LEAST_BODY_CM, MOST_BODY_CM = 40.0, 200.0
FIELDS = {
    "kind": "kind of programme",
    "theme": "theme",
    "occasion": "occasion",
    "audience": "audience",
    "season": "season",
    "slots": "places",
    "budget": "budget per garment",
    "grounds": "grounds",
    "arrivals": "new arrivals",
    "deadstock": "deadstock",
    "overstock": "overstock",
    "anchor": "anchor print",
    "cloths": "cloths to show",
    "bust": "bust",
    "hip": "hip",
    "garments": "garments",
    "fibres": "fibres",
    "structures": "knit and woven",
    "easy": "easy makes",
    "layers": "layers",
    "makers": "makers expected",
    "not_again": "not again within",
}

Range = tuple[float, float]


@dataclass(frozen=True)
class Brief:
    """What is asked of a set; `anchor` and `cloths` are codes of the shelf, `budget` is for the cloth of one garment."""

    kind: str = ""
    theme: tuple[str, ...] = ()
    occasion: str = ""
    audience: str = ""
    season: str = ""
    slots: int = 0
    budget: float | None = None
    grounds: str = ""
    arrivals: int = 0
    deadstock: int = 0
    overstock: int = 0
    anchor: str = ""
    cloths: tuple[str, ...] = ()
    bust: Range | None = None
    hip: Range | None = None
    garments: tuple[str, ...] = ()
    fibres: tuple[str, ...] = ()
    structures: tuple[str, ...] = ()
    easy: int = 0
    layers: bool = False
    makers: int = 0
    not_again_months: int = 0

    @property
    def is_empty(self) -> bool:
        return self == Brief()


def read_brief(given: Mapping[str, str], kinds: Mapping[str, KindRules]) -> Brief:
    """A brief from its texts; raises FieldFault naming the field. An empty text asks for nothing."""
    text = {name: (given.get(name) or "").strip() for name in FIELDS}
    for name, words in text.items():
        if len(words) > LONGEST:
            raise FieldFault(FIELDS[name], f"{words[:40]}…", f"is {len(words)} letters long; at most {LONGEST} are kept")

    def choice(name: str, choices: Mapping[str, object] | tuple[str, ...]) -> str:
        if text[name] and text[name] not in choices:
            raise UnknownChoice(FIELDS[name], text[name][:60], choices, FIELDS[name])
        return text[name]

    def count(name: str, most: int = MOST_SLOTS) -> int:
        return _count(text[name], FIELDS[name], most)

    return Brief(
        kind=choice("kind", kinds),
        theme=_list(text["theme"]),
        occasion=text["occasion"],
        audience=choice("audience", AUDIENCES),
        season=choice("season", SEASONS),
        slots=count("slots"),
        budget=_budget(text["budget"], FIELDS["budget"]),
        grounds=choice("grounds", GROUNDS),
        arrivals=count("arrivals"),
        deadstock=count("deadstock"),
        overstock=count("overstock"),
        anchor=text["anchor"],
        cloths=_list(text["cloths"]),
        bust=_range(text["bust"], FIELDS["bust"]),
        hip=_range(text["hip"], FIELDS["hip"]),
        garments=tuple(each.casefold() for each in _list(text["garments"])),
        fibres=tuple(each.casefold() for each in _list(text["fibres"])),
        structures=_each_of(text["structures"], FIELDS["structures"], ("knit", "woven")),
        easy=count("easy"),
        layers=bool(text["layers"]),
        makers=count("makers", 2000),
        not_again_months=count("not_again", 60),
    )


def with_usual(brief: Brief, kinds: Mapping[str, KindRules], usual_slots: int) -> Brief:
    """The brief with what its kind of programme usually asks where it says nothing."""
    kind = kinds.get(brief.kind)
    slots = brief.slots or (kind.slots if kind else usual_slots)
    if kind is None:
        return replace(brief, slots=slots)
    return replace(
        brief,
        slots=slots,
        arrivals=brief.arrivals or round(kind.arrivals_share * slots),
        layers=brief.layers or kind.layers,
    )


def _list(text: str) -> tuple[str, ...]:
    parts = (each.strip() for each in text.replace(";", ",").replace("\n", ",").split(","))
    return tuple(dict.fromkeys(each for each in parts if each))


def _each_of(text: str, field: str, choices: tuple[str, ...]) -> tuple[str, ...]:
    found = tuple(each.casefold() for each in _list(text))
    for each in found:
        if each not in choices:
            raise UnknownChoice(field, each[:60], choices, field)
    return found


def _count(text: str, field: str, most: int) -> int:
    if not text:
        return 0
    if not (text.isascii() and text.isdecimal() and len(text) <= 5 and int(text) <= most):
        raise FieldFault(field, text[:40], f"must be a whole number from 0 to {most}")
    return int(text)


def _budget(text: str, field: str) -> float | None:
    if not text:
        return None
    value = to_number(text.lstrip("£€$ "), field)
    if not 0 < value <= 10_000:
        raise FieldFault(field, text[:40], "must be above 0 and up to 10,000")
    return value


def _range(text: str, field: str) -> Range | None:
    """'84 to 130 cm', '33-51 in', 'up to 130 cm', 'from 120 cm'."""
    if not text:
        return None
    plain = text.casefold()
    parts = [part.strip() for part in _two(plain)]
    unit = "in" if any(sign in plain for sign in ("in", '"', "″")) else "cm"

    def read(part: str, otherwise: float) -> float:
        return read_length_cm(part, field, unit) if part else otherwise

    low, high = read(parts[0], LEAST_BODY_CM), read(parts[1], MOST_BODY_CM)
    if not LEAST_BODY_CM <= low < high <= MOST_BODY_CM:
        rule = f"must be a range from {LEAST_BODY_CM:.0f} to {MOST_BODY_CM:.0f} cm; write it like 84 to 130 cm, or up to 130 cm"
        raise FieldFault(field, text[:40], rule)
    return low, high


_PARTERS: tuple[tuple[str, Callable[[str], tuple[str, str]]], ...] = (
    ("up to", lambda text: ("", text.replace("up to", ""))),
    (" to ", lambda text: (text.split(" to ", 1)[0], text.split(" to ", 1)[1])),
    ("–", lambda text: (text.split("–", 1)[0], text.split("–", 1)[1])),
    ("-", lambda text: (text.split("-", 1)[0], text.split("-", 1)[1])),
    ("from", lambda text: (text, "")),
)


def _two(text: str) -> tuple[str, str]:
    """The lower and the upper end of a range, "" where it is open."""
    for sign, part in _PARTERS:
        if sign in text:
            low, high = part(text)
            return low.replace("from", ""), high
    return text, text
