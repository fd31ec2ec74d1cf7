"""Where else a cloth is sold: 'home: https://shop.example/x, 2 to 4 days; abroad: https://other.example/x'."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.errors import FieldFault
from nematex.core.links import read_link

MOST = 12


@dataclass(frozen=True)
class Source:
    """A place that sells a cloth: for which region, its link, how long delivery takes in its own words."""

    region: str
    link: str
    delivery: str = ""


def read_sources(text: str, field: str = "other sources") -> tuple[Source, ...]:
    """Sources as typed, one after a semicolon; raises FieldFault."""
    found = []
    for part in (each.strip() for each in text.split(";")):
        if not part:
            continue
        region, sign, rest = part.partition(":")
        link, _, delivery = rest.strip().partition(",")
        if not (sign and region.strip() and link.strip()) or region.strip().casefold() in ("http", "https"):
            raise FieldFault(field, part[:60], "must read like: abroad: https://shop.example/cloth, 7 to 14 days")
        found.append(Source(" ".join(region.split()), read_link(link.strip(), field), " ".join(delivery.split())))
    if len(found) > MOST:
        raise FieldFault(field, f"{len(found)}", f"are too many; at most {MOST} are kept")
    return tuple(found)
