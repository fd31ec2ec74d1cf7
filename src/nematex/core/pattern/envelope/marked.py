"""A text in its three heaps: what was understood, what has no bearing, what was not read. Total: the pieces are the text."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nematex.core.pattern.envelope.clause import Clause, Heap


@dataclass(frozen=True, slots=True)
class Marked:
    """A run of the text, its heap (`read`, `idle` or `unread`), and what it was read as, where that is worth a word."""

    text: str
    kind: str
    means: str = ""


def marked(text: str, heaps: Sequence[Heap], clauses: Sequence[Clause] = (), start: int = 0) -> list[Marked]:
    """The text in runs of one heap; `start` is where it begins in the text that the heaps count in."""
    found: list[Marked] = []
    done = 0
    said = {clause.end: clause for clause in clauses}
    for heap in heaps:
        first, last = heap.start - start, heap.end - start
        if not (done <= first < last <= len(text)):
            continue
        _add(found, text[done:first], "idle")
        _add(found, text[first:last], heap.kind, _means(said.get(heap.end)))
        done = last
    _add(found, text[done:], "idle")
    return found


def _add(found: list[Marked], text: str, kind: str, means: str = "") -> None:
    """Spaces between two runs of one heap belong to them; a run that has a meaning of its own stands alone."""
    if not text:
        return
    last = found[-1] if found else None
    if last and last.kind == kind and not last.means and not means:
        found[-1] = Marked(last.text + text, kind)
    else:
        found.append(Marked(text, kind, means))


def _means(clause: Clause | None) -> str:
    """'also possible, for the collar, if lined': all of a clause that its own words do not say."""
    if clause is None:
        return ""
    said = [clause.standing] if clause.standing not in ("asked", "example") else []
    said += [f"for the {clause.role}"] if clause.role else []
    said += [condition.words for condition in clause.conditions]
    return ", ".join({"also": "also possible", "practised": "for practised hands"}.get(each, each) for each in said)
