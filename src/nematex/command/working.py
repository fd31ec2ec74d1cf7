"""`./nematex work`: the parent of all that works in the background. It reads nothing of the shop itself."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import threading
from contextlib import suppress
from types import FrameType

from nematex.command.orphans import PARENT
from nematex.command.service.processes import start_watch
from nematex.command.service.state import read_state, start_lock
from nematex.usecases.jobs.lanes import LANES

AGAIN_AFTER_S, WATCH_EVERY_S = 0.5, 2.0


def _look_after_watch(ending: threading.Event) -> None:
    """Who starts again what dies may die too: it is brought back from here, as it brings back this process."""
    while not ending.wait(WATCH_EVERY_S):
        with suppress(OSError, RuntimeError), start_lock(wait=False) as free:
            if free and not ending.is_set() and read_state().get("watch_pid"):  # somebody was there to watch
                start_watch(os.environ["DATABASE_URL"])


def work() -> int:
    """The parent of each lane's consumer, of who asks the feed and who makes backups; what dies is started again."""
    ending = threading.Event()
    children: dict[tuple[str, ...], subprocess.Popen[bytes]] = {}

    def on_signal(_number: int, _frame: FrameType | None) -> None:
        ending.set()
        for child in list(children.values()):
            child.terminate()

    told = {**os.environ, PARENT: str(os.getpid())}

    def watch(part: tuple[str, ...]) -> None:
        while not ending.is_set():
            command = [sys.executable, "-m", "nematex.command", *part]
            child = children[part] = subprocess.Popen(command, start_new_session=True, env=told)
            if ending.is_set():
                child.terminate()
            child.wait()
            with suppress(ProcessLookupError):
                os.killpg(child.pid, signal.SIGKILL)  # whom a consumer leaves behind when it is killed
            ending.wait(AGAIN_AFTER_S)

    signal.signal(signal.SIGTERM, on_signal)
    threading.Thread(target=_look_after_watch, args=(ending,), daemon=True).start()
    parts = [*(("consume", lane) for lane in LANES), ("poll",), ("keep",)]
    threads = [threading.Thread(target=watch, args=(part,)) for part in parts]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return 0
