"""One web process. Waitress on loopback, and Hypercorn with the shop's certificate on its network.

Both read a request whole before a thread takes it, so that slow clients cost a socket and no thread.
"""

from __future__ import annotations

import asyncio
import logging
import os
import socket
import threading
import time
from collections.abc import Sequence
from contextlib import suppress
from pathlib import Path
from typing import Any

from flask import Flask
from jinja2 import FileSystemBytecodeCache
from pythonjsonlogger.json import JsonFormatter
from sqlalchemy.exc import SQLAlchemyError
from werkzeug.middleware.proxy_fix import ProxyFix

from nematex.command.fair_server import serve_fairly
from nematex.command.service.network import Network
from nematex.command.service.processes import bring_watch_back
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.whole_matrix import at_hand

THREADS = 6
IDLE_S = 60  # a connection that says nothing for so long is closed
WATCH_EVERY_S = 2.0
KEEP_UP_EVERY_S = 1.0
MOST_BYTES = 64 * 2**20


def shared_socket(address: str, port: int) -> socket.socket:
    """A socket that other web processes may open too: the system shares the connections out among them."""
    listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEPORT, 1)
    listening.bind((address, port))
    return listening


def write_logs() -> None:
    """A line for each request as JSON, where NEMATEX_LOGS=json asks for it."""
    if os.environ.get("NEMATEX_LOGS") == "json":
        handler = logging.StreamHandler()
        handler.setFormatter(JsonFormatter("%(asctime)s %(levelname)s %(name)s %(message)s"))
        logging.basicConfig(level=logging.INFO, handlers=[handler], force=True)


def configure(app: Flask, folder: Path, network: Network) -> None:
    """Tell the application what the start command found out."""
    given = os.environ.get
    templates = folder / "templates"
    templates.mkdir(exist_ok=True, mode=0o700)
    app.jinja_env.bytecode_cache = FileSystemBytecodeCache(str(templates))  # compiled once, also for the next start
    app.config["TRUSTED_HOSTS"] += network.hosts
    app.config["SHOWN_AT"] = network.shown_at
    app.config["METRICS_TOKEN"] = given("NEMATEX_METRICS_TOKEN", "")
    code, authority = folder / "set-up-code", folder / "tls" / "authority.crt"
    app.config["SET_UP_CODE"] = code.read_text().strip() if code.exists() else ""
    if network.lan:
        app.config["CERTIFICATE"] = authority.read_bytes()
    proxies = given("NEMATEX_PROXIES", "0")
    if proxies.isdecimal() and 0 < len(proxies) < 2 and int(proxies):
        app.config["PROXIES"] = number = int(proxies)
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=number, x_proto=number, x_host=number)  # type: ignore[method-assign]


def serve(app: Flask, folder: Path, doors: Sequence[socket.socket]) -> None:
    """Serve at loopback's door, and at the network's if there is one, until the process ends. It was just forked."""
    write_logs()
    shop: Shop = app.extensions["shop"]
    shop.database.forked()
    threading.Thread(target=_keep_up, args=(shop,), daemon=True).start()
    threading.Thread(target=_look_after_watch, daemon=True).start()
    if len(doors) > 1:
        threading.Thread(target=serve_network, args=(app, folder, doors[1]), daemon=True).start()
    serve_fairly(
        app,
        doors[0],
        threads=THREADS,
        channel_timeout=IDLE_S,
        asyncore_use_poll=True,
        max_request_body_size=MOST_BYTES,
        # Headers that a proxy adds are kept: without a proxy by setting they say that somebody is not of this machine.
        clear_untrusted_proxy_headers=False,
        ident=None,
    )


def _keep_up(shop: Shop) -> None:
    """Read what others have changed, and judge what is due of it, before a page asks for it."""
    while True:
        with suppress(SQLAlchemyError):  # a database that is away comes back
            at_hand(shop, shop.now())
        time.sleep(KEEP_UP_EVERY_S)


def _look_after_watch() -> None:
    while True:
        time.sleep(WATCH_EVERY_S)
        with suppress(OSError, RuntimeError):
            bring_watch_back()


class _Whole:
    """The application behind a server that has read the body, whatever its length was called."""

    def __init__(self, app: Flask) -> None:
        self.app = app

    def __call__(self, environ: dict[str, Any], start_response: Any) -> Any:
        environ["wsgi.input_terminated"] = True
        return self.app(environ, start_response)


def serve_network(app: Flask, folder: Path, listening: socket.socket) -> None:
    """HTTPS on the shop's network, in a thread of its own."""
    from hypercorn.app_wrappers import WSGIWrapper
    from hypercorn.asyncio.run import worker_serve
    from hypercorn.config import Config

    listening.setblocking(False)
    config = Config()
    config.bind = [f"fd://{listening.fileno()}"]
    config.certfile, config.keyfile = str(folder / "tls/server.crt"), str(folder / "tls/server.key")
    config.alpn_protocols = ["http/1.1"]
    config.read_timeout = config.keep_alive_timeout = IDLE_S
    config.include_server_header = False
    config.errorlog = None

    async def run() -> None:
        never = asyncio.Event()
        await worker_serve(WSGIWrapper(_Whole(app), MOST_BYTES), config, shutdown_trigger=never.wait)

    asyncio.run(run())
