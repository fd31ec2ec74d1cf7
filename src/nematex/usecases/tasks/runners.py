"""What each kind of job does."""

from __future__ import annotations

import logging
from collections.abc import Mapping
from functools import partial

from nematex.usecases.cloth.lists.job import run_list
from nematex.usecases.cloth.together import run_together
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import Enqueue
from nematex.usecases.jobs.running import Handle, Runner, run_job
from nematex.usecases.judging.whole_matrix import run_matrix
from nematex.usecases.lay.laid import lay_out
from nematex.usecases.lay.text import as_json, read_task, written
from nematex.usecases.photo.swatch import run_photo
from nematex.usecases.programme.proposing.planning import run_proposal


def run_lay(handle: Handle) -> str:
    """A lay; each better one is told on the way."""
    asked = read_task(handle.job.asked)
    found = lay_out(asked, lambda lay: handle.tell(as_json(written(lay))), handle.stopped, workers=1)
    return as_json(written(found))


def runners(shop: Shop) -> dict[str, Runner]:
    """Every kind of job, done on this shop."""
    return {
        "lay": run_lay,
        "list": partial(run_list, shop),
        "matrix": partial(run_matrix, shop),
        "together": partial(run_together, shop),
        "proposal": partial(run_proposal, shop),
        "photo": partial(run_photo, shop),
    }


def at_once(shop: Shop, more: Mapping[str, Runner] | None = None) -> Enqueue:
    """No worker: who asks for a job waits until it is done. `more` are kinds of job that are drawn by the pages."""

    def run(_kind: str, job_id: int) -> None:
        try:
            run_job(shop.database, job_id, {**runners(shop), **(more or {})})
        except Exception:
            logging.getLogger("nematex").exception("job %d", job_id)  # its row says that it failed, as a worker's would

    return run
