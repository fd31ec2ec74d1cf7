"""The cloth form: the same readers as the price list, so '150cm/59"' works here too."""

from __future__ import annotations

from dataclasses import dataclass, replace

from pydantic import ValidationError

from nematex.core.cloth.facts import DIRECTIONS, HOW_KNOWN, SHEERNESS, STRUCTURES
from nematex.core.errors import FieldFault
from nematex.core.quantity.estimate import Known
from nematex.store.records import ClothRecord, Colourway
from nematex.tables import trade_tables
from nematex.usecases.cloth.lists.headings import CREASES, FRAYS, HANDS, PRESSES, PRINT_KINDS, import_fields, read_cell
from nematex.usecases.cloth.lists.price_list import make_record
from nematex.usecases.exchange import flat_cloth

CHOICES = {
    "structure": STRUCTURES,
    "hand": HANDS,
    "sheer": SHEERNESS,
    "print_direction": DIRECTIONS,
    "print_kind": PRINT_KINDS,
    "nap": ("yes", "no"),
    "deadstock": ("yes", "no"),
    "maker_secret": ("yes", "no"),
    "follow_print": ("yes", "no"),
    "fray": FRAYS,
    "crease": CREASES,
    "press": PRESSES,
}


@dataclass(frozen=True)
class FormField:
    """One field of the form with its hint."""

    name: str
    label: str
    hint: str = ""


FIELDS = (
    ("What it is", (
        FormField("code", "Article code"),
        FormField("name", "Name"),
        FormField("cloth", "Kind of cloth", "cotton lawn, ponte, denim …"),
        FormField("fibres", "Fibre content", "95% viscose, 5% elastane"),
        FormField("structure", "Structure"),
        FormField("weave", "Weave or knit", "plain, twill, satin, single jersey, rib …"),
        FormField("supplier", "Supplier"),
    )),
    ("How it handles", (
        FormField("weight_gsm", "Weight", "220 g/m² or 6.5 oz"),
        FormField("bending_length_cm", "Bending length", "2.3 cm, or: overhang 4.6 cm"),
        FormField("bend_along_cm", "Bending length along", "cm"),
        FormField("bend_across_cm", "Bending length across", "cm"),
        FormField("drape_coefficient_pct", "Drape coefficient", "% of the disc's ring"),
        FormField("hand", "Handle, by touch"),
        FormField("stretch_cross_pct", "Stretch across", "25 %, or: 10 to 12.5 cm"),
        FormField("stretch_length_pct", "Stretch along", "%"),
        FormField("recovery_pct", "Recovery", "% of the stretch that goes back"),
        FormField("thickness_mm", "Thickness", "mm"),
        FormField("sheer", "See-through"),
        FormField("nap", "Pile or nap"),
        FormField("shrink_length_pct", "Shrinkage along", "%"),
        FormField("shrink_width_pct", "Shrinkage across", "%"),
        FormField("fray", "Fraying"),
        FormField("crease", "Creasing"),
        FormField("press", "Takes a press"),
        FormField("care", "Care, in words", "wash at 40 °C, iron hot, no tumble dryer"),
    )),
    ("Width and print", (
        FormField("width_cm", "Usable width", "150 cm or 59\""),
        FormField("width_full_cm", "Full width", "edge to edge"),
        FormField("print_kind", "Kind of print"),
        FormField("print_direction", "Print direction"),
        FormField("print_scale_cm", "Motif size", "cm"),
        FormField("print_repeat_length_cm", "Repeat along", "cm"),
        FormField("print_repeat_width_cm", "Repeat across", "cm"),
        FormField("follow_print", "Is its direction followed?"),
        FormField("placement", "Placement", "border along one selvedge; panel of 90 cm"),
        FormField("colours", "Colours", "#24404a #7fb5a8, ground first"),
    )),
    ("In the shop", (
        FormField("price_per_m", "Price", "£12.50/m or 3.20 per quarter yard"),
        FormField("sale_price_per_m", "Sale price", "£9/m"),
        FormField("vat", "VAT", "with VAT, plus VAT"),
        FormField("stock_m", "Stock", "21.4 m or 12 yd"),
        FormField("colourways", "Colourways", "navy #1d2746 12 m | rust #a4452a 3.5 m"),
        FormField("bolts", "Bolts", "12.5 m; 3 m navy"),
        FormField("cut_step_cm", "Cut in steps of", "10 cm or 1/4 yd"),
        FormField("least_cut_cm", "Smallest cut", "50 cm"),
        FormField("arrived", "Arrived", "2026-11-24"),
        FormField("season", "Season", "spring, summer"),
        FormField("deadstock", "Deadstock"),
        FormField("maker_secret", "Maker not to be named"),
        FormField("notes", "Notes"),
    )),
)  # fmt: skip


