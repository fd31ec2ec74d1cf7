"""Where the stock is counted: a protocol, and a feed that is fetched over HTTP as JSON.

{"at": "2026-11-26T19:00:00", "levels": [{"code": "GM-101", "metres": 9.8}, …]}; what stands in it is believed elsewhere.
"""

from __future__ import annotations

import http.client
import json
import socket
import threading
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from typing import Protocol
from urllib.parse import urlsplit

MOST_BYTES = 20 * 2**20
MOST_DIGITS = 12  # of the length that it says it sends


class FeedDown(RuntimeError):
    """The feed gave no answer that can be read; the message says what happened."""


@dataclass(frozen=True)
class Answer:
    """When the feed's figures were taken (None: it does not say), and its rows as they came."""

    at: datetime | None
    rows: Sequence[object]


class StockFeed(Protocol):
    def levels(self) -> Answer:
        """What it counts now; raises FeedDown."""
        ...


class HttpStockFeed:
    """A feed at an address; it is given so many seconds."""

    def __init__(self, url: str, wait_s: float) -> None:
        self.url, self.wait_s = url, wait_s

    def levels(self) -> Answer:
        over = threading.Event()
        try:
            status, told, content = self._fetched(over)
        except (http.client.HTTPException, OSError, ValueError) as fault:
            late = over.is_set() or isinstance(fault, TimeoutError)
            raise FeedDown(f"did not answer within {self.wait_s:g} seconds" if late else "cannot be reached") from None
        if over.is_set():
            raise FeedDown(f"did not answer within {self.wait_s:g} seconds")
        if 300 <= status < 400:
            raise FeedDown("says that it has moved; choose its new address")
        if status >= 300:
            raise FeedDown(f"answered with an error, {status}")
        if told.isdecimal() and len(told) < MOST_DIGITS and len(content) < min(int(told), MOST_BYTES):
            raise FeedDown("broke off in the middle of its answer")
        return read_answer(content)

    def _fetched(self, over: threading.Event) -> tuple[int, str, bytes]:
        """Status, the length that it says, and what it sends, all of it within the time: one that drips is cut off."""
        parts = urlsplit(self.url)
        kind = http.client.HTTPSConnection if parts.scheme == "https" else http.client.HTTPConnection
        asked = kind(parts.hostname or "", parts.port, timeout=self.wait_s)

        lines: list[socket.socket] = []  # the answer outlives its connection, which forgets the line

        def cut() -> None:
            over.set()
            for line in lines:
                with suppress(OSError):
                    line.shutdown(socket.SHUT_RDWR)

        timer = threading.Timer(self.wait_s, cut)
        timer.start()
        try:
            asked.connect()
            lines.append(asked.sock)
            path = f"{parts.path or '/'}{'?' if parts.query else ''}{parts.query}"
            asked.request("GET", path, headers={"Accept": "application/json"})
            reply = asked.getresponse()
            return reply.status, reply.headers.get("Content-Length", ""), reply.read(MOST_BYTES + 1)
        except http.client.IncompleteRead as cut_short:
            return reply.status, reply.headers.get("Content-Length", ""), cut_short.partial
        finally:
            timer.cancel()
            asked.close()


def read_answer(content: bytes) -> Answer:
    """An answer of the feed; raises FeedDown for what is none."""
    if len(content) > MOST_BYTES:
        raise FeedDown(f"sent more than {MOST_BYTES // 2**20} MB")
    try:
        found = json.loads(content)
    except (ValueError, RecursionError):
        raise FeedDown("sent something that is no JSON") from None
    rows = found.get("levels") if isinstance(found, dict) else None
    if not isinstance(rows, list):
        raise FeedDown("sent no levels")
    return Answer(_local(found.get("at")), rows)


def _local(text: object) -> datetime | None:
    """A time of the feed in this machine's own time; one that names no zone is taken as such. None where it is no time."""
    try:
        at = datetime.fromisoformat(str(text))
        return at.astimezone().replace(tzinfo=None) if at.tzinfo else at
    except (ValueError, OverflowError, OSError):
        return None
