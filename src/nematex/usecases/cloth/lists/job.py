"""An import outside the web process: it goes on when the browser leaves, and says how far it is."""

from __future__ import annotations

import json
import secrets
from dataclasses import asdict, replace

from nematex.store.cloth import uploads
from nematex.store.records import Job, Upload
from nematex.usecases.cloth.lists.importing import KIND, READING, apply, asked_of, bad_rows, is_long, preview
from nematex.usecases.cloth.lists.kept import packed
from nematex.usecases.cloth.lists.price_list import bad_rows_csv
from nematex.usecases.cloth.lists.undo import Kept, Undone, undo
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import Handle

APPLYING, UNDOING = "applying", "undoing"
WORKING = (READING, APPLYING, UNDOING)


def start_reading(shop: Shop, upload_id: int) -> bool:
    """Ask for the list to be read and compared with the shelf; returns whether that is done already."""
    asked = asked_of(shop, upload_id)
    return asked is not None and _start(shop, upload_id, READING, asked)


def start_applying(shop: Shop, upload_id: int, sold_out: bool) -> bool:
    """Ask for the list to be put on the shelf; returns whether that is done already."""
    asked = {"act": APPLYING, "upload": upload_id, "sold_out": sold_out, "shelf": shop.now().shelf.version}
    return _start(shop, upload_id, APPLYING, json.dumps(asked))


def start_undoing(shop: Shop, upload_id: int) -> bool:
    """Ask for an applied list to be taken back; returns whether that is done already."""
    asked = {"act": UNDOING, "upload": upload_id, "once": secrets.token_hex(8)}
    return _start(shop, upload_id, UNDOING, json.dumps(asked))


def _start(shop: Shop, upload_id: int, state: str, asked: str) -> bool:
    job_id = asking.ask(shop.database, shop.enqueue, KIND, asked, {}, 0)
    with shop.database.work() as work:
        uploads.set_state(work, upload_id, state=state, message="", job_id=job_id)
    return asking.await_end(shop.database, job_id)


def run_list(shop: Shop, handle: Handle) -> str:
    """The worker's part: read a list and keep what was understood, or put it on the shelf and say what that did."""
    asked = json.loads(handle.job.asked)
    if asked["act"] == READING:
        found = preview(shop, asked["upload"], handle.progress)
        if found:
            handle.keep(packed(found))
        return ""
    if asked["act"] == UNDOING:
        undone = undo(shop, asked["upload"])
        return json.dumps(asdict(undone)) if undone else ""
    found = apply(shop, asked["upload"], asked["sold_out"], handle.progress)
    if found:
        handle.keep(bad_rows_csv(found.sheet.header, found.rows).encode())
    counts = [found.count(kind) if found else 0 for kind in ("new", "changed", "same")]
    return "{} new, {} changed, {} left as they were.".format(*counts)


def _ended_as(shop: Shop, kept: Upload, act: str) -> Job | None:
    """The last job on a list, where it did this and did it well."""
    found = asking.look(shop.database, kept.job_id) if kept.job_id else None
    return found[0] if found and found[0].state == "done" and json.loads(found[0].asked)["act"] == act else None


def undone_by(shop: Shop, kept: Upload) -> Undone | None:
    """What taking a list back did, if that is what was done with it last."""
    found = _ended_as(shop, kept, UNDOING)
    if found is None or not found.found:
        return None
    said = json.loads(found.found)
    return Undone(**said | {"kept": [Kept(**one) for one in said["kept"]], "left": [tuple(one) for one in said["left"]]})


def rows_not_read(shop: Shop, kept: Upload) -> str | None:
    """The bad rows of a list, as CSV: as they were when it was put on the shelf, else as they are now."""
    applied = _ended_as(shop, kept, APPLYING)
    content = asking.content_of_job(shop.database, applied.id) if applied else None
    return content.decode() if content else None if is_long(kept) else bad_rows(shop, kept.id)


def latest_lists(shop: Shop) -> list[Upload]:
    """The lists that were sent last."""
    with shop.database.work() as work:
        found = uploads.recent_uploads(work)
    return [_settled(shop, kept)[0] for kept in found]


def stop_job(shop: Shop, upload_id: int) -> None:
    """Ask for the work on a list to end; nothing is left half done."""
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)
    if kept and kept.job_id and kept.state in WORKING:
        asking.stop(shop.database, kept.job_id)


def job_state(shop: Shop, upload_id: int) -> tuple[Upload, tuple[int, int]] | None:
    """The upload as it stands, and how far the work on it is: (done, total)."""
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)
    return _settled(shop, kept) if kept else None


def _settled(shop: Shop, kept: Upload) -> tuple[Upload, tuple[int, int]]:
    """An upload with what has become of its job."""
    if kept.state not in WORKING:
        return kept, (0, 0)
    found = asking.look(shop.database, kept.job_id) if kept.job_id else None
    if found and found[0].runs:
        return kept, (found[0].done, found[0].total)
    return _ended(shop, kept, found[0] if found else None), (0, 0)


def _ended(shop: Shop, kept: Upload, job: Job | None) -> Upload:
    """The upload with the end of its job."""
    if kept.state == UNDOING:
        done = bool(job and job.state == "done")
        state, message = ("", "") if done else (f"{APPLYING} done", job.message if job else "")
    elif job and job.state == "done":
        state, message = f"{kept.state} done", job.found[:600]
    elif job and job.state == "cancelled" and kept.state == APPLYING:
        state, message = f"{READING} done", job.message
    else:
        lost = "The shop was stopped while it worked. Nothing was changed; start it again."
        state, message = "failed", job.message if job else lost
    with shop.database.work() as work:
        uploads.set_state(work, kept.id, state=state, message=message)
    return replace(kept, state=state, message=message)
