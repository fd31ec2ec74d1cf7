"""a pick holds the changes that are made to its pattern"""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("pick", sa.Column("hacks", sa.JSON(none_as_null=True), nullable=True))


def downgrade() -> None:
    op.drop_column("pick", "hacks")
