"""Bringing a database to a revision, and holding its tables against the models. It weighs half a second and 20 MB."""

from __future__ import annotations

from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.config import Config
from alembic.migration import MigrationContext
from sqlalchemy import Connection

from nematex.store.faults import SchemaFault
from nematex.store.models import Base
from nematex.store.revisions import FOLDER, known, newest, revision_of
from nematex.store.trail.triggers import install, must_take_triggers


def bring_to(connection: Connection, revision: str) -> None:
    """Change the tables, and with the newest revision the triggers; raises SchemaFault for a newer program's tables."""
    must_take_triggers(connection)
    found = revision_of(connection)
    if found and found not in known():
        raise SchemaFault(
            f"This shop was last run by a newer Nematex: its tables are at {found}, this program knows them up to "
            f"{newest()}. Nothing was changed. Run the newer program, or restore a backup from before it."
        )
    config = _config()
    config.attributes["connection"] = connection
    command.upgrade(config, revision)
    if revision == "head":
        install(connection)


def compare(connection: Connection) -> None:
    """Raise SchemaFault, naming what differs, unless the tables are exactly the models'."""
    context = MigrationContext.configure(connection, opts={"compare_type": True})
    found = compare_metadata(context, Base.metadata)
    if found:
        raise SchemaFault(
            "The shop's tables are not those that this program knows; nothing was changed. They differ in: "
            + "; ".join(str(each)[:200] for each in found[:5])
        )


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(FOLDER.parent))
    return config
