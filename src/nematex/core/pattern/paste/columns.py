"""Tables whose columns are measurements, widths or amounts, with a line for each size."""

from __future__ import annotations

import re
from itertools import pairwise

from nematex.core.pattern.paste.amounts import read_amounts
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.measure_rows import upper_ends
from nematex.core.pattern.paste.open_state import CELLS, UNSAID, USES, Open
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.core.pattern.paste.words import measurement, plain
from nematex.core.quantity.scan import last_unit, once

KEPT = ("bust", "waist", "hip", "high_bust", "finished_bust", "finished_waist", "finished_hip")


def column_header(at: Open, line: Line, text: str) -> bool:
    """A line of column names begins a table."""
    cells = [cell.strip() for cell in CELLS.split(text)]
    if len(cells) < 3 and not (len(cells) == 2 and re.search(r"[\t|]", line.text)):
        return False
    if _are_sizes(cells[1:]):
        return False
    columns = [_column(at, cell) for cell in cells]
    names = {column[0] for column in columns if column}
    if None in columns or not names - {"size"} or not names & {"size", "view"}:
        return False
    at.columns = [column for column in columns if column]
    measured = [cell for cell in cells if measurement(cell, at.tables)]
    at.unit = last_unit(" ".join(measured)) or at.unit
    line.field = "table"
    return True


FARTHEST = 8  # between neighbours of one list of sizes


def _are_sizes(cells: list[str]) -> bool:
    """Whether bare numbers in a row are sizes (28 30 32, 36 38) and no widths (45 60, 115 150)."""
    numbers = [int(cell) for cell in cells if cell.isdigit()]
    steps = [after - before for before, after in pairwise(numbers)]
    return len(numbers) == len(cells) and bool(steps) and max(numbers) < 90 and all(0 < step < FARTHEST for step in steps)


def _column(at: Open, cell: str) -> tuple[str, float | None] | None:
    words = plain(cell)
    if at.tables.paste_words["heading"].get(words) == "sizes":
        return "size", None
    column = at.tables.paste_words["column"].get(words)
    if column:
        return column, None
    found = measurement(cell, at.tables)
    if found:
        return (f"finished_{found[0]}" if found[1] or at.section == "finished" else found[0]), None
    wide = once(cell)
    if len(wide) != 1 or wide[0].unit not in ("cm", "in", ""):
        return None
    width_cm = wide[0].cm("in" if wide[0].value < 70 else "cm")
    return ("at", round(width_cm, 1)) if 70 <= width_cm <= 320 else None


def column_row(at: Open, line: Line, text: str) -> bool:
    """A row of the table that is open; anything else closes it."""
    if not at.columns:
        return False
    cells = [cell.strip() for cell in CELLS.split(text)]
    if len(cells) < 2 or len(cells) > len(at.columns):
        at.columns = []
        return False
    row: dict[str, str] = {}
    widths: list[tuple[float, str]] = []
    for (name, wide), cell in zip(at.columns, cells, strict=False):
        if name == "at" and wide:
            widths.append((wide, cell))
        else:
            row[name] = cell
    labels = read_sizes(row.get("size", "")) or []
    if row.get("size") and not labels:
        at.columns = []
        return False
    line.field = "table"
    measured = {name: cell for name, cell in row.items() if name not in ("size", "width", "length", "view", "nap", "use")}
    if measured:
        _size_row(at, labels, measured)
    for wide, cell in widths:
        _column_amount(at, line, labels, row, f"{wide} cm", cell)
    if "length" in row and "width" in row:
        _column_amount(at, line, labels, row, row["width"], row["length"])
    return True


def _size_row(at: Open, labels: list[str], measured: dict[str, str]) -> None:
    known = {size["label"]: size for size in at.draft.sizes}
    cup = measured.get("cup", "")
    if cup:  # a size may have a row for each of its cups
        labels = [label if known.get(label, {}).get("cup", cup) == cup else f"{label} {cup}" for label in labels]
    for label in labels:
        if label not in known:
            known[label] = {"label": label, "band": ""}
            at.draft.sizes.append(known[label])
            at.groups.append([label])
        for name, cell in measured.items():
            values = once(upper_ends(cell))
            if name == "cup":
                known[label]["cup"] = cell
            if name not in KEPT or not values:
                continue
            guessed = "in" if values[0].value < 62 else "cm"
            known[label][f"{name}_cm"] = round(values[0].cm(at.unit if at.unit in ("cm", "in") else guessed), 1)


def _column_amount(at: Open, line: Line, labels: list[str], row: dict[str, str], width: str, length: str) -> None:
    bare = once(width)
    imperial = bool(bare) and (bare[0].unit == "in" or (not bare[0].unit and bare[0].value < 70))
    wide = f"{bare[0].cm('in' if imperial else 'cm'):.1f} cm" if bare else width
    unit = at.unit if at.unit in ("m", "yd") else ("yd" if imperial else "m")
    amounts = read_amounts(f"{wide} wide {length}{'' if last_unit(length) else ' ' + unit}", unit, only=True)
    if amounts is None:
        line.fault = f"has no amount for {width}: “{length}”" if length else ""
        return
    nap = "nap" in row and bool(re.match(r"yes|with\b|y\b", row["nap"], re.IGNORECASE))
    use = next((use for use in USES if use in row.get("use", "").casefold()), at.use)
    view = row.get("view", "") or (at.views[0] if at.views else UNSAID)
    view = re.sub(r"^view\s+", "", view, flags=re.IGNORECASE)
    own = [at.own_label(label) for label in labels] or [label for group in at.groups for label in group]
    at.draft.requirements.append(
        {
            "view": view,
            "sizes": own,
            "width_cm": amounts.width_cm,
            "length_m": amounts.lengths_m[0],
            "with_nap": nap or amounts.with_nap or at.nap,
            "use": use,
        }
    )
