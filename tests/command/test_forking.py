"""What is forked lives on its own: whatever its parent had switched off for itself."""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
FORKS = """
import gc, os, sys
from pathlib import Path
from nematex.command.service.forking import fork
gc.disable()
kept = Path(sys.argv[1])
pid = fork("test", lambda: kept.write_text(f"{gc.isenabled()} {Path('/proc/self/comm').read_text()}"))
raise SystemExit(os.waitstatus_to_exitcode(os.waitpid(pid, 0)[1]))
"""


def test_a_child_lets_go_of_what_refers_to_itself_though_its_parent_reads_without(tmp_path: Path) -> None:
    environment = {**os.environ, "NEMATEX_HOME": str(tmp_path), "PYTHONPATH": str(ROOT / "src")}
    told = tmp_path / "told"
    subprocess.run([sys.executable, "-c", FORKS, str(told)], env=environment, check=True)
    assert told.read_text().split() == ["True", "nematex-test"]
