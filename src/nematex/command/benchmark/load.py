"""A mixed load on a running shop, from this machine to itself: people who look, judge, pick and correct at once.

With a time to think the figures say how it feels to so many people; without, how much the shop can answer. Ends by itself.
"""

from __future__ import annotations

import random
import re
import socket
import statistics
import threading
import time
from collections import Counter
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from html.parser import HTMLParser
from http.client import HTTPConnection, HTTPException
from pathlib import Path
from urllib.parse import urlencode, urlsplit

LOOK_EVERY_S = 5.0
COUNTED = 10_000_000
SHOWN, SAID = 5, 300
FORM = {"Content-Type": "application/x-www-form-urlencoded"}
# What is done, and how often of a hundred times.
MIX = (
    ("shelf", 16), ("cloth", 18), ("pattern", 14), ("for a pattern", 12), ("for a cloth", 12), ("one pairing", 8),
    ("programme", 8), ("home", 4), ("pick", 4), ("correct a cloth", 4),
)  # fmt: skip


class _Form(HTMLParser):
    """The fields of the form that saves, as a browser would send them."""

    def __init__(self) -> None:
        super().__init__()
        self.fields: dict[str, str] = {}
        self._open = ""
        self._told_by_text = False  # a textarea, or a chosen option without a value of its own

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = dict(attrs)
        name = given.get("name") or ""
        if tag == "input" and given.get("type") not in ("submit", "checkbox", "file"):
            self.fields[name] = given.get("value") or ""
        elif tag in ("textarea", "select"):
            self._open, self._told_by_text = name, tag == "textarea"
            self.fields.setdefault(name, "")
        elif tag == "option" and self._open:
            chosen = "selected" in given
            self._told_by_text = chosen and "value" not in given
            if chosen:
                self.fields[self._open] = given.get("value") or ""

    def handle_data(self, data: str) -> None:
        if self._open and self._told_by_text:
            self.fields[self._open] += data

    def handle_endtag(self, tag: str) -> None:
        if tag in ("textarea", "select"):
            self._open = ""
        if tag in ("textarea", "option"):
            self._told_by_text = False


NOT_THE_PAGE = 598  # counted as an error


@dataclass(frozen=True)
class Known:
    """Numbers of what is in the shop."""

    cloths: list[int]
    patterns: list[int]
    programmes: list[int]


class _Client:
    """One person: a connection, its cookies, and what is known of the shop's numbers."""

    def __init__(self, port: int, seed: int, known: Known) -> None:
        self.connection = HTTPConnection("127.0.0.1", port, timeout=120)
        self.random = random.Random(seed)
        self.known = known
        self.cookie = ""
        self.token = ""
        self.refused = ""

    def ask(self, method: str, path: str, fields: dict[str, str] | None = None) -> tuple[int, str]:
        headers = {"Cookie": self.cookie} if self.cookie else {}
        body = urlencode(fields) if fields is not None else None
        self.connection.request(method, path, body, headers | (FORM if body else {}))
        reply = self.connection.getresponse()
        text = reply.read().decode(errors="replace")
        if sent := reply.getheader("Set-Cookie"):
            self.cookie = sent.split(";")[0]
        if found := re.search(r'name="csrf_token" value="([^"]+)"', text):
            self.token = found[1]
        if reply.status >= 400:
            said = " ".join(re.sub(r"<[^>]*>", " ", text.partition("<main")[2].partition(">")[2] or text).split())
            self.refused = f"{reply.status} {method} {path}: {said[:SAID]}"
        return reply.status, text

    def act(self, what: str) -> int:
        cloth, pattern = self.random.choice(self.known.cloths), self.random.choice(self.known.patterns)
        pages = {
            "shelf": f"/shelf?q={self.random.choice(('', 'lawn', 'jersey', 'linen'))}&page={self.random.randint(1, 3)}",
            "cloth": f"/shelf/{cloth}",
            "pattern": f"/patterns/{pattern}",
            "for a pattern": f"/pairing/pattern/{pattern}",
            "for a cloth": f"/pairing/cloth/{cloth}",
            "one pairing": f"/pairing/one/{pattern}/{cloth}",
            "programme": f"/programmes/{self.random.choice(self.known.programmes)}",
            "home": "/",
        }
        if what in pages:
            status = self.ask("GET", pages[what])[0]
            return status if status != 302 else NOT_THE_PAGE  # led elsewhere: to the door, say
        if what == "pick":
            given = {"csrf_token": self.token, "programme": str(self.random.choice(self.known.programmes))}
            given |= {"cloth": str(cloth), "pattern": str(pattern)}
            return self.ask("POST", "/programmes/picks", given)[0]
        return self.correct(cloth, notes=f"seen {self.random.randint(0, 10**6)}")

    def correct(self, cloth: int, **typed: str) -> int:
        """Open a cloth's form, type, save."""
        _, page = self.ask("GET", f"/shelf/{cloth}/edit")
        form = _Form()
        form.feed(page)
        return self.ask("POST", f"/shelf/{cloth}/edit", {**form.fields, "csrf_token": self.token, **typed})[0]


