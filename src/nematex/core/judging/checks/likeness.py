"""What the cloth is, beside its numbers: kin of what the list names, and made for such a garment.

Numbers can lower a verdict and never lift it: an unlike cloth whose numbers fit is with care, a use that spoils the garment
is against. By the hand neither is asked. Common practice, no source.
"""

from __future__ import annotations

import numpy as np

from nematex.core.judging.checks.finding import Asker, Comparison, Finding, Rule
from nematex.core.judging.verdict import AGAINST, SUITS, WITH_CARE
from nematex.core.quantity.elementwise import negated, where
from nematex.core.quantity.estimate import TYPICAL


def check_likeness(comparison: Comparison) -> list[Finding]:
    """Findings on kinship and use; none by the hand."""
    if comparison.demand.wish.school == "hand" or comparison.demand.made.band:
        return []
    return [*_unlike(comparison), *_foreign(comparison)]


def _kin_kinds(comparison: Comparison) -> frozenset[int]:
    """The kinds that are kin of one that the list names."""
    named = sorted(comparison.demand.named)
    return frozenset(np.flatnonzero(comparison.tables.kin[named].any(axis=0)).tolist())


def _unlike(comparison: Comparison) -> list[Finding]:
    demand = comparison.demand
    if not demand.named or not demand.owes_the_list:
        return []
    types, cloths = comparison.tables.lexicon.types, comparison.cloths
    kin = comparison.of_types(demand.once("kin kinds", lambda: _kin_kinds(comparison)))
    knits, wovens = (any((types[at].structure == "knit") == knit for at in demand.named) for knit in (True, False))
    concerned = (cloths.knit & knits) | (negated(cloths.knit) & wovens)  # of wovens named a knit is no kin to be missed
    placed = (cloths.type >= 0) | (cloths.bending_length.known == TYPICAL)  # who has it in hand needs no name for it
    strange = negated(kin) & negated(comparison.welcome) & placed & concerned
    return [comparison.flat(Rule.UNLIKE, where(strange, WITH_CARE, SUITS), Asker.LIST)]


def _foreign(comparison: Comparison) -> list[Finding]:
    """Made for something else than such a garment, and not named for it."""
    demand = comparison.demand
    if not demand.made.end_uses or demand.made.by_itself or demand.made.fit == "free":
        return []
    foreign = comparison.of_types(demand.once("foreign kinds", lambda: _foreign_kinds(comparison)))
    spoils = comparison.of_types(demand.once("spoiling kinds", lambda: _spoiling_kinds(comparison)))
    meant = comparison.named | comparison.of_types(demand.meant)
    verdict = where(spoils, AGAINST, where(foreign, WITH_CARE, SUITS))
    return [comparison.flat(Rule.FOREIGN, where(meant | comparison.welcome, SUITS, verdict), Asker.PATTERN)]


def _foreign_kinds(comparison: Comparison) -> frozenset[int]:
    uses = comparison.demand.made.end_uses
    return frozenset(at for at, kind in enumerate(comparison.tables.lexicon.types) if not kind.end_uses & uses)


def _spoiling_kinds(comparison: Comparison) -> frozenset[int]:
    """Kinds that are made for nothing but what spoils each use of the garment."""
    uses, spoils = comparison.demand.made.end_uses, comparison.tables.spoils
    kinds = enumerate(comparison.tables.lexicon.types)
    return frozenset(at for at, kind in kinds if all((own, use) in spoils for own in kind.end_uses for use in uses))
