"""What the cloth is: named or ruled out on the list, its fibres, its press, its print.

Common practice, no source.
"""

from __future__ import annotations

import numpy as np

from nematex.core.checks.finding import Bench, Finding, Words, at_most, sentence
from nematex.core.checks.kin import like_none
from nematex.core.cloth import Cloth
from nematex.core.columns import ONE_WAY, SET_ASIDE
from nematex.core.tables import Detail
from nematex.core.verdict import Mask, Shares, Verdict, Window, compare


def check_fibre(bench: Bench) -> list[Finding]:
    """Findings on name, fibre, press and print."""
    demand = bench.demand
    findings = [_listed(bench), _excluded(bench), _conditional(bench), _use(bench)]
    if demand.reading.natural:
        findings.append(_natural(bench))
    if demand.reading.avoid_fibres or (demand.reading.fibres and not demand.has_list):
        findings.append(_fibres_by_name(bench))
    details = demand.made.all_details
    if any(detail.breathes for detail in details):
        findings.append(_breathes(bench))
    for detail in details:
        if detail.press_min is not None:
            findings.append(_press(bench, detail.press_min, f"the {detail.name}", detail))
        if detail.refuses and not (detail.unless and demand.made.has(detail.unless)):
            findings.append(_refused(bench, detail))
    if demand.reading.presses:
        findings.append(_press(bench, 2, "the envelope", None))
    findings.append(_print(bench))
    kin = like_none(bench)
    return findings if kin is None else [*findings, kin]


def _fibre_words(cloth: Cloth) -> str:
    if cloth.fibres and cloth.fibres.shares:
        return ", ".join(f"{share * 100:.0f} % {name}" for name, share in cloth.fibres.shares.items())
    return (
        f"fibres not stated, usually {' or '.join(' and '.join(b) for b in cloth.type.fibres)}"
        if cloth.type
        else "fibres not stated"
    )


def _kind(cloth: Cloth) -> str:
    return cloth.type.name if cloth.type else f"{cloth.structure} cloth"


def _listed(bench: Bench) -> Finding:
    """By the list, a cloth that is not named is with care at best; by the hand, only its handling counts."""
    demand = bench.demand
    strict = demand.wish.school == "list" and demand.has_list
    verdict = np.where(strict & ~bench.named, Verdict.WITH_CARE, Verdict.SUITS).astype(np.int8)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        on_list = cloth.type is not None and bench.tables.lexicon.index[cloth.type.name] in demand.named
        if verdict is not Verdict.SUITS:
            return f"Not on the pattern's list: {_kind(cloth)}.", "By the hand it may still be right: read weight and drape."
        if on_list:
            return f"On the pattern's list as {_kind(cloth)} ({_fibre_words(cloth)}).", ""
        lead = "Not on the list, which only tells how it should handle" if demand.has_list else "The pattern asks no fibre"
        return f"{lead}: {_kind(cloth)}, {_fibre_words(cloth)}.", ""

    return bench.flat("list", verdict, say)


def _excluded(bench: Bench) -> Finding:
    out = bench.of_types(bench.demand.excluded)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        return f"The envelope rules out {_kind(cloth)}.", "Choose a cloth from the list, or one that handles like it."

    return bench.flat("ruled out", np.where(out, Verdict.AGAINST, Verdict.SUITS), say)


def _conditional(bench: Bench) -> Finding:
    broken = bench.demand.conditional
    hit = bench.of_types(broken)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        words = broken[bench.tables.lexicon.index[cloth.type.name]] if cloth.type else ""
        return f"The envelope names {_kind(cloth)} only {words}.", f"Make it {words}."

    return bench.flat("condition", np.where(hit, Verdict.WITH_CARE, Verdict.SUITS), say)


def _use(bench: Bench) -> Finding:
    """Linings, furnishing cloth and trims are for something else, unless the list names them."""
    other = bench.cloths.used_for(*SET_ASIDE)
    other = other & ~bench.named & ~bench.welcome & (not bench.demand.made.band)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        use = cloth.type.use if cloth.type else ""
        remedy = {
            "furnishing": "It works in an unlined jacket or a bag: wash first and match the repeat.",
            "lining": "Use it inside; as the outer cloth it slips and frays.",
            "trim": "Use it for bands, edges or stiffening.",
        }.get(use, "Wash first and finish every raw edge.")
        return f"{_kind(cloth).capitalize()} is sold as {use} cloth.", remedy

    return bench.flat("use", np.where(other, Verdict.WITH_CARE, Verdict.SUITS), say)


def _natural(bench: Bench) -> Finding:
    """Natural fibres asked: cotton, linen, hemp, wool, silk suit; regenerated ones with care; synthetics not."""
    rule = bench.tables.judging["fibre"]["natural_suits"]
    shares = Shares(0.999, 0.999, 0.001)
    natural = compare(bench.cloths.natural, Window(low=rule), shares).verdict
    breathing = compare(bench.cloths.breathing, Window(low=rule), shares).verdict
    verdict = np.where(natural == Verdict.SUITS, Verdict.SUITS, np.maximum(breathing, Verdict.WITH_CARE))
    verdict = np.where((natural == Verdict.UNPROVEN) & (breathing == Verdict.UNPROVEN), Verdict.UNPROVEN, verdict)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        if verdict is Verdict.SUITS:
            return f"Natural fibre as asked: {_fibre_words(cloth)}.", ""
        if verdict is Verdict.WITH_CARE:
            return (
                f"Natural fibres are asked and this is regenerated cellulose: {_fibre_words(cloth)}.",
                "Say what it is; it breathes as well.",
            )
        if verdict is Verdict.UNPROVEN:
            return f"Natural fibres are asked: {_fibre_words(cloth)}.", "Ask the supplier for the fibre content."
        return f"Natural fibres are asked and this is {_fibre_words(cloth)}.", "Choose cotton, linen, wool or silk."

    return bench.flat("natural", verdict, say)


