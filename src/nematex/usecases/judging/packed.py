"""A whole matrix as the worker hands it to the web processes: with the numbers that say what it was judged of."""

from __future__ import annotations

import json
import zlib
from collections.abc import Collection
from dataclasses import dataclass
from typing import Any

import numpy as np

from nematex.core.judging.matrix import Matrix
from nematex.usecases.held.state import State

QUICK = 1  # of zlib's nine: half of it is zeros


@dataclass(frozen=True)
class Moved:
    """Cloths and patterns that were changed, by their numbers."""

    cloths: Collection[int]
    patterns: Collection[int]


@dataclass(frozen=True)
class Kept:
    """A matrix, of which cloths and patterns it is, and the counters of shelf, drawer and rules then."""

    matrix: Matrix
    cloths: list[int]
    patterns: list[int]
    shelf: int
    drawer: int
    rules: str

    def places(self, state: State, moved: Moved) -> tuple[list[int], list[int]]:
        """Where each pattern and cloth of the state stands in this matrix; -1 where it changed since, or is new."""
        patterns = {number: at for at, number in enumerate(self.patterns) if number not in moved.patterns}
        cloths = {number: at for at, number in enumerate(self.cloths) if number not in moved.cloths}
        return (
            [patterns.get(record.id, -1) for record in state.drawer.records],
            [cloths.get(record.id, -1) for record in state.shelf.records],
        )


def rules_of(state: State) -> str:
    """The rules in force, by numbers that the database gives."""
    return " ".join(state.shared_version.split(" ")[2:])


def pack(state: State, found: Matrix) -> bytes:
    """A line of JSON, then verdicts, scores and open checks, row by row; compressed."""
    told = {
        "cloths": [record.id for record in state.shelf.records],
        "patterns": [record.id for record in state.drawer.records],
        "shelf": state.shelf.version,
        "drawer": state.drawer.version,
        "rules": rules_of(state),
    }
    parts = (found.verdict, found.score, found.open_checks)
    return zlib.compress(b"\n".join([json.dumps(told).encode(), b"".join(part.tobytes() for part in parts)]), QUICK)


def unpack(content: bytes) -> Kept:
    head, _, plain = zlib.decompress(content).partition(b"\n")
    told = json.loads(head)
    shape, at = (len(told["patterns"]), len(told["cloths"])), 0
    parts: list[Any] = []
    for kind in (np.int8, np.float32, np.uint8):
        parts.append(np.frombuffer(plain, kind, shape[0] * shape[1], at).reshape(shape))
        at += parts[-1].nbytes
    return Kept(Matrix(*parts), **told)
