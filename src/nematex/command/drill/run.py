"""`./nematex drill`: a made-up shop of its own, people who write, and one fault after the other in their midst.

Writers note what the shop acknowledged: programmes that were made, and a note that is put on two cloths at once. After every
fault the shop must answer by itself; at the end every acknowledged programme is there once, and the two cloths agree. It talks
to 127.0.0.1 alone, ends only processes that it started, and ends by itself.
"""

from __future__ import annotations

import os
import shutil
import signal
import struct
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from http.client import HTTPException
from pathlib import Path

from nematex.command.benchmark.load import Known, _Client
from nematex.command.mariadb import LocalMariaDB

WRITERS = 3
PATIENCE_S = 120.0
TMPFS_MB = 700
DAY_S = 86400
NONE = Known([1], [1], [1])


@dataclass
class Drill:
    """A shop in a folder of its own, what it acknowledged, and how long it took to answer again after each fault."""

    home: Path
    environment: dict[str, str]
    port: int = 0
    acknowledged: list[str] = field(default_factory=list)
    refused: int = 0
    pairs: int = 0
    recovered_s: list[float] = field(default_factory=list)
    stop: threading.Event = field(default_factory=threading.Event)

    def command(self, *words: str) -> subprocess.CompletedProcess[str]:
        asked = [sys.executable, "-m", "nematex.command", *words]
        return subprocess.run(asked, env=self.environment, capture_output=True, text=True, check=False)

    def state(self) -> dict[str, object]:
        import json

        return dict(json.loads((self.home / ".nematex/state.json").read_text()))

    def start(self) -> None:
        done = self.command("start")
        if done.returncode:
            raise RuntimeError(f"the drill's shop did not start: {done.stderr}")
        self.port = int(str(self.state()["web_port"]))


def _client(drill: Drill, seed: int) -> _Client:
    client = _Client(drill.port, seed, NONE)
    client.ask("GET", "/programmes")
    client.ask("POST", "/try-as", {"csrf_token": client.token, "role": "owner"})
    return client


def _write(drill: Drill, seed: int) -> None:
    """One who writes until the drill ends; what is not acknowledged is tried again under another name."""
    number, client = 0, None
    while not drill.stop.is_set():
        try:
            client = client or _client(drill, seed)
            name = f"drill {seed} {number}"
            if client.ask("POST", "/programmes", {"csrf_token": client.token, "name": name})[0] == 302:
                drill.acknowledged.append(name)
                given = {"csrf_token": client.token, "field": "notes", "text": f"turn {seed} {number}"}
                drill.pairs += client.ask("POST", "/shelf/together?cloth=1&cloth=2", given)[0] == 302
            else:
                drill.refused += 1
                client = None
        except (OSError, HTTPException):
            drill.refused += 1
            client = None
            time.sleep(0.1)
        number += 1
        time.sleep(0.05)


def _answers(drill: Drill) -> bool:
    try:
        return _Client(drill.port, 0, NONE).ask("GET", "/shelf?q=lawn")[0] == 200
    except (OSError, HTTPException):
        return False


def _wait(drill: Drill) -> None:
    begun = time.monotonic()
    while not _answers(drill):
        if time.monotonic() - begun > PATIENCE_S:
            raise RuntimeError("the shop did not answer again by itself")
        time.sleep(0.1)
    drill.recovered_s.append(time.monotonic() - begun)


def _kill(pid: int) -> None:
    with suppress(ProcessLookupError):
        os.kill(pid, signal.SIGKILL)


def kill_web(drill: Drill) -> None:
    for pid in list(drill.state()["web_pids"]):  # type: ignore[call-overload]
        _kill(int(pid))


def kill_worker(drill: Drill) -> None:
    _kill(int(str(drill.state().get("worker_pid", 0))))


def kill_database(drill: Drill) -> None:
    _kill(int(str(drill.state()["database_pid"])))


def cut_connections(drill: Drill) -> None:
    """Every connection of the shop to its database is cut by the server."""
    with LocalMariaDB(drill.home / ".nematex").connect() as connection, connection.cursor() as cursor:
        cursor.execute("select id from information_schema.processlist where id <> connection_id()")
        for (number,) in cursor.fetchall():
            with suppress(Exception):
                cursor.execute(f"kill {int(number)}")


def fill_disk(drill: Drill) -> None:
    """The disk is full for two seconds."""
    path = drill.home / "filler"
    with suppress(OSError), open(path, "wb") as file:
        while True:
            file.write(b"\0" * 2**20)
            file.flush()
    time.sleep(2)
    path.unlink(missing_ok=True)