@dataclass(frozen=True)
class Load:
    """How many people, for how many seconds, how long each looks at a page before the next act (on average)."""

    people: int = 8
    seconds: float = 12.0
    think_s: float = 0.0
    slow: int = 0


@dataclass
class Seen:
    """What was done: (act, status, seconds, seconds after the beginning), and the web processes' memory in MB at each look."""

    acts: list[tuple[str, int, float, float]] = field(default_factory=list)
    counting_s: float = 0.0
    memory_mb: list[float] = field(default_factory=list)
    refused: list[str] = field(default_factory=list)  # what was not answered well, with what was said


def _person(port: int, seed: int, load: Load, known: Known, seen: Seen, until: float) -> None:
    """One person: looks, thinks, acts, until the time is up. Nobody begins at the same moment."""
    client = _Client(port, seed, known)
    names, weights = zip(*MIX, strict=True)
    time.sleep(client.random.uniform(0, load.think_s))
    client.ask("GET", "/programmes")
    while time.monotonic() < until:
        (what,) = client.random.choices(names, weights)
        begun = time.monotonic()
        try:
            status = client.act(what)
        except (OSError, HTTPException):
            status = 599
            client = _Client(port, seed, known)
        if client.refused:
            seen.refused.append(client.refused)
            client.refused = ""
        seen.acts.append((what, status, time.monotonic() - begun, begun - until + load.seconds))
        time.sleep(min(client.random.expovariate(1 / load.think_s), 6 * load.think_s) if load.think_s else 0)


def _slow(port: int, until: float) -> None:
    """A client that sends a request letter by letter and never ends it."""
    with suppress(OSError), socket.create_connection(("127.0.0.1", port), 30) as opened:
        opened.sendall(b"GET /shelf HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ")
        while time.monotonic() < until:
            opened.sendall(b"x")
            time.sleep(2)


def _memory_mb(pids: Sequence[int]) -> float:
    found = 0.0
    for pid in pids:
        with suppress(OSError):
            lines = Path(f"/proc/{pid}/status").read_text().splitlines()
            found += sum(int(line.split()[1]) / 1024 for line in lines if line.startswith("VmRSS"))
    return found


def _known(port: int) -> Known:
    first = _Client(port, 0, Known([1], [1], [1]))
    drawers = [first.ask("GET", f"/patterns?page={page}")[1] for page in (1, 2, 3, 9)]
    patterns = {int(number) for page in drawers for number in re.findall(r"/patterns/(\d+)", page)}
    programmes = {int(n) for n in re.findall(r"/programmes/(\d+)", first.ask("GET", "/programmes")[1])}
    pages = [first.ask("GET", f"/shelf?page={page}")[1] for page in (*range(1, 9), 50, 100, 150)]
    cloths = {int(number) for page in pages for number in re.findall(r"/shelf/(\d+)", page)}
    return Known(sorted(cloths), sorted(patterns), sorted(programmes))


