"""cloth taken out of the stock for kits, and given back"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "reservation",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("cloth_id", sa.Integer(), sa.ForeignKey("cloth.id", ondelete="CASCADE"), nullable=False),
        sa.Column("length_m", sa.Double(), nullable=False),
        sa.Column("why", sa.String(300), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False, server_default=sa.func.now()),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )


def downgrade() -> None:
    op.drop_table("reservation")
