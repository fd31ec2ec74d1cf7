"""`./nematex test` speaks of the program, wherever the shop lies."""

from __future__ import annotations

import subprocess
from pathlib import Path
from typing import Any

import pytest
from conftest import ROOT

from nematex.command.check import run_checks


def test_a_shop_elsewhere_does_not_lead_the_tests_away(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    asked: list[Path] = []

    def noted(_: object, cwd: Path, **__: Any) -> subprocess.CompletedProcess[str]:
        asked.append(cwd)
        return subprocess.CompletedProcess([], 0, "", "")

    monkeypatch.setenv("NEMATEX_HOME", str(tmp_path))
    monkeypatch.setattr(subprocess, "run", noted)
    assert run_checks([]) == 0
    assert set(asked) == {ROOT}
