"""`./nematex test`: linter, formatter, types, import contract, then every test."""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

import nematex

STEPS = (
    ("format", ("ruff", "format", "--check", "--quiet", ".")),
    ("lint", ("ruff", "check", "--quiet", ".")),
    ("types", ("mypy", "--no-error-summary")),
    ("imports", ("lint-imports", "--no-cache")),
)


def run_checks(more: list[str], long: bool = False, durations: bool = False) -> int:
    """Run every step, whatever failed before; the last line is pytest's. With `more` only those tests, one after the other."""
    root = Path(nematex.__file__).parents[2]  # of the program, wherever the shop lies
    tools = Path(sys.executable).parent
    failed = []
    for name, (tool, *arguments) in () if more else STEPS:
        done = subprocess.run([str(tools / tool), *arguments], cwd=root, check=False, capture_output=True, text=True)
        print(f"{name}: {'ok' if done.returncode == 0 else 'FAILED'}", flush=True)
        if done.returncode:
            failed.append(name)
            print(done.stdout, done.stderr, flush=True)
    if failed:
        print(f"failed before the tests: {', '.join(failed)}", flush=True)
    # Each worker has a MariaDB and a Chromium of its own and often waits for them, so there is one more than cores.
    spread = () if more else ("-n", str(min(4, 1 + (os.cpu_count() or 1))), "--dist", "worksteal", "--durations=20")
    asked = (*(("--long",) if long else ()), *(("--rooms", "--durations=40") if durations else ()))
    tests = subprocess.run([sys.executable, "-m", "pytest", *spread, *asked, *more], cwd=root, check=False)
    return tests.returncode or (1 if failed else 0)
