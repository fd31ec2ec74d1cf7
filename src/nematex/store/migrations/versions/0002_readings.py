"""readings, photos, the whole cloth record, import steps, saved filters"""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import LONGBLOB
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

# Property, column type and how a value counted as known where nothing else was said.
NUMBERS = {
    "weight_gsm": "stated",
    "width_cm": "stated",
    "stretch_cross_pct": "stated",
    "stretch_length_pct": "stated",
    "bending_length_cm": "measured",
    "thickness_mm": "measured",
    "recovery_pct": "measured",
    "shrink_length_pct": "stated",
    "print_scale_cm": "stated",
    "print_repeat_length_cm": "stated",
    "print_repeat_width_cm": "stated",
}
WORDS = {"hand": "judged", "sheer": "judged", "print_kind": "stated", "print_direction": "stated"}
COLOURS = "replace(replace(replace(replace(colours, '[', ''), ']', ''), '\"', ''), ',', '')"


def _first_readings() -> None:
    """What the shelf knows so far becomes the first reading of each property."""
    for column, values in (("number", NUMBERS), ("word", WORDS)):
        for name, known in values.items():
            op.execute(
                f"insert into reading (cloth_id, property, {column}, known, by_whom, instrument, taken_at, repeats, note) "
                f"select id, '{name}', {name}, coalesce(json_value(known, '$.{name}'), '{known}'), '', "
                f"'before readings were kept', now(), '[]', '' from cloth where {name} is not null and length({name}) > 0"
            )
    op.execute(
        "insert into reading (cloth_id, property, word, known, by_whom, instrument, taken_at, repeats, note) "
        f"select id, 'colours', {COLOURS}, 'stated', '', 'before readings were kept', now(), '[]', '' "
        "from cloth where json_length(colours) > 0"
    )


def upgrade() -> None:
    op.create_table(
        "saved_filter",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("query", sa.String(length=1000), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_table(
        "import_step",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("upload_id", sa.Integer(), nullable=False),
        sa.Column("code", sa.String(length=80), nullable=False),
        sa.Column("before", sa.JSON(none_as_null=True), nullable=True),
        sa.Column("after", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["upload_id"], ["upload.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_index(op.f("ix_import_step_upload_id"), "import_step", ["upload_id"], unique=False)
    op.create_table(
        "photo",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("cloth_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(length=20), nullable=False),
        sa.Column("content", LONGBLOB(), nullable=False),
        sa.Column("px_per_cm", sa.Double(), nullable=False),
        sa.Column("found", sa.JSON(), nullable=False),
        sa.Column("taken_at", sa.DateTime(), server_default=sa.text("now()"), nullable=False),
        sa.ForeignKeyConstraint(["cloth_id"], ["cloth.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_index(op.f("ix_photo_cloth_id"), "photo", ["cloth_id"], unique=False)
    op.create_table(
        "reading",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("cloth_id", sa.Integer(), nullable=False),
        sa.Column("property", sa.String(length=40), nullable=False),
        sa.Column("number", sa.Double(), nullable=True),
        sa.Column("word", sa.String(length=300), nullable=True),
        sa.Column("known", sa.String(length=10), nullable=False),
        sa.Column("by_whom", sa.String(length=60), nullable=False),
        sa.Column("instrument", sa.String(length=80), nullable=False),
        sa.Column("taken_at", sa.DateTime(), nullable=False),
        sa.Column("spread", sa.Double(), nullable=True),
        sa.Column("repeats", sa.JSON(), nullable=False),
        sa.Column("note", sa.String(length=300), nullable=False),
        sa.Column("upload_id", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(["cloth_id"], ["cloth.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    op.create_index(op.f("ix_reading_cloth_id"), "reading", ["cloth_id"], unique=False)
    op.create_index(op.f("ix_reading_upload_id"), "reading", ["upload_id"], unique=False)
    op.add_column("cloth", sa.Column("drape_coefficient_pct", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("weave", sa.String(length=60), nullable=False, server_default=sa.text("''")))
    op.add_column("cloth", sa.Column("width_full_cm", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("bend_along_cm", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("bend_across_cm", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("shrink_width_pct", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("fray", sa.String(length=20), nullable=False, server_default=sa.text("''")))
    op.add_column("cloth", sa.Column("crease", sa.String(length=20), nullable=False, server_default=sa.text("''")))
    op.add_column("cloth", sa.Column("press", sa.String(length=20), nullable=False, server_default=sa.text("''")))
    op.add_column("cloth", sa.Column("care", sa.String(length=300), nullable=False, server_default=sa.text("''")))
    op.add_column("cloth", sa.Column("season", sa.String(length=80), nullable=False, server_default=sa.text("''")))
    op.add_column("cloth", sa.Column("vat", sa.String(length=40), nullable=False, server_default=sa.text("''")))
    op.add_column("cloth", sa.Column("sale_price_per_m", sa.Numeric(precision=10, scale=4), nullable=True))
    op.add_column("cloth", sa.Column("cut_step_cm", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("least_cut_cm", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("maker_secret", sa.Boolean(), nullable=False, server_default=sa.text("0")))
    op.add_column("cloth", sa.Column("arrived", sa.Date(), nullable=True))
    op.add_column("cloth", sa.Column("follow_print", sa.Boolean(), nullable=True))
    op.add_column("cloth", sa.Column("placement", sa.String(length=120), nullable=False, server_default=sa.text("''")))
    op.add_column("cloth", sa.Column("colourways", sa.JSON(), nullable=False, server_default=sa.text("'[]'")))
    op.add_column("cloth", sa.Column("bolts", sa.JSON(), nullable=False, server_default=sa.text("'[]'")))
    op.add_column("cloth", sa.Column("photo_id", sa.Integer(), nullable=True))
    op.add_column("cloth", sa.Column("stretch_unsaid", sa.Boolean(), nullable=False, server_default=sa.text("0")))
    op.add_column("upload", sa.Column("state", sa.String(length=20), nullable=False, server_default=sa.text("''")))
    op.add_column("upload", sa.Column("message", sa.String(length=600), nullable=False, server_default=sa.text("''")))
    op.create_table(
        "list_mapping",
        sa.Column("supplier", sa.String(length=120), nullable=False),
        sa.Column("headings", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("supplier"),
        mysql_charset="utf8mb4",
        mysql_engine="InnoDB",
    )
    _first_readings()


def downgrade() -> None:
    op.drop_table("list_mapping")
    op.drop_table("reading")
    op.drop_table("photo")
    op.drop_table("import_step")
    op.drop_table("saved_filter")
    for name in ("state", "message"):
        op.drop_column("upload", name)
    for name in (
        "drape_coefficient_pct", "weave", "width_full_cm", "bend_along_cm", "bend_across_cm", "shrink_width_pct", "fray",
        "crease", "press", "care", "season", "vat", "sale_price_per_m", "cut_step_cm", "least_cut_cm", "maker_secret",
        "arrived", "follow_print", "placement", "colourways", "bolts", "photo_id", "stretch_unsaid",
    ):  # fmt: skip
        op.drop_column("cloth", name)
