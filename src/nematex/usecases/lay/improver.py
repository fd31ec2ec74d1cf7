"""The improver: the strip packing library, asked through a process of its own and held to its time."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import time
from collections import deque
from collections.abc import Iterator
from threading import Thread
from typing import Any

import numpy as np

from nematex.core.amount.lay.items import Item, Pose, turned
from nematex.core.amount.lay.placed import Placement
from nematex.core.amount.lay.solve import Task

TICK_S = 0.2
ROOM_CM = 0.05  # the library needs a hair of room where a piece is as wide as the cloth; pushing together takes it back


def can_improve(asked: Task) -> bool:
    """Whether the library knows such a task: neither a fold edge nor a print's repeat means anything to it."""
    if any(item.on_fold or item.matched for item in asked.items):
        return False
    widest = max(min(pose.across_cm for pose in item.poses) for item in asked.items)
    return asked.is_small or widest < asked.strip.height_cm - ROOM_CM


def _groups(asked: Task) -> dict[str, list[Item]]:
    found: dict[str, list[Item]] = {}
    for item in asked.items:
        found.setdefault(f"{item.shape}:{int(item.poses[0].mirrored)}", []).append(item)
    return found


def _written(name: str, items: list[Item]) -> dict[str, Any]:
    """A group as the library reads it: the first pose's outline, and the turns that are allowed from there."""
    base = items[0].poses[0]
    turns = None if items[0].free else sorted({(pose.turn_deg - base.turn_deg) % 360 for pose in items[0].poses})
    corners = turned(base.corners, 0, False)
    return {"id": name, "shape": corners.tolist(), "demand": len(items), "turns": turns}


def improved(asked: Task, seconds: float, workers: int | None = None) -> Iterator[list[Placement]]:
    """Better and better lays, as they are found; none where the library fails. Ends when it is no longer listened to."""
    groups = _groups(asked)
    text = json.dumps(
        {
            "height": asked.strip.height_cm + (ROOM_CM if asked.is_small else 0.0),
            "seconds": max(2.0, seconds),
            "seed": asked.seed % 2**32,
            "workers": workers,
            "items": [_written(name, items) for name, items in groups.items()],
        }
    )
    process = subprocess.Popen(
        [sys.executable, "-m", "nematex.usecases.lay.packer"],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
        env={**os.environ, "PYTHONPATH": os.pathsep.join(sys.path)},
    )
    end = time.monotonic() + max(2.0, seconds)
    newest: deque[str] = deque(maxlen=1)  # who listens is slower than who tells: only the newest counts
    listener = Thread(target=_listen, args=(process, text, newest), daemon=True)
    listener.start()
    try:
        while listener.is_alive() and time.monotonic() < end:
            listener.join(TICK_S)
            yield _read(newest.pop(), groups) if newest else []
        if newest:
            yield _read(newest.pop(), groups)
    finally:
        process.kill()
        listener.join()
        with process:
            pass  # waits, and closes its pipes


def _listen(process: subprocess.Popen[str], text: str, newest: deque[str]) -> None:
    """Hand the task over and keep the newest line that tells of a lay."""
    assert process.stdin
    assert process.stdout
    try:
        process.stdin.write(text)
        process.stdin.close()
    except OSError:
        return  # it has gone already
    for line in process.stdout:
        if line.strip():
            newest.append(line)


def _read(line: str, groups: dict[str, list[Item]]) -> list[Placement]:
    found = json.loads(line)
    left = {name: list(items) for name, items in groups.items()}
    placements = []
    for name, turn, x, y in found["placed"]:
        item = left[name].pop(0)
        placements.append(_placement(item, float(turn) % 360, x, y))
    return placements if not any(left.values()) else []


def _placement(item: Item, turn: float, x: float, y: float) -> Placement:
    base = item.poses[0]
    asked = (base.turn_deg + turn) % 360
    for pose in item.poses:
        if abs((pose.turn_deg - asked + 180) % 360 - 180) < 1e-3:
            return Placement(item, pose, x, y)
    mirrored = base.mirrored
    flat = turned(base.corners, -base.turn_deg % 360, False)
    return Placement(item, Pose(asked, mirrored, np.asarray(turned(flat, asked, False))), x, y)
