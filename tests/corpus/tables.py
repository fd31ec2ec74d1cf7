"""Whether a pasted envelope's tables, prose and details say what the corpus says they mean."""

from __future__ import annotations

import re
from typing import Any

from means import CHECKS, TABLES, Entry, holds

from nematex.core.cloth.lexicon import key
from nematex.core.judging.demand import read_pattern
from nematex.core.pattern.facts import Pattern
from nematex.core.pattern.paste import Draft, read_paste

NEAR_M, NEAR_CM = 0.02, 0.6


def missed_of(entry: Entry) -> list[str]:
    """The checks of a pasted envelope that do not hold."""
    draft = read_paste(entry.text, TABLES)
    return [check for check in entry.checks if not _holds(check, draft)]


def _holds(check: str, draft: Draft) -> bool:
    if check.startswith("not "):
        return not _holds(check[4:], draft)
    name, _, wanted = check.partition("=")
    found = PASTED.get(name.strip())
    if found:
        return bool(found(draft.as_row(), wanted, draft))
    if size := re.fullmatch(r"size (.+) (\w+)", name.strip()):
        return _measured(draft.sizes, size[1], size[2], float(wanted))
    row = draft.as_row()
    pattern = Pattern(recommended=str(row.get("recommended", "")), avoid=str(row.get("avoid", "")))
    return holds(check, read_pattern(pattern, TABLES))


def _measured(sizes: list[dict[str, Any]], label: str, name: str, wanted: float) -> bool:
    return any(size["label"] == label and abs((size.get(f"{name}_cm") or 0) - wanted) <= NEAR_CM for size in sizes)


def _row(row: dict[str, Any], wanted: str, _: Draft) -> bool:
    """'8,10#A@jacket|140|2.2|main|nap': sizes, view and garment, width in cm, length in m, use, and with nap."""
    whom, width, length, use, *nap = wanted.split("|")
    parts = re.fullmatch(r"(?P<sizes>[^#@]*)(?:#(?P<view>[^@]+))?(?:@(?P<garment>.+))?", whom)
    assert parts
    sizes = set(parts["sizes"].split(",")) - {""}
    of_each = [{**each, "garment": one["garment"]} for one in row.get("garments", []) for each in one.get("requirements", [])]
    for each in of_each or row.get("requirements", []):
        if (
            abs(each["width_cm"] - float(width)) <= NEAR_CM
            and abs(each["length_m"] - float(length)) <= NEAR_M
            and each["use"] == use
            and (not sizes or sizes <= set(each["sizes"]))
            and (not parts["view"] or each["view"].split(" ")[0] == parts["view"])
            and (not parts["garment"] or each.get("garment") == parts["garment"])
            and (not nap or each["with_nap"])
        ):
            return True
    return False


def _detail(row: dict[str, Any], wanted: str, _: Draft) -> bool:
    """'gathers', 'ties#B': a detail of the whole, or of one view."""
    name, _, view = wanted.partition("#")
    kind = TABLES.garments.find(row.get("garment", ""))
    general = {_named(word) for word in row.get("details", [])} | set(kind.details if kind else ())
    of_parts = {_named(word) for part in row.get("parts", []) for word in part["details"]}
    options = [each for each in row.get("options", []) if name in {_named(word) for word in each["details"]}]
    if view:
        return any(view in each["views"] for each in options)
    return name in general | of_parts or bool(options)


def _named(word: str) -> str:
    found = TABLES.details.find(word) or TABLES.details.find_within(word)
    return found.name if found else word


def _sizes(row: dict[str, Any], wanted: str, _: Draft) -> bool:
    return [size["label"] for size in row.get("sizes", [])] == wanted.split(",")


def _garments(row: dict[str, Any], wanted: str, _: Draft) -> bool:
    return [each["garment"] for each in row.get("garments", [])] == wanted.split(",")


PASTED = {
    "row": _row,
    "detail": _detail,
    "sizes": _sizes,
    "garments": _garments,
    "garment": lambda row, wanted, _: row.get("garment", "none") == wanted,
    "name": lambda row, wanted, _: row.get("name") == wanted,
    "difficulty": lambda row, wanted, _: row.get("difficulty") == wanted,
    "lined": lambda row, wanted, _: bool(row.get("lined")) == (wanted == "yes"),
    "nightwear": lambda row, wanted, _: bool(row.get("nightwear")) == (wanted == "yes"),
    "wearer": lambda row, wanted, _: row.get("for") == wanted,
    "optional": lambda row, wanted, _: any(
        wanted in {_named(word) for word in each["details"]} and each.get("optional") for each in row.get("options", [])
    ),
    "nodetail": lambda row, *_: not row.get("details") and not row.get("options"),
    "unread": lambda _, wanted, draft: (
        any(key(wanted) in key(line.text) for line in draft.unread) if wanted else not draft.unread and not draft.faults
    ),
}
assert not set(PASTED) & (set(CHECKS) - {"unread"})
