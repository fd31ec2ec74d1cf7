"""`stop` and `status`."""

from __future__ import annotations

import os
import shutil

from sqlalchemy.exc import SQLAlchemyError

from nematex.command.service.database import database_url
from nematex.command.service.ending import end
from nematex.command.service.processes import metrics_folder
from nematex.command.service.state import (
    database_runs,
    healthy,
    keep,
    read_state,
    start_lock,
    watch_runs,
    web_pids_of,
    worker_runs,
)
from nematex.store.database import Database


def stop() -> int:
    """End who watches, the web server, the worker, then the database."""
    with start_lock(said="nematex: it is just being started; as soon as it is up it is stopped …"):
        return _stop()


def _stop() -> int:
    state = read_state()
    if watch_runs(state):
        end(state["watch_pid"])
        state = read_state()  # it may just have started something again
    database = [state["database_pid"]] if database_runs(state) else []
    worker = [state["worker_pid"]] if worker_runs(state) else []
    for name, pids in (("web server", web_pids_of(state)), ("worker", worker), ("database", database)):
        for pid in pids:
            end(pid)
        print(f"{name}: {'stopped' if pids else 'was not running'}")
    keep(lan="", watch_pid=None, web_pids=[])
    shutil.rmtree(metrics_folder(), ignore_errors=True)
    return 0


def _answers(url: str) -> bool:
    database = Database(url)
    try:
        return database.answers()
    except SQLAlchemyError:
        return False
    finally:
        database.close()


def status() -> int:
    """Say what runs; exit 0 only if all of it does."""
    state = read_state()
    web = bool(web_pids_of(state)) and healthy(state["web_port"])
    given = os.environ.get("DATABASE_URL")
    database = _answers(database_url()) if given else database_runs(state)
    address = f"http://127.0.0.1:{state['web_port']}/" if web else "not running"
    worker = worker_runs(state)
    print(f"web server: {address}")
    print(f"worker: {'running' if worker else 'not running'}")
    port = state.get("database_port")
    where = "as DATABASE_URL says" if given else f"127.0.0.1:{port}" if port else "on a socket of its own"
    print(f"database: {where if database else 'does not answer' if given else 'not running'}")
    return 0 if web and worker and database else 1
