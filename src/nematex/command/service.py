"""`start`, `stop`, `status`, `serve`: detached processes: the database, the web server, the worker, and a simulated till."""

from __future__ import annotations

import argparse
import fcntl
import json
import os
import secrets
import signal
import socket
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from pathlib import Path
from typing import Any

from nematex.command.mariadb import LocalMariaDB, free_port, open_to_anybody, runs

DEFAULT_PORT, HIGHEST_PORT = 8765, 65535
# A process that still lives is on its way: a busy machine may take minutes to bring it up.
WEB_SECONDS, SAY_SECONDS = 300, 15
STOP_SECONDS = 60


def home() -> Path:
    folder = Path(os.environ.get("NEMATEX_HOME", ".")) / ".nematex"
    folder.mkdir(parents=True, exist_ok=True)
    folder.chmod(0o700)  # it names the port and holds password, key and data
    return folder


def _state() -> dict[str, Any]:
    try:
        return dict(json.loads((home() / "state.json").read_text()))
    except (OSError, ValueError):
        return {}


def _keep(**changes: Any) -> None:
    state = {**_state(), **changes}
    path = home() / "state.json"
    fresh = path.with_suffix(".new")
    fresh.write_text(json.dumps(state))
    fresh.replace(path)


def _web_pids(state: dict[str, Any]) -> list[int]:
    """The web processes that run, the first one first."""
    pids = state.get("web_pids") or [state.get("web_pid")]
    return [pid for pid in pids if runs(pid, "nematex.command serve")]


def _web_runs(state: dict[str, Any]) -> bool:
    return bool(_web_pids(state))


def _database_runs(state: dict[str, Any]) -> bool:
    return runs(state.get("database_pid"), f"--datadir={home() / 'mariadb'}")


def _healthy(port: int) -> bool:
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/health", timeout=10) as reply:
            return bool(reply.status == 200)
    except (OSError, urllib.error.URLError):
        return False


def session_key() -> str:
    """The key that signs sessions, made once and readable by the owner alone."""
    path = home() / "session-key"
    if not path.exists() or not path.read_text().strip():
        path.touch(mode=0o600)
        path.write_text(secrets.token_hex(32))
    return path.read_text()


def database_url() -> str:
    """DATABASE_URL, or the URL of our own MariaDB, which is started if it does not run."""
    given = os.environ.get("DATABASE_URL")
    if given:
        return given.replace("mysql://", "mysql+pymysql://", 1).replace("mariadb://", "mysql+pymysql://", 1)
    state = _state()
    server = LocalMariaDB(home())
    if _database_runs(state):
        server.port = state["database_port"]
        if not open_to_anybody(server.port):
            return server.url
        # Started by a version that left MariaDB's own accounts without a password: start it again without them.
        _end(state["database_pid"])
    pid = server.start(state.get("database_port", 0))
    _keep(database_pid=pid, database_port=server.port)
    return server.url


def _prepare(url: str, demo: bool) -> None:
    """Migrate, and load the made-up shop into an empty database."""
    from nematex.demo.load import load_demo
    from nematex.store.database import Database

    database = Database(url)
    database.migrate()
    database.check()
    if demo and load_demo(database):
        print("Loaded the made-up shop: Marrowstone Cloth Room.")
    database.close()


def processes() -> int:
    """How many web processes share the port: NEMATEX_PROCESSES, else one for each core up to two."""
    given = os.environ.get("NEMATEX_PROCESSES", "")
    return (
        min(max(int(given), 1), 16) if given.isdecimal() and given.isascii() and len(given) < 4 else min(2, os.cpu_count() or 1)
    )


def running_address() -> str | None:
    """Where the shop answers; None where it does not run."""
    state = _state()
    return f"http://127.0.0.1:{state['web_port']}/" if _web_runs(state) and _healthy(state["web_port"]) else None