def jump_clock(drill: Drill) -> None:
    """The time of day of every process jumps two days on, then three back, then is right again."""
    _set_clock(drill.home, (2, -3, 0)[len(drill.recovered_s) % 3] * DAY_S)


def _set_clock(home: Path, seconds: int) -> None:
    """Written in its place: the processes have the file before their eyes."""
    path = home / "clock"
    with open(path, "r+b" if path.exists() else "wb") as file:
        file.write(struct.pack("<q", seconds))


def _with_clock(home: Path) -> dict[str, str]:
    """The environment of processes whose time of day can be set. Raises RuntimeError where nothing compiles."""
    source, made = Path(__file__).with_name("clock.c"), home / "clock.so"
    if shutil.which("cc") is None:
        raise RuntimeError("the clock's drill needs a C compiler: apt-get install gcc libc6-dev")
    subprocess.run(["cc", "-shared", "-fPIC", "-O1", "-o", made, source], check=True)
    _set_clock(home, 0)
    return {"LD_PRELOAD": str(made), "NEMATEX_DRILL_CLOCK": str(home / "clock")}


FAULTS: dict[str, tuple[str, Callable[[Drill], None]]] = {
    "web": ("kill -9 of every web process", kill_web),
    "worker": ("kill -9 of the worker", kill_worker),
    "database": ("kill -9 of mariadbd", kill_database),
    "connection": ("every database connection cut", cut_connections),
    "disk": ("a full disk", fill_disk),
    "clock": ("a jump of the clock", jump_clock),
}


def _said(drill: Drill, what: str, rounds: int) -> str:
    """What is true of the shop after the drill."""
    with LocalMariaDB(drill.home / ".nematex").connect() as connection, connection.cursor() as cursor:
        cursor.execute("select name, count(*) from programme where name like 'drill %' group by name")
        held = {str(name): int(number) for name, number in cursor.fetchall()}
        cursor.execute("select count(distinct notes) from cloth where id in (1, 2)")
        row = cursor.fetchone()
    lost = [name for name in drill.acknowledged if name not in held]
    doubled = [name for name, number in held.items() if number > 1]
    half = "none" if row and row[0] == 1 and drill.pairs else "THE TWO CLOTHS DIFFER"
    longest = max(drill.recovered_s, default=0.0)
    return (
        f"{what}, {rounds} times: {len(drill.acknowledged)} and {drill.pairs} pairs acknowledged, "
        f"{len(lost)} lost, {len(doubled)} doubled, "
        f"half done: {half}; {drill.refused} not taken and said so; answered again after {longest:.1f} s at most"
    )


def _where(name: str) -> tuple[Path, Callable[[], None]]:
    """A folder for the drill's shop, small where the disk is to be full; and how to be rid of it."""
    folder = Path(tempfile.mkdtemp(prefix="nematex-drill-"))
    if name != "disk":
        return folder, lambda: shutil.rmtree(folder, ignore_errors=True)
    subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={TMPFS_MB}m", "tmpfs", folder], check=True)

    def leave() -> None:
        until = time.monotonic() + PATIENCE_S
        while subprocess.run(["umount", folder], check=False, capture_output=True).returncode and time.monotonic() < until:
            time.sleep(0.5)
        folder.rmdir()

    return folder, leave


def run_drill(name: str, rounds: int) -> str:
    """One kind of fault so many times; what came of it. Raises RuntimeError where the shop does not come back."""
    what, fault = FAULTS[name]
    home, leave = _where(name)
    environment = {**os.environ, "NEMATEX_HOME": str(home), "NEMATEX_BACKUP": "off"}
    environment.pop("DATABASE_URL", None)
    if name == "clock":
        environment |= _with_clock(home)
    drill = Drill(home, environment)
    try:
        drill.start()
        writers = [threading.Thread(target=_write, args=(drill, seed)) for seed in range(WRITERS)]
        for each in writers:
            each.start()
        try:
            for _ in range(rounds):
                time.sleep(1.0)
                fault(drill)
                _wait(drill)
        finally:
            drill.stop.set()
            for each in writers:
                each.join()
        _wait(drill)
        return _said(drill, what, rounds)
    finally:
        drill.command("stop")
        leave()


def run_drills(names: list[str], rounds: int) -> int:
    """Print what came of each; exit 1 where something was lost."""
    worst = 0
    for name in names or list(FAULTS):
        said = run_drill(name, rounds)
        print(said, flush=True)
        worst |= " 0 lost, 0 doubled, half done: none" not in said
    return worst
