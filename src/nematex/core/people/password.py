"""Which passwords will do: long enough, and not one that is guessed first.

OWASP ASVS 4.0, 2.1.1 to 2.1.9 (from memory): at least 12 letters, up to 128 allowed, any letters, no rules of composition,
none that is commonly used. How soon one is guessed is told by zxcvbn.
"""

from __future__ import annotations

from collections.abc import Sequence

from zxcvbn import zxcvbn

from nematex.core.errors import FieldFault

SHORTEST, LONGEST = 12, 128
LOOKED_AT = 40  # letters; guessing takes time that grows with the square of the length
# Signs that stand for letters, and how many different ones are looked at: guessing tries each way to read them together.
STANDS_FOR, MOST_STANDING = frozenset("4@8({[<369&#!1/|0$5+7%2"), 5
LEAST_SCORE = 3  # of 0 to 4: not to be guessed in ten thousand million tries


def read_password(text: str, known: Sequence[str], field: str = "password") -> str:
    """A password that will do; `known` are words that a guesser tries first, such as the name. Raises FieldFault, which
    never quotes what was typed."""
    if not SHORTEST <= len(text) <= LONGEST:
        raise PasswordFault(field, f"has {len(text)} letters; it must have {SHORTEST} to {LONGEST}. Four unlike words will do")
    if not text.isprintable():
        raise PasswordFault(field, "holds a sign that no key makes, such as a line end; choose from letters, digits, blanks")
    guessed = [part for word in known for part in (word, word.replace(" ", ""), *word.split()) if part]
    if zxcvbn(_looked_at(text), user_inputs=guessed)["score"] < LEAST_SCORE:
        raise PasswordFault(field, "is guessed too soon; choose four unlike words, or let the browser make one")
    return text


def _looked_at(text: str) -> str:
    """The part of a password that is guessed, with at most so many different signs that may stand for letters: a word in
    disguise has few.
    """
    signs = list(dict.fromkeys(sign for sign in text if sign in STANDS_FOR))
    return text[:LOOKED_AT].translate({ord(sign): "_" for sign in signs[MOST_STANDING:]})


class PasswordFault(FieldFault):
    """A password that will not do. It is not repeated, neither on a page nor in a log."""

    def __init__(self, field: str, rule: str) -> None:
        super().__init__(field, "", rule)
        self.args = (f"{field}: {rule}.",)
