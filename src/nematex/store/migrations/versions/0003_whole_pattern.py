"""the whole pattern record, corrections of rules, what hands decided against the rules, made-up garments"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None

LISTS = ("options", "edge_fixes", "reading_fixes")


def upgrade() -> None:
    for name in LISTS:
        op.add_column("pattern", sa.Column(name, sa.JSON(), nullable=False, server_default=sa.text("'[]'")))
    op.add_column("pattern", sa.Column("sold_as", sa.String(length=20), nullable=False, server_default=sa.text("''")))
    for name in ("licence", "envelope"):
        op.add_column("pattern", sa.Column(name, sa.Text(), nullable=False, server_default=sa.text("''")))
    op.add_column("pick", sa.Column("options", sa.JSON(none_as_null=True), nullable=True))
    op.create_table(
        "rule_fix",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("place", sa.String(length=40), nullable=False),
        sa.Column("row", sa.String(length=120), nullable=False),
        sa.Column("field", sa.String(length=60), nullable=False),
        sa.Column("value", sa.Double(), nullable=False),
        sa.Column("was", sa.Double(), nullable=False),
        sa.Column("reason", sa.String(length=600), nullable=False),
        sa.Column("by_whom", sa.String(length=60), nullable=False),
        sa.Column("set_at", sa.DateTime(), server_default=sa.text("now()"), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("place", "row", "field"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_table(
        "hand_verdict",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("cloth_id", sa.Integer(), nullable=False),
        sa.Column("pattern_id", sa.Integer(), nullable=False),
        sa.Column("part", sa.String(length=300), nullable=False),
        sa.Column("verdict", sa.String(length=20), nullable=False),
        sa.Column("rules", sa.String(length=20), nullable=False),
        sa.Column("check", sa.String(length=20), nullable=False),
        sa.Column("window", sa.String(length=120), nullable=False),
        sa.Column("reason", sa.String(length=600), nullable=False),
        sa.Column("by_whom", sa.String(length=60), nullable=False),
        sa.Column("made", sa.Boolean(), nullable=False),
        sa.Column("set_at", sa.DateTime(), server_default=sa.text("now()"), nullable=False),
        sa.ForeignKeyConstraint(["cloth_id"], ["cloth.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["pattern_id"], ["pattern.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    for name in ("cloth_id", "pattern_id"):
        op.create_index(op.f(f"ix_hand_verdict_{name}"), "hand_verdict", [name], unique=False)


def downgrade() -> None:
    op.drop_table("hand_verdict")
    op.drop_table("rule_fix")
    op.drop_column("pick", "options")
    for name in (*LISTS, "sold_as", "licence", "envelope"):
        op.drop_column("pattern", name)
