"""Giving way: what works in the background takes what pages leave."""

from __future__ import annotations

import os
from contextlib import suppress
from pathlib import Path

NICE = 5  # pages come first; on a busy machine this is still an eighth of a core, where 15 would be a fiftieth


def stand_back() -> None:
    """Lower this process's priority, and its session's where the system weighs sessions; called before anything is read."""
    os.nice(NICE)
    with suppress(OSError):
        Path("/proc/self/autogroup").write_text(f"{NICE}\n")
