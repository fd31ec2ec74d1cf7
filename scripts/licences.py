"""Print the licence of every Python package that a running shop uses, from the packages' own metadata: docs/licences.md."""

from __future__ import annotations

import re
from importlib.metadata import files, metadata
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PINNED = re.compile(r"^([a-z0-9][a-z0-9._-]*)==", re.MULTILINE)
HEADING = "## Python packages"


def packages() -> list[str]:
    """What the lock of the running shop names."""
    return sorted(set(PINNED.findall((ROOT / "requirements/run.txt").read_text())))


def licence_of(name: str) -> str:
    """As the package says it: an expression, else its classifiers, else the first line of what it wrote."""
    told = metadata(name)
    if told.get("License-Expression"):
        return str(told["License-Expression"])
    classes = [each.rsplit(" :: ", 1)[1] for each in told.get_all("Classifier") or [] if each.startswith("License :: ")]
    named = [each for each in classes if each != "OSI Approved"]
    written = str(told.get("License") or "").strip() or _text_of(name)
    return "; ".join(named) or next((line.strip()[:60] for line in written.splitlines() if line.strip()), "says none")


def _text_of(name: str) -> str:
    """The licence's own text, where it ships; of a text without a title what its first sentence names."""
    found = next((each for each in files(name) or [] if re.match(r"(?i)licen[cs]e", each.name)), None)
    text = found.read_text() if found else ""
    return "MIT, by its text" if "Permission is hereby granted, free of charge" in text else text


def table() -> str:
    rows = [f"| {name} | {licence_of(name)} |" for name in packages()]
    return "\n".join(["| package | licence, as its metadata says |", "|---|---|", *rows]) + "\n"


if __name__ == "__main__":
    print(f"{HEADING}\n\n{table()}", end="")
