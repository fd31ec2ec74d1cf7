"""`./nematex audit`: asks the public list of known faults about every package that is pinned. It needs the network."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path


def run_audit() -> int:
    """Exit 1 where a package has a known fault, or could not be looked up."""
    pinned = Path(__file__).resolve().parents[3] / "requirements" / "run.txt"
    asked = [sys.executable, "-m", "pip_audit", "--requirement", str(pinned), "--disable-pip", "--strict"]
    return subprocess.run(asked, check=False).returncode
