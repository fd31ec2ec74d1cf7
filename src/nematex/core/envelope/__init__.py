"""Reading the free text of a pattern envelope: which cloths, weights, drape and stretch it asks for."""

from nematex.core.envelope.reader import read_envelope
from nematex.core.envelope.reading import Condition, NamedCloths, Reading

__all__ = ["Condition", "NamedCloths", "Reading", "read_envelope"]
