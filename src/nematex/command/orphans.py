"""What works in the background ends with its parent, also where that was killed: who starts it again starts all of it."""

from __future__ import annotations

import os
import signal
import threading
import time

LOOK_EVERY_S = 0.5
PARENT = "PARENT_PID"  # said by the parent, who may be gone before its child can look


def end_with_parent() -> None:
    """From here on this process, and its whole family, ends when its parent has."""
    parent = int(os.environ.pop(PARENT, "0")) or os.getppid()
    threading.Thread(target=_end_with, args=(parent,), daemon=True).start()


def _end_with(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(LOOK_EVERY_S)
    os.killpg(0, signal.SIGKILL)  # the queue's own scheduler too
