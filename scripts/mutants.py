"""Do the tests notice? Changes one thing at a time in rooms of the core and looks whether the quick tests fail.

    .venv/bin/python scripts/mutants.py --count 150 --seed 1 judging amount set air people

Each mutant is a whole module with one comparison, sign, number, condition or edge changed, in a copy of the project. First the
room's own tests are run, then, if it lives, all of the core's but those of photos. What lives is printed with its line.
"""

from __future__ import annotations

import argparse
import ast
import copy
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import SimpleQueue

ROOT = Path(__file__).resolve().parent.parent
CORE = Path("src/nematex/core")
SWAPPED = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.In: ast.NotIn, ast.NotIn: ast.In, ast.Is: ast.IsNot, ast.IsNot: ast.Is,
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult, ast.And: ast.Or, ast.Or: ast.And,
    ast.BitAnd: ast.BitOr, ast.BitOr: ast.BitAnd,
}  # fmt: skip
SECONDS = 240  # a mutant that never ends is noticed too


@dataclass(frozen=True)
class Mutant:
    """One change: where, and the module's text with it."""

    path: Path
    line: int
    what: str
    text: str


def _changed(node: ast.AST) -> str:
    """Change this node, if it can be; says how."""
    if isinstance(node, ast.Compare) and type(node.ops[0]) in SWAPPED:
        before = type(node.ops[0])
        node.ops[0] = SWAPPED[before]()
        return f"{before.__name__} → {SWAPPED[before].__name__}"
    if isinstance(node, ast.BinOp | ast.BoolOp) and type(node.op) in SWAPPED:
        before = type(node.op)
        node.op = SWAPPED[before]()
        return f"{before.__name__} → {SWAPPED[before].__name__}"
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
        node.op = ast.UAdd()
        node.operand = ast.Call(ast.Name("bool", ast.Load()), [node.operand], [])
        return "not x → x"
    if isinstance(node, ast.Constant) and type(node.value) in (int, float, bool):
        before_value = node.value
        node.value = not node.value if isinstance(node.value, bool) else node.value + 1
        return f"{before_value} → {node.value}"
    if isinstance(node, ast.IfExp):
        node.body, node.orelse = node.orelse, node.body
        return "a if x else b → b if x else a"
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in ("min", "max", "any", "all"):
        node.func.id = {"min": "max", "max": "min", "any": "all", "all": "any"}[node.func.id]
        return f"→ {node.func.id}"
    return ""


def mutants_of(path: Path) -> Iterator[Mutant]:
    """Every mutant of a module; decorators, annotations and defaults of classes are left as they are."""
    tree = ast.parse((ROOT / path).read_text())
    inside = [
        place for top in ast.walk(tree) if isinstance(top, ast.FunctionDef) for part in top.body for place in ast.walk(part)
    ]
    seen: set[int] = set()
    for node in inside:
        if id(node) in seen:
            continue
        seen.add(id(node))
        kept = copy.copy(node.__dict__)
        lists = {name: list(value) for name, value in kept.items() if isinstance(value, list)}
        func = getattr(node, "func", None)
        name = func.id if isinstance(func, ast.Name) else ""
        what = _changed(node)
        if what:
            yield Mutant(path, getattr(node, "lineno", 0), what, ast.unparse(ast.fix_missing_locations(tree)))
        node.__dict__.update({**kept, **lists})
        if name:
            node.func.id = name  # type: ignore[attr-defined]


def _passes(copy_of: Path, *tests: str) -> bool:
    environment = {**os.environ, "PYTHONPATH": str(copy_of / "src"), "PYTHONDONTWRITEBYTECODE": "1"}
    line = [sys.executable, "-m", "pytest", "-q", "-x", "-p", "no:cacheprovider", *tests]
    try:
        return not subprocess.run(
            line, cwd=copy_of, env=environment, capture_output=True, timeout=SECONDS, check=False
        ).returncode
    except subprocess.TimeoutExpired:
        return False


def _is_noticed(copy_of: Path, mutant: Mutant) -> bool:
    """Whether a quick test fails with it."""
    place = copy_of / mutant.path
    before = place.read_text()
    place.write_text(mutant.text)
    try:
        return not (
            _passes(copy_of, "tests/core/" + mutant.path.parts[3])
            and _passes(copy_of, "tests/core", "--ignore=tests/core/photo")
        )
    finally:
        place.write_text(before)


LEFT_OUT = shutil.ignore_patterns(".git", ".venv", ".nematex", "__pycache__", ".*_cache", ".hypothesis")


def _copies(folder: Path, number: int) -> SimpleQueue[Path]:
    found: SimpleQueue[Path] = SimpleQueue()
    for at in range(number):
        shutil.copytree(ROOT, folder / str(at), ignore=LEFT_OUT)
        found.put(folder / str(at))
    return found


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("rooms", nargs="+")
    asked.add_argument("--count", type=int, default=150)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--at-once", type=int, default=os.cpu_count() or 1)
    given = asked.parse_args()
    modules = [path.relative_to(ROOT) for room in given.rooms for path in sorted((ROOT / CORE / room).rglob("*.py"))]
    every = [mutant for path in modules for mutant in mutants_of(path)]
    chosen = random.Random(given.seed).sample(every, min(given.count, len(every)))
    with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(given.at_once) as pool:
        free = _copies(Path(folder), given.at_once)
        if not _passes(Path(folder) / "0", "tests/core"):
            print("the tests of the core fail without any change", file=sys.stderr)
            return 1

        def tried(mutant: Mutant) -> bool:
            copy_of = free.get()
            try:
                return _is_noticed(copy_of, mutant)
            finally:
                free.put(copy_of)

        noticed = 0
        for at, (mutant, dies) in enumerate(zip(chosen, pool.map(tried, chosen), strict=True), 1):
            noticed += dies
            print(
                f"{at:4} {noticed:4} noticed; {'dies' if dies else 'LIVES'}: {mutant.path}:{mutant.line}: {mutant.what}",
                flush=True,
            )
    print(f"{noticed} of {len(chosen)} noticed ({100 * noticed / max(len(chosen), 1):.0f} %), of {len(every)} there are")
    return 0


if __name__ == "__main__":
    sys.exit(main())
