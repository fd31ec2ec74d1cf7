"""An import in the background: it goes on when the browser leaves, and says how far it is."""

from __future__ import annotations

import threading
from collections.abc import Callable

from nematex.core.errors import NematexError
from nematex.store.cloth import uploads
from nematex.store.database import DatabaseGone
from nematex.store.records import Upload
from nematex.usecases.cloth.lists.importing import apply, preview
from nematex.usecases.shop import Shop

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


def _start(shop: Shop, upload_id: int, state: str, run: Callable[[], str]) -> bool:
    if not shop.claim_job(upload_id):
        return False
    with shop.database.work() as work:
        uploads.set_state(work, upload_id, state=state, message="")
    thread = threading.Thread(target=_run, args=(shop, upload_id, state, run), name=f"import {upload_id}")
    thread.start()
    thread.join(PATIENCE_S)
    return not thread.is_alive()


def _run(shop: Shop, upload_id: int, state: str, run: Callable[[], str]) -> None:
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
        try:
            with shop.database.work() as work:
                uploads.set_state(work, upload_id, state=end, message=message[:600])
        finally:
            shop.release_job(upload_id)


def job_state(shop: Shop, upload_id: int) -> Upload | None:
    """The upload as it stands; a job that no longer runs here was cut short and has changed nothing."""
    running = shop.job(upload_id) is not None
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)
        if kept and kept.state in ("reading", "applying") and not running and shop.job(upload_id) is None:
            message = "The shop was stopped while it worked. Nothing was changed; start it again."
            uploads.set_state(work, upload_id, state="failed", message=message)
            kept = uploads.upload(work, upload_id)
    return kept
