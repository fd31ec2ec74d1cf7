"""What runs where: kept in state.json below the shop's folder, and found again among the processes where that is damaged."""

from __future__ import annotations

import fcntl
import json
import os
import re
import sys
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO, Any

from nematex.command.service.roles import SHOP, WATCH, WEB, WORKER, family, plays, runs, words_of

State = dict[str, Any]
_held: list[IO[str]] = []


def home() -> Path:
    folder = Path(os.environ.get(SHOP, ".")).absolute() / ".nematex"  # MariaDB is started elsewhere
    folder.mkdir(parents=True, exist_ok=True)
    folder.chmod(0o700)  # it names the port and holds password, key and data
    return folder


def shop_folder() -> str:
    """The folder of the shop as a whole path, by which its processes are known."""
    return str(home().parent.resolve())


@contextmanager
def start_lock(wait: bool = True, said: str = "") -> Iterator[bool]:
    """Held by whoever starts, stops or starts again; whether it is. `said` is printed where it has to be waited for."""
    with open(home() / "start.lock", "w") as lock:
        _held.append(lock)
        try:
            yield _taken(lock, wait, said)
        finally:
            _held.remove(lock)


def _taken(lock: IO[str], wait: bool, said: str) -> bool:
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        return True
    except BlockingIOError:
        if not wait:
            return False
    if said:
        print(said, file=sys.stderr, flush=True)
    fcntl.flock(lock, fcntl.LOCK_EX)
    return True


def let_locks_go() -> None:
    """In a child: what its parent holds is the parent's alone."""
    while _held:
        _held.pop().close()


def read_state() -> State:
    """What was kept; where that cannot be read, what is found among the processes of this folder."""
    try:
        return dict(json.loads((home() / "state.json").read_text()))
    except FileNotFoundError:
        return {}
    except (OSError, ValueError):
        return _found_again()


def _found_again() -> State:
    """The processes of this shop by their roles, and MariaDB by its folder."""
    found: State = {"web_pids": []}
    for pid, role in family(shop_folder()).items():
        if role in (WATCH, WORKER):
            found[f"{role}_pid"] = pid
        if role == WEB:
            port = re.search(r"--port[ =](\d{1,5})", words_of(pid))
            found |= {"web_pids": [*found["web_pids"], pid], "web_port": int(port[1]) if port else 0}
    found["wanted"] = len(found["web_pids"])
    for entry in Path("/proc").iterdir():
        words = words_of(int(entry.name)) if entry.name.isdecimal() else ""
        if f"--datadir={home() / 'mariadb'}" in words:
            port = re.search(r"--port[ =](\d{1,5})", words)
            found |= {"database_pid": int(entry.name), "database_port": int(port[1]) if port else 0}
    return found


def keep(**changes: Any) -> None:
    """Note something down. Several processes may at once: each changes what it names and nothing else."""
    path = home() / "state.json"
    with open(home() / "state.lock", "w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        fresh = path.with_suffix(".new")
        fresh.write_text(json.dumps({**read_state(), **changes}))
        fresh.replace(path)


def web_pids_of(state: State) -> list[int]:
    """The web processes that run, the first one first."""
    return [pid for pid in state.get("web_pids") or [] if plays(pid, WEB, shop_folder())]


def database_runs(state: State) -> bool:
    return runs(state.get("database_pid"), f"--datadir={home() / 'mariadb'}")


def worker_runs(state: State) -> bool:
    return plays(state.get("worker_pid"), WORKER, shop_folder())


def watch_runs(state: State) -> bool:
    """Whether somebody watches, or is on the way to."""
    pid = state.get("watch_pid")
    return plays(pid, WATCH, shop_folder()) or runs(pid, "nematex.command watch")


def healthy(port: int) -> bool:
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/health", timeout=10) as reply:
            return bool(reply.status == 200)
    except (OSError, urllib.error.URLError):
        return False


def web_pids() -> list[int]:
    """The web processes that run."""
    return web_pids_of(read_state())


def web_runs() -> bool:
    """Whether the shop is being served."""
    return bool(web_pids())


def what_runs() -> tuple[bool, bool]:
    """Whether the web server answers, and whether the worker lives."""
    state = read_state()
    return bool(web_pids_of(state)) and healthy(state["web_port"]), worker_runs(state)


def running_address() -> str | None:
    """Where the shop answers; None where it does not run."""
    state = read_state()
    well = bool(web_pids_of(state)) and healthy(state["web_port"])
    return f"http://127.0.0.1:{state['web_port']}/" if well else None
