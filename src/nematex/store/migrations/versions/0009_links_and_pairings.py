"""a pattern keeps its link; a pick holds further sizes, and picks may stand together as one"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("pattern", sa.Column("link", sa.String(500), nullable=False, server_default=""))
    op.add_column("pick", sa.Column("other_size", sa.String(40), nullable=True))
    op.add_column("pick", sa.Column("part", sa.String(80), nullable=True))
    op.add_column("pick", sa.Column("with_before", sa.Boolean(), nullable=False, server_default=sa.false()))


def downgrade() -> None:
    for name in ("with_before", "part", "other_size"):
        op.drop_column("pick", name)
    op.drop_column("pattern", "link")
