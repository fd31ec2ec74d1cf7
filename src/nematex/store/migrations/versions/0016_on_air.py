"""takes and what happened in them, remotes that are paired with a camera view, longer texts of the shop"""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None

BINARY = "utf8mb4_nopad_bin"


def upgrade() -> None:
    table: dict[str, Any] = {"mysql_charset": "utf8mb4", "mysql_engine": "InnoDB"}
    op.create_table(
        "take",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("programme_id", sa.Integer(), sa.ForeignKey("programme.id", ondelete="CASCADE"), nullable=False),
        sa.Column("own_key", sa.String(40, BINARY), nullable=False, unique=True),
        sa.Column("started_at", sa.DateTime(), nullable=False),
        sa.Column("plan", sa.JSON(), nullable=False),
        sa.Column("chosen", sa.Boolean(), nullable=False, server_default=sa.text("0")),
        sa.Column("offset_s", sa.Double(), nullable=False, server_default=sa.text("0")),
        **table,
    )
    op.create_index("ix_take_programme_id", "take", ["programme_id"])
    op.create_table(
        "take_event",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("take_id", sa.Integer(), sa.ForeignKey("take.id", ondelete="CASCADE"), nullable=False),
        sa.Column("own_key", sa.String(40, BINARY), nullable=False),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("at_s", sa.Double(), nullable=False),
        sa.Column("part", sa.Integer(), nullable=False),
        sa.Column("fact", sa.String(60), nullable=False),
        sa.Column("text", sa.Text(), nullable=False),
        sa.UniqueConstraint("take_id", "own_key"),
        **table,
    )
    op.create_table(
        "remote",
        sa.Column("code", sa.String(12, BINARY), primary_key=True),
        sa.Column("programme_id", sa.Integer(), sa.ForeignKey("programme.id", ondelete="CASCADE"), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.Column("shows", sa.JSON(), nullable=False),
        **table,
    )
    op.create_table(
        "remote_press",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("code", sa.String(12, BINARY), sa.ForeignKey("remote.code", ondelete="CASCADE"), nullable=False),
        sa.Column("own_key", sa.String(40, BINARY), nullable=False),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("text", sa.Text(), nullable=False),
        sa.Column("pressed_at_s", sa.Double(), nullable=False),
        sa.UniqueConstraint("code", "own_key"),
        **table,
    )
    op.create_table(
        "shop_text",
        sa.Column("name", sa.String(60), primary_key=True),
        sa.Column("body", mysql.MEDIUMTEXT(), nullable=False),
        **table,
    )


def downgrade() -> None:
    for table in ("shop_text", "remote_press", "remote", "take_event", "take"):
        op.drop_table(table)
