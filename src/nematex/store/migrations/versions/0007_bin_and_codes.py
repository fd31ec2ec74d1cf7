"""what is taken away goes into a bin; codes are compared letter by letter, as the program compares them"""

import unicodedata

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None

BINNED = ("cloth", "pattern", "programme", "pick", "hand_verdict")
CODED = ("cloth", "pattern")
LETTERS = sa.String(length=240, collation="utf8mb4_nopad_bin")


def _key(code: str) -> str:
    return unicodedata.normalize("NFC", unicodedata.normalize("NFC", code).casefold())


def upgrade() -> None:
    for table in BINNED:
        op.add_column(table, sa.Column("binned_at", sa.DateTime(), nullable=True))
    for table in CODED:
        op.add_column(table, sa.Column("code_key", LETTERS, nullable=False, server_default=sa.text("''")))
        bind = op.get_bind()
        for row_id, code in bind.execute(sa.text(f"select id, code from {table}")).all():
            bind.execute(sa.text(f"update {table} set code_key = :key where id = :id"), {"key": _key(code), "id": row_id})
        op.alter_column(table, "code_key", existing_type=LETTERS, nullable=False, server_default=None)
        op.drop_constraint("code", table, type_="unique")
        op.create_unique_constraint("code_key", table, ["code_key"])
    for table, column, length in (("saved_filter", "name", 80), ("list_mapping", "supplier", 120)):
        op.execute(
            f"alter table {table} modify {column} varchar({length}) character set utf8mb4 collate utf8mb4_nopad_bin not null"
        )


def downgrade() -> None:
    for table in CODED:
        op.drop_constraint("code_key", table, type_="unique")
        op.create_unique_constraint("code", table, ["code"])
        op.drop_column(table, "code_key")
    for table in BINNED:
        op.drop_column(table, "binned_at")
