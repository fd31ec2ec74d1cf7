"""Reading the free text of a pattern envelope: which cloths, weights, drape and stretch it asks for."""

from nematex.core.pattern.envelope.reader import read_envelope
from nematex.core.pattern.envelope.reading import Condition, NamedCloths, Reading

__all__ = ["Condition", "NamedCloths", "Reading", "read_envelope"]
