"""Shops made by earlier versions come up whole: `earlier_shops/` holds the demo shop as each edition of the tables kept it.

Each file is a dump of what the commit in its name loaded (pictures shortened), taken once by running that commit.
"""

from __future__ import annotations

import gzip
import hashlib
from pathlib import Path

import pytest
from conftest import ROOT, empty, tried_app
from sqlalchemy import text

from nematex.store.database import Database
from nematex.store.faults import SchemaFault
from nematex.store.programme.programmes import all_programmes
from nematex.usecases.held.shop import Shop

HERE = Path(__file__).parent
EDITIONS = sorted(path.name.removesuffix(".sql.gz") for path in (HERE / "earlier_shops").glob("*.sql.gz"))
MIGRATIONS = ROOT / "src/nematex/store/migrations/versions"
# A migration that has been in a shop never changes; what is missing comes in a new one.
FROZEN = {
    "0001_first_tables.py": "305ec0371918",
    "0002_readings.py": "75c32aa0dcf4",
    "0003_whole_pattern.py": "a1717e2b328e",
    "0004_one_schema.py": "8e240fdec7c9",
    "0005_versions.py": "e2d508ee31d7",
    "0006_more.py": "5f37c2a6ddbe",
    "0008_long_envelopes.py": "0fa683569901",
    "0009_links_and_pairings.py": "71e690ccd96b",
    "0007_bin_and_codes.py": "f2bbef834455",
    "0012_changes.py": "5f7a31286c26",
    "0011_reservations.py": "bc2a3091ba56",
    "0010_jobs.py": "8755c755305b",
    "0014_in_the_place_of.py": "2a82b083177c",
    "0015_sets.py": "490298adba8b",
    "0020_people.py": "5b11874204a7",
    "0019_kits_offered.py": "da08ef7f028f",
    "0018_along_made_practised.py": "9af245b7ba53",
    "0017_notes.py": "51f49ba236d5",
    "0016_on_air.py": "726afa6c2497",
    "0013_parts_of_jobs.py": "8e04181c5eb1",
    "0021_tries.py": "bc6038976276",
    "0022_words_of_lists.py": "df3040fb2ef8",
}


def load(database: Database, edition: str) -> None:
    dump = gzip.decompress((HERE / f"earlier_shops/{edition}.sql.gz").read_bytes()).decode()
    connection = database.engine.raw_connection()
    with connection.cursor() as cursor:
        cursor.execute("set foreign_key_checks = 0")
        for statement in dump.split(";\n"):
            if statement.strip():
                cursor.execute(statement)
    connection.commit()
    connection.close()


def counts(database: Database) -> dict[str, int]:
    with database.engine.connect() as connection:
        names = [row[0] for row in connection.execute(text("show tables"))]
        return {name: connection.execute(text(f"select count(*) from `{name}`")).scalar_one() for name in names}


@pytest.mark.parametrize("edition", EDITIONS)
def test_a_shop_of_every_earlier_edition_comes_up_with_every_row(bare: Database, edition: str) -> None:
    load(bare, edition)
    before = counts(bare)
    assert before["cloth"] > 50
    bare.migrate()
    bare.check()
    after = counts(bare)
    assert {name: after[name] for name in before if name != "reading"} == {
        name: number for name, number in before.items() if name != "reading"
    }
    assert after["reading"] >= before.get("reading", 1)
    with bare.work() as work:
        programmes = [programme.id for programme in all_programmes(work)]
    client = tried_app(bare).test_client()
    for address in ("/", "/shelf", *(f"/programmes/{number}" for number in programmes)):
        assert client.get(address).status_code == 200, address
    shop = Shop(bare)
    assert len(shop.now().shelf.records) == before["cloth"]
    with bare.engine.connect() as connection:
        first = "select count(distinct cloth_id) from reading where property = 'print_direction'"
        said = "select count(*) from cloth where length(print_direction) > 0"
        assert connection.execute(text(first)).scalar() == connection.execute(text(said)).scalar()


def test_applied_migrations_never_change() -> None:
    found = {path.name: hashlib.sha256(path.read_bytes()).hexdigest()[:12] for path in sorted(MIGRATIONS.glob("0*.py"))}
    assert found == FROZEN


def test_an_older_program_leaves_a_newer_shop_alone_and_says_so(database: Database) -> None:
    with database.engine.begin() as connection:
        connection.execute(text("update alembic_version set version_num = '9001'"))
    with pytest.raises(SchemaFault, match=r"newer Nematex.*9001"):
        database.migrate()
    empty(database)


def test_tables_that_differ_are_named(database: Database) -> None:
    database.check()
    with database.engine.begin() as connection:
        connection.execute(text("alter table pick drop column line"))
    with pytest.raises(SchemaFault, match="line"):
        database.check()
    empty(database)
