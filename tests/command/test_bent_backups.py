"""A backup is read and never executed: what is damaged, bent or another shop's is refused in a sentence, and the shop of
before is whole.
"""

from __future__ import annotations

import contextlib
import gzip
import io
import json
import shutil
import tarfile
from pathlib import Path

import backups
import pyrage
import pytest
from backups import KEY, NOON, OTHER_KEY, WORD, WORDS, put_back, refused, running
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import text

from nematex.command.backup import archive, sealed
from nematex.command.backup.archive import AnotherShops, BackupFault, Manifest, read_manifest
from nematex.command.backup.making import make
from nematex.command.backup.restoring import opened, restore_there
from nematex.command.mariadb import LocalMariaDB
from nematex.store.copying.lines import line_of

pytestmark = pytest.mark.breaking
backup = backups.backup  # the fixture


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
