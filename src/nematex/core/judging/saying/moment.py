"""What is spoken of: one finding on one cloth, with all that the words may need."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.lexicon import ClothType
from nematex.core.judging.checks.finding import Finding
from nematex.core.judging.demand import Demand
from nematex.core.judging.verdict import Verdict, Window
from nematex.core.quantity.estimate import Estimate
from nematex.core.quantity.kinds import Quantity
from nematex.core.quantity.said import Units
from nematex.core.tables import Tables


@dataclass(frozen=True, slots=True)
class Moment:
    """One finding on one cloth; `window` is what to speak of where the finding has one."""

    finding: Finding
    cloth: Cloth
    verdict: Verdict
    demand: Demand
    tables: Tables
    units: Units = Units.METRIC

    @property
    def window(self) -> Window:
        return self.finding.window or Window()

    def nearest_named(self) -> ClothType:
        """Of the cloths that the list names the one that handles most alike: of its kin, where it has any among them."""
        cloth, lexicon = self.cloth, self.tables.lexicon
        named = [lexicon.types[index] for index in sorted(self.demand.named)]
        if cloth.type:
            kin = self.tables.kin[lexicon.index[cloth.type.name]]
            named = [kind for kind in named if kin[lexicon.index[kind.name]]] or named
        weight_gsm, bend_cm, stretch_pct = cloth.weight.best, cloth.bending_length.best, cloth.stretch_cross.best
        return lexicon.get(lexicon.nearest(weight_gsm, bend_cm, stretch_pct, cloth.structure, 1, named)[0])

    def estimate(self, quantity: Quantity | None = None) -> Estimate:
        """What is known of the cloth in this quantity, or in the window's own."""
        known: Estimate = getattr(self.cloth, (quantity or self.window.quantity).attribute)
        return known
