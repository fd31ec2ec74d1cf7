"""The worker: jobs in the order they were asked, taken up again when it is killed, stopped when asked, none done twice."""

from __future__ import annotations

import json
import os
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from sqlalchemy import select, update

from nematex.command.doctor.data import look_at_data
from nematex.command.keeper import take_up_forgotten
from nematex.command.mariadb import free_port
from nematex.command.standing_back import NICE
from nematex.command.worker import _able, handing_over
from nematex.store import jobs
from nematex.store.database import Database
from nematex.store.models import JobRow
from nematex.usecases.cloth.lists.importing import send
from nematex.usecases.cloth.lists.job import job_state, start_applying, start_reading
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import Enqueue, ask, forgotten, look, name_of, stop
from nematex.usecases.jobs.lanes import AWAITED, LANES
from nematex.usecases.jobs.running import MOST_TRIES, run_job
from nematex.usecases.tasks.runners import at_once, runners

WAIT_S = 300  # only a failure waits so long


def small(number: int) -> str:
    corner = {"id": "a", "outline_cm": [[0, 0], [9, 0], [9, 9]]}
    return json.dumps({"width_cm": 100, "seconds": 0, "seed": number, "pieces": [corner]})


def long(seconds: int) -> str:
    """It works on as long as it may: pieces on the fold are for our own solver alone."""
    piece = {"id": "a", "outline_cm": [[0, 0], [31, 0], [29, 17], [0, 23]], "kind": "fold", "fold_edge": "y=0", "count": 9}
    other = {"id": "b", "outline_cm": [[0, 0], [37, 3], [23, 19], [4, 13]], "kind": "pair", "count": 12}
    return json.dumps({"width_cm": 140, "folded": True, "seconds": seconds, "pieces": [piece, other]})


def family(home: Path) -> list[int]:
    """The worker's parent, whom it started, and what they began, that work for this folder."""
    found = []
    for folder in Path("/proc").iterdir():
        try:
            words, told = (folder / "cmdline").read_bytes(), (folder / "environ").read_bytes()
        except OSError:
            continue
        if b"nematex.command" in words and f"NEMATEX_HOME={home}".encode() in told.split(b"\0"):
            found.append(int(folder.name))
    return found


@contextmanager
def worker(home: Path) -> Iterator[subprocess.Popen[bytes]]:
    process = subprocess.Popen([sys.executable, "-m", "nematex.command", "work"], stderr=subprocess.DEVNULL)
    try:
        yield process
    finally:
        process.terminate()
        process.wait(120)
    assert family(home) == []  # whoever was killed, nobody is left behind


