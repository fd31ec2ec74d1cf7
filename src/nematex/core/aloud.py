"""The one sentence to say aloud about a pairing: the worst check's reason, or why it is right."""

from __future__ import annotations

from collections.abc import Mapping

from nematex.core.cloth import Cloth
from nematex.core.demand import Demand
from nematex.core.judge import CheckAnswer
from nematex.core.tables import Tables
from nematex.core.verdict import Verdict

HANGS = "Hangs as asked"  # how the drape check begins where all is well


def sentence(cloth: Cloth, demand: Demand, checks: Mapping[str, CheckAnswer], tables: Tables) -> str:
    """'Handles like the viscose lawn on the list: bends at 1.4 cm …', or what stands in the way."""
    worst = max(checks.values(), key=lambda check: check.verdict)
    if worst.verdict is not Verdict.SUITS:
        return worst.reason
    drape = checks["drape"].reason
    if not drape.startswith(HANGS) or not demand.named:
        return drape
    lexicon = tables.lexicon
    if cloth.type and lexicon.index[cloth.type.name] in demand.named:
        return drape.replace(HANGS, "On the list", 1)
    named = [lexicon.types[at] for at in sorted(demand.named)]
    kin = lexicon.nearest(cloth.weight.best, cloth.bend.best, cloth.stretch_cross.best, cloth.structure, 1, named)[0]
    return drape.replace(HANGS, f"Handles like the {kin} on the list", 1)
