"""The processes beside the database: who watches, and whom it starts."""

from __future__ import annotations

import hashlib
import os
import subprocess
import sys
from pathlib import Path

from nematex.command.service.roles import given_to_children
from nematex.command.service.state import home, keep, read_state, shop_folder, start_lock, watch_runs

GIVEN = "NEMATEX_GIVEN_DATABASE"
START, AGAIN = "start", "again"  # what who watches is told: its starter holds the lock, or it has to take the lock itself


def processes() -> int:
    """How many web processes share the port: NEMATEX_PROCESSES, else one for each core up to two."""
    given = os.environ.get("NEMATEX_PROCESSES", "")
    return (
        min(max(int(given), 1), 16) if given.isdecimal() and given.isascii() and len(given) < 4 else min(2, os.cpu_count() or 1)
    )


def metrics_folder() -> Path:
    """Where the web processes count together: in memory where the system has a place for that. A file that is mapped into
    a process and finds the disk full would end it.
    """
    shared = Path("/dev/shm")
    if not os.access(shared, os.W_OK):
        return home() / "metrics"
    return shared / f"nematex-{os.getuid()}-{hashlib.sha256(shop_folder().encode()).hexdigest()[:12]}"


def _counting_place() -> str:
    folder = metrics_folder()
    folder.mkdir(exist_ok=True, mode=0o700)
    if folder.stat().st_uid != os.getuid():
        raise RuntimeError(f"{folder} is another user's; remove it")
    return str(folder)


def raise_watch(port: int) -> subprocess.Popen[bytes]:
    """Who watches, on its way: it reads the program, then waits to be told START or AGAIN, and ends where nobody tells."""
    told = {
        **given_to_children(shop_folder()),
        GIVEN: os.environ.get(GIVEN) or ("1" if os.environ.get("DATABASE_URL") else "0"),
        "PROMETHEUS_MULTIPROC_DIR": _counting_place(),
        # Arrays come and go in several threads: with a heap for each, and large ones within it, twice of what is used is held.
        "MALLOC_ARENA_MAX": "1",
        "MALLOC_MMAP_THRESHOLD_": "262144",
        "MALLOC_TRIM_THRESHOLD_": "262144",
    }
    with open(home() / "watch.log", "ab") as log:
        return subprocess.Popen(
            [sys.executable, "-m", "nematex.command", "watch", "--port", str(port)],
            env=told,
            stdin=subprocess.PIPE,
            stdout=log,
            stderr=log,
            start_new_session=True,
        )


def tell(watch: subprocess.Popen[bytes], word: str) -> None:
    assert watch.stdin is not None
    watch.stdin.write(f"{word}\n".encode())
    watch.stdin.close()


def noted(child: subprocess.Popen[bytes], **more: object) -> None:
    """Note who watches down; one that cannot be, as on a full disk, is ended: nobody would find it again."""
    try:
        keep(watch_pid=child.pid, **more)
    except OSError:
        child.kill()
        child.wait()
        raise


def bring_watch_back() -> None:
    """Who starts again what dies may die too: every other of the shop's processes looks, and one of them starts it again."""
    state = read_state()
    if not state.get("watch_pid") or watch_runs(state):
        return  # nobody was there to watch, or somebody is
    with start_lock(wait=False) as free:
        state = read_state()
        if free and state.get("watch_pid") and not watch_runs(state):
            child = raise_watch(int(state["web_port"]))
            noted(child)
            tell(child, AGAIN)
