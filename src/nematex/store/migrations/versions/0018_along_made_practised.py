"""sew-alongs; what was made and how it wore; what a presenter practises"""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None

BINARY = "utf8mb4_nopad_bin"


def upgrade() -> None:
    table: dict[str, Any] = {"mysql_charset": "utf8mb4", "mysql_engine": "InnoDB"}
    op.create_table(
        "sew_along",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("pattern_id", sa.Integer(), sa.ForeignKey("pattern.id", ondelete="CASCADE"), nullable=False),
        sa.Column("cloth_ids", sa.JSON(), nullable=False),
        sa.Column("typed", sa.JSON(), nullable=False),
        sa.Column("public_key", sa.String(40, BINARY), nullable=True, unique=True),
        sa.Column("changes", sa.Integer(), nullable=False, server_default=sa.text("0")),
        sa.Column("binned_at", sa.DateTime(), nullable=True),
        **table,
    )
    op.create_table(
        "make",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("pattern_id", sa.Integer(), sa.ForeignKey("pattern.id", ondelete="CASCADE"), nullable=False),
        sa.Column("cloth_id", sa.Integer(), sa.ForeignKey("cloth.id", ondelete="CASCADE"), nullable=False),
        sa.Column("made_on", sa.Date(), nullable=True),
        sa.Column("viewers", sa.Boolean(), nullable=False, server_default=sa.text("0")),
        sa.Column("verdict", sa.String(20), nullable=False),
        sa.Column("washed", sa.String(20), nullable=False),
        sa.Column("hours", sa.Double(), nullable=True),
        sa.Column("told", sa.JSON(), nullable=False),
        sa.Column("photo", mysql.LONGBLOB(), nullable=True),
        sa.Column("kept_at", sa.DateTime(), nullable=False),
        sa.Column("binned_at", sa.DateTime(), nullable=True),
        **table,
    )
    op.create_index("ix_make_pattern_id", "make", ["pattern_id"])
    op.create_index("ix_make_cloth_id", "make", ["cloth_id"])
    op.create_table(
        "practice_card",
        sa.Column("who", sa.String(40, BINARY), primary_key=True),
        sa.Column("question", sa.String(60, BINARY), primary_key=True),
        sa.Column("ease", sa.Double(), nullable=False),
        sa.Column("interval_days", sa.Integer(), nullable=False),
        sa.Column("repetitions", sa.Integer(), nullable=False),
        sa.Column("due", sa.Date(), nullable=False),
        sa.Column("drill", sa.Boolean(), nullable=False, server_default=sa.text("0")),
        **table,
    )
    op.create_table(
        "practice_answer",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("who", sa.String(40, BINARY), nullable=False),
        sa.Column("question", sa.String(60, BINARY), nullable=False),
        sa.Column("answered_at", sa.DateTime(), nullable=False),
        sa.Column("said", sa.JSON(), nullable=False),
        sa.Column("grade", sa.Integer(), nullable=False),
        sa.Column("off", sa.Double(), nullable=True),
        **table,
    )
    op.create_index("ix_practice_answer_who", "practice_answer", ["who"])


def downgrade() -> None:
    for table in ("practice_answer", "practice_card", "make", "sew_along"):
        op.drop_table(table)
