"""Lines that list sizes; a second list begins a second band."""

from __future__ import annotations

import re

from nematex.core.pattern.paste.amount_rows import amounts_line
from nematex.core.pattern.paste.amounts import read_amounts
from nematex.core.pattern.paste.columns import column_header
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.measure_rows import measurement_line
from nematex.core.pattern.paste.one_size import measures_of_a_size, one_cup
from nematex.core.pattern.paste.open_state import CELLS, Open
from nematex.core.pattern.paste.sizes import overlapping, read_sizes, size_groups

_THEN = re.compile(r"\.\s+(?=[A-Z][a-z]{2,})")  # 'Sizes 8 to 20. Bust 80, 84 …'


LONGEST_BARE, FEWEST_BARE = 60, 3
_SAYS_LENGTHS = re.compile(r"\d\s*(?:m|yds?|yards?)\b", re.IGNORECASE)
BRACKETED = re.compile(r"\((\d{1,3}\s*[-–]\s*\d{1,3})\)")  # '8 (10-12) 14': two sizes of one column


def on_sizes(at: Open, line: Line, lead: str, rest: str) -> bool:
    """A list of sizes, and the measurement that a second sentence of the line may say."""
    sentence = _THEN.search(rest)
    taken = _size_list(at, line, lead, rest[: sentence.start()] if sentence else rest)
    if sentence:
        field = line.field
        measurement_line(at, line, rest[sentence.end() :])
        line.field = line.field or field
    return taken


def bare_sizes(at: Open, line: Line, text: str) -> bool:
    """'XS - 2XL' alone on its line."""
    labels = (
        read_sizes(text)
        if not at.draft.sizes and at.section not in ("notions", "name", "code", "house") and len(text) <= LONGEST_BARE
        else None
    )
    if labels is None or len(labels) < FEWEST_BARE:
        return False
    _new_sizes(at, labels, "")
    at.section, line.field = "body", "sizes"
    return True


def _one_row(at: Open, line: Line, lead: str, rest: str) -> bool:
    """A row that begins with a size and holds measurements, columns or amounts."""
    at_lead, ends = line.text.find(lead), line.text.find(rest) + len(rest)
    whole = line.text[at_lead:ends].strip() if 0 <= at_lead < ends else f"{lead} {rest}"
    named = read_amounts(whole, at.unit)
    return (
        measures_of_a_size(at, line, rest)
        or one_cup(at, line, rest)
        or column_header(at, line, whole)
        or bool(((named and named.sizes) or _SAYS_LENGTHS.search(rest)) and amounts_line(at, line, whole))
    )


def _bands(at: Open, line: Line, rest: str) -> bool:
    """'0-16 and 12-32': two bands, each whole."""
    bands = overlapping(rest) if not at.draft.sizes else None
    for band in bands or ():
        _new_sizes(at, band, "", f"{band[0]}–{band[-1]}")
    if bands:
        at.groups = [[size["label"]] for size in at.draft.sizes]
        at.section, line.field = "body", "sizes"
    return bool(bands)


def _groups(rest: str) -> list[list[str]] | None:
    """The groups of sizes that columns stand for: '8-12  14-18', '8 (10-12) 14'; None where it is one column each."""
    rest = BRACKETED.sub(r"  \1  ", rest)
    cells = [cell for cell in CELLS.split(rest) if cell.strip()]
    if len(cells) > 1:
        cells = [label for cell in cells for label in ([cell] if "-" in cell or "–" in cell else cell.split())]
    groups = size_groups(cells) if len(cells) > 1 else None
    if groups is None and re.search(r"\d\s*[-–]\s*\d+\s+\d+\s*[-–]", rest):
        groups = size_groups(re.findall(r"\S+\s*[-–]\s*\S+|\S+", rest))
    return groups


def _size_list(at: Open, line: Line, lead: str, rest: str) -> bool:
    """A list of sizes, or the groups of known sizes that the columns below stand for."""
    if _one_row(at, line, lead, rest) or _bands(at, line, rest):
        return True
    groups = _groups(rest)
    if at.draft.sizes and _other_system(at, lead, rest):
        line.field = "said again"
        return True
    labels = read_sizes(rest) or ([label for group in groups for label in group] if groups else None)
    known = {size["label"] for size in at.draft.sizes}
    if groups and all(label in known for group in groups for label in group):
        at.groups = groups
        line.field = "sizes"
        return True
    if labels is None:
        at.section = "body"
        line.field = "sizes"
        if rest.strip():
            line.field, line.fault = "", "is no list of sizes; write it like 8 10 12 or XS–XL"
        return True
    _new_sizes(at, labels, lead)
    if groups and any(len(group) > 1 for group in groups):
        at.groups = [[at.own_label(label) for label in group] for group in groups]
    at.section = at.section if at.section in ("requirements", "finished") else "body"
    line.field = "sizes"
    return True


def _other_system(at: Open, lead: str, rest: str) -> bool:
    """Whether a line says the sizes that are known again, as another country counts them: 'EU 34-38 / 40-44'."""
    country = re.match(r"\s*(eu|us|uk|au|fr|de|it)\b", lead.casefold())
    labels = read_sizes(rest)
    known = [size["label"] for size in at.draft.sizes]
    return bool(country and labels and not set(labels) <= set(known) and len(labels) <= len(known))


def _new_sizes(at: Open, labels: list[str], lead: str, called: str = "") -> None:
    known = {size["label"]: size for size in at.draft.sizes}
    if known and all(label in known for label in labels):
        at.groups = [[label] for label in labels]
        return
    bands = at.draft.sizes[-1]["band"] if known else ""
    name = re.sub(
        r"\b(?:uk|us|eu|au|sizes?|ages?|for|range|band|größen?|grössen?|gr|alter)\b|[():.]", " ", lead.casefold()
    ).strip()
    band = called or name or (f"band {len({size['band'] for size in at.draft.sizes}) + 1}" if known else "")
    if known and not bands:
        for size in at.draft.sizes:
            size["band"] = "band 1"
    at.band = band
    for label in labels:
        own = label if label not in known else f"{label} ({band})"
        at.draft.sizes.append({"label": own, "band": band})
    at.groups = [[at.own_label(label)] for label in labels]
