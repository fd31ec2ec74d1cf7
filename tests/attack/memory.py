"""What a process holds while it is asked again and again: it may warm up, and must not grow afterwards."""

from __future__ import annotations

import gc
import statistics
from pathlib import Path

LOOKS = 40
LEAST = 4000  # of fewer requests nothing can be told: what is remembered is still being filled
GROWTH, SLACK_MB = 1.15, 30.0


def held_mb() -> float:
    line = next(line for line in Path("/proc/self/smaps_rollup").read_text().splitlines() if line.startswith("Rss:"))
    return int(line.split()[1]) / 1024


class Watched:
    """Looks at the process so often over the whole of what is sent."""

    def __init__(self, planned: int) -> None:
        self.planned, self.sent, self.seen = planned, 0, list[float]()

    def one_more(self) -> None:
        self.sent += 1
        if self.sent % max(1, self.planned // LOOKS) == 0:
            gc.collect()
            self.seen.append(held_mb())

    def grown(self) -> str:
        """What the last quarter holds more than the second; "" where that is nothing to speak of."""
        quarter = len(self.seen) // 4
        if self.planned < LEAST or not quarter:
            return ""
        before, after = statistics.median(self.seen[quarter : 2 * quarter]), statistics.median(self.seen[-quarter:])
        print(f"memory: {before:.0f} MB in the second quarter of {self.planned}, {after:.0f} MB in the last")
        return f"{before:.0f} MB, then {after:.0f} MB" if after > before * GROWTH + SLACK_MB else ""
