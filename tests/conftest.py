"""A MariaDB of the tests' own, the demo shop on a real server, and headless Chromium."""

from __future__ import annotations

import re
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest
import waitress.server
from flask import Flask
from hypothesis import settings
from playwright.sync_api import Browser, Page, expect
from sqlalchemy import MetaData, text
from waitress import wasyncore

from nematex.command.browser import chromium
from nematex.command.mariadb import LocalMariaDB
from nematex.demo.load import load_demo
from nematex.store.database import Database
from nematex.store.models import Base
from nematex.store.settings import DEMO, put
from nematex.store.trail.who import UNTOLD, acting
from nematex.usecases.held.shop import Shop
from nematex.usecases.tasks.runners import at_once
from nematex.web.app import create_app

# How long a page may take before a test gives up: only a failure waits so long, and other people's machines are slow.
PATIENCE_MS = 120_000
expect.set_options(timeout=PATIENCE_MS)
# Nor is a slow machine a failure of a property. `--long` tries ten times as many examples where a test names no number.
settings.register_profile("patient", deadline=None, max_examples=50)
settings.register_profile("long", deadline=None, max_examples=1000)
settings.load_profile("patient")


def pytest_configure(config: pytest.Config) -> None:
    config.addinivalue_line("markers", "long: runs with --long alone")
    if config.getoption("--long"):
        settings.load_profile("long")


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """What is marked as long is left out, unless everything is asked for."""
    left_out = [each for each in items if each.get_closest_marker("long") and not config.getoption("--long")]
    if left_out:
        config.hook.pytest_deselected(items=left_out)
        items[:] = [each for each in items if each not in left_out]


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--long", action="store_true", help="everything: many examples, every edition, soak")
    parser.addoption("--requests", type=int, default=400, help="how many odd requests the attack sends")
    parser.addoption("--seed", type=int, default=1, help="where the attack's chance begins")


def pytest_make_parametrize_id(val: object) -> str | None:
    """Names of plain letters for tests of odd texts: a tool that runs one by its name must be able to write it."""
    return re.sub(r"[^A-Za-z0-9.,%-]+", "_", val)[:40] or "empty" if isinstance(val, str) else None


@pytest.fixture(scope="session")
def mariadb(tmp_path_factory: pytest.TempPathFactory) -> Iterator[LocalMariaDB]:
    server = LocalMariaDB(tmp_path_factory.mktemp("mariadb"))
    server.start()
    yield server
    server.stop()


ROOT = Path(__file__).resolve().parent.parent
PUBLISHED = ROOT / "tests/published"  # tables from outside, each with its source


migrated: set[str] = set()  # the databases whose tables are as the product makes them


def empty(database: Database) -> None:
    """Drop every table: the next migration starts from nothing."""
    migrated.discard(database.url)
    found = MetaData()
    found.reflect(database.engine)
    found.drop_all(database.engine)


def _clear(database: Database) -> None:
    """Take every row out, which is quicker than making the tables anew."""
    names = [table.name for table in Base.metadata.sorted_tables]
    asked = " union all ".join(f"select '{name}' from dual where exists(select 1 from {name})" for name in names)
    with database.engine.begin() as connection:
        connection.execute(text("set foreign_key_checks = 0"))
        for name in connection.execute(text(asked)).scalars().all():
            connection.execute(text(f"truncate table {name}"))
        connection.execute(text("set foreign_key_checks = 1"))


@pytest.fixture
def database(mariadb: LocalMariaDB) -> Iterator[Database]:
    """A migrated, empty database. A test that changes its tables empties it."""
    found = Database(mariadb.url)
    if found.url in migrated:
        _clear(found)
    else:
        empty(found)
        found.migrate()
        migrated.add(found.url)
    yield found
    found.close()


@pytest.fixture
def bare(mariadb: LocalMariaDB) -> Iterator[Database]:
    """A database without a table."""
    made = Database(mariadb.url)
    empty(made)
    yield made
    made.close()


@pytest.fixture(scope="session")
def demo_inserts() -> list[str]:
    """The rows of the demo shop as statements: loaded by the product once, then sent to each test's database."""
    return []


