"""What the command line tells beyond a verdict: why, what goes beneath, the hang, sizes, mixed cloths; and the matrix."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from typing import Any

import numpy as np

from nematex.core.amount.length import least_length_m
from nematex.core.beneath.interfacing import interfacing
from nematex.core.beneath.lining import ways
from nematex.core.beneath.notions import read_notions
from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.errors import FieldFault
from nematex.core.hang.hem import hang
from nematex.core.hang.silhouettes import checked, cut_of, silhouette
from nematex.core.hang.words import alone
from nematex.core.judging.combination import PartCloth, joints
from nematex.core.judging.demand import Demand, demand
from nematex.core.judging.matrix import Matrix, matrix
from nematex.core.judging.pairing import Pairing, pair
from nematex.core.judging.saying.joint import say_joint
from nematex.core.judging.size_advice import is_off_list_knit, knit_in_woven
from nematex.core.judging.verdict import Verdict
from nematex.core.judging.why import why
from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.pattern.paste import read_paste
from nematex.core.pattern.sizing import Body, choose_size
from nematex.core.tables import Tables
from nematex.usecases.assess.said import said
from nematex.usecases.assess.schema import HangIn, MatrixIn, PairingIn

BEST = 10


def _number(value: float) -> float | None:
    """A number that JSON can hold."""
    return round(value, 3) if abs(value) < 1e6 else None


def _why(asked: Demand, tables: Tables) -> list[dict[str, Any]]:
    return [
        {
            "check": edge.check,
            "window": edge.window,
            "side": edge.side,
            "value": _number(edge.value),
            "unit": edge.unit,
            "words": edge.origin.words,
            "table": edge.origin.table,
            "row": edge.origin.row,
            "field": edge.origin.field,
        }
        for edge in why(asked, tables)
    ]


def _beneath(cloth: Cloth, asked: Demand, main_m: float | None, tables: Tables) -> dict[str, Any]:
    found = interfacing(cloth, asked, tables)
    return {
        "ways": [
            {"way": way.name, "stand": way.stand, "amount_m": way.amount_m, "changes": way.changes}
            for way in ways(cloth, asked, main_m, None, tables)
        ],
        "interfacing": {"kind": found.kind, "places": list(found.places), "reason": found.reason, "length_m": found.length_m}
        if found
        else None,
        "notions": [
            {"words": each.words, "kind": each.kind, "count": each.count, "length_cm": each.length_cm, "size_cm": each.size_cm}
            for each in read_notions(asked.pattern.notions)
        ],
    }


def _hang(cloth: Cloth, given: HangIn) -> dict[str, Any]:
    kind = silhouette(given.garment)
    if kind.name == "cowl":
        raise FieldFault("hang.garment", kind.name, "is only drawn in the shop; choose another garment")
    length = checked(kind.name, "hang.length_cm", given.length_cm, kind.length_cm, " cm")
    found = hang(cut_of(kind.name, length, given.gather), cloth.bending_length.best)
    return {
        "garment": kind.name,
        "hem_radius_cm": _number(found.hem_radius_cm),
        "widest_radius_cm": _number(found.widest_radius_cm),
        "fullness": _number(found.fullness),
        "folds": _number(found.folds),
        "words": alone(kind, found),
        "model": "an estimate from bending length, weight, gathering and length",
    }


def _sizes(data: PairingIn, pairing: Pairing, tables: Tables) -> dict[str, Any]:
    asked, cloth = pairing.demand, pairing.cloth
    body = data.body
    choices = (
        choose_size(
            asked.pattern, Body(body.bust_cm, body.waist_cm, body.hip_cm, body.high_bust_cm, body.ease_cm), tables, body.over
        )
        if body
        else []
    )
    off_list = is_off_list_knit(cloth, asked.structure, pairing.checks["stretch"].verdict)
    advice = knit_in_woven(cloth, asked.pattern, data.size, tables) if off_list else None
    return {
        "choices": [{"band": each.band, "size": each.size, "reasons": list(each.reasons)} for each in choices],
        "stable_knit": {
            "cut": advice.cut,
            "closer_cm": advice.closer_cm,
            "sizes": advice.sizes,
            "receipt": list(advice.receipt),
        }
        if advice
        else None,
    }


def _mixed(data: PairingIn, asked: Demand, cloths: dict[str, Cloth], tables: Tables) -> dict[str, Any]:
    """Each part in its own cloth, then held together; the whole is the worst of all."""
    held, parts = [], {}
    codes: list[Verdict] = []
    for name, cloth in cloths.items():
        wish = Wish(data.view, data.size, name, data.look, data.school, asked.wish.options)
        own = pair(cloth, demand(asked.pattern, wish, tables), tables)
        parts[name] = {"verdict": own.verdict.word, "reason": own.sentence}
        held.append(PartCloth(name, own.demand.made.fit, cloth))
        codes.append(own.verdict)
    found = joints(held, tables)
    codes += [each.verdict for each in found]
    return {
        "verdict": max(codes).word,
        "parts": parts,
        "together": [
            {"parts": list(joint.parts), "respect": joint.respect, "verdict": joint.verdict.word, "reason": words.reason,
             "remedy": words.remedy or None}
            for joint in found
            for words in (say_joint(joint, tables),)
        ],
    }  # fmt: skip


def more(data: PairingIn, pairing: Pairing, mixed: dict[str, Cloth], tables: Tables) -> dict[str, Any] | None:
    """What was asked for beyond the verdict; None if nothing was."""
    cloth, asked = pairing.cloth, pairing.demand
    found: dict[str, Any] = {}
    if "why" in data.tell:
        found["why"] = _why(asked, tables)
    if "beneath" in data.tell:
        found["beneath"] = _beneath(cloth, asked, pairing.amount.length_m if pairing.amount else None, tables)
    if "clauses" in data.tell:
        found |= said(asked.interpretation)
    if data.hang:
        found["hang"] = _hang(cloth, data.hang)
    if data.body or "sizes" in data.tell:
        found["sizes"] = _sizes(data, pairing, tables)
    if mixed:
        found["mixed"] = _mixed(data, asked, mixed, tables)
    return found or None


def assess_matrix(data: MatrixIn, facts: Sequence[ClothFacts], patterns: Sequence[Pattern], tables: Tables) -> dict[str, Any]:
    """Every pattern against every cloth; `facts` and `patterns` are the core's values of the input."""
    cloths = columns([known_cloth(each, tables) for each in facts], tables)
    wish = Wish(look=data.look, school=data.school)
    found = matrix(cloths, [partial(demand, each, wish, tables) for each in patterns], tables)
    return {
        "verdicts": [[Verdict(int(code)).word for code in row] for row in found.verdict],
        "scores": [[round(float(score), 1) for score in row] for row in found.score],
        "best_cloths": [[int(at) for at in found.best_cloths(line, BEST)] for line in range(len(found.verdict))],
        "best_patterns": [[int(at) for at in found.best_patterns(at, BEST)] for at in range(found.verdict.shape[1])],
        "nothing_suits": [int(at) for at in found.suited_by_nothing()],
        **({"without_cloth": _without_cloth(found, data.stock_m, patterns)} if data.stock_m else {}),
    }


