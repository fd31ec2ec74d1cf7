"""A whole matrix as the worker hands it to the web processes: with marks that say of what it was judged."""

from __future__ import annotations

import json
import zlib
from dataclasses import dataclass
from hashlib import blake2b
from typing import Any

import numpy as np

from nematex.core.judging.matrix import Matrix
from nematex.usecases.held.shelf import judged_by
from nematex.usecases.held.state import State
from nematex.usecases.judging.edition import edition

FORM = 3  # of what is packed
QUICK = 1  # of zlib's nine: half of it is zeros


@dataclass(frozen=True)
class Kept:
    """A matrix, and of which cloths and patterns it is: in its order the mark of what was judged.

    Not their numbers: what looks alike to the rules is judged alike, whoever it is.
    """

    matrix: Matrix
    cloths: list[str]
    patterns: list[str]
    rules: str

    def places(self, state: State) -> tuple[list[int], list[int]]:
        """Where each pattern and cloth of the state stands in this matrix; -1 where it is judged by something else, or new."""
        patterns, cloths = ({mark: at for at, mark in enumerate(marks)} for marks in (self.patterns, self.cloths))
        return [patterns.get(each, -1) for each in _patterns(state)], [cloths.get(each, -1) for each in _cloths(state)]


def _mark(judged: object) -> str:
    """The same for the same facts in every process."""
    return blake2b(repr(judged).encode(), digest_size=8).hexdigest()


def _cloths(state: State) -> list[str]:
    return [_mark(judged_by(record)) for record in state.shelf.records]


def _patterns(state: State) -> list[str]:
    return [_mark(record.facts) for record in state.drawer.records]


def rules_of(state: State) -> str:
    """The rules in force: those of this program, and by numbers that the database gives what the shop has set in them."""
    return " ".join([edition(), *state.shared_version.split(" ")[2:]])


def pack(state: State, found: Matrix) -> bytes:
    """A line of JSON, then verdicts, scores and open checks, row by row; compressed."""
    told = {"cloths": _cloths(state), "patterns": _patterns(state), "rules": rules_of(state), "form": FORM}
    parts = (found.verdict, found.score, found.open_checks)
    return zlib.compress(b"\n".join([json.dumps(told).encode(), b"".join(part.tobytes() for part in parts)]), QUICK)


def unpack(content: bytes) -> Kept | None:
    """What was packed; None where an earlier program did so in another way."""
    head, _, plain = zlib.decompress(content).partition(b"\n")
    told = json.loads(head)
    if told.get("form") != FORM:
        return None
    shape, at = (len(told["patterns"]), len(told["cloths"])), 0
    parts: list[Any] = []
    for kind in (np.int8, np.float32, np.uint8):
        parts.append(np.frombuffer(plain, kind, shape[0] * shape[1], at).reshape(shape))
        at += parts[-1].nbytes
    return Kept(Matrix(*parts), told["cloths"], told["patterns"], told["rules"])