def _counting_s() -> float:
    """How long this machine counts to ten million: by it the figures of two days compare."""
    begun, total = time.perf_counter(), 0
    for number in range(COUNTED):
        total += number
    return time.perf_counter() - begun


def run(address: str, load: Load, pids: Sequence[int] = ()) -> Seen:
    """Put a mixed load on the shop at this address on 127.0.0.1; it ends by itself."""
    port, seen = urlsplit(address).port or 0, Seen(counting_s=_counting_s())
    known, until = _known(port), time.monotonic() + load.seconds
    slow = [threading.Thread(target=_slow, args=(port, until), daemon=True) for _ in range(load.slow)]
    people = [threading.Thread(target=_person, args=(port, n, load, known, seen, until)) for n in range(1, load.people + 1)]
    for thread in (*slow, *people):
        thread.start()
    while time.monotonic() < until:
        seen.memory_mb.append(_memory_mb(pids))
        time.sleep(min(LOOK_EVERY_S, max(0.0, until - time.monotonic())))
    for thread in people:
        thread.join()
    return seen


def print_changes(address: str, count: int, pids: Sequence[int]) -> None:
    """Change the weight of so many cloths, one after the other, looking at a ranking and at what is lacking between them."""
    port, failed = urlsplit(address).port or 0, 0
    client = _Client(port, 1, _known(port))
    for number in range(count + 1):
        if number % max(1, count // 10) == 0:
            looks = ("/quality", "/matrix?view=left", "/programmes/1/set")
            failed += sum(client.ask("GET", path)[0] >= 400 for path in looks)
            print(f"after {number:5} changes: memory of the web processes {_memory_mb(pids):.0f} MB", flush=True)
        cloth = client.random.choice(client.known.cloths)
        failed += client.correct(cloth, weight_gsm=str(client.random.randint(60, 400))) >= 400
        failed += client.act(client.random.choice(("for a cloth", "for a pattern", "cloth", "shelf"))) >= 400
    print(f"not answered well: {failed or 'none'}")


def _line(name: str, times: Sequence[float]) -> str:
    ordered = sorted(each * 1000 for each in times)
    quantile = statistics.quantiles(ordered, n=100) if len(ordered) > 1 else ordered * 99
    return f"{name:16} {len(ordered):6}   p50 {quantile[49]:6.0f} ms   p95 {quantile[94]:6.0f} ms   p99 {quantile[98]:6.0f} ms"


def print_seen(load: Load, seen: Seen) -> None:
    """What the load came to, act by act."""
    failed = Counter(status for _, status, *_ in seen.acts if status >= 400)
    print(f"load: {load.people} people for {load.seconds:.0f} s, {load.think_s:g} s between acts, {load.slow} slow connections")
    print(f"just before, one core of this machine counted to ten million in {seen.counting_s:.2f} s")
    print(_line("all", [spent for _, _, spent, _ in seen.acts]), f"  {len(seen.acts) / load.seconds:.1f} acts a second")
    for name, _ in MIX:
        times = [spent for what, _, spent, _ in seen.acts if what == name]
        if times:
            print(_line(name, times))
    minutes = range(int(load.seconds // 60))
    for minute in minutes if len(minutes) > 1 else ():
        print(_line(f"minute {minute + 1}", [spent for _, _, spent, after in seen.acts if after // 60 == minute]))
    print(f"not answered well: {dict(failed) or 'none'}")
    for said in seen.refused[:SHOWN]:
        print(f"  {said}")
    if any(seen.memory_mb):
        quarter = max(1, len(seen.memory_mb) // 4)
        first, last = statistics.median(seen.memory_mb[:quarter]), statistics.median(seen.memory_mb[-quarter:])
        print(f"memory of the web processes: {first:.0f} MB in the first quarter, {last:.0f} MB in the last")
