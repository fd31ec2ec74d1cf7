"""a programme has a brief; a pick may be proposed, wait behind a place, ask something, show a photo; the stock is read from a feed"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("programme", sa.Column("brief", sa.JSON(), nullable=True))
    op.add_column("programme", sa.Column("refused", sa.JSON(), nullable=True))
    op.add_column("programme", sa.Column("proposal", sa.JSON(), nullable=True))
    op.add_column("pick", sa.Column("proposed", sa.Boolean(), nullable=False, server_default=sa.text("0")))
    op.add_column("pick", sa.Column("waits", sa.Boolean(), nullable=False, server_default=sa.text("0")))
    op.add_column("pick", sa.Column("why", sa.JSON(), nullable=True))
    op.add_column("pick", sa.Column("question", sa.Text(), nullable=True))
    op.create_table(
        "pick_photo",
        sa.Column("pick_id", sa.Integer(), sa.ForeignKey("pick.id", ondelete="CASCADE"), primary_key=True, autoincrement=False),
        sa.Column("content", mysql.LONGBLOB(), nullable=False),
        sa.Column("taken_at", sa.DateTime(), nullable=False, server_default=sa.func.now()),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_table(
        "stock_reading",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("cloth_id", sa.Integer(), sa.ForeignKey("cloth.id", ondelete="CASCADE"), nullable=False),
        sa.Column("metres", sa.Double(), nullable=False),
        sa.Column("read_at", sa.DateTime(), nullable=False),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_index("ix_stock_reading_cloth_id", "stock_reading", ["cloth_id"])
    op.create_table(
        "feed",
        sa.Column("name", sa.String(40), primary_key=True),
        sa.Column("tried_at", sa.DateTime(), nullable=False),
        sa.Column("came_at", sa.DateTime(), nullable=True),
        sa.Column("stamp", sa.DateTime(), nullable=True),
        sa.Column("message", sa.String(600), nullable=False),
        sa.Column("refused", sa.JSON(), nullable=False),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )


def downgrade() -> None:
    for table in ("feed", "stock_reading", "pick_photo"):
        op.drop_table(table)
    for column in ("question", "why", "waits", "proposed"):
        op.drop_column("pick", column)
    op.drop_column("programme", "proposal")
    op.drop_column("programme", "refused")
    op.drop_column("programme", "brief")
