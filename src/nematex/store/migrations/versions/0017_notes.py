"""texts of notes as the presenter wrote them, and what was published"""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    table: dict[str, Any] = {"mysql_charset": "utf8mb4", "mysql_engine": "InnoDB"}
    op.create_table(
        "note_edit",
        sa.Column(
            "programme_id",
            sa.Integer(),
            sa.ForeignKey("programme.id", ondelete="CASCADE"),
            primary_key=True,
            autoincrement=False,
        ),
        sa.Column("kind", sa.String(20), primary_key=True),
        sa.Column("base", mysql.MEDIUMTEXT(), nullable=False),
        sa.Column("body", mysql.MEDIUMTEXT(), nullable=False),
        **table,
    )
    op.create_table(
        "publication",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("programme_id", sa.Integer(), sa.ForeignKey("programme.id", ondelete="CASCADE"), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("published_at", sa.DateTime(), nullable=False),
        sa.Column("told", sa.JSON(), nullable=False),
        sa.Column("texts", sa.JSON(), nullable=False),
        sa.UniqueConstraint("programme_id", "number"),
        **table,
    )


def downgrade() -> None:
    op.drop_table("publication")
    op.drop_table("note_edit")
