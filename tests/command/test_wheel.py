"""The wheel: built here, it starts the made-up shop in an environment that knows nothing of this checkout."""

from __future__ import annotations

import os
import subprocess
import sys
import sysconfig
import urllib.request
import venv
import zipfile
from pathlib import Path

import pytest
from conftest import ROOT

import nematex


@pytest.fixture(scope="module")
def wheel(tmp_path_factory: pytest.TempPathFactory) -> Path:
    source, out = tmp_path_factory.mktemp("source"), tmp_path_factory.mktemp("wheel")
    for name in ("pyproject.toml", "README.md", "requirements", "src"):
        subprocess.run(["cp", "-r", str(ROOT / name), str(source)], check=True)
    line = [sys.executable, "-m", "pip", "wheel", "--quiet", "--no-deps", "--no-build-isolation", "-w", str(out), str(source)]
    subprocess.run(line, check=True, capture_output=True)
    (built,) = out.glob("*.whl")
    return built


def test_it_holds_every_file_that_is_read_and_says_what_it_needs(wheel: Path) -> None:
    source = ROOT / "src/nematex"
    wanted = {str(path.relative_to(ROOT / "src")) for path in source.rglob("*") if path.is_file() and path.suffix != ".pyc"}
    with zipfile.ZipFile(wheel) as archive:
        held = set(archive.namelist())
        about = archive.read(next(name for name in held if name.endswith("METADATA"))).decode()
    assert wanted - held == set()
    assert f"Version: {nematex.__version__}" in about
    needs = {line.removeprefix("Requires-Dist: ") for line in about.splitlines() if line.startswith("Requires-Dist")}
    asked = (ROOT / "requirements/run.in").read_text().splitlines()
    assert needs == {line for line in asked if line and not line.startswith("#")}


@pytest.mark.long
def test_it_starts_the_shop_where_nothing_else_is(wheel: Path, tmp_path: Path) -> None:
    place = tmp_path / "environment"
    venv.create(place, with_pip=False)
    packages = Path(sysconfig.get_path("purelib", "venv", {"base": str(place), "platbase": str(place)}))
    with zipfile.ZipFile(wheel) as archive:
        archive.extractall(packages)
    # The libraries it depends on are those of this environment; the checkout itself is not on the way.
    (packages / "libraries.pth").write_text(sysconfig.get_path("purelib") + "\n")
    home = tmp_path / "home"
    home.mkdir()
    unset = ("PYTHONPATH", "DATABASE_URL", "NEMATEX_HOME")  # the shop lies in the folder that one is in
    environment = {name: value for name, value in os.environ.items() if name not in unset}
    code = "from nematex.command.__main__ import entry; import nematex; print(nematex.__file__, flush=True); entry()"

    def run(*words: str) -> subprocess.CompletedProcess[str]:
        line = [str(place / "bin/python"), "-c", code, *words]
        return subprocess.run(line, env=environment, cwd=home, capture_output=True, text=True, check=False)

    try:
        begun = run("start")
        assert begun.returncode == 0, begun.stderr
        assert str(place) in begun.stdout
        with urllib.request.urlopen(begun.stdout.split()[-1] + "shelf?q=kelp", timeout=300) as reply:
            assert "Kelp Ladder challis" in reply.read().decode()
    finally:
        run("stop")