def _without_cloth(found: Matrix, stock_m: list[float | None], patterns: Sequence[Pattern]) -> list[int]:
    """Patterns for which no cloth does that is there in the least amount they take."""
    if len(stock_m) != found.verdict.shape[1]:
        raise FieldFault("stock_m", len(stock_m), f"must name metres for each of the {found.verdict.shape[1]} cloths")
    held = np.array([metres or 0.0 for metres in stock_m])
    least = np.array([least_length_m(pattern) for pattern in patterns])
    return [int(at) for at in found.without_cloth(held[None, :] >= least[:, None])]


def _place(text: str, number: int) -> dict[str, int]:
    """Where a line stands in the text that was pasted: letters from its beginning."""
    lines = text.split("\n")
    start = sum(len(line) + 1 for line in lines[: number - 1])
    return {"start": start, "end": start + len(lines[number - 1])}


def assess_envelope(text: str, tables: Tables) -> dict[str, Any]:
    """A pasted envelope as the fields of a pattern, with what was not read."""
    draft = read_paste(text, tables)
    return {
        "pattern": draft.as_row(),
        "unread": [{"line": line.number, "text": line.text, **_place(text, line.number)} for line in draft.unread],
        "faults": [{"line": line.number, "text": line.text, "rule": line.fault} for line in draft.faults],
        **said(read_envelope(str(draft.as_row().get("recommended", "")), tables)),
    }
