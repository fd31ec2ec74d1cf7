"""What an envelope's clauses come to for the garment's own cloth, in the form that judging asks for.

Only what is said firmly sets a structure, a weight or a hand; what is also possible is named, and what is said of a part or a
layer is that part's alone.
"""

from __future__ import annotations

from collections.abc import Iterable
from math import inf

from nematex.core.pattern.envelope.clause import FIRM, Clause
from nematex.core.pattern.envelope.interpretation import Interpretation, NamedCloths
from nematex.core.pattern.envelope.narrowed import left_by, narrow
from nematex.core.quantity.estimate import Range
from nematex.core.tables import Tables


def compile_into(interpretation: Interpretation, clauses: Iterable[Clause], tables: Tables) -> None:
    """Add what these clauses say; those that cannot be kept together go into `unread`."""
    for clause in clauses:
        interpretation.clauses.append(clause)
        if clause.kind == "cloth":
            _narrow_by_condition(clause, tables)
            named = interpretation.avoid_cloths if clause.out else interpretation.cloths
            named.append(_named(clause, interpretation))
        elif not clause.role:
            _whole(interpretation, clause, tables)


# 'If it is heavy enough' opens no window for the lightest of a group.
ENOUGH = {"heavy": "medium to heavy", "light": "light to medium"}


def _narrow_by_condition(clause: Clause, tables: Tables) -> None:
    word = next((ENOUGH[condition.kind] for condition in clause.conditions if condition.kind in ENOUGH), None)
    if word and clause.weight is None and clause.gsm is None:
        narrow(clause, word, None, tables)


def _named(clause: Clause, interpretation: Interpretation) -> NamedCloths:
    written = interpretation.weight_said.get(clause.weight, clause.weight) if clause.weight else ""
    said = f"{written} {clause.words}" if written and written not in clause.words else clause.words
    return NamedCloths(
        said,
        clause.types,
        clause.weight,
        clause.gsm,
        tuple(clause.conditions),
        clause.role or None,
        clause.words,
        clause.hand,
        clause.whole,
        clause.standing,
    )


def _whole(into: Interpretation, clause: Clause, tables: Tables) -> None:
    step = {
        "structure": _structure,
        "weight": _weight,
        "hand": _hand,
        "gsm": _gsm,
        "cross": _stretch,
        "length": _stretch,
        "both": _stretch,
        "stretch": _stretchy,
    }.get(clause.kind)
    if step:
        step(into, clause, tables)
    elif clause.kind == "fibre":
        (into.avoid_fibres if clause.out else into.fibres).append(str(clause.value))
    elif clause.kind == "print" and clause.out:
        into.avoid_prints.add(str(clause.value))
    elif clause.kind == "sheer" and clause.out:
        into.avoid_sheer = True
    elif clause.kind == "width" and clause.value.low > 0:
        into.min_width_cm, into.width_words = max(into.min_width_cm or 0.0, clause.value.low), clause.words
    elif clause.kind == "elastane" and not clause.out:
        into.recovers = True
    elif clause.kind in ("natural", "press") and not clause.out:
        into.natural = into.natural or clause.kind == "natural"
        into.presses = into.presses or clause.kind == "press"


def _structure(into: Interpretation, clause: Clause, _: Tables) -> None:
    if clause.out:
        into.avoid_structures.add(clause.value)
    elif clause.standing in FIRM:
        into.structures.add(clause.value)
    else:
        into.also_structures.add(clause.value)


def _weight(into: Interpretation, clause: Clause, _: Tables) -> None:
    word = str(clause.value)
    into.weight_said.setdefault(word, clause.words.removesuffix(" weight"))
    if clause.out:
        into.avoid_weights.append(word)
        if clause.structure:
            into.avoid_weight_structures[word] = clause.structure
    elif clause.standing in FIRM:
        if clause.structure and word not in into.weights:
            into.weight_structures[word] = clause.structure
        into.weights.append(word)


def _hand(into: Interpretation, clause: Clause, tables: Tables) -> None:
    known = tables.avoid_hands if clause.out else tables.pattern_hands
    if clause.value not in known or (not clause.out and clause.standing not in FIRM):
        return
    if clause.out and clause.structure:
        into.avoid_hands_of.setdefault(clause.structure, []).append((clause.words, known[clause.value]))
    elif clause.out:
        into.avoid_hands.append((clause.words, known[clause.value]))
    else:
        into.hands.append((clause.words, known[clause.value]))
        if clause.whole:
            into.lifting.add(clause.words)


def _gsm(into: Interpretation, clause: Clause, _: Tables) -> None:
    limit = left_by(clause.value) if clause.out else clause.value
    words = f"{'not ' if clause.out else ''}“{clause.words}”"
    if limit is None:
        into.unread.append(f"not {clause.words}")
        return
    old = into.gsm_of.get(clause.structure) if clause.structure else into.gsm
    both = Range(max(old.low, limit.low), min(old.high, limit.high)) if old else limit
    if both.low > both.high:
        into.unread.append(clause.words)  # two numbers that no cloth can keep: the first one stands
    elif clause.structure:
        into.gsm_of[clause.structure], into.gsm_words = both, words
    else:
        into.gsm, into.gsm_words = both, words


def _stretch(into: Interpretation, clause: Clause, _: Tables) -> None:
    span: Range = clause.value
    if clause.out:
        # 'avoid 50 % stretch' rules out that and more; 'not under 20 %' is the least.
        most = span.low or None
        if most and clause.structure:
            into.most_cross_of[clause.structure], into.most_stretch_words = most, f"not “{clause.words}”"
        elif most is None:
            into.unread.append(f"not {clause.words}")
        else:
            into.max_cross_pct, into.most_stretch_words = most, f"not “{clause.words}”"
        return
    if span.low:
        into.stretch_words = f"“{clause.words}”"
        if clause.kind in ("cross", "both"):
            into.min_cross_pct = span.low
        if clause.kind in ("length", "both"):
            into.min_length_pct = span.low
    if span.high < inf:
        if clause.kind == "length":
            into.unread.append(clause.words)  # nothing judges a most along the cloth
        else:
            into.max_cross_pct, into.most_stretch_words = span.high, f"“{clause.words}”"
            into.most_by_number = True


def _stretchy(into: Interpretation, clause: Clause, tables: Tables) -> None:
    """Words for stretch where no number has been said."""
    rule, value = tables.judging.words, str(clause.value)
    if value == "recovery":
        into.recovers = into.recovers or not clause.out
    elif clause.out and clause.structure:
        if value in ("stretchy", "both"):
            most = rule.very_stretchy_from_pct if clause.words.startswith("very ") else rule.stable_most_pct
            into.most_cross_of[clause.structure], into.most_stretch_words = most, f"not “{clause.words}”"
    elif clause.out or value == "rigid":
        if value != "stable":
            into.max_cross_pct, into.most_stretch_words = rule.rigid_most_pct, f"{'not ' if clause.out else ''}“{clause.words}”"
    elif value == "stable":
        if clause.standing in FIRM:
            into.max_cross_pct, into.most_stretch_words = rule.stable_most_pct, f"“{clause.words}”"
        else:
            into.most_cross_of[clause.structure or "knit"] = rule.stable_most_pct
            into.most_stretch_words = f"“{clause.words}”"
    elif into.min_cross_pct is None and clause.standing in FIRM:
        into.stretchy, into.stretch_words = True, f"“{clause.words}”"
        into.min_cross_pct = rule.stretchy_least_pct if value == "stretchy" else rule.four_way_least_pct
        if value == "both":
            into.min_length_pct = rule.four_way_least_pct
