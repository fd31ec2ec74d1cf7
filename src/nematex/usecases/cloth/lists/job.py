"""An import in the background: it goes on when the browser leaves, and says how far it is."""

from __future__ import annotations

import threading
from collections.abc import Callable

from nematex.core.errors import NematexError
from nematex.store.cloth import uploads
from nematex.store.database import DatabaseGone
from nematex.store.records import Upload
from nematex.usecases.cloth.lists.importing import apply, preview
from nematex.usecases.held.shop import Shop

PATIENCE_S = 1.2  # a short list is done before anybody would look at a progress bar


def start_reading(shop: Shop, upload_id: int) -> bool:
    """Read the list and compare it with the shelf; returns whether that is done already."""

    def run() -> str:
        preview(shop, upload_id, lambda done, total: shop.progress(upload_id, done, total))
        return ""

    return _start(shop, upload_id, "reading", run)


def start_applying(shop: Shop, upload_id: int, sold_out: bool) -> bool:
    """Put the list on the shelf; returns whether that is done already."""

    def run() -> str:
        found = apply(shop, upload_id, sold_out, lambda done, total: shop.progress(upload_id, done, total))
        counts = [found.count(kind) if found else 0 for kind in ("new", "changed", "same")]
        return "{} new, {} changed, {} left as they were.".format(*counts)

    return _start(shop, upload_id, "applying", run)


def _lock(upload_id: int) -> str:
    """The name that the process which works on an import holds, whichever of the shop's processes it is."""
    return f"nematex import {upload_id}"


def _start(shop: Shop, upload_id: int, state: str, run: Callable[[], str]) -> bool:
    if not shop.claim_job(upload_id):
        return False
    begun = threading.Event()
    thread = threading.Thread(target=_run, args=(shop, upload_id, state, run, begun), name=f"import {upload_id}")
    thread.start()
    begun.wait(PATIENCE_S)
    thread.join(PATIENCE_S)
    return not thread.is_alive()


def _run(shop: Shop, upload_id: int, state: str, run: Callable[[], str], begun: threading.Event) -> None:
    """Work while holding the import's name; another process that holds it is left to its work."""
    try:
        with shop.database.lock(_lock(upload_id)) as taken:
            if taken:
                with shop.database.work() as work:
                    uploads.set_state(work, upload_id, state=state, message="")
                begun.set()
                _work(shop, upload_id, state, run)
    finally:
        begun.set()
        shop.release_job(upload_id)


def _work(shop: Shop, upload_id: int, state: str, run: Callable[[], str]) -> None:
    end, message = f"{state} done", ""
    try:
        message = run()
    except NematexError as fault:
        end, message = "failed", str(fault)
    except DatabaseGone:
        end, message = "failed", "The database did not answer. Nothing was changed; start it again."
    except BaseException:
        end, message = "failed", "Something unforeseen stopped it. Nothing was changed; the log of the shop says more."
        raise
    finally:
        with shop.database.work() as work:
            uploads.set_state(work, upload_id, state=end, message=message[:600])


def job_state(shop: Shop, upload_id: int) -> Upload | None:
    """The upload as it stands; a job that no process works on any more was cut short and has changed nothing."""
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)
    if kept is None or kept.state not in ("reading", "applying") or shop.database.is_locked(_lock(upload_id)):
        return kept
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)  # it may have ended between the two looks
        if kept and kept.state in ("reading", "applying"):
            message = "The shop was stopped while it worked. Nothing was changed; start it again."
            uploads.set_state(work, upload_id, state="failed", message=message)
            kept = uploads.upload(work, upload_id)
    return kept
