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
from typing import Any

from nematex.command.mariadb import runs

State = dict[str, Any]


def home() -> Path:
    folder = Path(os.environ.get("NEMATEX_HOME", ".")) / ".nematex"
    folder.mkdir(parents=True, exist_ok=True)
    folder.chmod(0o700)  # it names the port and holds password, key and data
    return folder


@contextmanager
def start_lock(wait: bool = True, said: str = "") -> Iterator[bool]:
    """Held by whoever starts, stops or starts again; whether it is. `said` is printed where it has to be waited for."""
    with open(home() / "start.lock", "w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            if not wait:
                yield False
                return
            if said:
                print(said, file=sys.stderr, flush=True)
            fcntl.flock(lock, fcntl.LOCK_EX)
        yield True


def read_state() -> State:
    """What was kept; where that cannot be read, what is found among the processes of this folder."""
    try:
        return dict(json.loads((home() / "state.json").read_text()))
    except FileNotFoundError:
        return {}
    except (OSError, ValueError):
        return _found_again()


def _found_again() -> State:
    """The processes of this shop by their command lines and the folder in their environment."""
    found: State = {"web_pids": []}
    for entry in Path("/proc").iterdir():
        if not entry.name.isdecimal():
            continue
        try:
            words = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode(errors="replace")
            own = f"NEMATEX_HOME={os.environ.get('NEMATEX_HOME', '')}\0".encode() in (entry / "environ").read_bytes()
        except OSError:
            continue
        _take_in(found, int(entry.name), words, own)
    return found


def _take_in(found: State, pid: int, words: str, own: bool) -> None:
    port = re.search(r"--port[ =](\d{1,5})", words)
    if f"--datadir={home() / 'mariadb'}" in words:
        found |= {"database_pid": pid, "database_port": int(port[1]) if port else 0}
    if not own:
        return
    for name in ("work", "watch"):
        if words.rstrip().endswith(f"nematex.command {name}"):
            found[f"{'worker' if name == 'work' else name}_pid"] = pid
    if "nematex.command serve" in words and port:
        found |= {"web_pids": [*found["web_pids"], pid], "web_port": int(port[1])}
    if "nematex.command till" in words and port:
        found |= {"till_pid": pid, "till_port": int(port[1])}


def keep(**changes: Any) -> None:
    state = {**read_state(), **changes}
    path = home() / "state.json"
    fresh = path.with_suffix(".new")
    fresh.write_text(json.dumps(state))
    fresh.replace(path)


def web_pids_of(state: dict[str, Any]) -> list[int]:
    """The web processes that run, the first one first."""
    pids = state.get("web_pids") or [state.get("web_pid")]
    return [pid for pid in pids if runs(pid, "nematex.command serve")]


def database_runs(state: dict[str, Any]) -> bool:
    return runs(state.get("database_pid"), f"--datadir={home() / 'mariadb'}")


def worker_runs(state: dict[str, Any]) -> bool:
    return runs(state.get("worker_pid"), "nematex.command work")


def till_runs(state: dict[str, Any]) -> bool:
    return runs(state.get("till_pid"), "nematex.command till")


def watch_runs(state: State) -> bool:
    return runs(state.get("watch_pid"), "nematex.command watch")


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
