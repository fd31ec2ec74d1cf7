"""kits that are offered: how many of each size, what is in them, what is sold"""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    table: dict[str, Any] = {"mysql_charset": "utf8mb4", "mysql_engine": "InnoDB"}
    op.create_table(
        "kit_offer",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("programme_id", sa.Integer(), sa.ForeignKey("programme.id", ondelete="SET NULL"), nullable=True),
        sa.Column("pattern_id", sa.Integer(), sa.ForeignKey("pattern.id", ondelete="CASCADE"), nullable=False),
        sa.Column("cloth_id", sa.Integer(), sa.ForeignKey("cloth.id", ondelete="CASCADE"), nullable=False),
        sa.Column("view", sa.String(300), nullable=True),
        sa.Column("price", sa.Numeric(10, 2), nullable=True),
        sa.Column("cost", sa.Numeric(12, 2), nullable=False),
        sa.Column("sizes", sa.JSON(), nullable=False),
        sa.Column("contents", sa.JSON(), nullable=False),
        sa.Column("sold", sa.JSON(), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.Column("gone_at", sa.DateTime(), nullable=True),
        sa.Column("binned_at", sa.DateTime(), nullable=True),
        **table,
    )


def downgrade() -> None:
    op.drop_table("kit_offer")
