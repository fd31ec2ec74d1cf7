"""Lines that say one measurement for every size: body, finished garment, cups."""

from __future__ import annotations

import re
from statistics import median

from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.open_state import Open
from nematex.core.pattern.paste.words import lead_and_rest, measurement
from nematex.core.quantity.scan import Figure, last_unit, lengths, once, spans


def upper_ends(text: str) -> str:
    """Of a range of body measurements the upper end counts: the size must reach it. '32-1/2' is no range."""
    for span in reversed(spans(text, list(lengths(text)))):
        if len(span) == 2 and text[span[0].end : span[1].start].strip() in ("-", "–"):
            text = text[: span[0].start] + text[span[1].start :]
    return text


def measurement_line(at: Open, line: Line, text: str) -> bool:
    """A body or finished measurement for every size, or their cups."""
    first = next(iter(lengths(text)), None)
    lead, rest = lead_and_rest(text)
    if not lead and first:
        lead, rest = text[: first.start], text[first.start :]
    found = measurement(lead, at.tables) if lead else None
    if found is None:
        return False
    name, finished = found
    line.field = "measurements"
    if name == "cup":
        for size in at.draft.sizes:
            size["cup"] = size.get("cup") or " ".join(re.findall(r"\b[A-H]{1,2}\b", rest.upper()))
        return True
    values = once(upper_ends(rest))
    if name == "skip" or not values:
        return True
    _spread(at, line, name, finished or at.section == "finished", values, last_unit(text) or at.unit)
    return True


def _spread(at: Open, line: Line, name: str, finished: bool, values: list[Figure], unit: str) -> None:
    if len(values) != len(at.groups):
        line.field = ""
        line.fault = f"has {len(values)} numbers for {len(at.groups)} sizes; give one for each"
        return
    usual = "in" if unit == "in" or (unit != "cm" and median(each.value for each in values) < 62) else "cm"
    column = f"finished_{name}_cm" if finished else f"{name}_cm"
    if column in ("finished_high_bust_cm", "cup_cm"):
        return
    by_label = {size["label"]: size for size in at.draft.sizes}
    for group, value in zip(at.groups, values, strict=True):
        for label in group:
            by_label[label][column] = round(value.cm(usual), 1)
    at.last_count = len(values)


def said_again(at: Open, line: Line, text: str) -> bool:
    """A line of bare numbers says the row above again in the other system."""
    if not re.fullmatch(r"[\d\s.,/½¼¾⅛⅜⅝⅞\t|]+(?:cm|in|ins|inches|\"|yds?|m)?\.?", text, re.IGNORECASE):
        return False
    if at.last_count and len(once(text)) == at.last_count:
        line.field = "said again"
        return True
    return False
