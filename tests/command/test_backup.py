"""A backup holds the whole shop, is proved, and makes the same shop elsewhere; it is read and never executed.

What is damaged, bent or another shop's is refused in a sentence, and the shop of before is whole.
"""

from __future__ import annotations

import contextlib
import gzip
import io
import json
import shutil
import tarfile
import threading
import time
from collections.abc import Iterator
from datetime import datetime, timedelta
from pathlib import Path

import pyrage
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import text

from nematex.command.background.keeping import back_up_if_due
from nematex.command.backup import archive, sealed
from nematex.command.backup.archive import AnotherShops, BackupFault, Manifest, read_manifest
from nematex.command.backup.making import backups_in, let_old_go, make
from nematex.command.backup.restoring import opened, restore_here, restore_there, take_its_place
from nematex.command.mariadb import LocalMariaDB
from nematex.core.retention import kept
from nematex.store.copying.lines import line_of
from nematex.store.database import Database
from nematex.store.trail.triggers import out_of_place
from nematex.usecases.cloth.exchange import cloths_json
from nematex.usecases.held.shop import Shop
from nematex.usecases.pattern.exchange import patterns_json

pytestmark = pytest.mark.breaking

NOON = datetime(2026, 11, 27, 12)
KEY, OTHER_KEY = b"k" * 64, b"o" * 64
WORD = "bean row lawn and kelp"


def put_back(path: Path, home: Path, word: str = "", another_shops: bool = False) -> Path | None:
    """As `./nematex restore` does it; returns where the shop of before lies."""
    with opened(path, KEY, word, another_shops, home) as found:
        return restore_here(found, home)[0]


@contextlib.contextmanager
def running(home: Path) -> Iterator[Database]:
    server = LocalMariaDB(home)
    server.start()
    try:
        with contextlib.closing(Database(server.url)) as database:
            yield database
    finally:
        server.stop()


def exports(database: Database) -> tuple[str, str]:
    state = Shop(database).now()
    return cloths_json(state.shelf.records), patterns_json(state.drawer.records)


GIVEN_OUT = ("sign_in", "invitation", "remote", "remote_press")


def test_on_an_empty_machine_it_makes_a_shop_of_equal_exports(demo: Shop, tmp_path: Path) -> None:
    with demo.database.work() as work:
        work.execute(text("delete from job where id = (select max(id) from job)"))  # a number that was given out once
    path = make(demo.database.url, tmp_path / "backups", NOON, KEY)
    assert path.stat().st_mode & 0o077 == 0
    elsewhere = tmp_path / "empty"
    elsewhere.mkdir()
    assert put_back(path, elsewhere) is None
    numbers = text(
        "select table_name, auto_increment from information_schema.tables where table_schema = database() order by 1"
    )
    with running(elsewhere) as restored:
        assert exports(restored) == exports(demo.database)
        with restored.engine.connect() as connection, demo.database.engine.connect() as before:
            assert out_of_place(connection) == {}
            found, wanted = (dict(each.execute(numbers).all()) for each in (connection, before))  # type: ignore[arg-type]
            assert found | {"trail": 0} == wanted | {"trail": 0}  # that the links ended is on the trail
            names = [name for (name,) in before.execute(text("show tables"))]
            assert len(names) > 35
            for name in names:
                query = text(f"select * from `{name}`")
                found, wanted = list(connection.execute(query)), list(before.execute(query))
                if name in ("programme", "sew_along", "setting", "trail", *GIVEN_OUT):
                    continue  # public links and what else was given out are ended: below
                assert found == wanted, name


