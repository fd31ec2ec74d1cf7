"""what later editions of 0001 to 0003 added, for shops that ran an earlier edition; in all others it changes nothing"""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import LONGBLOB
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

DOUBLES = {
    "cloth": (
        "weight_gsm",
        "width_cm",
        "bending_length_cm",
        "stretch_cross_pct",
        "stretch_length_pct",
        "recovery_pct",
        "thickness_mm",
        "shrink_length_pct",
        "print_scale_cm",
        "print_repeat_length_cm",
        "print_repeat_width_cm",
        "stock_m",
    ),
    "pattern": ("min_stretch_cross_pct", "min_stretch_length_pct", "widest_piece_cm"),
}
WORDS = ("print_kind", "print_direction")
NUMBERS = ("print_scale_cm", "print_repeat_length_cm", "print_repeat_width_cm")
COLOURS = "replace(replace(replace(replace(colours, '[', ''), ']', ''), '\"', ''), ',', '')"
FIRST = "'before readings were kept'"


def _first_reading(name: str, column: str, value: str, when: str) -> None:
    """The shelf's value as first reading of a property that has none yet."""
    op.execute(
        f"insert into reading (cloth_id, property, {column}, known, by_whom, instrument, taken_at, repeats, note) "
        f"select id, '{name}', {value}, coalesce(json_value(known, '$.{name}'), 'stated'), '', {FIRST}, now(), '[]', '' "
        f"from cloth where {when} and not exists "
        f"(select 1 from reading where reading.cloth_id = cloth.id and reading.property = '{name}')"
    )


def upgrade() -> None:
    inspector = sa.inspect(op.get_bind())

    def has(table: str, column: str) -> bool:
        return column in {each["name"] for each in inspector.get_columns(table)}

    early = not has("cloth", "stretch_unsaid")
    if early:
        op.add_column("cloth", sa.Column("stretch_unsaid", sa.Boolean(), nullable=False, server_default=sa.text("0")))
        op.alter_column("cloth", "stretch_unsaid", existing_type=sa.Boolean(), nullable=False, server_default=None)
    if not has("pick", "options"):
        op.add_column("pick", sa.Column("options", sa.JSON(none_as_null=True), nullable=True))
    for table, columns in DOUBLES.items():
        for column in columns:
            op.alter_column(table, column, type_=sa.Double(), existing_type=sa.Double(), existing_nullable=True)
    op.alter_column("upload", "content", type_=LONGBLOB(), existing_type=LONGBLOB(), existing_nullable=False)
    for name in WORDS:
        _first_reading(name, "word", name, f"{name} is not null and length({name}) > 0")
    for name in NUMBERS:
        _first_reading(name, "number", name, f"{name} is not null")
    _first_reading("colours", "word", COLOURS, "json_length(colours) > 0")
    # The first edition took a shrinkage for measured where nothing was said of it.
    op.execute(
        "update reading join cloth on cloth.id = reading.cloth_id set reading.known = 'stated' "
        f"where reading.property = 'shrink_length_pct' and reading.instrument = {FIRST} and reading.known = 'measured' "
        "and json_value(cloth.known, '$.shrink_length_pct') is null"
    )


def downgrade() -> None:
    """Nothing: the tables of 0003 are these."""
