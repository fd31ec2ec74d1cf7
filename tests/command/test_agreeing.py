"""Machines of one shop: what they must have alike is compared at each start."""

from __future__ import annotations

from pathlib import Path

import pytest

from nematex.command.service.agreeing import differing
from nematex.store.database import Database
from nematex.store.settings import settings


def test_the_next_start_is_told_what_the_last_one_had_otherwise(
    database: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    one, other = tmp_path / "one", tmp_path / "other"
    monkeypatch.delenv("NEMATEX_FILES", raising=False)
    monkeypatch.setenv("NEMATEX_HOME", str(one))
    assert differing(database) == differing(database) == []
    monkeypatch.setenv("NEMATEX_HOME", str(other))
    monkeypatch.setenv("NEMATEX_FILES", str(tmp_path / "photos"))
    key, files = differing(database)
    assert "copy .nematex/session-key" in key
    assert "NEMATEX_FILES" in files
    assert differing(database) == [], "said once: a shop that moved has one machine again"
    (other / ".nematex/session-key").write_text((one / ".nematex/session-key").read_text())
    assert len(differing(database)) == 1
    monkeypatch.setenv("NEMATEX_HOME", str(one))
    assert differing(database) == [], "alike on both"
    with database.work() as work:
        assert (one / ".nematex/session-key").read_text() not in settings(work).values()
