"""Ending a process that we started, by its number, and waiting until it is gone."""

from __future__ import annotations

import os
import signal
import time
from contextlib import suppress
from pathlib import Path

STOP_SECONDS = 60


def end(pid: int) -> None:
    with suppress(ProcessLookupError):
        os.kill(pid, signal.SIGTERM)
    until = time.monotonic() + STOP_SECONDS
    while _is_there(pid) and time.monotonic() < until:
        time.sleep(0.1)


def _is_there(pid: int) -> bool:
    """Whether it lives; one that nobody has taken leave of yet does not."""
    try:
        return Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0] != "Z"
    except OSError:
        return False