def _fibres_by_name(bench: Bench) -> Finding:
    """Fibres that the envelope rules out or asks for by their bare names."""
    reading, tables = bench.demand.reading, bench.tables
    types = tables.lexicon.types

    def holds(names: list[str]) -> Mask:
        usual = [bool(kind.all_fibres & set(names)) and all(set(b) & set(names) for b in kind.fibres) for kind in types]
        return np.array([*usual, False], dtype=np.bool_)[bench.cloths.type]

    out = holds(reading.avoid_fibres) if reading.avoid_fibres else np.zeros(len(bench.cloths), dtype=np.bool_)
    verdict = np.where(out & ~bench.named, Verdict.AGAINST, Verdict.SUITS)
    if reading.fibres and not bench.demand.has_list:
        verdict = np.where(~holds(reading.fibres), np.maximum(verdict, Verdict.WITH_CARE), verdict)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        if verdict is Verdict.AGAINST:
            return (
                f"The envelope rules out {', '.join(reading.avoid_fibres)}: this is {_fibre_words(cloth)}.",
                "Choose another fibre.",
            )
        if verdict is Verdict.WITH_CARE:
            return (
                f"The envelope asks {', '.join(reading.fibres)}: this is {_fibre_words(cloth)}.",
                "Check that it handles alike.",
            )
        return "", ""

    return bench.flat("fibre names", verdict, say)


def _breathes(bench: Bench) -> Finding:
    shares = Shares(0.999, 0.999, 0.001)
    found = compare(bench.cloths.breathing, Window(low=bench.tables.judging["fibre"]["mostly"]), shares).verdict
    verdict = np.where(found == Verdict.AGAINST, Verdict.WITH_CARE, found)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        if verdict is Verdict.SUITS:
            return f"Breathes, as it should where it is slept in: {_fibre_words(cloth)}.", ""
        if verdict is Verdict.UNPROVEN:
            return (
                f"Slept in or lounged in, it should breathe: {_fibre_words(cloth)}.",
                "Ask the supplier for the fibre content.",
            )
        return f"Does not breathe well for what is slept in: {_fibre_words(cloth)}.", "Choose a natural or regenerated fibre."

    return bench.flat("breathes", verdict, say)


def _press(bench: Bench, least: int, part: str, detail: Detail | None) -> Finding:
    """How well it takes a press, 0 to 3: one step short is with care, two are against."""
    press = bench.cloths.press
    verdict = np.select(
        [press.low >= least, press.high < least - 1, press.high < least, press.low >= least - 1],
        [Verdict.SUITS, Verdict.AGAINST, Verdict.WITH_CARE, Verdict.WITH_CARE],
        Verdict.UNPROVEN,
    )
    why = detail.why if detail else "it has to take a press"
    mend = detail.remedy if detail and detail.remedy else "edge-stitch what should stay sharp"

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        if verdict is Verdict.SUITS:
            return f"Takes a sharp press for {part}.", ""
        lead = "May not hold" if verdict is Verdict.UNPROVEN else "Will not hold"
        remedy = "Press a fold on a scrap and look an hour later." if verdict is Verdict.UNPROVEN else sentence(mend)
        return f"{lead} the press wanted for {part}: {why}.", remedy

    named = bench.named if detail else np.zeros(len(bench.cloths), dtype=np.bool_)
    applies = bench.applies(detail) if detail else np.ones(len(bench.cloths), dtype=np.bool_)
    finding = at_most(bench.flat("press", verdict, say), named)
    if detail and detail.press_worst:
        worst = Verdict.from_word(detail.press_worst)
        finding = at_most(finding, np.ones(len(bench.cloths), dtype=np.bool_), worst)
    return bench.flat(finding.rule, np.where(applies, finding.verdict, Verdict.SUITS), say)


def _refused(bench: Bench, detail: Detail) -> Finding:
    index = bench.tables.lexicon.index
    out = bench.of_types(index[name] for name in detail.refuses)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        unless = f"; with {detail.unless} it would do" if detail.unless else ""
        return (
            f"{_kind(cloth).capitalize()} is too thin for {detail.name}: {detail.why}{unless}.",
            sentence(detail.remedy),
        )

    return at_most(bench.flat(f"refused {detail.name}", np.where(out, Verdict.AGAINST, Verdict.SUITS), say), bench.named)


def _print(bench: Bench) -> Finding:
    """Prints and naps that the envelope rules out, and a large one-way print on the bias."""
    cloths, avoid = bench.cloths, bench.demand.reading.avoid_prints
    large = bench.tables.judging["print"]["large_cm"]
    verdict = np.zeros(len(cloths), dtype=np.int8)
    one_way = cloths.direction == ONE_WAY
    if "one-way" in avoid:
        verdict = np.where(one_way, Verdict.AGAINST, verdict)
    if "nap" in avoid:
        verdict = np.where(cloths.nap, Verdict.AGAINST, verdict)
    if "large" in avoid:
        verdict = np.where(cloths.print_scale_cm >= large, Verdict.AGAINST, verdict)
    if bench.demand.made.has("bias cut"):
        big = one_way & (cloths.print_scale_cm >= large)
        verdict = np.where(big, np.maximum(verdict, Verdict.WITH_CARE), verdict)

    def say(cloth: Cloth, verdict: Verdict) -> Words:
        if verdict is Verdict.AGAINST:
            return "The envelope rules out this print or nap.", "Choose a plain or an all-over print."
        if verdict is Verdict.WITH_CARE:
            return "A large one-way print lies crooked on the bias.", "Choose a small or all-over print for the bias."
        return "", ""

    return bench.flat("print", verdict, say)
