"""The corpus of envelopes: what is read of the third that nobody looked at, and that moving words about changes no meaning."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from means import TABLES, WORDS, Entry, corpus, holds, missed
from mutations import IN_LISTS, IN_ROWS, IN_TABLES
from rows import missed_row
from tables import missed_of

from nematex.core.pattern.envelope import read_envelope

LISTS = [entry for entry in corpus() if entry.kind in WORDS]
PASTED = [entry for entry in corpus() if entry.kind in ("table", "prose", "envelope")]
ROWS = [entry for entry in corpus() if entry.kind == "row"]
# Of the checks of the third that nobody looked at, at least so many hold.
WANTED = {
    "lists of cloths": (LISTS, missed, 0.97),
    "tables, prose and whole envelopes": (PASTED, missed_of, 0.95),
    "rows of price lists": (ROWS, missed_row, 0.9),
}


def share(entries: list[Entry], misses: Callable[[Entry], list[str]]) -> float:
    checks = sum(len(entry.checks) for entry in entries)
    return 1 - sum(len(misses(entry)) for entry in entries) / checks


def test_the_corpus_is_large_and_in_two_languages() -> None:
    assert len(corpus()) >= 300
    assert {entry.language for entry in corpus()} == {"en", "de"}
    assert len({entry.text for entry in corpus()}) == len(corpus())


@pytest.mark.parametrize("what", WANTED)
def test_what_nobody_looked_at_is_read_too(what: str, capsys: pytest.CaptureFixture[str]) -> None:
    entries, misses, wanted = WANTED[what]
    seen, unseen = ([entry for entry in entries if entry.unseen is each] for each in (False, True))
    with capsys.disabled():
        print(f"\n{what}: {share(seen, misses):.1%} of what the grammar was grown on, {share(unseen, misses):.1%} of the rest")
    assert share(unseen, misses) >= wanted
    assert share(seen, misses) >= wanted


def test_of_all_that_nobody_looked_at_97_in_100_checks_hold(capsys: pytest.CaptureFixture[str]) -> None:
    checks = held = 0
    for entries, misses, _ in WANTED.values():
        unseen = [entry for entry in entries if entry.unseen]
        checks += sum(len(entry.checks) for entry in unseen)
        held += sum(len(entry.checks) - len(misses(entry)) for entry in unseen)
    with capsys.disabled():
        print(f"\nall kinds: {held} of {checks} checks of the rest")
    assert held / checks >= 0.97


@given(st.sampled_from(LISTS), st.sampled_from([" ", "  ", "\u00a0"]), st.booleans())
def test_spaces_and_large_letters_mean_nothing(entry: Entry, space: str, loud: bool) -> None:
    text = re.sub(r"(?<=[a-z,;:]) (?=[a-z])", space, entry.text)
    first = text[:1].upper() if loud else text[:1]
    reading = read_envelope(first + text[1:], TABLES)
    assert [check for check in entry.checks if not holds(check, reading)] == missed(entry)


def _said_otherwise() -> list[tuple[Callable[[str], str], list[Entry], Callable[[Entry], list[str]]]]:
    kinds = ((LISTS, missed, IN_LISTS), (PASTED, missed_of, IN_TABLES), (ROWS, missed_row, IN_ROWS))
    return [(change, entries, misses) for entries, misses, changes in kinds for change in changes]


@pytest.mark.parametrize(("change", "entries", "misses"), _said_otherwise())
def test_what_is_said_otherwise_means_the_same(
    change: Callable[[str], str], entries: list[Entry], misses: Callable[[Entry], list[str]]
) -> None:
    """Sentences and cloths moved, units, separators and columns changed: every check that held holds."""
    turned = [(entry, replace(entry, text=text)) for entry in entries if (text := change(entry.text)) != entry.text]
    lost = {other.text: more for entry, other in turned if (more := set(misses(other)) - set(misses(entry)))}
    assert lost == {}


def test_enough_is_said_otherwise() -> None:
    """A change that changes no text would hold by itself."""
    assert sum(change(entry.text) != entry.text for change, entries, _ in _said_otherwise() for entry in entries) > 300


@given(st.sampled_from(LISTS))
def test_every_word_is_in_one_heap(entry: Entry) -> None:
    """And what is counted as read or unread stands where it says."""
    reading = read_envelope(entry.text, TABLES)
    assert all(0 <= heap.start < heap.end <= len(entry.text) for heap in reading.heaps)
    assert all(one.end <= other.start for one, other in zip(reading.heaps, reading.heaps[1:], strict=False))
    held = {at for heap in reading.heaps for at in range(heap.start, heap.end)}
    left = "".join(each for at, each in enumerate(entry.text) if at not in held and each.isalnum())
    assert left == "", left
