"""The shop's own MariaDB: nobody else gets in, and a start never removes what is there."""

from __future__ import annotations

import os
import socket
import subprocess
import time
from collections.abc import Iterator
from pathlib import Path

import pymysql
import pytest

from nematex.command.mariadb import LocalMariaDB, open_to_anybody


def query(server: LocalMariaDB, sql: str) -> list[tuple[object, ...]]:
    with server.connect() as connection:
        cursor = connection.cursor()
        cursor.execute(sql)
        return list(cursor.fetchall())


@pytest.fixture(scope="module")
def by_port(tmp_path_factory: pytest.TempPathFactory) -> Iterator[LocalMariaDB]:
    """A server on a port of loopback, as where the path is too long for a socket."""
    server = LocalMariaDB(tmp_path_factory.mktemp("port"), tcp=True)
    server.start()
    yield server
    server.stop()


HOSTS = ("127.0.0.1", "localhost", "::1", socket.gethostname())
USERS = ("root", "", "mysql", "mariadb.sys", "nematex", "nobody", "PUBLIC")


@pytest.mark.parametrize("user", USERS)
@pytest.mark.parametrize("host", HOSTS)
def test_nobody_is_let_in_without_the_password(by_port: LocalMariaDB, user: str, host: str) -> None:
    with pytest.raises(pymysql.MySQLError):
        pymysql.connect(host=host, port=by_port.port, user=user, password="")


def test_where_there_is_a_socket_no_port_is_open(mariadb: LocalMariaDB) -> None:
    assert query(mariadb, "select @@skip_networking, @@port") == [(1, 0)]
    assert mariadb.port == 0


@pytest.mark.parametrize("user", USERS)
def test_nor_by_the_socket_not_even_as_root(mariadb: LocalMariaDB, user: str) -> None:
    """The socket login by the system's user name is switched off with every account but the shop's."""
    path = str(mariadb.folder / "socket/mariadb.sock")
    with pytest.raises(pymysql.MySQLError):
        pymysql.connect(unix_socket=path, user=user, password="")


def test_the_shops_account_reads_and_writes_no_file_and_sees_no_other_account(mariadb: LocalMariaDB, tmp_path: Path) -> None:
    with pytest.raises(pymysql.MySQLError, match="denied"):
        query(mariadb, f"select 1 into outfile '{tmp_path}/taken'")
    with pytest.raises(pymysql.MySQLError, match="denied"):
        query(mariadb, "select user from mysql.user")
    assert query(mariadb, "select load_file('/etc/hostname')") == [(None,)]
    grants = [str(row[0]) for row in query(mariadb, "show grants")]
    assert [grant.split(" TO ")[0] for grant in grants] == ["GRANT USAGE ON *.*", "GRANT ALL PRIVILEGES ON `nematex`.*"]


def test_what_tells_of_the_server_is_for_the_owner_alone(mariadb: LocalMariaDB) -> None:
    for path in (mariadb.folder, mariadb.data, mariadb.folder / "socket", mariadb.password_file, mariadb.init_file):
        assert path.stat().st_mode & 0o077 == 0, path
    assert len(mariadb.password_file.read_text()) >= 24


def test_accounts_an_earlier_version_left_open_are_closed_by_the_next_start(tmp_path: Path) -> None:
    server = LocalMariaDB(tmp_path, tcp=True)
    server.start()
    server.stop()
    sql = "CREATE USER root@'127.0.0.1'; GRANT ALL ON *.* TO root@'127.0.0.1'; CREATE USER ''@'%';".replace("; ", ";\n")
    loose = subprocess.Popen(loose_server(server, sql))
    try:
        wait_until(lambda: open_to_anybody(server.port))
    finally:
        loose.terminate()
        loose.wait(30)
    server.start(server.port)
    try:
        assert not open_to_anybody(server.port)
    finally:
        server.stop()


def loose_server(server: LocalMariaDB, sql: str) -> list[str]:
    """The command of a server as version 0.3.0 started it, with an init file that opens it."""
    init = server.folder / "loose.sql"
    init.write_text(f"FLUSH PRIVILEGES;\n{sql}\n")
    files = (f"--datadir={server.data}", f"--socket={server.folder}/loose.sock", f"--init-file={init}")
    user = ("--user=root",) if os.geteuid() == 0 else ()
    return ["mariadbd", "--no-defaults", *files, f"--port={server.port}", "--bind-address=127.0.0.1", *user]


def wait_until(what) -> None:  # type: ignore[no-untyped-def]
    for _ in range(300):
        if what():
            return
        time.sleep(0.1)
    raise AssertionError("did not come true within 30 s")


def test_a_start_never_removes_a_shop_whatever_marker_is_missing(tmp_path: Path) -> None:
    server = LocalMariaDB(tmp_path)
    server.start()
    query(server, "create table kept (id int)")
    query(server, "insert into kept values (7)")
    query(server, "commit")
    server.stop()
    for marker in tmp_path.glob("*.ready"):
        marker.unlink()
    server.password_file.write_text("")  # an empty password is no password
    again = LocalMariaDB(tmp_path)
    with pytest.raises(RuntimeError, match="holds no password"):
        _ = again.url
    again.start()
    try:
        assert query(again, "select table_name from information_schema.tables where table_schema = 'nematex'") == [("kept",)]
        assert len(again.password_file.read_text()) >= 24
    finally:
        again.stop()


def test_a_half_made_folder_is_set_aside_and_a_damaged_one_is_not_touched(tmp_path: Path) -> None:
    (tmp_path / "mariadb").mkdir()
    (tmp_path / "mariadb/aria_log_control").write_text("cut short")
    server = LocalMariaDB(tmp_path)
    server.start()
    server.stop()
    assert (tmp_path / "mariadb.unfinished-1/aria_log_control").read_text() == "cut short"
    for path in (server.data / "mysql").glob("global_priv.*"):
        path.unlink()
    assert (server.data / "nematex").is_dir()
    with pytest.raises(RuntimeError, match="Restore a backup"):
        server.start()
    assert (server.data / "nematex").is_dir()
