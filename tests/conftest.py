"""A MariaDB of the tests' own, the demo shop on a real server, and headless Chromium."""

from __future__ import annotations

import os
import re
import shutil
import tempfile
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest
import waitress.server
from flask import Flask
from hypothesis import settings
from jinja2 import FileSystemBytecodeCache
from playwright.sync_api import Browser, Page, expect
from rooms import Rooms
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

# The programs that tests start find their modules compiled.
os.environ.pop("PYTHONDONTWRITEBYTECODE", None)
# How long a page may take before a test gives up: only a failure waits so long, and other people's machines are slow.
PATIENCE_MS = 120_000
expect.set_options(timeout=PATIENCE_MS)
# Nor is a slow machine a failure of a property. `--long` tries ten times as many examples where a test names no number.
settings.register_profile("patient", deadline=None, max_examples=50)
settings.register_profile("long", deadline=None, max_examples=1000)
settings.load_profile("patient")


@pytest.hookimpl(tryfirst=True)
def pytest_configure(config: pytest.Config) -> None:
    _write_to_memory(config)
    config.addinivalue_line("markers", "long: runs with --long alone")
    config.addinivalue_line("markers", "breaking: what attacking and operating the shop showed, each repeated")
    if config.getoption("--rooms"):
        config.pluginmanager.register(Rooms())
    if config.getoption("--long"):
        settings.load_profile("long")


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """What is marked as long is left out, unless everything is asked for."""
    left_out = [each for each in items if each.get_closest_marker("long") and not config.getoption("--long")]
    if left_out:
        config.hook.pytest_deselected(items=left_out)
        items[:] = [each for each in items if each not in left_out]


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--rooms", action="store_true", help="say what each room of tests takes")
    parser.addoption("--long", action="store_true", help="everything: many examples, every edition, soak")
    parser.addoption("--requests", type=int, default=60, help="how many odd requests the attack sends")
    parser.addoption("--files", type=int, default=5, help="how many odd files the attack sends")
    parser.addoption("--seed", type=int, default=1, help="where the attack's chance begins")


def pytest_make_parametrize_id(val: object) -> str | None:
    """Names of plain letters for tests of odd texts: a tool that runs one by its name must be able to write it."""
    return re.sub(r"[^A-Za-z0-9.,%-]+", "_", val)[:40] or "empty" if isinstance(val, str) else None


# Whatever tests write is gone with them: it is written to memory, where the system has room there and lets programs run.
IN_MEMORY, LEAST_FREE = Path("/dev/shm"), 6 * 2**30
WORKER = "PYTEST_XDIST_WORKER"


def _fits_in_memory() -> bool:
    if not os.access(IN_MEMORY, os.W_OK) or os.statvfs(IN_MEMORY).f_flag & os.ST_NOEXEC:
        return False
    return shutil.disk_usage(IN_MEMORY).free > LEAST_FREE


def _write_to_memory(config: pytest.Config) -> None:
    """For this process and all that it starts; what is left of it goes at the end. Paths are short: sockets lie there."""
    if WORKER in os.environ or "TMPDIR" in os.environ or not _fits_in_memory():
        return
    folder = Path(tempfile.mkdtemp(prefix="n", dir=IN_MEMORY))
    os.environ["TMPDIR"], tempfile.tempdir = str(folder), str(folder)
    config.option.basetemp = config.option.basetemp or str(folder / "t")
    config.add_cleanup(lambda: shutil.rmtree(folder, ignore_errors=True))


# Of the tests' own server nothing has to outlive a power cut, so that nothing waits for a disk.
UNSAFE = ("--innodb-flush-log-at-trx-commit=0", "--skip-innodb-doublewrite", "--innodb-log-file-size=16M")


@pytest.fixture(autouse=True)
def own_mask() -> Iterator[None]:
    """A command that runs in this process makes its files its owner's alone; the next test's are not."""
    mask = os.umask(0o022)
    yield
    os.umask(mask)


@pytest.fixture(scope="session")
def mariadb(tmp_path_factory: pytest.TempPathFactory) -> Iterator[LocalMariaDB]:
    server = LocalMariaDB(tmp_path_factory.mktemp("mariadb"), more=UNSAFE)
    server.start()
    yield server
    server.stop()


# Of accessibility: a phone always, a desk in the long run as well.
WIDTHS = (pytest.param(1280, marks=pytest.mark.long), 390)
ROOT = Path(__file__).resolve().parent.parent
PUBLISHED = ROOT / "tests/published"  # tables from outside, each with its source


opened: dict[str, Database] = {}
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
    """A migrated, empty database. A test that changes its tables empties it.

    It is one object for all tests: what the database library compiled once for a statement stays with it.
    """
    found = opened.setdefault(mariadb.url, Database(mariadb.url))
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
    app.jinja_env.bytecode_cache = FileSystemBytecodeCache(tempfile.gettempdir(), f"nematex-tests-{os.getuid()}-%s")
    for limiter in app.extensions["limiter"]:
        limiter.enabled = limited
    return app


_kept: list[Flask] = []


def kept_app(database: Database) -> Flask:
    """One application for all tests that only look at pages: making its addresses takes longer than many a test. Its shop is
    another each time, and nothing of the last one is remembered.
    """
    if not _kept:
        _kept.append(tried_app(database))
        return _kept[0]
    with database.work() as work:
        put(work, DEMO, "1")
    shop = _kept[0].extensions["shop"]
    shop.__init__(database, shop.enqueue)
    return _kept[0]


def served(
    database: Database, role: str = "owner", more: dict[str, object] | None = None, app: Flask | None = None
) -> Iterator[str]:
    """The shop on a port of loopback until the iterator is asked again."""
    sockets: dict[int, object] = {}
    app = app or tried_app(database, role)
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
    serving = served(demo.database, app=kept_app(demo.database))
    yield Site(next(serving), demo)
    next(serving, None)


@pytest.fixture
def empty_site(database: Database) -> Iterator[Site]:
    """An empty shop on a server of its own."""
    serving = served(database, app=kept_app(database))
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
