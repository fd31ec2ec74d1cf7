"""Judge pairings given as JSON, without a database."""

from __future__ import annotations

import json
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.judging.demand import Demand, demand
from nematex.core.judging.judge import CheckAnswer
from nematex.core.judging.pairing import Pairing, pair
from nematex.core.pattern.construction import usual_fit
from nematex.core.pattern.facts import EdgeFix, Option, Part, Pattern, ReadingFix, Requirement, Size, Wish
from nematex.core.sent_json import read_sent
from nematex.core.tables import Tables
from nematex.tables import trade_tables
from nematex.usecases.assess.more import assess_envelope, assess_matrix, more
from nematex.usecases.assess.schema import ClothIn, EnvelopeIn, MatrixIn, PairingIn, PartIn, PatternIn, ReadingFixIn

M = TypeVar("M", bound=BaseModel)


def cloth_facts(data: ClothIn) -> ClothFacts:
    """The core's facts from a validated cloth."""
    values = data.model_dump(exclude={"print", "name"})
    printed = data.print.model_dump() if data.print else {}
    return ClothFacts(name=data.name or "", print=Print(**printed), **values)


def _part(data: PartIn, tables: Tables) -> Part:
    details = tuple(data.details)
    return Part(data.name, data.fit or usual_fit(data.name, details, tables), details)


def _reading_fix(data: ReadingFixIn, tables: Tables) -> ReadingFix:
    """A fix whose cloths the lexicon knows; raises UnknownChoice."""
    lexicon = tables.lexicon
    for name in data.cloths:
        if name not in lexicon.index:
            raise UnknownChoice("reading_fixes.cloths", name, lexicon.index, "cloth name")
    return ReadingFix(data.words, tuple(data.cloths), data.reason, data.by, data.on)


def pattern_facts(data: PatternIn, tables: Tables) -> Pattern:
    """The core's pattern from a validated one."""
    return Pattern(
        name=data.name or "",
        garment=data.garment or "",
        structure=data.structure,
        recommended=data.recommended or "",
        avoid=data.avoid or "",
        min_stretch_cross_pct=data.min_stretch_cross_pct,
        min_stretch_length_pct=data.min_stretch_length_pct,
        details=tuple(data.details),
        parts=tuple(_part(part, tables) for part in data.parts),
        lined=data.lined,
        nightwear=data.nightwear,
        wearer=data.wearer,
        widest_piece_cm=data.widest_piece_cm,
        requirements=tuple(
            Requirement(row.view, tuple(row.sizes), row.width_cm, row.length_m, row.with_nap, row.use, row.reckoned)
            for row in data.requirements
        ),
        options=tuple(Option(each.name, each.part, tuple(each.views), tuple(each.details)) for each in data.options),
        sizes=tuple(Size(**size.model_dump()) for size in data.sizes),
        notions=data.notions or "",
        edge_fixes=tuple(EdgeFix(**fix.model_dump()) for fix in data.edge_fixes),
        reading_fixes=tuple(_reading_fix(fix, tables) for fix in data.reading_fixes),
    )


def parse(data: PairingIn, tables: Tables) -> tuple[Cloth, Demand]:
    """Core values for a validated pairing; raises FieldFault."""
    cloth, pattern, wish = parse_parts(data, tables)
    return cloth, demand(pattern, wish, tables)


def parse_parts(data: PairingIn, tables: Tables) -> tuple[Cloth, Pattern, Wish]:
    """Cloth, pattern and choices of a validated pairing; raises FieldFault."""
    if not (data.cloth.name or data.cloth.cloth or data.cloth.structure):
        raise FieldFault("cloth", "", "needs a cloth name (cloth or name) or a structure (woven, knit or net)")
    if not (data.pattern.structure or data.pattern.recommended):
        raise FieldFault("pattern", "", "needs a structure (woven, knit or either) or a recommendation")
    cloth = known_cloth(cloth_facts(data.cloth), tables)
    options = tuple(data.options) if data.options is not None else None
    wish = Wish(data.view, data.size, data.part, data.look, data.school, options, tuple(data.hacks))
    return cloth, pattern_facts(data.pattern, tables), wish


def _check(check: CheckAnswer) -> dict[str, Any]:
    return {
        "verdict": check.verdict.word,
        "margin": check.margin,
        "reason": check.reason,
        "remedy": check.remedy or None,
    }