@pytest.fixture
def enqueue(database: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Enqueue:
    monkeypatch.setenv("DATABASE_URL", database.url)
    monkeypatch.setenv("NEMATEX_HOME", str(tmp_path))
    monkeypatch.setenv("NEMATEX_WORKERS", "1")
    monkeypatch.setenv("PYTHONPATH", os.pathsep.join(sys.path))
    monkeypatch.delenv("REDIS_URL", raising=False)
    folder = tmp_path / ".nematex"
    folder.mkdir()
    return handing_over(folder)


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


def consumer_of(parent: int, lane: str = "lays") -> int:
    """The process that the worker started for a lane."""
    end = time.monotonic() + WAIT_S
    while time.monotonic() < end:
        lists = [path.read_text() for path in Path(f"/proc/{parent}/task").glob("*/children")]  # of each of its threads
        for child in " ".join(lists).split():
            if lane.encode() in Path(f"/proc/{child}/cmdline").read_bytes().split(b"\0"):
                return int(child)
        time.sleep(0.05)
    raise AssertionError("the worker started nothing")


def test_twenty_lays_in_order_and_none_is_lost_when_the_worker_is_killed(
    database: Database, enqueue: Enqueue, tmp_path: Path
) -> None:
    first = ask(database, enqueue, "lay", long(4), {}, 4)
    for number in range(20):
        ask(database, enqueue, "lay", small(number), {}, 0)
    waiting = look(database, first + 20)
    assert waiting is not None
    assert waiting[1] == 20
    with worker(tmp_path) as process:
        first_runs(database)
        first_consumer = consumer_of(process.pid)
        assert os.getpriority(os.PRIO_PROCESS, first_consumer) == NICE  # pages come first
        awaited = consumer_of(process.pid, AWAITED)
        assert os.getpriority(os.PRIO_PROCESS, awaited) == os.getpriority(os.PRIO_PROCESS, 0)  # somebody looks at its page
        os.kill(first_consumer, signal.SIGKILL)
        found = until(database, "done")
    assert len(found) == 21
    assert found[0][2] == 2  # it was taken up again
    assert {tries for _, _, tries in found[1:]} == {1}
    with database.work() as work:
        answers = [json.loads(text) for text in work.scalars(select(JobRow.found))]
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


@pytest.mark.usefixtures("enqueue")
def test_with_the_parent_killed_everybody_it_started_ends(tmp_path: Path) -> None:
    with worker(tmp_path) as process:
        consumer_of(process.pid)
        end = time.monotonic() + WAIT_S
        while len(family(tmp_path)) < 6:  # itself, three lanes, who asks the feed, who makes backups
            assert time.monotonic() < end
            time.sleep(0.1)
        process.kill()
        process.wait(60)
        while left := family(tmp_path):
            assert time.monotonic() < end, left
            time.sleep(0.1)


def listening(port: int) -> None:
    """Wait until something answers there: a busy machine takes its time to start it."""
    end = time.monotonic() + 120
    while time.monotonic() < end:
        with suppress(ConnectionRefusedError), socket.create_connection(("127.0.0.1", port)):
            return
        time.sleep(0.05)
    pytest.fail(f"nothing answers at {port}")


def test_jobs_go_through_redis_where_it_is_named(
    database: Database, enqueue: Enqueue, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    port = free_port(6390)
    line = ["redis-server", "--port", str(port), "--bind", "127.0.0.1", "--save", "", "--dir", str(tmp_path)]
    server = subprocess.Popen(line, stdout=subprocess.DEVNULL)
    try:
        monkeypatch.setenv("REDIS_URL", f"redis://127.0.0.1:{port}/0")
        in_redis = handing_over(tmp_path / "no such folder")
        listening(port)
        for number in range(3):
            ask(database, in_redis, "lay", small(number), {}, 0)
        ask(database, enqueue, "lay", small(9), {}, 0)  # its number lies elsewhere: its row is what counts
        with worker(tmp_path) as process:
            until(database, "done")
            late = [ask(database, in_redis, "lay", small(number), {}, 0) for number in (4, 5)]
            until(database, "done")
            os.kill(consumer_of(process.pid), signal.SIGKILL)
            last = ask(database, in_redis, "lay", small(6), {}, 0)
            found = until(database, "done")
        assert [number for number, _, _ in found][-3:] == [*late, last]
    finally:
        server.terminate()
        server.wait(60)


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


@pytest.mark.parametrize("lane", LANES)
def test_each_lane_can_do_what_it_is_for_and_what_it_asks_is_done(database: Database, enqueue: Enqueue, lane: str) -> None:
    shop, able = _able(database.url, lane, enqueue)
    assert set(LANES[lane]) <= set(able)
    assert shop.enqueue is enqueue
    shop.database.close()


def test_a_job_that_cannot_be_handed_over_has_failed_and_may_be_asked_again(database: Database) -> None:
    def away(_kind: str, _job_id: int) -> None:
        raise ConnectionError("no Redis")

    first = ask(database, away, "lay", small(1), {}, 0)
    found = look(database, first)
    assert found is not None
    assert (found[0].state, "queue" in found[0].message) == ("failed", True)
    assert ask(database, at_once(Shop(database)), "lay", small(1), {}, 0) != first
    assert [state for _, state, _ in rows(database)] == ["failed", "done"]


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


def test_a_job_that_nobody_comes_to_is_taken_up_by_any_worker(database: Database) -> None:
    """Its machine died while it ran, or its number was lost; what waits behind another's work is left alone."""
    now = datetime.now()
    with database.work() as work:
        lost, waits = (jobs.add_job(work, kind, f"key {kind}", "{}", {}, 0) for kind in ("lay", "list"))
        jobs.set_job(work, lost, state="running", made_at=now - timedelta(minutes=2))
        jobs.set_job(work, waits, made_at=now - timedelta(minutes=2))
        young = jobs.add_job(work, "proposal", "key", "{}", {}, 0)
        jobs.set_job(work, young, made_at=now)
    handed: list[tuple[str, int]] = []

    def enqueue(kind: str, job_id: int) -> None:
        handed.append((kind, job_id))

    assert take_up_forgotten(database, enqueue, now) == 2
    assert handed == [("lay", lost), ("list", waits)]
    with database.work() as work:
        other = jobs.add_job(work, "list", "another", "{}", {}, 0)
        jobs.set_job(work, other, state="running", made_at=now - timedelta(minutes=3))
    with database.lock(name_of(other)):  # somebody works on it: what waits behind it is not forgotten
        assert [each.id for each in forgotten(database, now)] == [lost]
    with database.lock(name_of(lost)):
        assert {each.id for each in forgotten(database, now)} == {waits, other}
    named = " ".join(each.seen for each in look_at_data(database, now) if each.what == "jobs")
    assert f"job {lost} (lay) is running" in named
