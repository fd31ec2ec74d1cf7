"""What was worked out and may be asked again: a bounded store whose entries say what they rest on."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from typing import TypeVar, cast

T = TypeVar("T")
HELD = 8000  # about 4 KB each


class Memory:
    """Entries by key, each with the values it was worked out from; it counts only while those are the very same."""

    def __init__(self, held: int = HELD) -> None:
        self._held = held
        self._lock = threading.Lock()
        self._entries: OrderedDict[object, tuple[tuple[object, ...], object]] = OrderedDict()

    def get(self, key: object, rests_on: tuple[object, ...]) -> object | None:
        """What is remembered under the key, if all it rests on is still the same object (or an equal number or text)."""
        with self._lock:
            entry = self._entries.get(key)
            if entry is None:
                return None
            self._entries.move_to_end(key)
        same = len(entry[0]) == len(rests_on) and all(map(_same, entry[0], rests_on))
        return entry[1] if same else None

    def keep(self, key: object, rests_on: tuple[object, ...], found: object) -> None:
        with self._lock:
            self._entries[key] = (rests_on, found)
            self._entries.move_to_end(key)
            while len(self._entries) > self._held:
                self._entries.popitem(last=False)

    def of(self, key: object, rests_on: tuple[object, ...], work_out: Callable[[], T]) -> T:
        """The remembered answer, or the one worked out now and kept."""
        found = self.get(key, rests_on)
        if found is None:
            found = work_out()
            self.keep(key, rests_on, found)
        return cast(T, found)


def _same(one: object, other: object) -> bool:
    return one is other or (isinstance(one, int | str) and one == other)