# Written with its unit, so that a narrow width is not taken for inches when it is read again.
UNITS = {"weight": " g/m²", "width": " cm", "length": " cm", "percent": " %", "bend": " cm", "stretch": " %", "stock": " m"}


def _text(value: object, kind: str) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:.6g}{UNITS.get(kind, '')}" if isinstance(value, float) else str(value)


def form_values(record: ClothRecord) -> dict[str, str]:
    """A record as the texts of its form."""
    fields = import_fields()
    return {
        name: _text(value, fields[name].kind)
        for name, value in flat_cloth(record).items()
        if value is not None and name != "known"
    }


def record_from_form(values: dict[str, str], old: ClothRecord | None, codes: set[str]) -> ClothRecord:
    """The record typed; raises FieldFault naming field, value and choices."""
    fields = import_fields()
    read = {}
    for name, text in values.items():
        if name in fields and text:
            read[name] = read_cell(text, fields[name].label, fields[name])
    for name in ("code", "name"):
        if name not in read:
            raise FieldFault(fields[name].label, "", "is missing; every cloth needs one")
    taken = codes - ({old.code.casefold()} if old else set())
    if read["code"].casefold() in taken:
        raise FieldFault("article code", read["code"], "is on the shelf already; choose another, or edit that cloth")
    if old and read["code"] != old.code:
        raise FieldFault("article code", read["code"], f"cannot be changed: it is how price lists find the cloth ({old.code})")
    try:
        record = make_record(read)
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        name = str(first["loc"][-1]) if first["loc"] else "cloth"
        raise FieldFault(fields[name].label if name in fields else name, first["input"], first["msg"].lower()) from None
    if old:
        # How a value is known stays for values that were not touched.
        before = form_values(old)
        known = {
            name: how for name in HOW_KNOWN if (how := _kept_known(name, old, before.get(name) == values.get(name))) is not None
        }
        record = replace(
            record,
            id=old.id,
            photo_id=old.photo_id,
            stretch_unsaid=old.stretch_unsaid and before.get("stretch_cross_pct") == values.get("stretch_cross_pct"),
            colourways=_with_photos(record.colourways, old.colourways),
            currency=record.currency or old.currency,
            facts=replace(record.facts, known=known),
        )
    return record


def _with_photos(now: tuple[Colourway, ...], before: tuple[Colourway, ...]) -> tuple[Colourway, ...]:
    """Colourways as typed, with the photos that those of the same name had."""
    photos = {each.name.casefold(): each.photo_id for each in before}
    return tuple(replace(each, photo_id=photos.get(each.name.casefold())) for each in now)


def _kept_known(name: str, old: ClothRecord, untouched: bool) -> str | None:
    """How a value is known after an edit: as before, and a corrected value counts no less than the one it corrects."""
    held = old.facts.known.get(name)
    if untouched or held is None:
        return held
    return max(Known.from_word(held), HOW_KNOWN[name]).word


def cloth_names() -> list[str]:
    """Every cloth name, for the form's suggestions."""
    return [kind.name for kind in trade_tables().lexicon.types]
