"""What is counted and written down of each request: Prometheus metrics, and one line of the log where that is wanted.

Addresses are named by their rule, so that no secret in a link is ever written down.
"""

from __future__ import annotations

import logging
import secrets
import time

from flask import Flask, Response, g, request
from prometheus_client import CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector
from prometheus_client.values import ValueClass

from nematex.web.guard.who import who_asked

log = logging.getLogger("nematex.requests")
BUCKETS = (0.01, 0.025, 0.05, 0.1, 0.2, 0.4, 0.8, 1.6, 5.0)
REQUESTS = Counter("nematex_requests", "Requests answered", ("room", "method", "status"))
SECONDS = Histogram("nematex_request_seconds", "Time to answer, in s", ("room",), buckets=BUCKETS)


def request_number() -> str:
    """This request's number, which a user can quote."""
    if "number" not in g:
        g.number = secrets.token_hex(4)
    number: str = g.number
    return number


def place() -> str:
    """The address as the program knows it, without what stands in it."""
    return request.url_rule.rule if request.url_rule else "no such address"


def watch(app: Flask) -> None:
    app.before_request(_begin)
    app.after_request(_count)


def _begin() -> None:
    g.begun = time.monotonic()


def _count(response: Response) -> Response:
    spent = time.monotonic() - g.get("begun", time.monotonic())
    room = request.blueprint or request.endpoint or "none"
    REQUESTS.labels(room, request.method, str(response.status_code)).inc()
    SECONDS.labels(room).observe(spent)
    response.headers["X-Request-Id"] = request_number()
    told = {"request": request_number(), "method": request.method, "place": place(), "status": response.status_code}
    log.info("request", extra={**told, "ms": round(spent * 1000), "person": who_asked()})
    return response


def metrics_text() -> bytes:
    """All metrics, of every web process where several write into one folder."""
    if ValueClass.__name__ != "MmapedValue":
        return generate_latest()
    registry = CollectorRegistry()
    MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    return generate_latest(registry)
