"""The shop's database: brought up where it is our own, migrated, filled with the made-up shop where that is wanted."""

from __future__ import annotations

import os
import re
import sys
from datetime import datetime

from nematex.command.mariadb import LocalMariaDB, open_to_anybody
from nematex.command.service.agreeing import differing
from nematex.command.service.ending import end
from nematex.command.service.keys import backup_key
from nematex.command.service.state import database_runs, home, keep, read_state
from nematex.store.database import Database
from nematex.store.people.persons import any_person
from nematex.store.untouched import is_untouched


def _by_our_driver(url: str) -> str:
    return re.sub(r"^(mysql|mariadb)://", "mysql+pymysql://", url)


def database_url() -> str:
    """DATABASE_URL, or the URL of our own MariaDB, which is started if it does not run."""
    given = os.environ.get("DATABASE_URL")
    if given:
        return _by_our_driver(given)
    state = read_state()
    server = LocalMariaDB(home())
    if database_runs(state):
        server.port = state.get("database_port", 0)
        if not server.port or not open_to_anybody(server.port):
            return server.url
        # Started by a version that left MariaDB's own accounts without a password: start it again without them.
        end(state["database_pid"])
    pid = server.start(state.get("database_port", 0))
    try:
        keep(database_pid=pid, database_port=server.port)
    except OSError:  # a full disk: nobody would find it again
        server.stop()
        raise
    return server.url


def expected_url() -> str:
    """Where the database will be, before it is brought up; raises RuntimeError where nobody can know yet."""
    given = os.environ.get("DATABASE_URL")
    if given:
        return _by_our_driver(given)
    server = LocalMariaDB(home())
    server.port = read_state().get("database_port", 0)
    return server.url


def known_url() -> str | None:
    """The database's URL where it runs; nothing is started."""
    given = os.environ.get("DATABASE_URL")
    return database_url() if given or database_runs(read_state()) else None


def _keep_what_is(database: Database) -> None:
    """Before tables are changed: a backup of the shop as it is, which is never let go by itself. Raises RuntimeError."""
    if not database.is_behind() or os.environ.get("NEMATEX_BACKUP") == "off":
        return
    from nematex.command.backup.archive import NotProved
    from nematex.command.backup.making import folder_of, make

    folder = folder_of(home()) / "before-upgrades" / database.revision()
    if not any(folder.glob("*.tar")):  # one that was ended in its middle goes on: what was before it is kept already
        try:
            kept = make(database.url, folder, datetime.now(), backup_key())
            print(f"The shop is brought up to date. As it was, it is kept in {kept}")
        except NotProved:  # an earlier program's upgrade was ended in its middle: to go on is what mends it
            print("The shop is half way between two versions, so it could not be kept as it was. Its upgrade is finished now.")


def prepare(url: str, demo: bool) -> bool:
    """Migrate, and load the made-up shop into an empty database; returns whether the shop has an owner."""
    database = Database(url)
    _keep_what_is(database)
    database.migrate()
    database.check()
    with database.work() as work:
        owned, untouched = any_person(work), is_untouched(work)
    if demo and untouched:
        from nematex.demo.load import load_demo  # it weighs more than all of a start that has no need of it

        load_demo(database)
        print("Loaded the made-up shop: Marrowstone Cloth Room.")
    for sentence in differing(database):
        print(f"nematex: {sentence}", file=sys.stderr)
    database.close()
    return owned


def stop_database() -> None:
    """End our own database where it runs."""
    if database_runs(read_state()):
        end(read_state()["database_pid"])
