"""What each kind of job does."""

from __future__ import annotations

from nematex.usecases.jobs.running import Handle, Runner
from nematex.usecases.lay.laid import lay_out
from nematex.usecases.lay.text import as_json, read_task, written


def run_lay(handle: Handle) -> str:
    """A lay; each better one is told on the way."""
    asked = read_task(handle.job.asked)
    found = lay_out(asked, lambda lay: handle.tell(as_json(written(lay))), handle.stopped, workers=1)
    return as_json(written(found))


RUNNERS: dict[str, Runner] = {"lay": run_lay}
