"""sign-ins that failed, and how often something was asked, counted for all processes together"""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None

BIN = "utf8mb4_nopad_bin"


def upgrade() -> None:
    table: dict[str, Any] = {"mysql_charset": "utf8mb4", "mysql_engine": "InnoDB"}
    op.create_table(
        "failed_sign_in",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE"), nullable=True),
        sa.Column("address", sa.String(60), nullable=False),
        sa.Column("device", sa.String(120), nullable=False),
        sa.Column("tries", sa.Integer(), nullable=False),
        **table,
    )
    op.create_table(
        "asked_often",
        sa.Column("name", sa.String(160, BIN), primary_key=True),
        sa.Column("times", sa.Integer(), nullable=False),
        sa.Column("until_s", sa.Double(), nullable=False, index=True),
        **table,
    )


def downgrade() -> None:
    for name in ("asked_often", "failed_sign_in"):
        op.drop_table(name)
