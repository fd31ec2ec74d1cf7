"""The strip packing library in a process of its own: it may panic, overrun its time, and is ended without harm.

Reads one JSON task from standard input; writes a line for each better lay, and an empty one now and then, so that whoever
listens can stop. Run as `python -m nematex.usecases.lay.packer`.
"""

from __future__ import annotations

import json
import math
import os
import sys
import threading
from typing import Any

import spyrrow

from nematex.parent import end_with

TICK_S = 0.25
FEASIBLE = (spyrrow.ReportType.ExplFeas, spyrrow.ReportType.CmprFeas)


def _line(solution: Any) -> str:
    placed = [(each.id, each.rotation, *each.translation) for each in solution.placed_items]
    return json.dumps({"length": solution.width, "placed": placed})


def main() -> None:
    """Pack, and tell of each better lay."""
    end_with(os.getppid())
    os.nice(5)
    asked = json.load(sys.stdin)
    items = [
        spyrrow.Item(each["id"], [tuple(point) for point in each["shape"]], each["demand"], each["turns"])
        for each in asked["items"]
    ]
    instance = spyrrow.StripPackingInstance("lay", asked["height"], items)
    explore = max(1, round(asked["seconds"] * 0.75))
    config = spyrrow.StripPackingConfig(
        early_termination=False,
        total_computation_time=None,
        exploration_time=explore,
        compression_time=max(1, math.floor(asked["seconds"] - explore)),
        num_workers=asked["workers"],
        seed=asked["seed"],
    )
    heard = spyrrow.ProgressQueue()
    done: list[Any] = []
    worker = threading.Thread(target=lambda: done.append(instance.solve(config, progress=heard)), daemon=True)
    worker.start()
    while worker.is_alive():
        worker.join(TICK_S)
        better = [solution for kind, solution in heard.drain() if kind in FEASIBLE]
        print(_line(better[-1]) if better else "", flush=True)
    if done:
        print(_line(done[0]), flush=True)


if __name__ == "__main__":
    main()
