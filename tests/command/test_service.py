"""The two commands as a user runs them: start, again, killed, stop; assess without a database."""

from __future__ import annotations

import fcntl
import io
import json
import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path

import pytest
from conftest import ROOT

from nematex.command.__main__ import main
from nematex.command.service.roles import family

pytestmark = pytest.mark.breaking


def environment(home: Path) -> dict[str, str]:
    """Of a command of the shop in this folder, with a database of its own."""
    found = {**os.environ, "NEMATEX_HOME": str(home), "PYTHONPATH": str(ROOT / "src")}
    found.pop("DATABASE_URL", None)
    return found


def nematex(home: Path, *arguments: str, stdin: str = "") -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "nematex.command", *arguments],
        env=environment(home),
        input=stdin,
        capture_output=True,
        text=True,
        check=False,
    )


def told(home: Path, *arguments: str, stdin: str = "") -> subprocess.CompletedProcess[str]:
    """What a command that starts nothing answers, in this process: it takes a fiftieth of the time."""
    out, fault = io.StringIO(), io.StringIO()
    given = io.TextIOWrapper(io.BytesIO(stdin.encode()))
    with pytest.MonkeyPatch.context() as patch, redirect_stdout(out), redirect_stderr(fault):
        patch.setenv("NEMATEX_HOME", str(home))
        patch.setattr(sys, "stdin", given)
        code = main(arguments)
    return subprocess.CompletedProcess(arguments, code, out.getvalue(), fault.getvalue())


def state(home: Path) -> dict[str, int]:
    return json.loads((home / ".nematex/state.json").read_text())  # type: ignore[no-any-return]


def text_of(address: str) -> str:
    with urllib.request.urlopen(address, timeout=300) as reply:
        return reply.read().decode()  # type: ignore[no-any-return]


def till(home: Path, mode: str) -> None:
    """Tell the simulated till how to behave."""
    asked = urllib.request.Request(
        f"http://127.0.0.1:{state(home)['till_port']}/act",
        json.dumps({"mode": mode}).encode(),
        {"Content-Type": "application/json"},
    )
    with urllib.request.urlopen(asked, timeout=60):
        pass


def says(address: str, words: str, said: bool = True) -> None:
    """Wait until a page says it, or says it no more; the patience of the browser tests."""
    until = time.monotonic() + 120
    while (words in text_of(address)) is not said:
        assert time.monotonic() < until, words
        time.sleep(0.2)


