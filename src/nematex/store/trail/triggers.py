"""The triggers that write the trail, made from the models: three for each table that is kept.

A change is kept as column → [before, after]; rows that go with their parent (a programme's picks) are told by the parent's.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy import JSON, Column, Connection, String, text

from nematex.store.faults import SchemaFault
from nematex.store.files.column import is_bytes
from nematex.store.trail.kept import HIDDEN, KEPT, Kept

INTO = "INSERT INTO trail (at, who, kind, row_id, under_kind, under_id, act, changes) VALUES (NOW(), @nematex_who, "


EMPTY = "'{}' COLLATE utf8mb4_bin"  # one collation throughout: the server mixes none


def _columns(kept: Kept) -> list[Column[Any]]:
    columns = [column for column in kept.table.__table__.columns if not is_bytes(column.type)]
    return [each for each in columns if each.name not in HIDDEN | kept.left_out | {kept.number}]


def _under(kept: Kept, row: str) -> str:
    return f"'{kept.under[0]}', {row}.`{kept.under[1]}`" if kept.under else "NULL, NULL"


def _value(column: Column[Any], row: str) -> str:
    text_like = isinstance(column.type, String | JSON)
    return f"{row}.`{column.name}`{' COLLATE utf8mb4_bin' if text_like else ''}"


def _same(column: Column[Any]) -> str:
    return f"BINARY OLD.`{column.name}` <=> BINARY NEW.`{column.name}`"  # letter by letter: the collation takes é for e


def _changed(kept: Kept) -> str:
    columns = _columns(kept)
    pairs = ((each, f"JSON_ARRAY({_value(each, 'OLD')}, {_value(each, 'NEW')})") for each in columns)
    parts = ", ".join(f"IF({_same(each)}, {EMPTY}, JSON_OBJECT('{each.name}', {pair}))" for each, pair in pairs)
    head = f"'{kept.kind}', NEW.`{kept.number}`, {_under(kept, 'NEW')}, 'changed'"
    same = " AND ".join(_same(each) for each in columns)
    return f"IF NOT ({same}) THEN {INTO}{head}, JSON_MERGE_PATCH({EMPTY}, {parts})); END IF;"


def _made(kept: Kept) -> str:
    return f"{INTO}'{kept.kind}', NEW.`{kept.number}`, {_under(kept, 'NEW')}, 'made', {EMPTY});"


def _removed(kept: Kept) -> str:
    pairs = ", ".join(f"'{each.name}', JSON_ARRAY({_value(each, 'OLD')}, NULL)" for each in _columns(kept))
    return f"{INTO}'{kept.kind}', OLD.`{kept.number}`, {_under(kept, 'OLD')}, 'removed', JSON_OBJECT({pairs}));"


def _setting(before: str) -> str:
    """Of a setting that is another than before; `before` is where the trigger finds that."""
    changes = f"JSON_OBJECT(NEW.name, JSON_ARRAY({before}, NEW.value))"
    other = f"NOT (BINARY {before} <=> BINARY NEW.value)"
    told = f"{INTO}'setting', 0, NULL, NULL, 'changed', {changes});"
    return f"IF NEW.name NOT LIKE '% version' AND {other} THEN {told} END IF;"


@dataclass(frozen=True)
class Trigger:
    """A trigger: after which moment of which table it does what."""

    table: str
    moment: str
    body: str


def wanted() -> dict[str, Trigger]:
    """The triggers by their names."""
    made = [
        Trigger(kept.table.__tablename__, moment, body(kept))
        for kept in KEPT
        for moment, body in (("INSERT", _made), ("UPDATE", _changed), ("DELETE", _removed))
    ]
    made += [Trigger("setting", "INSERT", _setting("NULL")), Trigger("setting", "UPDATE", _setting("OLD.value"))]
    whole = "BEGIN IF COALESCE(@nematex_who, '') <> '' THEN {} END IF; END"
    return {f"trail_{each.table}_{each.moment.lower()}": replace(each, body=whole.format(each.body)) for each in made}


def out_of_place(connection: Connection) -> dict[str, Trigger]:
    """Those that are missing or are not this program's."""
    asked = "select trigger_name, action_statement from information_schema.triggers where trigger_schema = database()"
    found = {name: body for name, body in connection.execute(text(asked))}  # noqa: C416
    return {name: each for name, each in wanted().items() if found.get(name) != each.body}


def must_take_triggers(connection: Connection) -> None:
    """Raise SchemaFault, before anything is changed, where the server will not let this account make triggers.

    A server that keeps a binary log (a primary, a node of a cluster, most that are hosted) asks for more than all rights on
    the shop's own database, unless it is told to trust who makes them.
    """
    logs, trusts = connection.execute(text("select @@global.log_bin, @@global.log_bin_trust_function_creators")).one()
    if not logs or trusts or any(_may_all(str(line)) for line in connection.execute(text("show grants")).scalars()):
        return
    raise SchemaFault(
        "The database server keeps a binary log and lets no ordinary account make triggers, by which Nematex writes down who "
        "changed what. Nothing was changed. Ask whoever runs the server for: SET GLOBAL log_bin_trust_function_creators = 1 "
        "(and the same in its configuration), or for GRANT BINLOG ADMIN, SUPER ON *.* to this account; then start again."
    )


def _may_all(grant: str) -> bool:
    rights, _, where = grant.upper().partition(" ON ")
    return where.startswith("*.*") and ("ALL PRIVILEGES" in rights or "SUPER" in rights)


def install(connection: Connection) -> None:
    """Put the triggers in place where they are not."""
    for name, each in out_of_place(connection).items():
        connection.exec_driver_sql(f"DROP TRIGGER IF EXISTS {name}")
        made = f"CREATE TRIGGER {name} AFTER {each.moment} ON `{each.table}` FOR EACH ROW {each.body}"
        connection.exec_driver_sql(made.replace("%", "%%"))
