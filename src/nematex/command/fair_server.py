"""The web server on loopback, which somebody who only holds connections open cannot close to others.

Of as many connections as it takes, the last tenth is never left to who came first: before it would be used, the address with
the most connections that ask for nothing loses its oldest ones.
"""

from __future__ import annotations

import socket
from collections import Counter
from typing import Any

from flask import Flask
from waitress.adjustments import Adjustments
from waitress.server import TcpWSGIServer
from waitress.task import ThreadedTaskDispatcher

MOST_CONNECTIONS = 1500
KEPT_FREE = MOST_CONNECTIONS // 10
AT_ONCE = 50


class FairServer(TcpWSGIServer):  # type: ignore[misc]
    """Makes room before a connection is taken."""

    def handle_accept(self) -> None:
        if len(self._map) >= self.adj.connection_limit - KEPT_FREE:
            self._make_room()
        super().handle_accept()

    def _make_room(self) -> None:
        silent = [each for each in self.active_channels.values() if not each.requests and not each.will_close]
        if not silent:
            return
        fullest, _ = Counter(each.addr[0] for each in silent).most_common(1)[0]
        of_it = sorted((each for each in silent if each.addr[0] == fullest), key=lambda each: each.last_activity)
        for each in of_it[:AT_ONCE]:
            each.will_close = True


def serve_fairly(app: Flask, listening: socket.socket, **asked: Any) -> None:
    """Serve until the process ends; `asked` are waitress' own settings."""
    adjusted = Adjustments(sockets=[listening], connection_limit=MOST_CONNECTIONS, **asked)
    dispatcher = ThreadedTaskDispatcher()
    dispatcher.set_thread_count(adjusted.threads)
    told = (listening.family, listening.type, listening.proto, listening.getsockname())
    FairServer(app, {}, True, listening, dispatcher=dispatcher, adj=adjusted, bind_socket=False, sockinfo=told).run()
