"""Starting the processes beside the database: web servers, worker, the made-up shop's till, and who watches them all."""

from __future__ import annotations

import hashlib
import os
import subprocess
import sys
from pathlib import Path

from nematex.command.mariadb import free_port
from nematex.command.service.state import home, keep, read_state, till_runs, watch_runs, worker_runs


def processes() -> int:
    """How many web processes share the port: NEMATEX_PROCESSES, else one for each core up to two."""
    given = os.environ.get("NEMATEX_PROCESSES", "")
    return (
        min(max(int(given), 1), 16) if given.isdecimal() and given.isascii() and len(given) < 4 else min(2, os.cpu_count() or 1)
    )


def detached(name: str, url: str, *asked: str, more: dict[str, str] | None = None) -> subprocess.Popen[bytes]:
    """A process of ours that outlives this command; its log has its name."""
    with open(home() / f"{name}.log", "ab") as log:
        return subprocess.Popen(
            [sys.executable, "-m", "nematex.command", *asked],
            env={**os.environ, "DATABASE_URL": url, **(more or {})},
            stdout=log,
            stderr=log,
            stdin=subprocess.DEVNULL,
            start_new_session=True,
        )


def metrics_folder() -> Path:
    """Where the web processes count together: in memory where the system has a place for that. A file that is mapped into
    a process and finds the disk full would end it.
    """
    shared = Path("/dev/shm")
    if not os.access(shared, os.W_OK):
        return home() / "metrics"
    return shared / f"nematex-{os.getuid()}-{hashlib.sha256(str(home().resolve()).encode()).hexdigest()[:12]}"


def start_web(url: str, port: int, network: dict[str, str]) -> subprocess.Popen[bytes]:
    """One web process; several share the port."""
    folder = metrics_folder()
    folder.mkdir(exist_ok=True, mode=0o700)
    if folder.stat().st_uid != os.getuid():
        raise RuntimeError(f"{folder} is another user's; remove it")
    return detached("web", url, "serve", "--port", str(port), more={**network, "PROMETHEUS_MULTIPROC_DIR": str(folder)})


def _noted(child: subprocess.Popen[bytes], **noted: int) -> None:
    """Note a process down; one that cannot be, as on a full disk, is ended: nobody would find it again."""
    try:
        keep(**noted)
    except OSError:
        child.kill()
        child.wait()
        raise


def start_beside(url: str) -> None:
    """What runs beside the web server: the worker, and in the made-up shop the simulated till that the worker asks."""
    from nematex.command.till import ask_till, wants_till

    state = read_state()
    if not till_runs(state) and wants_till(url):
        port = free_port(state.get("till_port") or 0)
        till = detached("till", url, "till", "--port", str(port))
        _noted(till, till_pid=till.pid, till_port=port)
        ask_till(url, port)
    if not worker_runs(state):
        worker = detached("worker", url, "work", more=_given())
        _noted(worker, worker_pid=worker.pid)


GIVEN = "NEMATEX_GIVEN_DATABASE"


def _given() -> dict[str, str]:
    """Whether somebody named the database, as whoever was started before knows it: to all of ours its URL is told."""
    return {GIVEN: os.environ.get(GIVEN) or ("1" if os.environ.get("DATABASE_URL") else "0")}


def start_watch(url: str) -> None:
    """Who starts again what dies."""
    if not watch_runs(read_state()):
        keep(watch_pid=detached("watch", url, "watch", more=_given()).pid)
