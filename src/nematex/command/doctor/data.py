"""Looks at the database: tables, triggers, and rows that contradict one another."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta

from sqlalchemy import Connection

from nematex.command.doctor.contradictions import CONTRADICTIONS
from nematex.command.doctor.finding import Finding, care, ill, well
from nematex.store.database import Database
from nematex.store.faults import SchemaFault
from nematex.store.files.column import SETTING, place
from nematex.store.files.places import MARK
from nematex.store.trail.triggers import out_of_place
from nematex.usecases.jobs.asking import left_open
from nematex.usecases.jobs.behind import lanes_now, said_of

PHOTOS = (("photo", "content"), ("pick_photo", "content"), ("make", "photo"))
SLOW_JOB = timedelta(minutes=30)
CLOCKS_APART = timedelta(minutes=2)


def look_at_data(database: Database, now: datetime) -> Iterator[Finding]:
    if not database.is_current():
        yield ill("migrations", "the tables are of another version of the program", "./nematex start, which migrates")
        return
    yield well("migrations", "at the newest")
    try:
        database.check()
        yield well("tables", "as the program knows them")
    except SchemaFault as fault:
        yield ill("tables", str(fault), "restore a backup, or ask for help with this text")
    with database.engine.connect() as connection:
        yield _triggers(connection)
        yield from _rows(connection)
        yield _files(connection)
        yield _clock(connection, now)
        yield _people(connection)
    yield _jobs(database, now)


def _triggers(connection: Connection) -> Finding:
    missing = out_of_place(connection)
    if missing:
        return ill("trail", f"{len(missing)} triggers that write it are not in place", "./nematex start")
    return well("trail", "its triggers are in place")


def _rows(connection: Connection) -> Iterator[Finding]:
    counted = [(connection.exec_driver_sql(query).scalar() or 0, what) for what, query in CONTRADICTIONS]
    bad = [f"{number} {what}" for number, what in counted if number]
    names = [str(row[0]) for row in connection.exec_driver_sql("show tables")]
    checked = connection.exec_driver_sql(f"check table {', '.join(f'`{name}`' for name in names)} quick")
    wrong = (row for row in checked if row[2] == "error" or (row[2] == "status" and row[3] != "OK"))
    bad.extend(f"{row[0]}: {row[3]}" for row in wrong)
    if bad:
        yield ill("data", "; ".join(bad), "make a backup, then restore the last good one or ask for help with this text")
    else:
        yield well("data", f"{len(names)} tables checked, nothing contradicts")


def _files(connection: Connection) -> Finding:
    wanted = set()
    for table, column in PHOTOS:
        rows = connection.exec_driver_sql(f"select {column} from `{table}` where left({column}, {len(MARK)}) = %s", (MARK,))
        wanted |= {bytes(row[0])[len(MARK) :].decode() for row in rows}
    where = place()
    if not wanted:
        return well("photos", "in the database")
    if where is None:
        return ill("photos", f"{len(wanted)} lie outside the database", f"say where: {SETTING}=/the/folder")
    lost = wanted - set(where.names())
    if lost:
        return ill("photos", f"{len(lost)} of {len(wanted)} files are missing", "put the folder back, or restore a backup")
    return well("photos", f"{len(wanted)} files, all there")


def _jobs(database: Database, now: datetime) -> Finding:
    """Those that wait for long, and those that no worker works on though they say so."""
    found = [each for each in left_open(database, now) if each.state != "waiting" or each.made_at < now - SLOW_JOB]
    if found:
        named = "; ".join(f"job {each.id} ({each.kind}) is {each.state} since {each.made_at:%H:%M}" for each in found[:5])
        more = f" and {len(found) - 5} more" if len(found) > 5 else ""
        return ill("jobs", f"nobody works on {named}{more}", "./nematex start, which starts the worker; it looks each minute")
    lanes = lanes_now(database, now)
    if behind := said_of(lanes):
        named = "; ".join(
            f"{each.name}: {each.open} open, the first since {each.oldest_s // 60} min" for each in lanes if each.is_behind
        )
        return care(
            "jobs", f"{behind} {named}", "see what else this machine does (top); NEMATEX_WORKERS says how many lays run at once"
        )
    return well("jobs", "none waits for long")


def _clock(connection: Connection, now: datetime) -> Finding:
    server = connection.exec_driver_sql("select now()").scalar()
    latest = connection.exec_driver_sql("select max(at) from trail").scalar()
    if not isinstance(server, datetime) or abs(server - now) > CLOCKS_APART:
        return ill("clock", f"this machine says {now:%Y-%m-%d %H:%M}, the database {server}", "set both by the network's time")
    if isinstance(latest, datetime) and latest > now + CLOCKS_APART:
        seen = f"something was changed on {latest:%Y-%m-%d %H:%M}, which is yet to come"
        return care("clock", seen, "see whether the clock is right")
    return well("clock", f"{now:%Y-%m-%d %H:%M}, the database agrees")


def _people(connection: Connection) -> Finding:
    asked = "select count(*) from person where role = 'owner' and ended_at is null"
    owners = connection.exec_driver_sql(asked).scalar() or 0
    if not owners:
        return care("people", "nobody owns this shop", "open the address that ./nematex start prints")
    return well("people", f"{owners} owner{'s' if owners > 1 else ''}")
