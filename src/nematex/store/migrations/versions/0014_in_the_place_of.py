"""a pick remembers the cloth that it stands in for"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("pick", sa.Column("instead_of", sa.Integer(), nullable=True))


def downgrade() -> None:
    op.drop_column("pick", "instead_of")