def test_it_is_of_one_moment_while_others_write(demo: Shop, tmp_path: Path) -> None:
    """Two cloths are always changed together; in no backup do they differ."""
    first, second = (record.id for record in demo.now().shelf.records[:2])
    stop, written = threading.Event(), []

    def write() -> None:
        while not stop.is_set():
            with demo.database.work() as work:
                for number in (first, second):
                    work.execute(text(f"update cloth set notes = 'turn {len(written)}' where id = {number}"))
            written.append(1)

    writer = threading.Thread(target=write)
    writer.start()
    while not written:
        time.sleep(0.01)
    try:
        path = make(demo.database.url, tmp_path / "backups", NOON, KEY)
    finally:
        stop.set()
        writer.join()
    assert len(written) > 5
    put_back(path, tmp_path)
    with running(tmp_path) as database, database.engine.connect() as connection:
        query = text(f"select count(distinct notes) from cloth where id in ({first}, {second})")
        assert connection.execute(query).scalar() == 1


@pytest.fixture(scope="module")
def backup(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A backup of an empty shop."""
    server = LocalMariaDB(tmp_path_factory.mktemp("small"))
    server.start()
    try:
        database = Database(server.url)
        database.migrate()
        database.close()
        return make(server.url, tmp_path_factory.mktemp("backups"), NOON, KEY)
    finally:
        server.stop()


@pytest.mark.parametrize("share", [0.0, 0.01, 0.3, 0.9, 0.999])
def test_a_damaged_one_is_refused_and_the_shop_of_before_is_whole(backup: Path, tmp_path: Path, share: float) -> None:
    (tmp_path / "mariadb").mkdir()
    (tmp_path / "mariadb" / "shop").write_text("whole")
    content = bytearray(backup.read_bytes().rstrip(b"\0"))
    for name, cut in (("cut.tar", True), ("turned.tar", False)):
        at = int(share * (len(content) - 620)) + 600
        spoilt = content[:at] if cut else content[:at] + bytes([content[at] ^ 0xFF]) + content[at + 1 :]
        (tmp_path / name).write_bytes(spoilt)
        said = refused(tmp_path / name, tmp_path)
        if said is None:  # the spoilt letter stood where tar keeps nothing
            assert not cut
            (before,) = tmp_path.glob("mariadb.before-*")
            shutil.rmtree(tmp_path / "mariadb")
            before.rename(tmp_path / "mariadb")
        assert (tmp_path / "mariadb" / "shop").read_text() == "whole"


def refused(path: Path, home: Path) -> str | None:
    """What is said of a backup that is not put back; None where it was."""
    try:
        put_back(path, home)
    except BackupFault as fault:
        return str(fault)
    return None


def test_what_is_no_backup_is_named(tmp_path: Path) -> None:
    for name, content in (("none.tar", None), ("empty.tar", b""), ("text.tar", b"a price list\n" * 500)):
        if content is not None:
            (tmp_path / name).write_bytes(content)
        with pytest.raises(BackupFault, match=name):
            read_manifest(tmp_path / name)
    with tarfile.open(tmp_path / "other.tar", "w") as tar:
        archive._add(tar, archive.MANIFEST, b'{"format": 99}')
    with pytest.raises(BackupFault, match="another Nematex"):
        read_manifest(tmp_path / "other.tar")
    with tarfile.open(tmp_path / "older.tar", "w") as tar:
        archive._add(tar, archive.MANIFEST, b'{"format": 1}')
    with pytest.raises(BackupFault, match="SQL, which is not run any more"):
        read_manifest(tmp_path / "older.tar")


def test_the_shop_of_before_is_set_aside_and_a_kill_between_the_renames_is_mended_by_the_next_start(tmp_path: Path) -> None:
    for name in ("mariadb", "new"):
        (tmp_path / name).mkdir()
        (tmp_path / name / "of").write_text(name)
    before = take_its_place(tmp_path / "new", tmp_path)
    assert before is not None
    assert (before / "of").read_text() == "mariadb"
    assert (tmp_path / "mariadb" / "of").read_text() == "new"
    server = LocalMariaDB(tmp_path / "killed")
    server.start()
    server.stop()
    server.data.rename(tmp_path / "killed" / "mariadb.restored")
    again = LocalMariaDB(tmp_path / "killed")
    again.start()
    again.stop()
    assert not list((tmp_path / "killed").glob("mariadb.unfinished*"))


def test_a_database_of_somebody_elses_server_must_be_empty(backup: Path, demo: Shop, tmp_path: Path) -> None:
    with opened(backup, KEY, "", False, tmp_path) as found, pytest.raises(BackupFault, match="not empty"):
        restore_there(found, demo.database.url)


def test_a_day_a_week_a_month_is_kept() -> None:
    every = [NOON - timedelta(hours=12 * n) for n in range(2 * 500)]
    stay = kept(every)
    assert {NOON - timedelta(days=n) for n in range(7)} <= stay
    assert len(stay) <= 7 + 4 + 12
    assert min(stay) > NOON - timedelta(days=366)
    assert len({each.strftime("%Y-%m") for each in stay}) == 12
    assert kept(stay) == stay, "what stays today stays when nothing new came"


@pytest.mark.parametrize("nights", [400])
def test_kept_night_by_night_it_is_never_without_one_of_each_month(nights: int) -> None:
    held: set[datetime] = set()
    for night in range(nights):
        held = kept(held | {NOON + timedelta(days=night)})
    months = {each.strftime("%Y-%m") for each in held}
    assert len(months) == 12
    assert len(held) <= 23


def test_the_worker_makes_one_a_day_and_lets_old_ones_go(demo: Shop, tmp_path: Path) -> None:
    first = back_up_if_due(demo.database, tmp_path, NOON, KEY)
    assert first is not None
    assert back_up_if_due(demo.database, tmp_path, NOON + timedelta(hours=23), KEY) is None
    assert back_up_if_due(demo.database, tmp_path, NOON + timedelta(hours=25), KEY) is not None
    assert back_up_if_due(demo.database, tmp_path, NOON - timedelta(days=3), KEY) is not None, "a clock that jumped back"
    (tmp_path / "nematex-20190101T000000.tar").write_bytes(b"old")
    for day in range(1, 9):
        (tmp_path / f"nematex-201902{day:02}T000000.tar").write_bytes(b"old")
    let_old_go(tmp_path)
    assert len(backups_in(tmp_path)) <= 23


# What somebody bends: the file is read as values, so nothing in it is a statement, a path or a link.


def rewritten(path: Path, to: Path, members: dict[str, bytes], told: object = None, key: bytes = KEY) -> Path:
    """The backup with other contents, vouched for by a key: what its owner could write, and a stranger of another shop."""
    with tarfile.open(path) as given, tarfile.open(to, "w") as tar:
        kept = {member.name: given.extractfile(member).read() for member in given}  # type: ignore[union-attr]
        manifest = told if told is not None else json.loads(kept[archive.MANIFEST])
        for name, content in (kept | members).items():
            if name not in (archive.MANIFEST, archive.MAC):
                archive._add(tar, name, content)
        content = json.dumps(manifest).encode()
        archive._add(tar, archive.MANIFEST, content)
        archive._add(tar, archive.MAC, archive._mac(content, key))
    return to


def with_rows(path: Path, to: Path, table: str, lines: bytes, key: bytes = KEY) -> Path:
    """The backup with other rows of one table, and a manifest that says so."""
    part = gzip.compress(lines)
    told = read_manifest(path).model_dump()
    own = {"rows": lines.count(b"\n"), "size": len(lines), "sha256": archive.hashlib.sha256(lines).hexdigest()}
    told["tables"][table] |= own | {"part_size": len(part), "part_sha256": archive.hashlib.sha256(part).hexdigest()}
    return rewritten(path, to, {f"rows/{table}.jsonl.gz": part}, told, key)


def test_what_would_be_a_command_is_a_value(backup: Path, tmp_path: Path) -> None:
    """The file that once ran `id` as root: `\\!` for the client, statements, quotes."""
    evil = ["\\! touch PWNED", "'; drop table cloth; --", "\\", "`", "%s %(name)s :name"]
    lines = b"".join(line_of([f"word {number}", each]) for number, each in enumerate(evil))
    put_back(with_rows(backup, tmp_path / "evil.tar", "setting", lines), tmp_path)
    with running(tmp_path) as database, database.engine.connect() as connection:
        found = connection.execute(text("select value from setting where name like 'word %' order by name")).scalars().all()
        assert found == evil
    assert not list(tmp_path.rglob("PWNED"))
    assert not Path("PWNED").exists()


def test_what_another_shop_wrote_is_asked_about(backup: Path, tmp_path: Path) -> None:
    other = rewritten(backup, tmp_path / "other.tar", {}, key=OTHER_KEY)
    with pytest.raises(AnotherShops, match="not written by this shop"):
        put_back(other, tmp_path)
    assert put_back(other, tmp_path, another_shops=True) is None


def test_what_was_changed_without_the_key_is_refused_even_where_another_shops_may_be_taken(
    backup: Path, tmp_path: Path
) -> None:
    told = read_manifest(backup).model_dump()
    told["made_at"] = "2020-01-01T00:00:00"
    changed = rewritten(backup, tmp_path / "changed.tar", {}, told)
    content = changed.read_bytes().replace(b"2020-01-01", b"2020-01-02")
    changed.write_bytes(content)
    for another_shops in (False, True):
        with pytest.raises(BackupFault, match="not as this shop wrote it"):
            put_back(changed, tmp_path, another_shops=another_shops)


def _stranger(path: Path, name: str, kind: bytes, link: str = "", content: bytes = b"") -> None:
    """Put one more member at the end of a tar."""
    with tarfile.open(path, "a") as tar:
        info = tarfile.TarInfo(name)
        info.type, info.linkname, info.size = kind, link, len(content)
        tar.addfile(info, io.BytesIO(content))


@pytest.mark.parametrize(
    ("name", "kind", "link"),
    [
        ("../../escaped", tarfile.REGTYPE, ""),
        ("/tmp/escaped", tarfile.REGTYPE, ""),
        ("files/../../escaped", tarfile.REGTYPE, ""),
        ("rows/cloth.jsonl.gz", tarfile.REGTYPE, ""),  # a second one of a name that is known
        ("rows/link", tarfile.SYMTYPE, "/etc/passwd"),
        ("rows/link", tarfile.LNKTYPE, "rows/cloth.jsonl.gz"),
        ("rows/fifo", tarfile.FIFOTYPE, ""),
        ("rows/device", tarfile.CHRTYPE, ""),
        ("rows", tarfile.DIRTYPE, ""),
    ],
)
def test_no_path_or_link_leads_outside(backup: Path, tmp_path: Path, name: str, kind: bytes, link: str) -> None:
    bent = tmp_path / "bent.tar"
    shutil.copy(backup, bent)
    _stranger(bent, name, kind, link, b"" if kind != tarfile.REGTYPE else b"stranger")
    assert refused(bent, tmp_path)
    assert [each.name for each in tmp_path.iterdir()] == ["bent.tar"]


@pytest.mark.parametrize(
    ("table", "lines", "said"),
    [
        ("setting", b'["a", "1"]\n' * 2, "refuses"),  # one key twice
        ("setting", b'["a"]\n', "values"),
        ("setting", b'{"a": 1}\n', "values"),
        ("setting", b'["a", ["bytes", "AA=="]]\n', "not what this column holds"),
        ("setting", b'["\\ud800", "1"]\n', "not what this column holds"),
        ("setting", b'["' + b"a" * 41 + b'", "1"]\n', "refuses"),
        ("setting", b"[" * 100_000 + b"\n", "JSON"),
        ("setting", b"[" + b"9" * 5000 + b"]\n", "JSON"),
        ("feed", b'["stock", 1, null, null, "", "[]"]\n', "feed"),
        ("reading", b"[1]\n", "values"),
        ("pick_photo", b'[77, ["bytes", "AA=="], ["datetime", "2026-01-01T00:00:00"]]\n', "refuses"),  # of no pick
    ],
)
def test_rows_that_are_none_are_named_and_nothing_is_filled(
    backup: Path, tmp_path: Path, table: str, lines: bytes, said: str
) -> None:
    bent = with_rows(backup, tmp_path / "bent.tar", table, lines)
    assert said in (refused(bent, tmp_path) or "nothing")
    assert not (tmp_path / "mariadb").exists()


def test_more_than_was_told_is_not_read(backup: Path, tmp_path: Path) -> None:
    """A part that unpacks to a thousand times what it was said to hold."""
    part = gzip.compress(b'["a", "1"]\n' + b" " * 50_000_000)
    told = read_manifest(backup).model_dump()
    own = {"rows": 1, "size": 11, "sha256": "0" * 64}
    told["tables"]["setting"] |= own | {"part_size": len(part), "part_sha256": archive.hashlib.sha256(part).hexdigest()}
    bent = rewritten(backup, tmp_path / "bent.tar", {"rows/setting.jsonl.gz": part}, told)
    assert "more than was written" in (refused(bent, tmp_path) or "nothing")


def test_strange_tables_and_revisions_are_refused(backup: Path, tmp_path: Path) -> None:
    good = read_manifest(backup).model_dump()
    stranger, newer, fewer = (json.loads(json.dumps(good)) for _ in range(3))
    stranger["tables"]["mysql_user"] = stranger["tables"]["setting"]
    newer["revision"] = "9999"
    del fewer["tables"]["setting"]
    with tarfile.open(backup) as tar:
        setting = tar.extractfile("rows/setting.jsonl.gz").read()  # type: ignore[union-attr]
    bent = rewritten(backup, tmp_path / "a.tar", {"rows/mysql_user.jsonl.gz": setting}, stranger)
    assert "no table of a shop" in (refused(bent, tmp_path) or "")
    assert "newer Nematex" in (refused(rewritten(backup, tmp_path / "b.tar", {}, newer), tmp_path) or "")
    assert "is not what was written" in (refused(rewritten(backup, tmp_path / "c.tar", {}, fewer), tmp_path) or "")


WORDS = st.one_of(
    st.none(), st.booleans(), st.integers(), st.floats(), st.text(max_size=40), st.lists(st.integers(), max_size=3)
)


@given(st.dictionaries(st.sampled_from([*Manifest.model_fields, "more"]), WORDS | st.dictionaries(st.text(), WORDS)))
@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=60)
def test_a_bent_manifest_is_a_sentence(backup: Path, tmp_path: Path, bent: dict[str, object]) -> None:
    told = read_manifest(backup).model_dump() | bent
    path = rewritten(backup, tmp_path / "bent.tar", {}, told)
    with contextlib.suppress(BackupFault):
        assert archive.trusted(path, KEY) == Manifest(**told)


@given(st.data())
@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=80)
def test_a_file_bent_anywhere_is_a_sentence_and_leaves_nothing(backup: Path, tmp_path: Path, data: st.DataObject) -> None:
    """Letters turned, cut out, doubled and put in, anywhere; nothing is believed without its hash."""
    content = bytearray(backup.read_bytes())
    for _ in range(data.draw(st.integers(1, 4))):
        at, length = data.draw(st.integers(0, len(content) - 1)), data.draw(st.sampled_from([1, 8, 100, 512, 5120]))
        piece = data.draw(
            st.sampled_from([b"", b"\xff" * length, bytes(content[at : at + length]) * 2, b"\0" * length, b"7" * length])
        )
        content[at : at + length] = piece
    bent, work = tmp_path / "bent.tar", tmp_path / "work"
    bent.write_bytes(content)
    work.mkdir(exist_ok=True)
    with contextlib.suppress(BackupFault), opened(bent, KEY, "", False, work) as (manifest, folder):
        assert manifest == read_manifest(backup), "only where nothing that counts was bent"
        assert {each.name for each in (folder / "rows").iterdir()} == {f"{name}.jsonl.gz" for name in manifest.tables}
    assert list(work.iterdir()) == []


# Behind a passphrase, and in a second place.


def test_sealed_it_opens_by_its_passphrase_alone_and_by_any_program_that_reads_age(
    backup: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "sealed.tar"
    sealed.seal(backup, path, WORD)
    content = path.read_bytes()
    assert b"manifest" not in content
    with pytest.raises(BackupFault, match="give the passphrase"):
        put_back(path, tmp_path)
    with pytest.raises(BackupFault, match="does not open it"):
        put_back(path, tmp_path, "another passphrase")
    assert put_back(path, tmp_path, WORD) is None
    with tarfile.open(path) as tar:  # by the library alone, as its readme does it
        identity = pyrage.passphrase.decrypt(tar.extractfile("key.age").read(), WORD).decode()  # type: ignore[union-attr]
        plain = pyrage.decrypt(tar.extractfile("shop.tar.age").read(), [pyrage.x25519.Identity.from_str(identity)])  # type: ignore[union-attr]
    assert plain == backup.read_bytes()
    (tmp_path / "word").write_text("short")
    monkeypatch.setenv(sealed.SETTING, str(tmp_path / "word"))
    with pytest.raises(BackupFault, match="has 5 letters"):
        sealed.passphrase()
    with pytest.raises(BackupFault, match="has 5 letters"):
        make("mysql+pymysql://nobody@127.0.0.1/none", tmp_path / "none", NOON, KEY)


@given(st.data())
@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=6)
def test_a_bent_sealed_one_is_a_sentence(backup: Path, tmp_path: Path, data: st.DataObject) -> None:
    path, bent, work = tmp_path / "whole.tar", tmp_path / "bent.tar", tmp_path / "work"
    if not path.exists():
        sealed.seal(backup, path, WORD)
        work.mkdir()
    content = bytearray(path.read_bytes())
    at = data.draw(st.integers(0, len(content) - 1))
    content[at : at + data.draw(st.integers(1, 600))] = data.draw(st.binary(max_size=300))
    bent.write_bytes(content)
    with contextlib.suppress(BackupFault), opened(bent, KEY, WORD, False, work) as (manifest, _):
        assert manifest == read_manifest(backup)
    assert list(work.iterdir()) == []


def test_it_goes_to_a_second_place_too(database: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("NEMATEX_BACKUPS_TOO", str(tmp_path / "other disk"))
    path = make(database.url, tmp_path / "backups", NOON, KEY)
    assert (tmp_path / "other disk" / path.name).read_bytes() == path.read_bytes()
    monkeypatch.setenv("NEMATEX_BACKUPS_TOO", "/proc/nowhere")
    with pytest.raises(BackupFault, match=r"NEMATEX_BACKUPS_TOO.*could not be copied"):
        make(database.url, tmp_path / "backups", NOON + timedelta(seconds=1), KEY)
    assert len(backups_in(tmp_path / "backups")) == 2, "the backup itself is made"


def test_a_database_that_was_empty_is_empty_again_where_it_goes_wrong(
    backup: Path, mariadb: LocalMariaDB, tmp_path: Path
) -> None:
    bent = with_rows(backup, tmp_path / "bent.tar", "setting", b'["a"]\n')
    with running(tmp_path / "other") as empty, opened(bent, KEY, "", False, tmp_path) as found:
        with pytest.raises(BackupFault, match="setting, row 1"):
            restore_there(found, empty.url)
        with empty.engine.connect() as connection:
            assert connection.execute(text("show tables")).first() is None
        with opened(backup, KEY, "", False, tmp_path) as good:
            assert restore_there(good, empty.url).people == ()
