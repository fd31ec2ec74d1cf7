"""`./nematex serve`: one web process. Waitress on loopback, and Hypercorn with the shop's certificate on its network.

Both read a request whole before a thread takes it, so that slow clients cost a socket and no thread.
"""

from __future__ import annotations

import asyncio
import importlib
import logging
import os
import socket
import threading
from pathlib import Path
from typing import Any

from flask import Flask
from hypercorn.app_wrappers import WSGIWrapper
from hypercorn.asyncio.run import worker_serve
from hypercorn.config import Config
from pythonjsonlogger.json import JsonFormatter
from werkzeug.middleware.proxy_fix import ProxyFix

from nematex.command.fair_server import serve_fairly
from nematex.command.worker import handing_over
from nematex.store.database import Database
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.whole_matrix import read_all, warm
from nematex.web.app import create_app

THREADS = 6
IDLE_S = 60  # a connection that says nothing for so long is closed
LATE = ("scipy.signal", "skimage.filters.thresholding", "skimage.measure")  # photos ask for them
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


def configured(folder: Path, key: str) -> Flask:
    """The application with what the start command found out, told by the environment."""
    database = Database(os.environ["DATABASE_URL"], os.environ.get("DATABASE_REPLICA_URL", ""))
    app = create_app(database, key, handing_over(folder))
    given = os.environ.get
    app.config["TRUSTED_HOSTS"] += [host for host in given("NEMATEX_HOSTS", "").split(",") if host]
    app.config["SHOWN_AT"] = given("NEMATEX_SHOWN_AT", "")
    app.config["METRICS_TOKEN"] = given("NEMATEX_METRICS_TOKEN", "")
    code, authority = folder / "set-up-code", folder / "tls" / "authority.crt"
    app.config["SET_UP_CODE"] = code.read_text().strip() if code.exists() else ""
    if given("NEMATEX_LAN"):
        app.config["CERTIFICATE"] = authority.read_bytes()
    proxies = given("NEMATEX_PROXIES", "0")
    if proxies.isdecimal() and 0 < len(proxies) < 2 and int(proxies):
        app.config["PROXIES"] = number = int(proxies)
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=number, x_proto=number, x_host=number)  # type: ignore[method-assign]
    return app


def _warm(shop: Shop) -> None:
    """What would hold up whoever asks first: the matrix, and what weighs a second to import."""
    warm(shop)
    for module in LATE:
        importlib.import_module(module)


def serve(folder: Path, key: str, port: int) -> int:
    """The web server itself, in the foreground."""
    write_logs()
    app = configured(folder, key)
    read_all(app.extensions["shop"])  # before anybody is let in: nobody waits for it page by page
    threading.Thread(target=_warm, args=(app.extensions["shop"],), daemon=True).start()
    lan = os.environ.get("NEMATEX_LAN", "")
    if lan:
        address, _, lan_port = lan.rpartition(":")
        threading.Thread(target=serve_network, args=(app, folder, address, int(lan_port)), daemon=True).start()
    serve_fairly(
        app,
        shared_socket(os.environ.get("NEMATEX_BIND", "127.0.0.1"), port),
        threads=THREADS,
        channel_timeout=IDLE_S,
        asyncore_use_poll=True,
        max_request_body_size=MOST_BYTES,
        # Headers that a proxy adds are kept: without a proxy by setting they say that somebody is not of this machine.
        clear_untrusted_proxy_headers=False,
        ident=None,
    )
    return 0


class _Whole:
    """The application behind a server that has read the body, whatever its length was called."""

    def __init__(self, app: Flask) -> None:
        self.app = app

    def __call__(self, environ: dict[str, Any], start_response: Any) -> Any:
        environ["wsgi.input_terminated"] = True
        return self.app(environ, start_response)


def serve_network(app: Flask, folder: Path, address: str, port: int) -> None:
    """HTTPS on the shop's network, in a thread of its own."""
    listening = shared_socket(address, port)
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
