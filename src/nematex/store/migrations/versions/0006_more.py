"""properties of a cloth that have no column of their own"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("cloth", sa.Column("more", sa.JSON(), nullable=False, server_default=sa.text("'{}'")))
    op.alter_column("cloth", "more", existing_type=sa.JSON(), nullable=False, server_default=None)


def downgrade() -> None:
    op.drop_column("cloth", "more")
