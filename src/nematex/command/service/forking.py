"""A child of a process that has read all it needs: it shares what was read, and starts at once."""

from __future__ import annotations

import gc
import os
import signal
import sys
import traceback
from collections.abc import Callable
from pathlib import Path

from nematex.command.service.roles import become
from nematex.command.service.state import let_locks_go


def fork(role: str, run: Callable[[], object], log: Path | None = None) -> int:
    """Start `run` in a child with a session and a log of its own; returns its number. Only a process of one thread may ask."""
    sys.stdout.flush()
    sys.stderr.flush()
    gc.collect()
    gc.freeze()  # what is shared is not walked, and so not copied
    pid = os.fork()
    if pid:
        return pid
    code = 1
    try:
        _on_its_own(role, log)
        run()
        code = 0
    except BaseException:
        traceback.print_exc()
    finally:
        sys.stdout.flush()
        sys.stderr.flush()
        os._exit(code)


def _on_its_own(role: str, log: Path | None) -> None:
    gc.enable()  # whoever forks may read with it off; what lives for weeks lets go of what refers to itself
    let_locks_go()
    os.setsid()
    become(role)
    signal.set_wakeup_fd(-1)
    for number in (signal.SIGCHLD, signal.SIGTERM, signal.SIGINT):
        signal.signal(number, signal.SIG_DFL)
    if log is not None:
        with open(log, "ab") as opened:
            os.dup2(opened.fileno(), 1)
            os.dup2(opened.fileno(), 2)
