"""The pattern form: envelope texts as written, and the requirement table as lines."""

from __future__ import annotations

import re
from typing import Any

from pydantic import ValidationError

from nematex.core.errors import FieldFault
from nematex.core.quantities import read_length_cm
from nematex.store.records import PatternRecord
from nematex.usecases.exchange import flat_pattern, pattern_record

TEXTS = ("code", "name", "house", "garment", "structure", "recommended", "avoid", "difficulty", "season", "notions", "notes")
NUMBERS = {
    "min_stretch_cross_pct": "Least stretch across",
    "min_stretch_length_pct": "Least stretch along",
    "widest_piece_cm": "Widest piece",
}
ROW = re.compile(
    r"^\s*(?P<view>[^;|]*?)\s*[;|]\s*(?P<sizes>[^;|]*?)\s*[;|]\s*(?P<width>[^;|]+?)\s*[;|]\s*(?P<length>[^;|]+?)\s*(?:[;|]\s*(?P<nap>[^;|]*))?\s*$"
)


def form_values(record: PatternRecord) -> dict[str, str]:
    """A record as the texts of its form."""
    flat = flat_pattern(record)
    values = {name: flat[name] or "" for name in TEXTS}
    values |= {name: f"{flat[name]:g}" if flat[name] else "" for name in NUMBERS}
    values["details"] = ", ".join(record.facts.details)
    values["parts"] = "\n".join(f"{part.name}; {part.fit}; {', '.join(part.details)}" for part in record.facts.parts)
    values["requirements"] = "\n".join(
        f"{row.view}; {' '.join(row.sizes)}; {row.width_cm:g} cm; {row.length_m:g} m{'; nap' if row.with_nap else ''}"
        for row in record.facts.requirements
    )
    for name in ("lined", "nightwear"):
        values[name] = "yes" if flat[name] else ""
    values["for"] = flat["for"]
    return values


def _requirements(text: str) -> list[dict[str, Any]]:
    rows = []
    for number, line in enumerate(text.splitlines(), 1):
        if not line.strip():
            continue
        found = ROW.match(line)
        if not found:
            raise FieldFault(
                f"Requirement table, line {number}",
                line,
                "is not “view; sizes; width; length”, for instance “A; 8 10 12; 150 cm; 2.2 m”",
            )
        field = f"Requirement table, line {number}"
        width, length = read_length_cm(found["width"], field), read_length_cm(found["length"], field, "m") / 100
        nap = "nap" in (found["nap"] or "").casefold() and "without" not in (found["nap"] or "").casefold()
        sizes = re.split(r"[\s,]+", found["sizes"]) if found["sizes"] else []
        rows.append(
            {"view": found["view"] or "A", "sizes": sizes, "width_cm": width, "length_m": round(length, 4), "with_nap": nap}
        )
    return rows


def _parts(text: str) -> list[dict[str, Any]]:
    parts = []
    for number, line in enumerate(text.splitlines(), 1):
        if line.strip():
            name, fit, details = [*(piece.strip() for piece in line.split(";")), "", ""][:3]
            if fit and fit not in ("close", "free"):
                raise FieldFault(f"Parts, line {number}", fit, "is not a fit; choose from close, free")
            parts.append({"name": name, "fit": fit or None, "details": [d.strip() for d in details.split(",") if d.strip()]})
    return parts


def record_from_form(values: dict[str, str], old: PatternRecord | None, codes: set[str]) -> PatternRecord:
    """The pattern typed; raises FieldFault naming field, value and choices."""
    row: dict[str, Any] = {name: values.get(name, "") for name in TEXTS}
    for name, label in (("code", "Code"), ("name", "Name")):
        if not row[name]:
            raise FieldFault(label, "", "is missing; every pattern needs one")
    row["structure"] = row["structure"] or None
    if row["code"].casefold() in codes - ({old.code.casefold()} if old else set()):
        raise FieldFault("Code", row["code"], "is in the drawer already; choose another, or edit that pattern")
    if old and row["code"] != old.code:
        raise FieldFault("Code", row["code"], f"cannot be changed: it is how files find the pattern ({old.code})")
    for name, label in NUMBERS.items():
        text = values.get(name, "").removesuffix("%").removesuffix("cm").strip().replace(",", ".")
        if text:
            try:
                row[name] = float(text)
            except ValueError:
                raise FieldFault(label, text, "is not a number") from None
    row["details"] = [word.strip() for word in values.get("details", "").split(",") if word.strip()]
    row["parts"] = _parts(values.get("parts", ""))
    row["requirements"] = _requirements(values.get("requirements", ""))
    row["lined"], row["nightwear"] = bool(values.get("lined")), bool(values.get("nightwear"))
    row["for"] = values.get("for") or "adult"
    kept = flat_pattern(old) if old else {}
    row |= {name: kept[name] for name in ("options", "sizes", "edge_fixes", "reading_fixes", "sold_as", "licence") if kept}
    try:
        return pattern_record(row)
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        raise FieldFault(".".join(str(step) for step in first["loc"]), str(first["input"])[:60], first["msg"].lower()) from None
