"""an envelope of 20,000 letters has room whatever its letters are"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import MEDIUMTEXT

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.alter_column("pattern", "envelope", type_=MEDIUMTEXT(), existing_type=sa.Text(), existing_nullable=False)


def downgrade() -> None:
    op.alter_column("pattern", "envelope", type_=sa.Text(), existing_type=MEDIUMTEXT(), existing_nullable=False)
