"""Connections that only wait shut nobody out, and a feed that drips or leads elsewhere does not hold who asks it."""

from __future__ import annotations

import http.server
import socket
import threading
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager

import pytest
from flask import Flask
from waitress import wasyncore
from waitress.adjustments import Adjustments
from waitress.task import ThreadedTaskDispatcher

from nematex.command.fair_server import KEPT_FREE, MOST_CONNECTIONS, FairServer
from nematex.devices.stock_feed import FeedDown, HttpStockFeed

pytestmark = pytest.mark.breaking

LIMIT = KEPT_FREE + 30  # the tenth that is kept free, and a few


def test_the_last_places_are_not_left_to_who_came_first() -> None:
    assert KEPT_FREE * 10 == MOST_CONNECTIONS
    app = Flask("fair")
    app.add_url_rule("/", view_func=lambda: "here")
    listening = socket.socket()
    listening.bind(("127.0.0.1", 0))
    sockets: dict[int, object] = {}
    dispatcher = ThreadedTaskDispatcher()
    dispatcher.set_thread_count(2)
    told = (listening.family, listening.type, listening.proto, listening.getsockname())
    adjusted = Adjustments(sockets=[listening], connection_limit=LIMIT)
    server = FairServer(
        app, sockets, True, listening, dispatcher=dispatcher, adj=adjusted, bind_socket=False, sockinfo=told
    )  # fmt: skip
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    silent: list[socket.socket] = []
    try:
        address = listening.getsockname()
        silent.extend(socket.create_connection(address, 60) for _ in range(2 * LIMIT))
        for _ in range(3):
            with urllib.request.urlopen(f"http://127.0.0.1:{address[1]}/", timeout=60) as reply:
                assert reply.read() == b"here"
    finally:
        for each in silent:
            each.close()
        server.trigger.pull_trigger(lambda: wasyncore.close_all(sockets, ignore_all=True))
        thread.join(60)
        dispatcher.shutdown()
    assert not thread.is_alive()


class Dripping(http.server.BaseHTTPRequestHandler):
    """Sends a blank each tenth of a second for as long as somebody reads."""

    def do_GET(self) -> None:
        if self.path == "/elsewhere":
            self.send_response(302)
            self.send_header("Location", "http://127.0.0.1:9/inside")
            self.end_headers()
            return
        self.send_response(200)
        self.end_headers()
        try:
            while True:
                self.wfile.write(b" ")
                self.wfile.flush()
                time.sleep(0.1)
        except OSError:
            return

    def log_message(self, *_: object) -> None:
        return


@contextmanager
def dripping() -> Iterator[str]:
    server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), Dripping)
    server.daemon_threads = True
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.server_address[1]}"
    server.shutdown()
    server.server_close()
    thread.join()


@pytest.mark.parametrize(("path", "said"), [("/stock", "did not answer within 0.5 seconds"), ("/elsewhere", "has moved")])
def test_a_feed_that_drips_or_leads_elsewhere_is_down(path: str, said: str) -> None:
    with dripping() as base, pytest.raises(FeedDown, match=said):
        HttpStockFeed(f"{base}{path}", 0.5).levels()
