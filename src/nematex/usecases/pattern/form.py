"""The pattern form: envelope texts as written, and every table as lines that can be typed, pasted and corrected."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

from nematex.core.errors import FieldFault
from nematex.core.pattern.facts import FITS, USES, Size
from nematex.core.pattern.paste import read_paste
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.core.quantity.reader import read_length_cm
from nematex.core.tables import Tables
from nematex.store.records import PatternRecord
from nematex.usecases.pattern.exchange import flat_pattern, pattern_record

TEXTS = (
    "code", "name", "house", "garment", "structure", "recommended", "avoid", "difficulty", "season", "notions", "notes",
    "sold_as", "licence", "link", "envelope",
)  # fmt: skip
NUMBERS = {
    "min_stretch_cross_pct": "Least stretch across",
    "min_stretch_length_pct": "Least stretch along",
    "widest_piece_cm": "Widest piece",
}
SIZE_COLUMNS = {
    "bust_cm": "bust",
    "waist_cm": "waist",
    "hip_cm": "hip",
    "high_bust_cm": "high bust",
    "finished_bust_cm": "finished bust",
    "finished_waist_cm": "finished waist",
    "finished_hip_cm": "finished hip",
    "cup": "cup",
}
ROW = re.compile(
    r"^\s*(?P<view>[^;|]*?)\s*[;|]\s*(?P<sizes>[^;|]*?)\s*[;|]\s*(?P<width>[^;|]+?)\s*[;|]\s*(?P<length>[^;|]+?)\s*"
    r"(?P<more>(?:[;|][^;|]*)*)$"
)


LISTED = ("details", "parts", "options", "requirements", "sizes", "lined", "nightwear", "for")
FIELDS = (*TEXTS, *NUMBERS, *LISTED)
LABELS = {
    **NUMBERS,
    "for": "Worn by",
    "nightwear": "Slept in",
    "requirements": "Cloth required",
    "recommended": "Recommended cloths",
    "avoid": "Not suitable",
    "options": "Views and options",
    "structure": "Woven or knit",
    "season": "Season of release",
    "envelope": "The envelope, pasted",
}


def label_of(name: str) -> str:
    """How the form calls a field."""
    return LABELS.get(name, name.replace("_", " ").capitalize())


def form_values(record: PatternRecord) -> dict[str, str]:
    """A record as the texts of its form."""
    return as_texts(flat_pattern(record))


def as_texts(flat: dict[str, Any]) -> dict[str, str]:
    """Fields under the names of the exchange as the texts of the form."""
    values = {name: flat.get(name) or "" for name in TEXTS}
    values |= {name: f"{flat[name]:g}" if flat.get(name) else "" for name in NUMBERS}
    values["details"] = ", ".join(flat.get("details") or ())
    values["parts"] = "\n".join(
        f"{part['name']}; {part['fit'] or ''}; {', '.join(part['details'])}" for part in flat.get("parts") or ()
    )
    values["options"] = "\n".join(
        f"{each['name']}; {each['part']}; {', '.join(each['views'])}; {', '.join(each['details'])}"
        for each in flat.get("options") or ()
    )
    values["requirements"] = "\n".join(_requirement_line(row) for row in flat.get("requirements") or ())
    values["sizes"] = _size_lines([Size(**size) for size in flat.get("sizes") or ()])
    for name in ("lined", "nightwear"):
        values[name] = "yes" if flat.get(name) else ""
    values["for"] = flat.get("for") or "adult"
    return values


def _requirement_line(row: dict[str, Any]) -> str:
    more = (["nap"] if row["with_nap"] else []) + ([row["use"]] if row["use"] != "main" else [])
    more += ["reckoned"] if row.get("reckoned") else []
    start = f"{row['view']}; {' '.join(row['sizes'])}; {row['width_cm']:g} cm; {row['length_m']:g} m"
    return "; ".join([start, *more])


def _size_lines(sizes: list[Size]) -> str:
    """A table with only the columns that are filled, a line before each band."""
    used = [name for name in SIZE_COLUMNS if any(getattr(size, name) for size in sizes)]
    lines, band = [], None
    for size in sizes:
        if size.band != band:
            band = size.band
            lines += [f"[{band}]"] if band else []
        cells = (f"{value:g}" if isinstance(value, float) else value or "–" for value in (getattr(size, n) for n in used))
        lines.append(" | ".join([size.label, *cells]))
    heads = [SIZE_COLUMNS[name] + (" cm" if name.endswith("_cm") else "") for name in used]
    return "\n".join([" | ".join(["size", *heads]), *lines]) if sizes else ""


def _as_list(lines: list[str]) -> list[str]:
    """Sizes of which nothing is measured stand one below the other: as one list, so that they are read as such."""
    labels = [line.strip() for line in lines[1:]]
    bare = lines[0].strip().casefold() in ("size", "sizes") and all(len(read_sizes(each) or ()) == 1 for each in labels)
    return [f"Sizes: {', '.join(labels)}"] if bare and labels else lines


def _sizes(text: str, tables: Tables) -> list[dict[str, Any]]:
    """The size table: a heading and one line for each size, as the form writes it or as a spreadsheet is pasted."""
    bands: list[tuple[str, list[str]]] = [("", [])]
    head = ""
    for line in text.splitlines():
        named = re.fullmatch(r"\s*\[(.*)\]\s*", line)
        if named:
            bands.append((named[1], [head] if head else []))
        elif line.strip():
            head = head or line
            bands[-1][1].append(line)
    found: list[dict[str, Any]] = []
    for band, lines in bands:
        if not lines:
            continue
        draft = read_paste("\n".join(_as_list(lines)), tables)
        bad = next((line for line in draft.lines if line.fault or (line.text.strip() and not line.field)), None)
        if bad:
            rule = bad.fault or "is no row of the size table; write “size | bust | waist | hip” and a line for each size"
            raise FieldFault(f"Sizes, line {bad.number}", bad.text, rule)
        for size in draft.sizes:
            label = size["label"]
            twin = any(each["label"] == label for each in found)
            found.append({**size, "label": f"{label} ({band})" if twin and band else label, "band": band or size["band"]})
    return found


def _requirements(text: str) -> list[dict[str, Any]]:
    rows = []
    for number, line in enumerate(text.splitlines(), 1):
        if not line.strip():
            continue
        field = f"Requirement table, line {number}"
        found = ROW.match(line)
        if not found:
            raise FieldFault(field, line, "is not “view; sizes; width; length”, for instance “A; 8 10 12; 150 cm; 2.2 m”")
        width, length = read_length_cm(found["width"], field), read_length_cm(found["length"], field, "m") / 100
        nap, use, reckoned = _more(found["more"], field)
        sizes = [size for size in re.split(r"[\s,]+(?![^(]*\))", found["sizes"]) if size] if found["sizes"] else []
        rows.append(
            {
                "view": found["view"] or "A",
                "sizes": _with_bands(sizes),
                "width_cm": width,
                "length_m": round(length, 4),
                "with_nap": nap,
                "use": use,
            }
            | ({"reckoned": True} if reckoned else {})
        )
    return rows


def _with_bands(sizes: list[str]) -> list[str]:
    """'12 (curve)' is one label."""
    joined: list[str] = []
    for size in sizes:
        if size.startswith("(") and joined:
            joined[-1] += f" {size}"
        else:
            joined.append(size)
    return joined


def _more(text: str, field: str) -> tuple[bool, str, bool]:
    """What stands after the length: nap or not, what the cloth is for, and whether the length was reckoned here."""
    nap, use, reckoned = False, "main", False
    for word in (piece.strip().casefold() for piece in re.split(r"[;|]", text)):
        if word in USES:
            use = word
        elif word in ("nap", "with nap"):
            nap = True
        elif word == "reckoned":
            reckoned = True
        elif word and word not in ("without nap", "no nap"):
            raise FieldFault(field, word, f"is neither nap nor a use; choose from nap, reckoned, {', '.join(USES)}")
    return nap, use, reckoned


def _split(text: str) -> list[str]:
    return [word.strip() for word in text.split(",") if word.strip()]


def _parts(text: str) -> list[dict[str, Any]]:
    parts = []
    for number, line in enumerate(text.splitlines(), 1):
        if line.strip():
            name, fit, details = [*(piece.strip() for piece in line.split(";")), "", ""][:3]
            if fit and fit not in FITS:
                raise FieldFault(f"Parts, line {number}", fit, f"is not a fit; choose from {', '.join(FITS)}")
            parts.append({"name": name, "fit": fit or None, "details": _split(details)})
    return parts


def _views(text: str) -> list[str]:
    """'A, B midi' are two; 'A C', letters alone, are two as well."""
    words = text.split()
    return words if all(len(word) == 1 for word in words) else _split(text)


def _options(text: str) -> list[dict[str, Any]]:
    options = []
    for line in text.splitlines():
        if line.strip():
            name, part, views, details = [*(piece.strip() for piece in line.split(";")), "", "", ""][:4]
            options.append({"name": name, "part": part, "views": _views(views), "details": _split(details)})
    return options


def record_from_form(values: Mapping[str, str], old: PatternRecord | None, tables: Tables) -> PatternRecord:
    """The pattern typed; raises FieldFault naming field, value and choices."""
    row: dict[str, Any] = {name: values.get(name, "") for name in TEXTS}
    for name, label in (("code", "Code"), ("name", "Name")):
        if not row[name]:
            raise FieldFault(label, "", "is missing; every pattern needs one")
    row["structure"] = row["structure"] or None
    if old and row["code"] != old.code:
        raise FieldFault("Code", row["code"], f"cannot be changed: it is how files find the pattern ({old.code})")
    for name, label in NUMBERS.items():
        text = values.get(name, "").removesuffix("%").removesuffix("cm").strip().replace(",", ".")
        if text:
            try:
                row[name] = float(text)
            except ValueError:
                raise FieldFault(label, text, "is not a number") from None
    row["details"] = _split(values.get("details", ""))
    row["parts"], row["options"] = _parts(values.get("parts", "")), _options(values.get("options", ""))
    row["requirements"], row["sizes"] = _requirements(values.get("requirements", "")), _sizes(values.get("sizes", ""), tables)
    row["lined"], row["nightwear"] = bool(values.get("lined")), bool(values.get("nightwear"))
    row["for"] = values.get("for") or "adult"
    if old:  # what the shop has corrected stays, whatever is done to the text
        kept = flat_pattern(old)
        row |= {name: kept[name] for name in ("edge_fixes", "reading_fixes")}
    try:
        return pattern_record(row, tables)
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        raise FieldFault(".".join(str(step) for step in first["loc"]), str(first["input"])[:60], first["msg"].lower()) from None
