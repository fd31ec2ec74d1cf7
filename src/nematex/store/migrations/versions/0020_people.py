"""people who sign in, where they are signed in, invitations, passkeys, the trail of changes, public look-books"""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import LONGTEXT, VARBINARY

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None

BIN = "utf8mb4_nopad_bin"


def upgrade() -> None:
    table: dict[str, Any] = {"mysql_charset": "utf8mb4", "mysql_engine": "InnoDB"}
    op.create_table(
        "person",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("name_key", sa.String(240, BIN), nullable=False, unique=True),
        sa.Column("role", sa.String(12), nullable=False),
        sa.Column("password_hash", sa.String(200), nullable=False),
        sa.Column("code_secret", sa.String(64), nullable=False, server_default=sa.text("''")),
        sa.Column("code_step", sa.BigInteger(), nullable=False, server_default=sa.text("0")),
        sa.Column("spare_codes", sa.JSON(), nullable=True),
        sa.Column("failures", sa.Integer(), nullable=False, server_default=sa.text("0")),
        sa.Column("waits_until", sa.DateTime(), nullable=True),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.Column("ended_at", sa.DateTime(), nullable=True),
        **table,
    )
    op.create_table(
        "sign_in",
        sa.Column("token_hash", sa.String(64, BIN), primary_key=True),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("device", sa.String(120), nullable=False),
        sa.Column("address", sa.String(60), nullable=False),
        sa.Column("begun_at", sa.DateTime(), nullable=False),
        sa.Column("seen_at", sa.DateTime(), nullable=False),
        sa.Column("proved_at", sa.DateTime(), nullable=False),
        **table,
    )
    op.create_table(
        "invitation",
        sa.Column("token_hash", sa.String(64, BIN), primary_key=True),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("role", sa.String(12), nullable=False),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE"), nullable=True),
        sa.Column("made_by", sa.String(60), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.Column("ends_at", sa.DateTime(), nullable=False),
        **table,
    )
    op.create_table(
        "passkey",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("credential", VARBINARY(700), nullable=False, unique=True),
        sa.Column("public_key", VARBINARY(2000), nullable=False),
        sa.Column("sign_count", sa.BigInteger(), nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        **table,
    )
    op.create_table(
        "trail",
        sa.Column("id", sa.BigInteger(), primary_key=True, autoincrement=True),
        sa.Column("at", sa.DateTime(), nullable=False, index=True),
        sa.Column("who", sa.String(80), nullable=False),
        sa.Column("kind", sa.String(20, BIN), nullable=False),
        sa.Column("row_id", sa.BigInteger(), nullable=False),
        sa.Column("under_kind", sa.String(20, BIN), nullable=True),
        sa.Column("under_id", sa.BigInteger(), nullable=True),
        sa.Column("act", sa.String(10), nullable=False),
        sa.Column("changes", LONGTEXT(), nullable=False),
        **table,
    )
    op.create_index("ix_trail_record", "trail", ["kind", "row_id"])
    op.create_index("ix_trail_under", "trail", ["under_kind", "under_id"])
    op.add_column("programme", sa.Column("public_key", sa.String(40, BIN), nullable=True))
    op.create_unique_constraint("public_key", "programme", ["public_key"])


def downgrade() -> None:
    op.drop_constraint("public_key", "programme", type_="unique")
    op.drop_column("programme", "public_key")
    for name in ("trail", "passkey", "invitation", "sign_in", "person"):
        op.drop_table(name)
