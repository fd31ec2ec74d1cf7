"""The worker: jobs in the order they were asked, taken up again when it is killed, stopped when asked, none done twice."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from sqlalchemy import select, update

from nematex.command.background.poke import poking
from nematex.command.background.standing_back import NICE
from nematex.command.background.working import able
from nematex.command.doctor.data import look_at_data
from nematex.command.service.roles import family
from nematex.store import jobs
from nematex.store.database import Database
from nematex.store.models import JobRow
from nematex.usecases.cloth.lists.importing import send
from nematex.usecases.cloth.lists.job import job_state, start_applying, start_reading
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import Enqueue, ask, left_open, look, name_of, stop
from nematex.usecases.jobs.lanes import AWAITED, LANES
from nematex.usecases.jobs.running import MOST_TRIES, run_job
from nematex.usecases.tasks.runners import at_once, runners
from nematex.web.app import create_app

pytestmark = pytest.mark.breaking

WAIT_S = 300  # only a failure waits so long


def small(number: int) -> str:
    corner = {"id": "a", "outline_cm": [[0, 0], [9, 0], [9, 9]]}
    return json.dumps({"width_cm": 100, "seconds": 0, "seed": number, "pieces": [corner]})


def long(seconds: int) -> str:
    """It works on as long as it may: pieces on the fold are for our own solver alone."""
    piece = {"id": "a", "outline_cm": [[0, 0], [31, 0], [29, 17], [0, 23]], "kind": "fold", "fold_edge": "y=0", "count": 9}
    other = {"id": "b", "outline_cm": [[0, 0], [37, 3], [23, 19], [4, 13]], "kind": "pair", "count": 12}
    return json.dumps({"width_cm": 140, "folded": True, "seconds": seconds, "pieces": [piece, other]})


def nobody_left(home: Path) -> None:
    """Whoever was killed, the system ends those whom it had started."""
    end = time.monotonic() + WAIT_S
    while left := family(str(home)):
        assert time.monotonic() < end, left
        time.sleep(0.05)


@contextmanager
def worker(home: Path) -> Iterator[subprocess.Popen[bytes]]:
    process = subprocess.Popen([sys.executable, "-m", "nematex.command", "work"], stderr=subprocess.DEVNULL)
    try:
        yield process
    finally:
        process.terminate()
        process.wait(120)
    nobody_left(home)


@pytest.fixture
def enqueue(database: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Enqueue:
    monkeypatch.setenv("DATABASE_URL", database.url)
    monkeypatch.setenv("NEMATEX_HOME", str(tmp_path))
    monkeypatch.setenv("NEMATEX_WORKERS", "1")
    monkeypatch.setenv("PYTHONPATH", os.pathsep.join(sys.path))
    folder = tmp_path / ".nematex"
    folder.mkdir()
    return poking(folder)


def rows(database: Database) -> list[tuple[int, str, int]]:
    with database.work() as work:
        return [tuple(row) for row in work.execute(select(JobRow.id, JobRow.state, JobRow.tries).order_by(JobRow.id))]


def until(database: Database, *states: str) -> list[tuple[int, str, int]]:
    """Wait until every job is in one of these states."""
    end = time.monotonic() + WAIT_S
    while True:
        found = rows(database)
        if all(state in states for _, state, _ in found):
            return found
        assert time.monotonic() < end, found
        time.sleep(0.1)


def first_runs(database: Database) -> None:
    """Wait until the first job is worked on."""
    end = time.monotonic() + WAIT_S
    while rows(database)[0][1] != "running":
        assert time.monotonic() < end
        time.sleep(0.05)


def hand_of(home: Path, lane: str = "lays") -> int:
    """The hand that the worker has in a lane."""
    end = time.monotonic() + WAIT_S
    while time.monotonic() < end:
        for pid, role in family(str(home)).items():
            if role == lane:
                return pid
        time.sleep(0.05)
    raise AssertionError("the worker started nothing")


def test_twenty_lays_in_order_and_none_is_lost_when_the_worker_is_killed(
    database: Database, enqueue: Enqueue, tmp_path: Path
) -> None:
    first = ask(database, enqueue, "lay", long(4), {}, 4)
    looked_at = ask(database, enqueue, "photo", "none", {}, 0)
    for number in range(20):
        ask(database, enqueue, "lay", small(number), {}, 0)
    waiting = look(database, first + 21)
    assert waiting is not None
    assert waiting[1] == 20
    with worker(tmp_path):
        first_runs(database)
        first_hand = hand_of(tmp_path)
        assert os.getpriority(os.PRIO_PROCESS, first_hand) == NICE  # pages come first
        awaited = hand_of(tmp_path, AWAITED)
        assert os.getpriority(os.PRIO_PROCESS, awaited) == os.getpriority(os.PRIO_PROCESS, 0)  # somebody looks at its page
        os.kill(first_hand, signal.SIGKILL)
        found = [each for each in until(database, "done", "failed") if each[0] != looked_at]
    assert len(found) == 21
    assert found[0][2] == 2  # it was taken up again
    assert {tries for _, _, tries in found[1:]} == {1}
    with database.work() as work:
        answers = [json.loads(text) for text in work.scalars(select(JobRow.found).where(JobRow.kind == "lay"))]
    assert all(answer["length_cm"] > 0 for answer in answers)


def test_a_list_does_not_wait_for_lays(database: Database, enqueue: Enqueue, tmp_path: Path) -> None:
    shop = Shop(database, enqueue)
    lays = [ask(database, enqueue, "lay", long(120 + number), {}, 60) for number in range(3)]
    upload = send(shop, "list.csv", b"code,name,fibres\nA1,Cloud lawn,100% cotton\nA2,Moss crepe,100% visocse\n", "")
    with worker(tmp_path):
        first_runs(database)
        start_reading(shop, upload)
        start_applying(shop, upload, sold_out=False)
        end = time.monotonic() + WAIT_S
        while (kept := (job_state(shop, upload) or pytest.fail("it is gone"))[0]).state == "applying":
            assert time.monotonic() < end
            time.sleep(0.1)
        assert kept.state == "applying done"
        for each in lays:
            stop(database, each)
    assert [record.code for record in shop.now().shelf.records] == ["A1", "A2"]


def test_with_the_worker_killed_everybody_it_started_ends(database: Database, enqueue: Enqueue, tmp_path: Path) -> None:
    ask(database, enqueue, "lay", long(60), {}, 60)
    with worker(tmp_path) as process:
        first_runs(database)
        assert {"worker", "lays", "feed"} <= set(family(str(tmp_path)).values())
        process.kill()
        process.wait(60)
        nobody_left(tmp_path)


def test_it_hears_of_a_job_at_once_and_looks_by_itself_for_what_nobody_told_it(
    database: Database, enqueue: Enqueue, tmp_path: Path
) -> None:
    with worker(tmp_path):
        until(database, "done")
        told = ask(database, enqueue, "lay", small(1), {}, 0)
        untold = ask(database, lambda _kind, _job_id: None, "lay", small(2), {}, 0)
        assert [number for number, _, _ in until(database, "done")] == [told, untold]
        with database.lock(
            name_of(untold + 1)
        ):  # another machine's worker has it: it is left alone, and done when that is gone
            held = ask(database, enqueue, "lay", small(3), {}, 0)
            beside = ask(database, enqueue, "lay", small(4), {}, 0)
            end = time.monotonic() + WAIT_S
            while {number: state for number, state, _ in rows(database)}[beside] != "done":
                assert time.monotonic() < end
                time.sleep(0.1)
            assert rows(database)[-2] == (held, "waiting", 0)
        assert until(database, "done")[-2] == (held, "done", 1)


def test_a_job_is_stopped_and_keeps_its_best(database: Database, enqueue: Enqueue, tmp_path: Path) -> None:
    running, later = ask(database, enqueue, "lay", long(60), {}, 60), ask(database, enqueue, "lay", small(1), {}, 0)
    stop(database, later)
    with worker(tmp_path):
        end = time.monotonic() + WAIT_S
        while not ((found := look(database, running)) and found[0].found):
            assert time.monotonic() < end
            time.sleep(0.1)
        assert found[0].runs
        stop(database, running)
        ended = until(database, "done", "cancelled")
    assert [state for _, state, _ in ended] == ["done", "cancelled"]


def test_the_worker_can_do_what_each_lane_is_for(database: Database) -> None:
    app = create_app(database, "test")
    assert {kind for kinds in LANES.values() for kind in kinds} == set(able(app))


def test_the_same_is_not_done_twice_and_a_fault_is_kept(database: Database) -> None:
    calls: list[int] = []

    def later(_kind: str, job_id: int) -> None:
        calls.append(job_id)

    first = ask(database, later, "lay", small(1), {}, 0)
    assert ask(database, later, "lay", small(1), {}, 0) == first
    wrong = ask(database, later, "lay", small(1).replace("100", "3"), {}, 0)
    assert calls == [first, wrong]
    do = at_once(Shop(database))
    for number in calls:
        do("lay", number)
    assert [state for _, state, _ in rows(database)] == ["done", "failed"]
    found = look(database, wrong)
    assert found is not None
    assert "too wide" in found[0].message
    assert ask(database, later, "lay", small(1).replace("100", "3"), {}, 0) != wrong  # what failed may be asked again


def test_a_job_that_ends_its_worker_each_time_is_given_up(database: Database) -> None:
    with database.work() as work:
        number = jobs.add_job(work, "lay", "", small(1), {}, 0)
        work.execute(update(JobRow).values(state="running", tries=MOST_TRIES))
    run_job(database, number, runners(Shop(database)))
    found = look(database, number)
    assert found is not None
    assert (found[0].state, "three times" in found[0].message) == ("failed", True)


def test_doctor_names_what_nobody_works_on(database: Database) -> None:
    now = datetime.now()
    with database.work() as work:
        lost = jobs.add_job(work, "lay", "key", "{}", {}, 0)
        jobs.set_job(work, lost, state="running", made_at=now - timedelta(minutes=2))
        jobs.set_job(work, jobs.add_job(work, "list", "another", "{}", {}, 0), made_at=now)
    assert [each.id for each in left_open(database, now)] == [lost]
    named = " ".join(each.seen for each in look_at_data(database, now) if each.what == "jobs")
    assert f"job {lost} (lay) is running" in named
    with database.lock(name_of(lost)):
        assert left_open(database, now) == []