def _inserts(database: Database) -> list[str]:
    """A statement for each table with rows, its values written out."""
    found = []
    with database.engine.connect() as connection, connection.connection.cursor() as cursor:
        for table in Base.metadata.sorted_tables:
            cursor.execute(f"select * from {table.name}")
            if rows := cursor.fetchall():
                columns = ", ".join(f"`{column[0]}`" for column in cursor.description)
                line = "(" + ", ".join(["%s"] * len(cursor.description)) + ")"
                values = ", ".join(cursor.mogrify(line, row) for row in rows)
                found.append(f"insert into {table.name} ({columns}) values {values}")
    return found


@pytest.fixture
def demo(database: Database, demo_inserts: list[str]) -> Shop:
    if demo_inserts:
        with acting(UNTOLD), database.engine.begin() as connection, connection.connection.cursor() as cursor:
            connection.execute(text("delete from trail"))  # by the way tells the server that nobody acts
            for statement in demo_inserts:
                cursor.execute(statement)
    else:
        load_demo(database)
        demo_inserts[:] = _inserts(database)
    shop = Shop(database)
    shop.enqueue = at_once(shop)
    return shop


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with chromium() as found:
        yield found


class Site:
    """The shop served on loopback, and what the browser complained about."""

    def __init__(self, base: str, shop: Shop) -> None:
        self.base = base
        self.shop = shop
        self.complaints: list[str] = []
        self.strangers: list[str] = []

    def cloth(self, code: str) -> int:
        return next(record.id for record in self.shop.now().shelf.records if record.code == code)

    def pattern(self, code: str) -> int:
        return next(record.id for record in self.shop.now().drawer.records if record.code == code)


def tried_app(database: Database, role: str = "owner", limited: bool = False) -> Flask:
    """The application on a shop that its own machine may try as this role, as the made-up one is."""
    with database.work() as work:
        put(work, DEMO, "1")
    app = create_app(database, "test")
    app.config["DEMO_ROLE"] = role
    for limiter in app.extensions["limiter"]:
        limiter.enabled = limited
    return app


def served(database: Database, role: str = "owner", more: dict[str, object] | None = None) -> Iterator[str]:
    """The shop on a port of loopback until the iterator is asked again."""
    sockets: dict[int, object] = {}
    app = tried_app(database, role)
    app.config.update(more or {})
    server = waitress.server.create_server(app, map=sockets, host="127.0.0.1", port=0, threads=4)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.effective_port}"
    # Closed from within its own loop, which ends when no socket is left: closing it from here would race with select.
    server.trigger.pull_trigger(lambda: wasyncore.close_all(sockets, ignore_all=True))
    thread.join(120)
    assert not thread.is_alive()
    server.task_dispatcher.shutdown()


@pytest.fixture
def site(demo: Shop) -> Iterator[Site]:
    """The demo shop on a server of its own."""
    serving = served(demo.database)
    yield Site(next(serving), demo)
    next(serving, None)


@pytest.fixture
def empty_site(database: Database) -> Iterator[Site]:
    """An empty shop on a server of its own."""
    serving = served(database)
    yield Site(next(serving), Shop(database))
    next(serving, None)


def open_page(browser: Browser, site: Site, width: int = 1280) -> Page:
    """A page that notes every error in its console and every request that would leave the machine."""
    context = browser.new_context(viewport={"width": width, "height": 800}, accept_downloads=True, base_url=site.base)
    context.set_default_timeout(PATIENCE_MS)
    page = context.new_page()
    page.on("console", lambda message: site.complaints.append(message.text) if message.type in ("error", "warning") else None)
    page.on("pageerror", lambda fault: site.complaints.append(str(fault)))

    def watch(url: str) -> None:
        if not url.startswith((site.base, "data:", "blob:")):
            site.strangers.append(url)

    page.on("request", lambda request: watch(request.url))
    page.on("websocket", lambda socket: watch(socket.url))
    return page


@pytest.fixture
def page(browser: Browser, site: Site) -> Iterator[Page]:
    """A page on the demo shop; at its end nothing was logged as an error and nothing left 127.0.0.1."""
    found = open_page(browser, site)
    yield found
    found.context.close()
    assert site.complaints == []
    assert site.strangers == []


@pytest.fixture(scope="session")
def axe() -> str:
    return (Path(__file__).parent / "vendor/axe.min.js").read_text(encoding="utf-8")