def answer(pairing: Pairing) -> dict[str, Any]:
    """A pairing as JSON values."""
    amount = pairing.amount
    return {
        "verdict": pairing.verdict.word,
        "score": pairing.score,
        "checks": {name: _check(check) for name, check in pairing.checks.items()},
        "handles_like": list(pairing.handles_like),
        "measure_next": pairing.measure_next,
        "cautions": [caution.text for caution in pairing.cautions],
        "amount": {"length_m": amount.length_m, "cut_m": amount.cut_m, "receipt": list(amount.receipt)} if amount else None,
        "unread": list(pairing.unread),
        "faults": [f"fibres: {fault}" for fault in pairing.cloth.fibres.faults] if pairing.cloth.fibres else [],
    }


def assess_one(raw: Any, tables: Tables | None = None) -> dict[str, Any]:
    """Judge one pairing given as plain JSON values; raises FieldFault naming field, value and choices."""
    tables = tables or trade_tables()
    data = _checked(PairingIn, raw)
    cloth, asked = parse(data, tables)
    pairing = pair(cloth, asked, tables)
    found = answer(pairing)
    mixed = {name: known_cloth(cloth_facts(each), tables) for name, each in data.mixed.items()}
    beyond = more(data, pairing, mixed, tables)
    return {**found, "more": beyond} if beyond else found


def assess_any(raw: Any) -> dict[str, Any]:
    """One pairing, a matrix ("cloths" and "patterns") or a pasted envelope ("envelope"); raises FieldFault."""
    tables = trade_tables()
    if isinstance(raw, dict) and "envelope" in raw:
        return assess_envelope(_checked(EnvelopeIn, raw).envelope, tables)
    if isinstance(raw, dict) and "cloths" in raw:
        data = _checked(MatrixIn, raw)
        cloths, patterns = data.cloths, data.patterns
        facts = [cloth_facts(cloth) for cloth in cloths]
        return assess_matrix(data, facts, [pattern_facts(pattern, tables) for pattern in patterns], tables)
    return assess_one(raw, tables)


def _checked(model: type[M], raw: Any) -> M:
    try:
        return model.model_validate(raw)
    except ValidationError as fault:
        raise _as_field_fault(fault, model) from None


def _as_field_fault(fault: ValidationError, model: Any) -> FieldFault:
    first = fault.errors(include_url=False)[0]
    field = ".".join(str(step) for step in first["loc"]) or "input"
    value = first["input"]
    shown = value if not isinstance(value, (dict, list)) else "…"
    rule = first["msg"].removeprefix("Value error, ")
    if first["type"] == "extra_forbidden":
        return FieldFault(field, shown, f"is not a field here; choose from {', '.join(_fields(first['loc'], model))}")
    if first["type"] == "missing":
        return FieldFault(field, "", "is missing")
    return FieldFault(field, shown, rule[:1].lower() + rule[1:])


def _fields(path: tuple[int | str, ...], model: Any) -> list[str]:
    """The field names allowed where an unknown one stood."""
    for step in path[:-1]:
        if isinstance(step, int):
            continue
        field = model.model_fields.get(step)
        inner = field.annotation if field else model
        model = next((kind for kind in _models(inner)), model)
    return [field.alias or name for name, field in model.model_fields.items()]


def _models(annotation: Any) -> list[Any]:
    parts = getattr(annotation, "__args__", ()) or (annotation,)
    return [part for part in parts if hasattr(part, "model_fields")]


def assess_text(text: str) -> str:
    """Judge the pairing, or each of the list of pairings, in a JSON text; raises FieldFault."""
    try:
        raw = read_sent(text)
    except json.JSONDecodeError as fault:
        raise FieldFault("input", text[:40], f"is not JSON: {fault.msg} at line {fault.lineno} column {fault.colno}") from None
    except ValueError as fault:
        raise FieldFault("input", text[:40], f"cannot be used: {fault}") from None
    many = isinstance(raw, list)
    answers = []
    for number, one in enumerate(raw if many else [raw]):
        try:
            answers.append(assess_any(one))
        except FieldFault as fault:
            place = f"[{number}]." if many else ""
            raise FieldFault(f"{place}{fault.field}", fault.value, fault.rule) from None
    return json.dumps(answers if many else answers[0], ensure_ascii=False, indent=2)
