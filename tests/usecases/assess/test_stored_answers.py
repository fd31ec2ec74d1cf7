"""The answers of `assess` on six hundred stored inputs: pairings, sizes, hangs, matrices, pasted envelopes.

They show that a change of structure changes no answer, not that the answers are right. Where a change is meant to move
answers, `python tests/usecases/assess/test_stored_answers.py` prints what moved and stores the new ones.
"""

from __future__ import annotations

import gzip
import json
import sys
from pathlib import Path
from typing import Any

from nematex.usecases.assess.pairing import assess_any

STORED = Path(__file__).resolve().parents[2] / "stored"


def _read(name: str) -> Any:
    return json.loads(gzip.decompress((STORED / f"assess_{name}.json.gz").read_bytes()))


def _differences(before: Any, after: Any, path: str = "") -> list[str]:
    """Every place where two JSON values differ, with both."""
    if isinstance(before, dict) and isinstance(after, dict):
        keys = dict.fromkeys([*before, *after])
        return [line for key in keys for line in _differences(before.get(key), after.get(key), f"{path}.{key}")]
    if isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        pairs = enumerate(zip(before, after, strict=True))
        return [line for number, (old, new) in pairs for line in _differences(old, new, f"{path}[{number}]")]
    return [] if before == after else [f"{path}: {before!r} → {after!r}"]


def answers() -> Any:
    """As they come out of the command line: through JSON."""
    return json.loads(json.dumps([assess_any(one) for one in _read("inputs")]))


def test_the_stored_answers_are_the_same() -> None:
    assert _differences(_read("answers"), answers()) == []


if __name__ == "__main__":
    found = answers()
    sys.stdout.write("\n".join(_differences(_read("answers"), found)) + "\n")
    text = json.dumps(found, ensure_ascii=False).encode()
    (STORED / "assess_answers.json.gz").write_bytes(gzip.compress(text, 9, mtime=0))
