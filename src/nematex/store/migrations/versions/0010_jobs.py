"""jobs that run outside the web process, with what they were asked, how far they are and what they found"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "job",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("asked_key", sa.String(64), nullable=False),
        sa.Column("asked", mysql.LONGTEXT(), nullable=False),
        sa.Column("about", sa.JSON(), nullable=False),
        sa.Column("state", sa.String(12), nullable=False),
        sa.Column("done", sa.Integer(), nullable=False),
        sa.Column("total", sa.Integer(), nullable=False),
        sa.Column("found", mysql.LONGTEXT(), nullable=False),
        sa.Column("message", sa.String(600), nullable=False),
        sa.Column("tries", sa.Integer(), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False, server_default=sa.func.now()),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_index("ix_job_asked_key", "job", ["asked_key"])
    op.create_index("ix_job_state", "job", ["state"])


def downgrade() -> None:
    op.drop_table("job")
