"""Reading the free text of a pattern envelope: which cloths, weights, drape and stretch it asks for."""

from nematex.core.pattern.envelope.clause import Condition
from nematex.core.pattern.envelope.interpretation import Interpretation, NamedCloths
from nematex.core.pattern.envelope.reader import read_envelope

__all__ = ["Condition", "Interpretation", "NamedCloths", "read_envelope"]
