"""The bench: what is typed (or taken by an instrument) becomes readings, with spread, doubts and what it moves."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.measuring.bending import (
    bending_length_cm,
    bias_bending_length_cm,
    flexural_rigidity_mg_cm,
    flexural_rigidity_un_m,
)
from nematex.core.cloth.measuring.drape_coefficient import (
    DISC_CM,
    bending_from_drape,
    drape_coefficient_pct,
    drape_from_bending,
    folds_from_bending,
)
from nematex.core.cloth.measuring.square_and_wash import (
    disc_area_cm2,
    shrinkage_pct,
    weight_from_bolt_gsm,
    weight_from_piece_gsm,
)
from nematex.core.cloth.measuring.stretch import recovery_pct, stretch_pct
from nematex.core.cloth.readings import repeats
from nematex.core.errors import FieldFault
from nematex.core.photo.see_through import see_through
from nematex.core.photo.swatch import REPORTED
from nematex.core.quantity.estimate import Known
from nematex.core.quantity.units import gsm_from_oz_yd2, oz_yd2_from_gsm
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord
from nematex.usecases.cloth.bench.measures import TONES, Measure, Method
from nematex.usecases.cloth.bench.sheet import Outcome, Sheet, mean_of


def _weight(sheet: Sheet) -> None:
    if sheet.method.name == "ounces":
        ounces = sheet.needed("ounces")
        gsm = gsm_from_oz_yd2(ounces)
        sheet.say(f"{ounces:g} oz/yd² × 33.906 = {gsm:.1f} g/m².")
        sheet.keep("weight_gsm", gsm, Known.STATED)
        return
    if sheet.method.name == "bolt":
        kilograms, metres, width = (sheet.needed(name) for name in ("kilograms", "metres", "width"))
        gsm = weight_from_bolt_gsm(kilograms, metres, width)
        sheet.say(f"{kilograms:g} kg over {metres:g} m × {width:g} cm = {gsm:.1f} g/m².")
        sheet.keep("weight_gsm", gsm, Known.MEASURED)
        return
    area = sheet.needed("side") ** 2 if sheet.method.name == "square" else disc_area_cm2(sheet.needed("diameter"))
    grams = sheet.series("grams")
    each = [weight_from_piece_gsm(value, area) for value in grams]
    sheet.say(mean_of("Mass", grams, "g"))
    mean = repeats(each).mean
    sheet.say(f"Over {area:.1f} cm²: {mean:.1f} g/m², that is {oz_yd2_from_gsm(mean):.1f} oz/yd².")
    sheet.keep("weight_gsm", mean, Known.MEASURED, each)


def _ramp(sheet: Sheet) -> None:
    found = {}
    for way in ("along", "across"):
        values = sheet.series(f"{way}_up", way == "along") + sheet.series(f"{way}_down", False)
        if values:
            if len(values) > 2:
                sheet.compare(f"Strips cut {way}", values)
            lengths = [bending_length_cm(value) for value in values]
            found[way] = repeats(lengths).mean
            sheet.say(mean_of(f"Overhang {way}", values, "cm") + f" Half of it: bending length {found[way]:.2f} cm.")
            sheet.keep(f"bend_{way}_cm", found[way], Known.MEASURED, lengths)
    mean = sum(found.values()) / len(found)
    if len(found) == 2:
        sheet.say(
            f"Mean {mean:.2f} cm; on the bias about {bias_bending_length_cm(found['along'], found['across']):.2f} cm or softer."
        )
    else:
        sheet.out.doubts.append("Only one direction was measured; cut a strip the other way too.")
    drape, (few, many) = drape_from_bending(mean), folds_from_bending(mean)
    folds = f"about {few}{f' to {many}' if many > few else ''} folds" if many else "hardly a fold"
    sheet.say(
        f"Estimated drape about {drape.best:.0f} (probably {drape.low:.0f} to {drape.high:.0f}), {folds}; "
        "from stiffness alone, not a test result."
    )
    sheet.keep("bending_length_cm", mean, Known.MEASURED)


def _disc(sheet: Sheet) -> None:
    if sheet.method.name == "photo":
        drape, counted = sheet.needed("drape"), sheet.one("folds", False)
        folds = f"{counted:.0f} folds" if counted is not None else "the folds cannot be counted surely"
        sheet.say(f"Drape coefficient {drape:.1f} %, {folds}.")
        if sheet.needed("sure") < REPORTED:
            sheet.out.doubts.append(
                "The disc hardly stands out from the table. Use a darker or lighter ground and take it again."
            )
        photo = sheet.one("photo_id", False)
        sheet.keep("drape_coefficient_pct", drape, Known.MEASURED, note=f"photo {photo:.0f}" if photo else "")
    else:
        areas = sheet.series("area")
        each = [drape_coefficient_pct(area) for area in areas]
        drape = repeats(each).mean
        sheet.say(
            mean_of("Shadow", areas, "cm²") + f" Drape coefficient {drape:.1f} % of the ring of the {2 * DISC_CM:.0f} cm disc."
        )
        sheet.keep("drape_coefficient_pct", drape, Known.MEASURED, each)
    bend = bending_from_drape(drape)
    sheet.say(
        f"By the model that is a bending length of about {bend.best:.1f} cm (probably {bend.low:.1f} to {bend.high:.1f})."
    )


def _stretch(sheet: Sheet) -> None:
    relaxed = sheet.needed("relaxed")
    across = sheet.series("across")
    for way, name, values in (
        ("across", "stretch_cross_pct", across),
        ("along", "stretch_length_pct", sheet.series("along", False)),
    ):
        if values:
            short = next((value for value in values if value < relaxed), None)
            if short is not None:
                raise FieldFault(
                    f"Pulled {way}", short, f"is less than the relaxed mark of {relaxed:g} cm. Were these inches instead of cm?"
                )
            each = [stretch_pct(relaxed, value) for value in values]
            sheet.say(mean_of(f"Pulled {way}", values, "cm") + f" From {relaxed:g} cm: {repeats(each).mean:.0f} %.")
            sheet.keep(name, repeats(each).mean, Known.MEASURED, each)
    after, pulled = sheet.one("after", False), repeats(across).mean
    if after is not None and pulled > relaxed:
        back = recovery_pct(relaxed, pulled, after)
        sheet.say(f"{after:g} cm afterwards: {back:.0f} % of the stretch went back.")
        sheet.keep("recovery_pct", min(100.0, back), Known.MEASURED)


def _sheer(sheet: Sheet) -> None:
    if sheet.method.name == "card":
        sheet.keep("sheer", sheet.word("sheer") or "", Known.JUDGED)
        return
    found = see_through(*(sheet.needed(name) for name, _ in TONES))
    sheet.say(
        f"Sends back {found.reflectance * 100:.0f} % and lets through {found.transmittance * 100:.0f} % of the light; "
        f"contrast ratio {found.contrast_ratio:.2f}: {found.word}."
    )
    sheet.keep("sheer", found.word, Known.MEASURED)


def _thickness(sheet: Sheet) -> None:
    layers, heights = sheet.needed("layers"), sheet.series("height")
    if layers < 1:
        raise FieldFault("Layers", layers, "must be at least 1")
    each = [height / layers for height in heights]
    mean = repeats(each).mean
    sheet.say(mean_of("Height", heights, "mm") + f" Over {layers:g} layers: {mean:.2f} mm each, under a book.")
    sheet.keep("thickness_mm", mean, Known.MEASURED, each)


def _width(sheet: Sheet) -> None:
    full, usable = sheet.series("full", False), sheet.series("usable")
    sheet.say(mean_of("Usable", usable, "cm"))
    sheet.keep("width_cm", min(usable), Known.MEASURED, usable)
    sheet.say(f"The narrowest place counts: {min(usable):g} cm.")
    if full:
        sheet.say(mean_of("Full", full, "cm"))
        sheet.keep("width_full_cm", repeats(full).mean, Known.MEASURED, full)
        if min(full) < max(usable):
            sheet.out.doubts.append("The usable width is wider than the full one. Are the two exchanged?")


def _shrink(sheet: Sheet) -> None:
    before = sheet.needed("before")
    for way, name in (("along", "shrink_length_pct"), ("across", "shrink_width_pct")):
        after = sheet.one(f"{way}_after", way == "along")
        if after is not None:
            percent = shrinkage_pct(before, after)
            sheet.say(f"{way.capitalize()}: {before:g} → {after:g} cm: {percent:.1f} %{' (it grew)' if percent < 0 else ''}.")
            sheet.keep(name, percent, Known.MEASURED)


def _as_typed(sheet: Sheet) -> None:
    """Each box is a property: its word or its number is the reading."""
    alone = len(sheet.method.fields) == 1
    for box in sheet.method.fields:
        if box.choices and (word := sheet.word(box.name, alone)):
            sheet.say(f"{box.label}: {word}.")
            sheet.keep(box.name, word, Known.JUDGED)
        elif not box.choices and (numbers := sheet.series(box.name, alone)):
            sheet.say(mean_of(box.label, numbers, box.unit))
            sheet.keep(box.name, repeats(numbers).mean, Known.MEASURED, numbers)
    if not sheet.out.readings:
        raise FieldFault("choice", "", "is missing; choose at least one word")


# What needs reckoning; any other measurement is kept as it is typed.
WORKED_OUT: dict[str, Callable[[Sheet], None]] = {
    "weight": _weight, "ramp": _ramp, "disc": _disc, "stretch": _stretch, "sheer": _sheer,
    "thickness": _thickness, "width": _width, "shrink": _shrink,
}  # fmt: skip


def work_out(
    measure: Measure, method: Method, values: Mapping[str, str], cloth: Cloth, record: ClothRecord, tables: Tables
) -> Outcome:
    """What was typed as readings; raises FieldFault naming the box."""
    sheet = Sheet(method, values, cloth, values.get("by", "").strip()[:60] or "the shop", tables)
    WORKED_OUT.get(measure.name, _as_typed)(sheet)
    out = sheet.out
    _rigidity(out, record)
    out.readings = [replace(each, cloth_id=record.id) for each in out.readings]
    return out


def _rigidity(out: Outcome, record: ClothRecord) -> None:
    bend = next((each.number for each in out.readings if each.property == "bending_length_cm"), None)
    gsm = record.facts.weight_gsm
    if bend and gsm:
        mg, un = flexural_rigidity_mg_cm(gsm, bend), flexural_rigidity_un_m(gsm, bend)
        out.lines.append(f"Stiffness in bending (flexural rigidity) with {gsm:.0f} g/m²: {mg:.0f} mg·cm ({un:.1f} µN·m).")
