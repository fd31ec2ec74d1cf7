"""Planning a programme: its brief, a set proposed from it, what is taken up, refused, or waits behind a place."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import replace
from datetime import date
from typing import Any

from nematex.core.errors import FieldFault, NematexError, UnknownChoice
from nematex.core.set.brief import FIELDS, read_brief
from nematex.core.set.order import with_moved
from nematex.store.programme import programmes as store
from nematex.store.records import Job, Pick, Programme
from nematex.usecases.cloth.browse import cloth_named
from nematex.usecases.forms.merging import merged
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import Handle, Stopped
from nematex.usecases.programme.acts import LINE_LETTERS, checked_text, found_programme
from nematex.usecases.programme.companions import COMPANIONS
from nematex.usecases.programme.proposing.candidates import anchor_of, must_show
from nematex.usecases.programme.proposing.propose import Proposal, brief_of, propose

JOB = "proposal"
GONE = "was taken out meanwhile; put it back from the bin"


def save_brief(shop: Shop, state: State, programme_id: int, given: Mapping[str, str]) -> None:
    """Keep a brief as it was typed; raises FieldFault, Clashing."""
    with shop.database.work() as work:
        kept = found_programme(work, programme_id).brief
        values = merged(given, kept, FIELDS, FIELDS.__getitem__)
        brief = read_brief(values, state.tables.judging.proposal.kinds)
        anchor_of(state, brief), must_show(state, brief)
        store.save_brief(work, programme_id, {**kept, **values})


def ask_proposal(shop: Shop, state: State, programme: Programme) -> None:
    """Propose a set in the place of what was proposed before; raises FieldFault for a brief that cannot be read."""
    brief = brief_of(state, programme)
    anchor_of(state, brief), must_show(state, brief)
    asked = f"{programme.id} {state.shared_version} {state.programmes_version} {date.today()}"
    job_id = asking.ask(shop.database, shop.enqueue, JOB, asked, {"programme": programme.id}, 0)
    with shop.database.work() as work:
        if (found_programme(work, programme.id).proposal or {}).get("job") != job_id:  # else it has answered already
            store.note_proposal(work, programme.id, {"job": job_id})
    asking.await_end(shop.database, job_id)


def proposal_job(shop: Shop, programme: Programme) -> Job | None:
    """The job that proposes for a programme, where it has not said anything yet."""
    said = programme.proposal or {}
    found = asking.look(shop.database, said["job"]) if "job" in said and "weighed" not in said else None
    return found[0] if found else None


def run_proposal(shop: Shop, handle: Handle) -> str:
    """The worker's part: choose a set and put it into the programme, unless somebody took the programme away."""
    state, programme_id, today = shop.now(), handle.job.about["programme"], date.today()
    programme = next((one for one in state.programmes if one.id == programme_id), None)
    if programme is None:
        raise Stopped("The programme is in the bin.")
    found = propose(shop, state, programme, today)
    _put_in(shop, programme_id, found, handle.job.id)
    return json.dumps(found.as_json())


def _put_in(shop: Shop, programme_id: int, found: Proposal, job_id: int) -> None:
    """The proposed pairings behind the programme's own, but none whose cloth or pattern was picked meanwhile."""
    with shop.database.work() as work:
        store.announce_change(work)
        store.drop_proposed(work, programme_id)
        now = store.programme(work, programme_id)
        if now is None:
            raise NematexError("The programme is in the bin.")
        taken = {pick.cloth_id for pick in now.picks}, {pick.pattern_id for pick in now.picks}
        for one in found.picks:
            if one.cloth_id not in taken[0] and one.pattern_id not in taken[1]:
                store.add_pick(work, programme_id, Pick(0, one.cloth_id, one.pattern_id, proposed=True, why=one.why))
                work.flush()
        store.note_proposal(work, programme_id, {"job": job_id, **found.as_json()})


def take_up(shop: Shop, programme_id: int, pick_id: int | None) -> None:
    """Make one proposed pick the presenter's own, or all of them; raises FieldFault."""
    with shop.database.work() as work:
        _still_there(found_programme(work, programme_id), pick_id)
        store.take_up(work, programme_id, pick_id)


def refuse(shop: Shop, programme_id: int, pick_id: int) -> None:
    """Take a proposed pick out and never propose its pairing here again; raises FieldFault."""
    with shop.database.work() as work:
        _still_there(found_programme(work, programme_id), pick_id)
        store.refuse(work, programme_id, pick_id)


def _still_there(programme: Programme, pick_id: int | None) -> None:
    if pick_id is not None and all(pick.id != pick_id for pick in programme.picks):
        rule = "is not there any more: somebody had the set proposed anew; look at the page again"
        raise FieldFault("proposal", str(pick_id), rule)


def forget_refused(shop: Shop, programme_id: int) -> None:
    with shop.database.work() as work:
        found_programme(work, programme_id)
        store.forget_refused(work, programme_id)


def let_wait(shop: Shop, programme_id: int, pick: Pick, leads: int) -> None:
    """Put a pairing behind a place, for the day it is wanted; raises FieldFault."""
    with shop.database.work() as work:
        if all(each.id != leads for each in found_programme(work, programme_id).picks):
            raise FieldFault("place", str(leads), GONE)
        store.put_behind(work, programme_id, replace(pick, proposed=False), leads, waits=True)


def stand_beside(shop: Shop, state: State, programme_id: int, leads: int, role: str, cloth: str) -> None:
    """Let a cloth go with the garment of a place as its lining, ribbing or accent; raises FieldFault."""
    if role not in COMPANIONS:
        raise UnknownChoice("with it as", role[:40], COMPANIONS)
    record = cloth_named(state.shelf, cloth)
    if record is None:
        raise FieldFault("which cloth", cloth[:60], "is not on the shelf; write a code or the name of a cloth")
    with shop.database.work() as work:
        first = next((each for each in found_programme(work, programme_id).picks if each.id == leads), None)
        if first is None:
            raise FieldFault("place", str(leads), GONE)
        beside = replace(first, cloth_id=record.id, line="", part=role, why=(), question="", instead_of=None, proposed=False)
        store.put_behind(work, programme_id, beside, leads, waits=False)


def bring_forward(shop: Shop, programme_id: int, pick_id: int) -> None:
    """Show a pairing that waits; the one that was shown waits instead. Raises FieldFault."""
    with shop.database.work() as work:
        found_programme(work, programme_id)
        if not store.bring_forward(work, programme_id, pick_id):
            raise FieldFault("alternative", str(pick_id), GONE)


def ask_open(shop: Shop, programme_id: int, pick_id: int, question: str) -> None:
    """Keep what is still open of a pick; raises FieldFault."""
    text = checked_text("open question", question, LINE_LETTERS)
    with shop.database.work() as work:
        found_programme(work, programme_id)
        store.write_question(work, programme_id, pick_id, text)


def put_in_order(shop: Shop, programme_id: int, leading: list[int], moved: int | None = None) -> None:
    """The running order, by the picks that open each place; the one that was moved is the presenter's own then.

    Others may have moved theirs meanwhile: theirs stay.
    """
    with shop.database.work() as work:
        found = found_programme(work, programme_id)
        if moved is not None:
            store.take_up(work, programme_id, moved)
            leading = with_moved([pick.id for pick in found.picks if not pick.with_before], leading, moved)
        store.order_picks(work, programme_id, leading)


def said_of_proposal(programme: Programme) -> Mapping[str, Any] | None:
    """What the last proposal said; None where there was none, or it is not done."""
    found = programme.proposal
    return found if found and "weighed" in found else None
