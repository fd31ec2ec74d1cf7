"""what words of price lists mean, once told"""

import sqlalchemy as sa
from alembic import op

revision = "0022"
down_revision = "0021"
branch_labels = None
depends_on = None

BIN = "utf8mb4_nopad_bin"


def upgrade() -> None:
    op.create_table(
        "list_word",
        sa.Column("kind", sa.String(10), primary_key=True),
        sa.Column("word", sa.String(120, BIN), primary_key=True),
        sa.Column("meant", sa.String(120), nullable=False),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )


def downgrade() -> None:
    op.drop_table("list_word")
