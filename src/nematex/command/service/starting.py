"""`start`: brings everything up, waits as long as the machine needs, and says what it waits for."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
import time
from contextlib import suppress

from nematex.command.network import LAN_PORT, picture, read_address
from nematex.command.ports import claimed_port, free_port
from nematex.command.service.keys import set_up_code
from nematex.command.service.processes import AGAIN, START, metrics_folder, noted, processes, raise_watch, tell
from nematex.command.service.state import State, healthy, home, read_state, start_lock, watch_runs, web_pids_of, worker_runs

DEFAULT_PORT, HIGHEST_PORT = 8765, 65535
# A process that still lives is on its way: a busy machine may take minutes to bring it up.
WEB_SECONDS, SAY_SECONDS = 1800, 15


def _lan(asked: str | None, owned: bool, port: int) -> str:
    """Where to answer on the network, "" for nowhere. Raises RuntimeError."""
    kept = str(read_state().get("lan", ""))
    if asked is None and not kept:
        return ""
    _owned_or_raise(owned, port)
    if asked is None:
        return kept
    address = read_address(asked)
    return f"{address}:{free_port(LAN_PORT, address)}"


def _owned_or_raise(owned: bool, port: int) -> None:
    if not owned:
        first = f"http://127.0.0.1:{port}/set-up?code={set_up_code()}"
        raise RuntimeError(f"--lan: the shop has no owner yet, so nobody could be kept out. Run ./nematex start, open {first}")


def _greet(port: int, owned: bool) -> None:
    """Where the shop is, and what comes next."""
    if lan := read_state().get("lan"):
        shown = f"https://{lan}/"
        print(f"On the shop's network: {shown}\n{picture(shown)}")
        print("A phone warns of a certificate that it does not know. Once it trusts the shop's own, it does not:")
        print(f"{shown}certificate.crt")
    if not owned:
        print(f"Nobody owns this shop yet. To make it yours: http://127.0.0.1:{port}/set-up?code={set_up_code()}")
    print(f"Nematex is running: http://127.0.0.1:{port}/")


def start(port: int | None, demo: bool, lan: str | None = None) -> int:
    """Bring both up; a second call finds them running, and waits for one that is on its way."""
    if port is not None and not 1 <= port <= HIGHEST_PORT:
        print(f"nematex: --port: {port} is no port; choose one from 1 to {HIGHEST_PORT}, or leave it out.", file=sys.stderr)
        return 2
    with start_lock():
        return _start(port, demo, lan)


def _start(port: int | None, demo: bool, lan: str | None) -> int:
    state = read_state()
    pids = web_pids_of(state)
    if port and pids and state.get("web_port") != port:
        print(f"nematex: already running on port {state['web_port']}; run ./nematex stop first.", file=sys.stderr)
        return 1
    if pids and healthy(state["web_port"]) and lan is None:
        from nematex.command.service.database import database_url, prepare

        owned = prepare(database_url(), demo=False)
        if not watch_runs(state):
            _told(raise_watch(state["web_port"]), AGAIN)
        _greet(state["web_port"], owned)
        return 0
    if pids and lan is not None:
        from nematex.command.service.database import database_url, prepare

        _owned_or_raise(prepare(database_url(), demo=False), state["web_port"])
    _clear_away(state)
    before = state.get("web_port")
    with claimed_port(port or before or DEFAULT_PORT) as chosen:
        if port and chosen != port:
            print(f"nematex: --port: {port} is taken; choose another, or leave it out for a free one.", file=sys.stderr)
            return 2
        if not port and before not in (None, chosen):
            taken = f"port {before}, where this shop ran, is taken by another program"
            print(f"nematex: {taken}: pages that are open there cannot reach it, a camera view among them.", file=sys.stderr)
        return _start_on(chosen, demo, lan)


def _start_on(chosen: int, demo: bool, lan: str | None) -> int:
    watch = raise_watch(chosen)  # it reads the program while the database is brought up
    try:
        from nematex.command.service.database import database_url, prepare

        owned = prepare(database_url(), demo)
        set_up_code()
        place = _lan(lan, owned, chosen)
        _told(watch, START, web_pids=[], web_port=chosen, lan=place, wanted=processes())
    finally:
        if watch.stdin and not watch.stdin.closed:
            watch.stdin.close()  # nobody will tell it anything
            watch.kill()
            watch.wait()
    if not _wait(chosen, watch):
        return 1
    _greet(chosen, owned)
    return 0


def _told(watch: subprocess.Popen[bytes], word: str, **more: object) -> None:
    noted(watch, **more)
    tell(watch, word)


def _clear_away(state: State) -> None:
    """What of the shop's processes is left, and does not answer or is to answer elsewhere: all are told the same then."""
    others = [
        pid for name, runs in (("watch", watch_runs), ("worker", worker_runs)) if runs(state) for pid in [state[f"{name}_pid"]]
    ]
    pids = [*web_pids_of(state), *others]
    for pid in pids:
        with suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
    if pids:
        time.sleep(0.2)
    shutil.rmtree(metrics_folder(), ignore_errors=True)  # counted anew


def _wait(port: int, watch: subprocess.Popen[bytes]) -> bool:
    """Until the shop answers and its worker lives; whether it does."""
    begun, said = time.monotonic(), False
    while not (healthy(port) and worker_runs(read_state())):
        waited = time.monotonic() - begun
        if watch.poll() is not None or waited > WEB_SECONDS:
            print(f"nematex: the shop did not start; see {home() / 'watch.log'} and web.log beside it", file=sys.stderr)
            return False
        if waited > SAY_SECONDS and not said:
            print("nematex: it lives and reads the shop; waiting for it …", file=sys.stderr, flush=True)
            said = True
        time.sleep(0.05)
    return True
