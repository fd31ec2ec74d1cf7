"""each cloth and pattern carries the number of its last change, and what was removed is remembered by number"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

COUNTED = ("cloth", "pattern")


def upgrade() -> None:
    for table in COUNTED:
        op.add_column(table, sa.Column("version", sa.BigInteger(), nullable=False, server_default=sa.text("0")))
        op.create_index(op.f(f"ix_{table}_version"), table, ["version"], unique=False)
    op.create_table(
        "gone",
        sa.Column("kind", sa.String(length=10), nullable=False),
        sa.Column("row_id", sa.Integer(), nullable=False, autoincrement=False),
        sa.Column("version", sa.BigInteger(), nullable=False),
        sa.PrimaryKeyConstraint("kind", "row_id"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_index(op.f("ix_gone_version"), "gone", ["version"], unique=False)


def downgrade() -> None:
    op.drop_table("gone")
    for table in COUNTED:
        op.drop_index(op.f(f"ix_{table}_version"), table_name=table)
        op.drop_column(table, "version")
