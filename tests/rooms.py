"""How much each room of tests takes: the processor of the process that ran them, and the time that went by.

Programs that a test starts (Chromium, MariaDB, the shop) are not in the processor's seconds.
"""

from __future__ import annotations

import time
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path

import pytest

CPU, WALL = "cpu_s", "wall_s"


def room_of(nodeid: str) -> str:
    """tests/core/air/test_camera.py::test_it → core/air."""
    return "/".join(Path(nodeid.split("::", maxsplit=1)[0]).parts[1:-1]) or "."


class Rooms:
    """Measures every test, setting up and clearing away with it; the sums are printed at the end."""

    def __init__(self) -> None:
        self.begun: dict[str, tuple[float, float]] = {}

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_protocol(self, item: pytest.Item) -> Iterator[None]:
        self.begun[item.nodeid] = (time.process_time(), time.monotonic())
        return (yield)

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_makereport(self, item: pytest.Item, call: pytest.CallInfo[None]) -> Iterator[None]:
        if call.when == "teardown":
            cpu_s, wall_s = self.begun.pop(item.nodeid)
            item.user_properties += [(CPU, time.process_time() - cpu_s), (WALL, time.monotonic() - wall_s)]
        return (yield)

    def pytest_terminal_summary(self, terminalreporter: pytest.TerminalReporter) -> None:
        sums: dict[str, list[float]] = defaultdict(lambda: [0.0, 0.0, 0.0])
        for reports in terminalreporter.stats.values():
            for report in reports:
                told = dict(getattr(report, "user_properties", ()))
                if getattr(report, "when", "") == "teardown" and CPU in told:
                    kept = sums[room_of(report.nodeid)]
                    for place, more in enumerate((told[CPU], told[WALL], 1)):
                        kept[place] += more
        terminalreporter.section("rooms: seconds of processor, seconds, tests")
        for room, (cpu_s, wall_s, count) in sorted(sums.items(), key=lambda each: -each[1][0]):
            terminalreporter.line(f"{room:20} {cpu_s:8.1f} {wall_s:8.1f} {count:6.0f}")
