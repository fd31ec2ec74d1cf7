"""Lines that speak of one size: 'Size 36: bust 84, waist 66', 'Size 12 cup B'."""

from __future__ import annotations

import re

from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.open_state import Open
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.core.pattern.paste.words import measurement
from nematex.core.quantity.scan import lengths

_CUP = re.compile(
    r"^\s*(?P<size>\S+)\s+(?:bust\s+(?P<bust>[\d.,]+)\s*(?:cm|in)?\s+)?"
    r"cups?\s+(?P<cup>[A-H](?:\s*[/,]\s*[A-H])*)\s*$",
    re.IGNORECASE,
)
_PAIR = re.compile(r"(?P<name>[A-Za-zÄÖÜäöüß][A-Za-zÄÖÜäöüß ]*?)\s*:?\s*(?P<value>\d[\d.,/ ½¼¾]*(?:\s*(?:cm|in|\"|”))?)")


def _of(at: Open, label: str) -> dict[str, object]:
    """The size of this label; a new one where it is not known."""
    known = next((size for size in at.draft.sizes if size["label"] == label), None)
    if known is None:
        known = {"label": label, "band": at.band}
        at.draft.sizes.append(known)
        at.groups.append([label])
    return known


def measures_of_a_size(at: Open, line: Line, rest: str) -> bool:
    """'36: bust 84, waist 66, hip 92'."""
    label, colon, told = rest.partition(":")
    if not colon:
        label, colon, told = rest.partition("|")  # 'UK 8 | bust 84 | waist 66'
    labels = read_sizes(label) if colon else None
    pairs = [(measurement(each["name"], at.tables), each["value"]) for each in _PAIR.finditer(told)]
    if not labels or len(labels) != 1 or not pairs or any(name is None for name, _ in pairs):
        return False
    size = _of(at, labels[0])
    for found, value in pairs:
        figure = next(iter(lengths(value)), None)
        if found and figure and found[0] not in ("skip", "cup"):
            name = f"finished_{found[0]}_cm" if found[1] else f"{found[0]}_cm"
            size[name] = round(figure.cm("in" if figure.unit == "" and figure.value < 62 else "cm"), 1)
    line.field = "sizes"
    return True


def one_cup(at: Open, line: Line, rest: str) -> bool:
    """'12 bust 92 cm cup B/C/D'."""
    found = _CUP.match(rest)
    labels = read_sizes(found["size"]) if found else None
    if not found or not labels:
        return False
    cups = " ".join(re.findall(r"[A-H]", found["cup"].upper()))
    bust = float(found["bust"].replace(",", ".")) if found["bust"] else None
    size = _of(at, labels[0])
    if size.get("cup") and size.get("bust_cm") not in (bust, None):
        size = _of(at, f"{labels[0]} {cups}")  # the same size for other cups, with a bust of its own
    elif size.get("cup"):
        cups = f"{size['cup']} {cups}"
    size["cup"] = cups
    if bust:
        size["bust_cm"] = bust
    line.field = "sizes"
    return True
