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
    name = hashlib.sha256(f"{nematex.__version__} {asked.model_dump_json()}".encode()).hexdigest()
    kept = _folder() / f"{name}.json"
    if kept.is_file():
        print(kept.read_text())
        return 0
    text = as_json(written(lay_out(asked)))
    _keep(kept, text)
    print(text)
    return 0


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
