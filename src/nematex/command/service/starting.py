"""`start`: brings everything up, waits as long as the machine needs, and says what it waits for."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
import time

from nematex.command.certificate import certificate
from nematex.command.mariadb import free_port
from nematex.command.network import LAN_PORT, names_here, picture, read_address
from nematex.command.service.database import database_url, prepare
from nematex.command.service.keys import set_up_code
from nematex.command.service.processes import metrics_folder, processes, start_beside, start_watch, start_web
from nematex.command.service.state import healthy, home, keep, read_state, start_lock, web_pids_of

DEFAULT_PORT, HIGHEST_PORT = 8765, 65535
# A process that still lives is on its way: a busy machine may take minutes to bring it up.
WEB_SECONDS, SAY_SECONDS = 1800, 15


def network_of(lan: str) -> dict[str, str]:
    """What web processes are told of the shop's network, where it answers there ("address:port")."""
    if not lan:
        return {}
    address = lan.rpartition(":")[0]
    names = names_here(address)
    certificate(home() / "tls", names)
    hosts = ",".join([*names, *os.environ.get("NEMATEX_HOSTS", "").split(",")]).strip(",")
    return {
        "NEMATEX_LAN": lan,
        "NEMATEX_HOSTS": hosts,
        "NEMATEX_SHOWN_AT": os.environ.get("NEMATEX_SHOWN_AT") or f"https://{lan}",
    }


def _lan(asked: str | None, owned: bool, port: int) -> str:
    """Where to answer on the network, "" for nowhere. Raises RuntimeError."""
    kept = str(read_state().get("lan", ""))
    if asked is None and not kept:
        return ""
    if not owned:
        first = f"http://127.0.0.1:{port}/set-up?code={set_up_code()}"
        raise RuntimeError(f"--lan: the shop has no owner yet, so nobody could be kept out. Run ./nematex start, open {first}")
    if asked is None:
        return kept
    address = read_address(asked)
    return f"{address}:{free_port(LAN_PORT, address)}"


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
    url = database_url()
    if pids and healthy(state["web_port"]) and lan is None:
        owned = prepare(url, demo=False)
        start_beside(url)
        start_watch(url)
        _greet(state["web_port"], owned)
        return 0
    for pid in pids:
        os.kill(pid, signal.SIGKILL)
    if pids:
        time.sleep(0.2)
    owned = prepare(url, demo)
    chosen = _free(port, state.get("web_port"))
    if chosen is None:
        print(f"nematex: --port: {port} is taken; choose another, or leave it out for a free one.", file=sys.stderr)
        return 2
    set_up_code()
    place = _lan(lan, owned, chosen)
    shutil.rmtree(metrics_folder(), ignore_errors=True)  # counted anew
    webs = [start_web(url, chosen, network_of(place)) for _ in range(processes())]
    keep(web_pid=webs[0].pid, web_pids=[web.pid for web in webs], web_port=chosen, lan=place, wanted=len(webs))
    if not _wait(chosen, webs):
        return 1
    start_beside(url)  # they read the shop too, and would be in the way of the pages
    start_watch(url)
    _greet(chosen, owned)
    return 0


def _free(port: int | None, before: int | None) -> int | None:
    """The port to answer on; None where the one that is wanted is taken."""
    wanted = port or before or DEFAULT_PORT
    chosen = free_port(wanted)
    if port and chosen != port:
        return None
    if not port and before not in (None, chosen):
        taken = f"port {wanted}, where this shop ran, is taken by another program: pages that are open there cannot reach it"
        print(f"nematex: {taken}, a camera view among them.", file=sys.stderr)
    return chosen


def _wait(port: int, webs: list[subprocess.Popen[bytes]]) -> bool:
    """Until the web server answers; whether it does."""
    begun, said = time.monotonic(), False
    while not healthy(port):
        waited = time.monotonic() - begun
        if any(web.poll() is not None for web in webs) or waited > WEB_SECONDS:
            print(f"nematex: the web server did not start; see {home() / 'web.log'}", file=sys.stderr)
            return False
        if waited > SAY_SECONDS and not said:
            print("nematex: the web server lives and reads the shop; waiting for it …", file=sys.stderr, flush=True)
            said = True
        time.sleep(0.1)
    return True