def test_start_again_killed_and_stop(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("NEMATEX_POLL_S", "0.3")
    monkeypatch.setenv("NEMATEX_PROCESSES", "2")
    try:
        first = nematex(tmp_path, "start")
        assert first.returncode == 0, first.stderr
        address = first.stdout.split()[-1]
        assert address.startswith("http://127.0.0.1:")
        assert "Marrowstone" in text_of(address)
        assert nematex(tmp_path, "start").stdout.split()[-1] == address
        assert nematex(tmp_path, "status").returncode == 0
        says(address + "stock", "Stock as of")
        assert sorted(family(str(tmp_path)).values()) == ["feed", "watch", "web", "web", "worker"]
        sizes = nematex(tmp_path, "status", "--sizes", "0.5").stdout
        assert re.search(r"^all 6 +\d+ +\d+\.\d\d$", sizes, re.M), sizes
        for pid in state(tmp_path)["web_pids"]:  # type: ignore[attr-defined]
            os.kill(pid, signal.SIGKILL)
        assert "Kelp Ladder challis" in text_of(address + "shelf?q=kelp"), "who asks meanwhile waits at the door"
        till(tmp_path, "down")
        says(address + "stock", "Nothing was lost")
        for pid in (*family(str(tmp_path)), state(tmp_path)["database_pid"]):  # those left would start all of it again
            os.kill(pid, signal.SIGKILL)
        assert nematex(tmp_path, "status").returncode == 1
        again = nematex(tmp_path, "start")
        assert again.stdout.split()[-1] == address, again.stderr
        assert "Loaded" not in again.stdout
        assert "Kelp Ladder challis" in text_of(address + "shelf?q=kelp")
        till(tmp_path, "usual")
        says(address + "stock", "Nothing was lost", said=False)
        taken = nematex(tmp_path, "start", "--port", "1")
        assert taken.returncode == 1
        assert "already running" in taken.stderr
    finally:
        stopped = nematex(tmp_path, "stop")
    assert stopped.stdout.count("stopped") == 3
    assert family(str(tmp_path)) == {}
    assert nematex(tmp_path, "status").returncode == 1


def test_what_dies_is_started_again_and_a_damaged_note_of_what_runs_is_found_out(tmp_path: Path) -> None:
    """kill -9 of who watches, both web processes and MariaDB, whom the worker brings back by bringing back who watches; then
    of who watches and the worker, whom a web process brings back so. At last the file is spoilt that says which are ours.
    """
    try:
        address = nematex(tmp_path, "start").stdout.split()[-1]
        before = state(tmp_path)
        for pid in (before["watch_pid"], *before["web_pids"], before["database_pid"]):  # type: ignore[misc]
            os.kill(pid, signal.SIGKILL)
        until = time.monotonic() + 400
        while nematex(tmp_path, "status").returncode:
            assert time.monotonic() < until
        assert state(tmp_path)["watch_pid"] != before["watch_pid"]
        for name in ("watch_pid", "worker_pid"):
            os.kill(state(tmp_path)[name], signal.SIGKILL)
        while nematex(tmp_path, "status").returncode:
            assert time.monotonic() < until
        assert "Kelp Ladder challis" in text_of(address + "shelf?q=kelp")
        assert not set(before["web_pids"]) & set(state(tmp_path)["web_pids"])  # type: ignore[call-overload]
        (tmp_path / ".nematex/state.json").write_text('{"web_pid": 12')
        assert nematex(tmp_path, "status").returncode == 0
        assert nematex(tmp_path, "start").stdout.split()[-1] == address
    finally:
        stopped = nematex(tmp_path, "stop")
    assert stopped.stdout.count("stopped") == 3
    assert "127.0.0.1" not in nematex(tmp_path, "status").stdout


@pytest.mark.long
def test_two_hundred_slow_connections_do_not_stop_a_quick_one(tmp_path: Path) -> None:
    """Each has sent half a request and keeps silent; the shop reads a request whole before a thread takes it."""
    slow = []
    try:
        address = nematex(tmp_path, "start").stdout.split()[-1]
        for _ in range(200):
            opened = socket.create_connection(("127.0.0.1", state(tmp_path)["web_port"]), 60)
            opened.sendall(b"POST /programmes HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 4000\r\n\r\nname=")
            slow.append(opened)
        for _ in range(8):  # whichever of the web processes takes it
            assert "Kelp Ladder challis" in text_of(address + "shelf?q=kelp")
    finally:
        for opened in slow:
            opened.close()
        nematex(tmp_path, "stop")


def test_who_stops_it_while_it_is_being_started_waits_and_is_told(tmp_path: Path) -> None:
    (tmp_path / ".nematex").mkdir()
    with open(tmp_path / ".nematex/start.lock", "w") as held:
        fcntl.flock(held, fcntl.LOCK_EX)
        asked = [sys.executable, "-m", "nematex.command", "stop"]
        stopping = subprocess.Popen(asked, env=environment(tmp_path), stderr=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
        assert stopping.stderr is not None
        assert "it is just being started" in stopping.stderr.readline()
        fcntl.flock(held, fcntl.LOCK_UN)
        said, more = stopping.communicate(timeout=120)
    assert (stopping.returncode, more) == (0, "")
    assert "web server: was not running" in said


def test_without_demo_the_shop_waits_for_its_owner(tmp_path: Path) -> None:
    """Nobody is let in, and only who reads what `start` prints becomes the owner."""
    try:
        started = nematex(tmp_path, "start", "--no-demo").stdout
        address = started.split()[-1]
        code = (tmp_path / ".nematex/set-up-code").read_text()
        assert f"{address}set-up?code={code}" in started
        assert "Set-up code" in text_of(address + "shelf")
        assert "Set-up code" not in text_of(f"{address}set-up?code={code}")
    finally:
        nematex(tmp_path, "stop")


def test_assess_reads_one_or_a_list_and_faults_end_with_two(tmp_path: Path) -> None:
    one = {"cloth": {"cloth": "lawn"}, "pattern": {"structure": "woven", "recommended": "lawn"}}
    assert json.loads(told(tmp_path, "assess", stdin=json.dumps(one)).stdout)["verdict"] == "suits"
    file = tmp_path / "pairs.json"
    file.write_text(json.dumps([one, one]))
    assert len(json.loads(told(tmp_path, "assess", str(file)).stdout)) == 2
    file.write_text(json.dumps([one, {**one, "look": "wild"}]))
    fault = told(tmp_path, "assess", str(file))
    assert fault.returncode == 2
    assert fault.stdout == ""
    assert "[1].look" in fault.stderr
    assert "wild" in fault.stderr
    assert nematex(tmp_path, "assess", stdin="{").returncode == 2
    assert told(tmp_path, "assess", str(tmp_path / "none.json")).returncode == 2
    assert not (tmp_path / ".nematex/state.json").exists()


@pytest.mark.parametrize("side", ["input", "output", "matrix", "envelope"])
def test_the_published_schema_is_the_models_own(side: str, tmp_path: Path) -> None:
    printed = told(tmp_path, "assess", "--schema", side).stdout
    assert json.loads((ROOT / f"docs/assess-{side}.schema.json").read_text()) == json.loads(printed)


def test_no_answer_is_longer_than_one_that_serves_it_too(tmp_path: Path) -> None:
    """What lies all one way lies well without nap, and a narrow lay on wider cloth; not the other way about."""
    asked = {"width_cm": 120, "with_nap": True, "seconds": 0}
    asked |= {"pieces": [{"id": "half", "outline_cm": [[0, 0], [30, 0], [30, 50], [0, 50]]}]}
    told(tmp_path, "lay", stdin=json.dumps(asked))
    (kept,) = (tmp_path / ".nematex/lays").iterdir()
    kept.write_text(json.dumps({**json.loads(kept.read_text()), "length_cm": 29.0}))  # as if more time had found it
    for changed, length in (({"with_nap": False}, 29.0), ({"width_cm": 150}, 29.0), ({"width_cm": 100}, 30.0)):
        answer = told(tmp_path, "lay", stdin=json.dumps(asked | changed))
        assert json.loads(answer.stdout)["length_cm"] == pytest.approx(length, abs=0.01)


def test_a_lay_from_a_file_from_input_and_again(tmp_path: Path) -> None:
    asked = {"width_cm": 100, "pieces": [{"id": "half", "outline_cm": [[0, 0], [30, 0], [30, 50], [0, 50]], "count": 2}]}
    first = told(tmp_path, "lay", stdin=json.dumps(asked))
    assert json.loads(first.stdout)["length_cm"] == pytest.approx(30, abs=0.01)
    assert len(list((tmp_path / ".nematex/lays").iterdir())) == 1
    file = tmp_path / "task.json"
    file.write_text(json.dumps(asked))
    assert told(tmp_path, "lay", str(file)).stdout == first.stdout
    wide = told(tmp_path, "lay", stdin=json.dumps(asked | {"width_cm": 45}))
    assert (wide.returncode, wide.stdout) == (2, "")
    assert "'half'" in wide.stderr
    assert "5.0 cm too wide" in wide.stderr
    for side in ("input", "output"):
        printed = told(tmp_path, "lay", "--schema", side).stdout
        assert json.loads((ROOT / f"docs/lay-{side}.schema.json").read_text()) == json.loads(printed)


def test_as_an_ordinary_user_a_missing_package_is_named(tmp_path: Path) -> None:
    """The launcher, with a PATH that holds Python alone, run without root's rights."""
    copy = tmp_path / "nematex"
    shutil.copy(ROOT / "nematex", copy)
    code = (
        "import os, runpy, shutil, sys; os.geteuid = lambda: 1000; shutil.which = lambda *a, **k: None;"
        f"sys.argv = ['nematex', 'start']; runpy.run_path({str(copy)!r}, run_name='__main__')"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    assert done.returncode == 1
    assert "mariadb-server" in done.stderr
    assert "apt-get install" in done.stderr


def test_the_lock_files_name_no_registry_and_hash_everything() -> None:
    for name in ("run", "test"):
        text = (ROOT / f"requirements/{name}.txt").read_text()
        assert "://" not in text
        pinned = [line for line in text.splitlines() if "==" in line]
        assert pinned
        assert text.count("--hash=sha256:") >= len(pinned)


def test_the_glossary_is_what_the_code_says(tmp_path: Path) -> None:
    assert told(tmp_path, "words").stdout == (ROOT / "docs/words.md").read_text()
