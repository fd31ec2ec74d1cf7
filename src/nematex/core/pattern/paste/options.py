"""Details in a run of words: of the whole garment, or options that views differ in; and whether it is lined."""

from __future__ import annotations

import re

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.paste.design import detail_of, pieces
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.open_state import Open


def details_in(at: Open, text: str) -> list[str]:
    """The details that a run of words names."""
    found = []
    for piece in re.split(r"[,;.&/]|\band\b|\bwith\b|\bplus\b", text):
        detail = at.tables.details.find_within(piece)
        if detail and not re.search(r"\b(?:no|without)\b", piece.casefold()):
            found.append(re.sub(r"^\s*(?:a|an|the)\s+", "", piece.strip().casefold()))
    return [word for word in dict.fromkeys(found) if word not in at.draft.details]


def note_lining(at: Open, text: str) -> None:
    """Whether the words say that the whole garment is lined."""
    low = text.casefold()
    part_only = re.search(r"\b(?:pocket|yoke|hood|part|half|un)[\w-]*\s*-?\s*lin", low)
    if re.search(r"\blined\b", low) and not part_only and "unlined" not in low:
        at.draft.flags["lined"] = True


_NO_LINING = re.compile(r"\s*(?:none|no|not|n/a|nil|optional|unlined|-)\b", re.IGNORECASE)


def _named(at: Open, text: str) -> list[str]:
    """The details that a view's words name, as they are said."""
    found = [piece.casefold() for piece in pieces(text) if detail_of(piece, at.tables)]
    return [word for word in dict.fromkeys(found) if word not in at.draft.details]


def add_options(at: Open, views: list[str], text: str) -> None:
    """The details of a view become options that other views can borrow."""
    for word in _named(at, text):
        twin = next((each for each in at.draft.options if key(each["name"]) == key(word)), None)
        if twin:
            twin["views"] = list(dict.fromkeys([*twin["views"], *views]))
        else:
            part = next((kind.name for kind in at.tables.parts.rows if key(kind.name) in key(word)), "")
            at.draft.options.append({"name": word, "part": part, "views": list(views), "details": [word]})
    note_lining(at, text)


def take(at: Open, line: Line, name: str, text: str) -> None:
    """Put the words of a section where they belong."""
    if name == "details":
        at.draft.details += details_in(at, text)
        note_lining(at, text)
    elif name == "lining":
        if not _NO_LINING.match(text):
            note_lining(at, f"lined {text}")
            if read_envelope(text, at.tables).cloths:
                at.draft.add_text("recommended", f"Lining: {text.rstrip(' .')}.")
    elif name in ("recommended", "avoid"):
        name = _take_cloths(at, name, text)
    else:
        at.draft.add_text(name, text)
    line.field = line.field or name


_SENTENCES = re.compile(r"(?<=[.;!])\s+(?=[A-Z])")
_RULED_OUT = re.compile(
    r"^\s*(?:not (?:suitable|recommended|suited)|unsuitable|avoid|do not use|will not do)\b\s*(?:for|in)?[:\s]*",
    re.IGNORECASE,
)


def _take_cloths(at: Open, name: str, text: str) -> str:
    """Sentences of what suits and what does not, each where it belongs; what follows a list that is ruled out is a note.

    Returns the field of the first sentence.
    """
    ended = False
    said: dict[str, list[str]] = {}
    for sentence in _SENTENCES.split(text):
        ruled_out = _RULED_OUT.match(sentence)
        if ruled_out:
            said.setdefault("avoid", []).append(sentence[ruled_out.end() :])
        elif ended:
            said.setdefault("recommended" if read_envelope(sentence, at.tables).cloths else "notes", []).append(sentence)
        else:
            said.setdefault(name, []).append(sentence)
        ended = ended or bool(ruled_out) or name == "avoid"
    for field, sentences in said.items():
        at.draft.add_text(field, " ".join(sentences))
    return next(iter(said), name)
