"""Started by root, everything of a shop runs as an account of its own: here nobody's, which every Debian has."""

from __future__ import annotations

import hashlib
import os
import pwd
import shutil
import site
import subprocess
import sys
import tempfile
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
DEBIANS = Path("/usr/bin/python3")
NOBODY = pwd.getpwnam("nobody")
AS_NOBODY = {"user": NOBODY.pw_uid, "group": NOBODY.pw_gid, "extra_groups": ()}


def may_reach(path: Path) -> bool:
    """Whether nobody may read it: the outside check of what the start command finds out."""
    asked = ["/usr/bin/test", "-r", str(path)]
    return subprocess.run(asked, check=False, **AS_NOBODY).returncode == 0


def same_python() -> bool:
    asked = [str(DEBIANS), "-c", "import sys; print(*sys.version_info[:2])"]
    said = subprocess.run(asked, check=False, capture_output=True, text=True).stdout.split()
    return said == [str(number) for number in sys.version_info[:2]]


pytestmark = [
    pytest.mark.breaking,
    pytest.mark.skipif(os.geteuid() != 0, reason="only root can become another account"),
    pytest.mark.skipif(
        not DEBIANS.exists() or not same_python() or not may_reach(ROOT / "src/nematex/__init__.py"),
        reason="nobody may not read this checkout, or Debian's Python is of another version",
    ),
]


@pytest.fixture
def program() -> Iterator[Path]:
    """The program in a place that everybody may read, with Debian's Python and the packages of this one."""
    root = Path(tempfile.mkdtemp(prefix="nematex-own-", dir="/tmp"))
    root.chmod(0o755)
    shutil.copy(ROOT / "nematex", root)
    for name in ("src", "requirements"):
        (root / name).symlink_to(ROOT / name)
    python = root / ".venv/bin/python"
    python.parent.mkdir(parents=True)
    packages = ":".join(site.getsitepackages())
    python.write_text(f'#!/bin/sh\nPYTHONPATH="$PYTHONPATH:{packages}" exec {DEBIANS} "$@"\n')
    python.chmod(0o755)
    wanted = hashlib.sha256((root / "requirements/test.txt").read_bytes()).hexdigest()
    (root / ".venv/nematex.stamp").write_text(wanted)
    asks = "import flask, numpy, sqlalchemy, nematex.command"
    asked = [str(python), "-c", asks], {**os.environ, "PYTHONPATH": str(root / "src")}
    tried = subprocess.run(asked[0], env=asked[1], check=False, capture_output=True, text=True, cwd="/", **AS_NOBODY)
    if tried.returncode:  # the packages of this Python are in a place that only some may read
        pytest.skip(f"nobody cannot run the program here: {tried.stderr[-300:]}")
    yield root
    nematex(root, "stop")
    shutil.rmtree(root)


def nematex(root: Path, *asked: str, user: str = "nobody") -> subprocess.CompletedProcess[str]:
    left_out = ("DATABASE_URL", "NEMATEX_HOME", "TMPDIR", "PYTHONPATH")
    environment = {name: value for name, value in os.environ.items() if name not in left_out} | {"NEMATEX_USER": user}
    return subprocess.run([str(root / "nematex"), *asked], env=environment, capture_output=True, text=True, check=False)


def accounts(root: Path) -> dict[str, set[int]]:
    """Of each kind of process that works for the shop in this folder, whose it is."""
    found: dict[str, set[int]] = {}
    for each in Path("/proc").glob("[0-9]*"):
        try:
            name, line = (each / "comm").read_text().strip(), (each / "cmdline").read_text()
            ours = f"NEMATEX_HOME={root}".encode() in (each / "environ").read_bytes().split(b"\0")
            if ours and (name.startswith("nematex-") or str(root) in line):
                found.setdefault(name, set()).add(each.stat().st_uid)
        except OSError:
            continue
    return found


def test_all_that_root_starts_runs_as_an_account_of_its_own(program: Path) -> None:
    started = nematex(program, "start", "--no-demo")
    assert started.returncode == 0, started.stderr
    assert "as root" not in started.stderr
    found = accounts(program)
    assert {"nematex-watch", "nematex-web", "nematex-worker", "mariadbd"} <= set(found)
    assert set().union(*found.values()) == {NOBODY.pw_uid}
    address = started.stdout.split()[-1]
    with urllib.request.urlopen(address, timeout=60) as answer:
        assert answer.status == 200
    folder = program / ".nematex"
    assert (folder.stat().st_uid, folder.stat().st_mode & 0o777) == (NOBODY.pw_uid, 0o700)
    assert "worker: running" in nematex(program, "status").stdout
    made = nematex(program, "backup")
    assert made.returncode == 0, made.stderr
    assert nematex(program, "stop").returncode == 0
    assert accounts(program) == {}
    assert {each.lstat().st_uid for each in folder.rglob("*")} == {NOBODY.pw_uid}


@pytest.mark.long
def test_where_that_account_may_not_go_it_runs_as_root_and_says_why(program: Path) -> None:
    program.chmod(0o700)
    started = nematex(program, "start", "--no-demo")
    assert started.returncode == 0, started.stderr
    assert f"this runs as root: the account nobody cannot run {program}" in started.stderr
    assert accounts(program)["nematex-web"] == {0}
    program.chmod(0o755)
    again = nematex(program, "start", "--no-demo")
    assert "this runs as root: it is running so" in again.stderr
    assert nematex(program, "stop").returncode == 0
    assert nematex(program, "start", "--no-demo").stderr.count("as root") == 0
    assert accounts(program)["nematex-web"] == {NOBODY.pw_uid}


def test_who_means_root_is_not_asked(program: Path) -> None:
    started = nematex(program, "start", "--no-demo", user="root")
    assert (started.returncode, "root" in started.stderr) == (0, False)
    assert accounts(program)["nematex-web"] == {0}


@pytest.mark.long
def test_an_account_that_alone_may_read_the_program_runs_it(program: Path) -> None:
    """As where somebody keeps the program at home: what others may not reach, its owner may."""
    daemon = pwd.getpwnam("daemon")
    os.chown(program, daemon.pw_uid, daemon.pw_gid)
    program.chmod(0o700)
    started = nematex(program, "start", "--no-demo", user="daemon")
    assert (started.returncode, "as root" in started.stderr) == (0, False), started.stderr
    assert accounts(program)["nematex-web"] == {daemon.pw_uid}
