"""The texts of a programme's notes: by the shop's templates, as the presenter wrote them, with what has moved since."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import Any

from nematex.core.air.notes.kinds import NoteKind, fitted
from nematex.core.errors import FieldFault
from nematex.core.signs import without_controls
from nematex.core.three_way import merge
from nematex.store.air import notes as store
from nematex.store.air.notes import Edit
from nematex.store.texts import drop_text, put_text, text_of
from nematex.tables import note_kinds
from nematex.usecases.air.notes.own_template import OwnTemplate, check_template
from nematex.usecases.held.shop import Shop
from nematex.usecases.programme.acts import found_programme

MOST_LETTERS = 100_000


@dataclass(frozen=True)
class Moved:
    """A line of the notes that says something else since the presenter wrote: as it was, and as it is ("" for none)."""

    was: str
    now: str


@dataclass(frozen=True)
class NoteText:
    """A text of the notes: what goes out, whether the presenter wrote it, and what has moved since. `fault` of its template."""

    kind: NoteKind
    body: str
    written: str
    by_hand: bool = False
    moved: tuple[Moved, ...] = ()
    fault: FieldFault | None = None

    @property
    def too_long(self) -> bool:
        return bool(self.kind.limit) and len(self.body) > self.kind.limit


def template_name(kind: str) -> str:
    return f"notes template {kind}"


def templates_of(shop: Shop) -> dict[str, str]:
    """The template of each kind: the shop's own, else the one that ships."""
    with shop.database.work() as work:
        return {name: text_of(work, template_name(name)) or kind.template for name, kind in note_kinds().items()}


def try_template(kind: str, text: str, told: Mapping[str, Any]) -> None:
    """Write once by a template before it is kept: one that cannot would lock every programme's notes. Raises FieldFault."""
    if text.strip():
        write(note_kinds()[kind], without_controls(text), told)


def keep_template(shop: Shop, kind: str, text: str) -> None:
    """Keep a template of the shop's own; the one that ships is used again where it is the same or empty. Raises FieldFault."""
    plain = without_controls(text)
    check_template(plain)
    with shop.database.work() as work:
        if plain.strip() and plain.strip() != note_kinds()[kind].template.strip():
            put_text(work, template_name(kind), plain)
        else:
            drop_text(work, template_name(kind))


def write(kind: NoteKind, template: str, told: Mapping[str, Any]) -> str:
    """A text by its template, with as many places as its length allows. Raises FieldFault."""
    places, own = told["places"], OwnTemplate(template, kind.markdown)

    def first(count: int) -> str:
        return own.render({**told, "places": places[:count], "more": len(places) - count})

    return fitted(first, len(places), kind.limit)


def texts_of(shop: Shop, programme_id: int, told: Mapping[str, Any]) -> dict[str, NoteText]:
    """All texts of a programme, by kind; a template with a fault gives the text of the one that ships."""
    templates = templates_of(shop)
    with shop.database.work() as work:
        edits = store.edits_of(work, programme_id)
    return {name: _text(kind, templates[name], told, edits.get(name)) for name, kind in note_kinds().items()}


def _text(kind: NoteKind, template: str, told: Mapping[str, Any], edit: Edit | None) -> NoteText:
    fault = None
    try:
        written = write(kind, template, told)
    except FieldFault as wrong:
        fault, written = wrong, write(kind, kind.template, told)
    if edit is None:
        return NoteText(kind, written, written, fault=fault)
    return NoteText(kind, edit.body, written, True, tuple(moved(edit.base, written)), fault)


def moved(was: str, now: str) -> list[Moved]:
    """The lines that differ, those that took one another's place side by side."""
    before, after = was.splitlines(), now.splitlines()
    found = []
    for tag, low, high, first, last in SequenceMatcher(a=before, b=after, autojunk=False).get_opcodes():
        if tag == "equal":
            continue
        gone, came = [each for each in before[low:high] if each], [each for each in after[first:last] if each]
        pairs = max(len(gone), len(came))
        gone, came = gone + [""] * (pairs - len(gone)), came + [""] * (pairs - len(came))
        found += [Moved(a, b) for a, b in zip(gone, came, strict=True)]
    return found


def keep_text(shop: Shop, programme_id: int, told: Mapping[str, Any], kind: str, body: str, shown: str) -> None:
    """Keep a text as the presenter wrote it; the product's own text, or nothing, lets it go again.

    `shown` is what its form showed: where somebody else kept another meanwhile, it is refused. Raises FieldFault.
    """
    text = without_controls(body).strip() + "\n"
    if len(text) > MOST_LETTERS:
        raise FieldFault("text", f"{text[:40]}…", f"is {len(text)} letters long; at most {MOST_LETTERS} are kept")
    kept = texts_of(shop, programme_id, told)[kind]
    with shop.database.work() as work:
        found_programme(work, programme_id)
        now = store.edits_of(work, programme_id).get(kind)
        stands = now.body if now else kept.written
        if _same(text, stands):
            return
        if not _same(shown, stands):
            raise FieldFault(
                "text", text[:40], "clashes with what somebody else kept meanwhile: look at theirs, then keep yours"
            )
        if not text.strip() or _same(text, kept.written):
            store.drop_edit(work, programme_id, kind)
        else:
            store.keep_edit(work, programme_id, kind, Edit(now.base if now else kept.written, text))


def _same(one: str, other: str) -> bool:
    return without_controls(one).split() == without_controls(other).split()


def bring_in(shop: Shop, programme_id: int, told: Mapping[str, Any], kind: str) -> int:
    """Bring what has moved into the presenter's text where they left those lines alone; how many could not be brought."""
    kept = texts_of(shop, programme_id, told)[kind]
    with shop.database.work() as work:
        found_programme(work, programme_id)
        edit = store.edits_of(work, programme_id).get(kind)
        if edit is None:
            return 0
        lines, clashes = merge(_lines(edit.base), _lines(edit.body), _lines(kept.written))
        store.keep_edit(work, programme_id, kind, Edit(kept.written, "".join(lines)))
    return clashes


def _lines(text: str) -> list[str]:
    return text.splitlines(keepends=True)
