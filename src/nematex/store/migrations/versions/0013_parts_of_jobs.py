"""a job may find bytes; an upload knows the job that works on it"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "job_part",
        sa.Column("job_id", sa.Integer(), sa.ForeignKey("job.id", ondelete="CASCADE"), primary_key=True),
        sa.Column("place", sa.Integer(), primary_key=True, autoincrement=False),
        sa.Column("content", mysql.LONGBLOB(), nullable=False),
    )
    op.add_column("upload", sa.Column("job_id", sa.Integer(), nullable=True))


def downgrade() -> None:
    op.drop_column("upload", "job_id")
    op.drop_table("job_part")
