"""What web processes and worker are forked with: the program, the shop as it was read once, and the open doors."""

from __future__ import annotations

import os
import socket
from contextlib import suppress

from flask import Flask

from nematex.command.background.poke import poking
from nematex.command.background.working import work
from nematex.command.service.database import expected_url
from nematex.command.service.forking import fork
from nematex.command.service.keys import session_key
from nematex.command.service.network import network_of
from nematex.command.service.roles import WEB, WORKER
from nematex.command.service.state import State, home
from nematex.command.serving import configure, serve, shared_socket
from nematex.store.database import Database
from nematex.usecases.judging.whole_matrix import read_all
from nematex.web.app import create_app


class House:
    """Built before the database is there, where its address is known already; furnished when it is."""

    def __init__(self, port: int) -> None:
        self.port = port
        self.lan = ""
        self.url = self.furnished = ""
        self.app: Flask | None = None
        self.doors: list[socket.socket] = []
        with suppress(RuntimeError):  # a first start has no password yet
            self._build(expected_url())

    def _build(self, url: str) -> None:
        database = Database(url, os.environ.get("DATABASE_REPLICA_URL", ""))
        self.app, self.url = create_app(database, session_key(), poking(home())), url

    def furnish(self, url: str, state: State) -> None:
        """Have the shop read; raises SQLAlchemyError where the database does not answer."""
        if self.furnished == url:
            return
        if self.url != url:
            self._build(url)
        app = self._app()
        self.lan = str(state.get("lan", ""))
        configure(app, home(), network_of(self.lan))
        shop = app.extensions["shop"]
        read_all(shop)  # before anybody is let in: nobody waits for it page by page
        shop.database.close()  # each child has connections of its own
        self.furnished = url

    def fork_web(self) -> int:
        """One web process. The doors stay open here, so that who comes while one has died waits for the next."""
        if not self.doors:
            self.doors = [shared_socket(os.environ.get("NEMATEX_BIND", "127.0.0.1"), self.port)]
            if self.lan:
                address, _, port = self.lan.rpartition(":")
                self.doors.append(shared_socket(address, int(port)))
        app = self._app()
        return fork(WEB, lambda: serve(app, home(), self.doors), home() / "web.log")

    def fork_worker(self) -> int:
        app = self._app()

        def run() -> None:
            for door in self.doors:
                door.close()
            work(app, home())

        return fork(WORKER, run, home() / "worker.log")

    def _app(self) -> Flask:
        assert self.app is not None, "furnished before anybody is forked"
        return self.app
