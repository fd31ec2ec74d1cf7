"""Alembic's entry: runs the revisions on the connection that Database.migrate hands over."""

from alembic import context

from nematex.store.migrations import repeatable  # noqa: F401  # makes every step repeatable
from nematex.store.models import Base

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
with context.begin_transaction():
    context.run_migrations()
