"""A poke: who asked for a job tells this machine's worker that there is one. It may be lost: the worker looks by itself too."""

from __future__ import annotations

import os
import select
from collections.abc import Sequence
from contextlib import suppress
from pathlib import Path

from nematex.usecases.jobs.asking import Enqueue

NAME = "worker.poke"


def poking(folder: Path) -> Enqueue:
    """How a web process hands a job to the worker: the job lies in its row, so that a poke says nothing but "look"."""
    path = folder / NAME

    def poke(_kind: str, _job_id: int) -> None:
        with suppress(OSError):  # no worker lives here, or more pokes wait than it can count
            pipe = os.open(path, os.O_WRONLY | os.O_NONBLOCK)
            try:
                os.write(pipe, b".")
            finally:
                os.close(pipe)

    return poke


class Poked:
    """The worker's side."""

    def __init__(self, folder: Path) -> None:
        path = folder / NAME
        if not path.is_fifo():
            path.unlink(missing_ok=True)
            os.mkfifo(path, 0o600)
        self.pipe = os.open(path, os.O_RDWR | os.O_NONBLOCK)  # also its own writer: it never sees the end of a file

    def wait(self, seconds: float, others: Sequence[int] = ()) -> tuple[bool, list[int]]:
        """Until it is poked, or one of the others can be read; whether it was poked, and which of them can be."""
        ready = select.select([self.pipe, *others], [], [], seconds)[0]
        if self.pipe in ready:
            os.read(self.pipe, 65536)
        return self.pipe in ready, [each for each in ready if each != self.pipe]
