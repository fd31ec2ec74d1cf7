"""A process that ends with the one that started it, also where that was killed."""

from __future__ import annotations

import ctypes
import os
import signal

PR_SET_PDEATHSIG = 1  # of prctl(2)


def end_with(parent: int) -> None:
    """From here on the system ends this process when `parent`, who started it, has ended. Its own children are not meant."""
    ctypes.CDLL(None).prctl(PR_SET_PDEATHSIG, signal.SIGKILL)
    if os.getppid() != parent:  # gone before it could be said
        os._exit(1)
