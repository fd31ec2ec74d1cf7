"""A simulated till that counts the stock: it sells down by popularity, restocks late, and misbehaves when told to.

It ships in the place of a shop's own till. Its truth lies in a file, so that it goes on where it was when it starts again.
"""

from __future__ import annotations

import json
import threading
import zlib
from collections.abc import Callable, Mapping
from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from pathlib import Path

import numpy as np

MODES = ("usual", "down", "slow", "stale", "nonsense")
SLOW_S = 20.0
CUT_M = (0.5, 3.5)  # what a customer buys at once
DAILY_SHARE = 0.03  # of its first stock that a cloth of middling popularity sells in a day
REORDERED_BELOW, DELIVERED_DAYS = 0.15, (12.0, 25.0)  # share of the first stock; days until it comes, often late


@dataclass
class Counted:
    """A cloth at the till: metres there, how many it began with, and when a delivery is due (a time as text)."""

    metres: float
    first: float
    due: str = ""
    restocked: bool = True


class Till:
    """The till over a file. `catalogue` gives code → (metres, whether it is ever ordered again)."""

    def __init__(self, path: Path, catalogue: Callable[[], Mapping[str, tuple[float, bool]]], seed: int = 1) -> None:
        self.path, self.catalogue = path, catalogue
        self.rng = np.random.default_rng(seed)
        self.lock = threading.Lock()
        self.mode = "usual"
        self.at = datetime.now()
        self.cloths: dict[str, Counted] = {}
        self._read()

    def _read(self) -> None:
        try:
            kept = json.loads(self.path.read_text())
            self.mode, self.at = kept["mode"], datetime.fromisoformat(kept["at"])
            self.cloths = {code: Counted(**each) for code, each in kept["cloths"].items()}
        except (OSError, ValueError, KeyError, TypeError):
            self.cloths = {}  # a new till, or a damaged file: it counts anew from the catalogue

    def _keep(self) -> None:
        kept = {
            "mode": self.mode,
            "at": self.at.isoformat(),
            "cloths": {code: asdict(each) for code, each in self.cloths.items()},
        }
        fresh = self.path.with_suffix(".new")
        fresh.write_text(json.dumps(kept))
        fresh.replace(self.path)

    def set_mode(self, mode: str) -> None:
        """How it behaves from now on; raises ValueError."""
        if mode not in MODES:
            raise ValueError(f"{mode[:40]!r} is no mode; choose from {', '.join(MODES)}")
        with self.lock:
            self.mode = mode
            self._keep()

    def sell(self, code: str, metres: float | None) -> None:
        """Sell so many metres of a cloth, or all there is; raises KeyError."""
        with self.lock:
            self._take_in()
            cloth = self.cloths[code]
            cloth.metres = round(max(0.0, cloth.metres - (cloth.metres if metres is None else metres)), 2)
            self._keep()

    def pass_days(self, days: float) -> None:
        """Let days go by: customers buy, deliveries come."""
        with self.lock:
            self._take_in()
            end = self.at + timedelta(days=days)
            for code, cloth in self.cloths.items():
                self._trade(code, cloth, days, end)
            self.at = end
            self._keep()

    def _trade(self, code: str, cloth: Counted, days: float, end: datetime) -> None:
        bought = self.rng.poisson(popularity(code) * DAILY_SHARE * cloth.first * days / np.mean(CUT_M))
        for _ in range(int(bought)):
            cloth.metres = round(max(0.0, cloth.metres - round(float(self.rng.uniform(*CUT_M)), 1)), 2)
        if cloth.due and datetime.fromisoformat(cloth.due) <= end:
            cloth.metres, cloth.due = round(cloth.metres + cloth.first, 2), ""
        elif cloth.restocked and not cloth.due and cloth.metres < REORDERED_BELOW * cloth.first:
            cloth.due = (end + timedelta(days=float(self.rng.uniform(*DELIVERED_DAYS)))).isoformat()

    def _take_in(self) -> None:
        """Cloths that are new on the shelf are counted from what stands there."""
        for code, (metres, again) in self.catalogue().items():
            self.cloths.setdefault(code, Counted(metres, max(metres, 1.0), restocked=again))

    def answer(self) -> dict[str, object]:
        """What it tells: the levels now; in the mode "stale" with an old time, in "nonsense" some that nobody can mean."""
        with self.lock:
            self._take_in()
            self._keep()
            rows: list[object] = [{"code": code, "metres": each.metres} for code, each in sorted(self.cloths.items())]
            at = datetime.now().replace(microsecond=0)
            if self.mode == "stale":
                at -= timedelta(hours=5)
            if self.mode == "nonsense":
                rows = self._nonsense(rows)
            return {"at": at.isoformat(), "levels": rows}

    def _nonsense(self, rows: list[object]) -> list[object]:
        wild: tuple[object, ...] = (-4.0, "plenty", None, 1e9, [], True)
        found: list[object] = []
        for number, row in enumerate(rows):
            bad = dict(row)  # type: ignore[call-overload]
            if number % 3 == 0:
                bad["metres"] = wild[number // 3 % len(wild)]
            found.append(bad)
        return [*found, {"code": "NO-SUCH-CLOTH", "metres": 3.0}, "???", {"metres": 2.0}]


def popularity(code: str) -> float:
    """How well a cloth sells beside the others, about 0.2 to 3: a few sell much, most little."""
    share = (zlib.crc32(code.encode()) % 1000 + 1) / 1001
    return float(0.2 + 2.8 * share**3)
