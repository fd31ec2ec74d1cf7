"""What is timed is the page that was meant: one that is refused or leads elsewhere ends the benchmark."""

from __future__ import annotations

from flask import Flask
from flask.testing import FlaskClient

from nematex.store.database import Database
from nematex.store.settings import DEMO, put
from nematex.web.app import create_app

HTML, PDF, ICS = "text/html", "application/pdf", "text/calendar"


class NotThePage(RuntimeError):
    """Something else was answered than what is timed."""


def must_be(address: str, status: int, kind: str, content: bytes, meant: str, *words: str) -> None:
    """Raise NotThePage where this is not the page: its status, its kind, words that stand on it and not on others."""
    if status != 200 or kind.partition(";")[0] != meant:
        raise NotThePage(f"{address}: answered {status} {kind}, not 200 {meant}")
    if lacking := [word for word in words if word.encode() not in content]:
        raise NotThePage(f"{address}: does not say {lacking[0]!r}")


def tried_by_owner(database: Database) -> Flask:
    """The application on a shop that its own machine may try as its owner, as the made-up one is."""
    with database.work() as work:
        put(work, DEMO, "1")
    app = create_app(database, "bench")
    app.config["DEMO_ROLE"] = "owner"
    return app


def asked(client: FlaskClient, address: str, meant: str, *words: str) -> bytes:
    """What stands at an address; raises NotThePage."""
    reply = client.get(address)
    content = reply.get_data()
    must_be(address, reply.status_code, str(reply.content_type), content, meant, *words)
    return content
