"""`status --sizes`: what the shop's processes hold and take. Memory is PSS: what several share is counted once in the sum."""

from __future__ import annotations

import os
import re
import time
from pathlib import Path

from nematex.command.service.roles import family
from nematex.command.service.state import database_runs, read_state, shop_folder


def pss_mb(pid: int) -> float:
    """Memory of one process in MB, shared pages by their share; 0 for one that is gone."""
    try:
        found = re.search(r"^Pss:\s+(\d+) kB", Path(f"/proc/{pid}/smaps_rollup").read_text(), re.MULTILINE)
    except OSError:
        return 0.0
    return int(found[1]) / 1024 if found else 0.0


def cpu_s(pid: int) -> float:
    """Processor that a process has taken so far, in s; 0 for one that is gone."""
    try:
        fields = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()
    except OSError:
        return 0.0
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def processes() -> dict[int, str]:
    """Every process of the shop that runs here: its number and its role."""
    state = read_state()
    database = {int(state["database_pid"]): "mariadb"} if database_runs(state) else {}
    return family(shop_folder()) | database


def run_sizes(seconds: float) -> int:
    """Print a line for each process and their sums; the processor is what they take in so many seconds."""
    found = processes()
    before = {pid: cpu_s(pid) for pid in found}
    print(f"\nlooking for {seconds:g} seconds what they take …", flush=True)
    time.sleep(seconds)
    print(f"{'process':16} {'number':>8} {'MB (PSS)':>9} {'% of a core':>12}")
    memory = share = 0.0
    for pid, role in sorted(found.items()):
        held, taken = pss_mb(pid), 100 * max(0.0, cpu_s(pid) - before[pid]) / seconds
        memory, share = memory + held, share + taken
        print(f"{role:16} {pid:8} {held:9.0f} {taken:12.2f}")
    print(f"{f'all {len(found)}':16} {'':8} {memory:9.0f} {share:12.2f}")
    return 0