def start(port: int | None, demo: bool) -> int:
    """Bring both up; a second call finds them running, and waits for one that is on its way."""
    if port is not None and not 1 <= port <= HIGHEST_PORT:
        print(f"nematex: --port: {port} is no port; choose one from 1 to {HIGHEST_PORT}, or leave it out.", file=sys.stderr)
        return 2
    with open(home() / "start.lock", "w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        return _start(port, demo)


def _start(port: int | None, demo: bool) -> int:
    state = _state()
    if port and _web_runs(state) and state.get("web_port") != port:
        print(f"nematex: already running on port {state['web_port']}; run ./nematex stop first.", file=sys.stderr)
        return 1
    url = database_url()
    if _web_runs(state) and _healthy(state["web_port"]):
        _start_beside(url)
        print(f"Nematex is running: http://127.0.0.1:{state['web_port']}/")
        return 0
    for pid in _web_pids(state):
        os.kill(pid, signal.SIGKILL)
    if _web_pids(state):
        time.sleep(0.2)
    _prepare(url, demo)
    wanted = port or state.get("web_port") or DEFAULT_PORT
    chosen = free_port(wanted)
    if port and chosen != port:
        print(f"nematex: --port: {port} is taken; choose another, or leave it out for a free one.", file=sys.stderr)
        return 2
    if state.get("web_port") not in (None, chosen, port):
        taken = f"port {wanted}, where this shop ran, is taken by another program: pages that are open there cannot reach it"
        print(f"nematex: {taken}, a camera view among them.", file=sys.stderr)
    webs = [_detached("web", url, "serve", "--port", str(chosen)) for _ in range(processes())]
    _keep(web_pid=webs[0].pid, web_pids=[web.pid for web in webs], web_port=chosen)
    _start_beside(url)
    begun, said = time.monotonic(), False
    while not _healthy(chosen):
        waited = time.monotonic() - begun
        if any(web.poll() is not None for web in webs) or waited > WEB_SECONDS:
            print(f"nematex: the web server did not start; see {home() / 'web.log'}", file=sys.stderr)
            return 1
        if waited > SAY_SECONDS and not said:
            print("nematex: this machine is busy, still starting …", file=sys.stderr, flush=True)
            said = True
        time.sleep(0.1)
    print(f"Nematex is running: http://127.0.0.1:{chosen}/")
    return 0


def _worker_runs(state: dict[str, Any]) -> bool:
    return runs(state.get("worker_pid"), "nematex.command work")


def _till_runs(state: dict[str, Any]) -> bool:
    return runs(state.get("till_pid"), "nematex.command till")


def _detached(name: str, url: str, *asked: str) -> subprocess.Popen[bytes]:
    """A process of ours that outlives this command; its log has its name."""
    with open(home() / f"{name}.log", "ab") as log:
        return subprocess.Popen(
            [sys.executable, "-m", "nematex.command", *asked],
            env={**os.environ, "DATABASE_URL": url},
            stdout=log,
            stderr=log,
            stdin=subprocess.DEVNULL,
            start_new_session=True,
        )


def _start_beside(url: str) -> None:
    """What runs beside the web server: the worker, and in the made-up shop the simulated till that the worker asks."""
    from nematex.command.till import ask_till, wants_till

    state = _state()
    if not _till_runs(state) and wants_till(url):
        port = free_port(state.get("till_port") or 0)
        _keep(till_pid=_detached("till", url, "till", "--port", str(port)).pid, till_port=port)
        ask_till(url, port)
    if not _worker_runs(state):
        _keep(worker_pid=_detached("worker", url, "work").pid)


def _end(pid: int) -> None:
    os.kill(pid, signal.SIGTERM)
    until = time.monotonic() + STOP_SECONDS
    while Path(f"/proc/{pid}").exists() and time.monotonic() < until:
        time.sleep(0.1)


def stop() -> int:
    """End the web server, the worker, then the database."""
    state = _state()
    database = [state["database_pid"]] if _database_runs(state) else []
    worker = [state["worker_pid"]] if _worker_runs(state) else []
    till = [state["till_pid"]] if _till_runs(state) else []
    for name, pids in (("web server", _web_pids(state)), ("worker", worker), ("till", till), ("database", database)):
        if name == "till" and not pids:
            continue  # only the made-up shop has one
        for pid in pids:
            _end(pid)
        print(f"{name}: {'stopped' if pids else 'was not running'}")
    return 0


def status() -> int:
    """Say what runs; exit 0 only if all of it does."""
    state = _state()
    web = _web_runs(state) and _healthy(state["web_port"])
    given = os.environ.get("DATABASE_URL")
    database = bool(given) or _database_runs(state)
    address = f"http://127.0.0.1:{state['web_port']}/" if web else "not running"
    worker = _worker_runs(state)
    print(f"web server: {address}")
    print(f"worker: {'running' if worker else 'not running'}")
    where = "DATABASE_URL" if given else f"127.0.0.1:{state.get('database_port')}"
    print(f"database: {where if database else 'not running'}")
    return 0 if web and worker and database else 1


def serve(port: int) -> int:
    """The web server itself, in the foreground."""
    import waitress

    from nematex.command.worker import handing_over
    from nematex.store.database import Database
    from nematex.usecases.judging.whole_matrix import warm
    from nematex.web.app import create_app

    # Each process opens the port for itself, and the system shares the connections out among them.
    listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEPORT, 1)
    listening.bind(("127.0.0.1", port))
    app = create_app(Database(os.environ["DATABASE_URL"]), session_key(), handing_over(home()))
    threading.Thread(target=warm, args=(app.extensions["shop"],), daemon=True).start()
    waitress.serve(app, sockets=[listening], threads=6, max_request_body_size=64 * 2**20, ident=None)
    return 0


def run(asked: argparse.Namespace) -> int:
    try:
        if asked.command == "start":
            return start(asked.port, not asked.no_demo)
        if asked.command == "serve":
            return serve(asked.port)
    except (RuntimeError, OSError) as fault:
        print(f"nematex: {fault}", file=sys.stderr)
        return 1
    return stop() if asked.command == "stop" else status()
