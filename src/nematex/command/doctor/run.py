"""What `./nematex doctor` prints: a line for each thing; what is not well says what to do."""

from __future__ import annotations

import os
from collections.abc import Iterator
from datetime import datetime

from sqlalchemy.exc import SQLAlchemyError

from nematex.command.doctor import data, machine
from nematex.command.doctor.finding import ILL, Finding, ill, well
from nematex.command.environment import sentence
from nematex.command.service.database import known_url
from nematex.command.service.state import home, what_runs
from nematex.store.database import Database


def findings(now: datetime) -> Iterator[Finding]:
    web, worker = what_runs()
    yield from machine.look_at_disk(home())
    yield machine.look_at_rights(home())
    yield from machine.look_at_processes(web, worker)
    yield machine.load_of_machine()
    yield machine.look_at_backups(home(), now)
    if certificate := machine.look_at_certificate(home()):
        yield certificate
    url = known_url()
    if url is None:
        yield ill("database", "does not run", "./nematex start")
        return
    database = Database(url)
    try:
        database.answers()
        yield well("database", "answers" + (", named by DATABASE_URL" if os.environ.get("DATABASE_URL") else ""))
        yield from data.look_at_data(database, now)
        yield machine.look_at_feed(database, now)
    except SQLAlchemyError as fault:
        yield ill("database", sentence(fault) or "does not answer", "./nematex start; see .nematex/mariadb.log")
    finally:
        database.close()


def run_doctor() -> int:
    """Exit 1 where something is ill."""
    found = list(findings(datetime.now()))
    for each in found:
        print(f"{each.state:5} {each.what}: {each.seen}")
        if each.do:
            print(f"      → {each.do}")
    return 1 if any(each.state == ILL for each in found) else 0
