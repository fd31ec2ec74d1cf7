"""A change to very many cloths, looked at and made by the worker: pages go on, and it says how far it is."""

from __future__ import annotations

import json
import secrets
from dataclasses import asdict, dataclass

from nematex.store.records import ClothRecord, Job
from nematex.usecases.cloth.bulk import Seen, apply_bulk, bulk_changes, seen
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import Handle, half_of
from nematex.usecases.judging.ahead import judge_ahead

JOB = "together"
AT_ONCE = 200  # cloths that a page changes itself


@dataclass(frozen=True)
class Change:
    """A field's new text for these cloths; `shown` is the sign of what was shown before, None while it is only looked at."""

    cloths: list[int]
    field: str
    text: str
    by: str
    shown: str | None = None


def ask_change(shop: Shop, change: Change, given: list[tuple[str, str]]) -> int:
    """The job, when it is done or a moment has gone by; `given` is the address it was asked by, for its page."""
    asked = json.dumps(asdict(change) | {"once": secrets.token_hex(8)})
    job_id = asking.ask(shop.database, shop.enqueue, JOB, asked, {"given": given}, len(change.cloths))
    asking.await_end(shop.database, job_id)
    return job_id


def change_of(job: Job) -> Change:
    asked = json.loads(job.asked)
    return Change(**{name: value for name, value in asked.items() if name != "once"})


def seen_by(job: Job) -> Seen | None:
    """What the worker found that would change, once it has looked."""
    return Seen(**json.loads(job.found)) if job.state == "done" and job.found else None


def cloths_of(shop: Shop, change: Change) -> list[ClothRecord]:
    """Those of them that still stand on the shelf."""
    state = shop.now()
    return [found[0] for number in change.cloths if (found := state.cloth(number))]


def run_together(shop: Shop, handle: Handle) -> str:
    """The worker's part; raises FieldFault."""
    change, tables = change_of(handle.job), shop.now().tables
    records = cloths_of(shop, change)
    if change.shown is None:
        return json.dumps(asdict(seen(bulk_changes(records, change.field, change.text, tables, handle.progress))))
    foreseen = bulk_changes(records, change.field, change.text, tables)
    judge_ahead(shop, [each.new for each in foreseen], progress=half_of(handle.progress, 0, len(records)))
    told = half_of(handle.progress, 1, len(records))
    apply_bulk(shop, records, change.field, change.text, tables, change.by, change.shown, told)
    return ""
