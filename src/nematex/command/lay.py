"""`./nematex lay`: a task as JSON in, the lay as JSON out; no database."""

from __future__ import annotations

import hashlib
import json
import os
from pathlib import Path

import nematex
from nematex.command.assess import read_input
from nematex.usecases.lay.laid import lay_out
from nematex.usecases.lay.text import LayIn, LayOut, as_json, read_task, written

KEPT = 500  # answers; the library stops by the clock, so what was found once is answered again


def _folder() -> Path:
    return Path(os.environ.get("NEMATEX_HOME", ".")) / ".nematex" / "lays"


def run_lay(file: str, schema: str | None) -> int:
    """Print the lay; a fault in the input is raised as FieldFault and ends with exit code 2."""
    if schema:
        model = LayIn if schema == "input" else LayOut
        print(json.dumps(model.model_json_schema(by_alias=True), indent=2))
        return 0
    asked = read_task(read_input(file))
    alike = _hash(asked.model_dump_json(include={"pieces", "print", "folded"}))[:20]
    kept = _folder() / f"{alike}_{asked.width_cm!r}_{asked.with_nap:d}_{_hash(asked.model_dump_json())}.json"
    if kept.is_file():
        print(kept.read_text())
        return 0
    text = as_json(_no_longer_than_kept(written(lay_out(asked)), asked, alike))
    _keep(kept, text)
    print(text)
    return 0


def _hash(text: str) -> str:
    return hashlib.sha256(f"{nematex.__version__} {text}".encode()).hexdigest()


def _no_longer_than_kept(found: LayOut, asked: LayIn, alike: str) -> LayOut:
    """The answer, or a shorter kept one of these pieces: all one way does without nap too, a narrow lay on wider cloth."""
    for path in sorted(_folder().glob(f"{alike}_*.json")):
        _, width, nap, _ = path.stem.split("_")
        if float(width) > asked.width_cm or (asked.with_nap and nap == "0"):
            continue
        try:
            kept = LayOut.model_validate_json(path.read_text())
        except (OSError, ValueError):
            continue
        if kept.length_cm < found.length_cm:
            share = round(kept.utilisation_pct * float(width) / asked.width_cm, 2)
            bound = {"utilisation_pct": share, "lower_bound_cm": found.lower_bound_cm}
            found = kept.model_copy(update=bound)
    return found


def _keep(path: Path, text: str) -> None:
    """Keep an answer, the newest ones only; a folder that cannot be written keeps nothing."""
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        part = path.with_suffix(f".{os.getpid()}")
        part.write_text(text)
        part.replace(path)
        for old in sorted(path.parent.glob("*.json"), key=lambda each: each.stat().st_mtime)[:-KEPT]:
            old.unlink(missing_ok=True)
    except OSError:
        return
