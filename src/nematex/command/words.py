"""`./nematex words`: the glossary of docs/words.md, each term as the code itself explains it."""

from __future__ import annotations

import inspect
from importlib import import_module

HEAD = """# Words

One term for one thing. This page is written by `./nematex words` from the docstrings of what each term names; where it is
wrong, mend it there.

| term | what it is | where |
|---|---|---|
"""
# Term → the object that it names.
TERMS = {
    "cloth facts": "core.cloth.facts:ClothFacts",
    "cloth": "core.cloth.estimates:Cloth",
    "cloth type": "core.cloth.lexicon:ClothType",
    "property": "core.cloth.properties:Property",
    "reading": "store.records:ReadingRecord",
    "known": "core.quantity.estimate:Known",
    "estimate": "core.quantity.estimate:Estimate",
    "figure": "core.quantity.scan:Figure",
    "quantity": "core.quantity.kinds:Quantity",
    "pattern": "core.pattern.facts:Pattern",
    "requirement": "core.pattern.facts:Requirement",
    "option": "core.pattern.facts:Option",
    "wish": "core.pattern.facts:Wish",
    "making": "core.pattern.construction:Making",
    "detail": "core.tables:Detail",
    "role of a detail": "core.tables:Role",
    "phrase": "core.pattern.envelope.grammar:Phrase",
    "clause": "core.pattern.envelope.clause:Clause",
    "interpretation of an envelope": "core.pattern.envelope.interpretation:Interpretation",
    "demand": "core.judging.demand:Demand",
    "window": "core.judging.verdict:Window",
    "origin": "core.judging.verdict:Origin",
    "verdict": "core.judging.verdict:Verdict",
    "rule": "core.judging.checks.finding:Rule",
    "finding": "core.judging.checks.finding:Finding",
    "comparison": "core.judging.checks.finding:Comparison",
    "check answer": "core.judging.judge:CheckAnswer",
    "moment": "core.judging.saying.moment:Moment",
    "saying": "core.sayings:Saying",
    "pairing": "core.judging.pairing:Pairing",
    "matrix": "core.judging.matrix:Matrix",
    "override": "store.records:Override",
    "rules": "core.rules:Rules",
    "tables": "core.tables:Tables",
    "shelf": "usecases.held.shelf:Shelf",
    "drawer": "usecases.held.drawer:Drawer",
    "state": "usecases.held.state:State",
    "shop": "usecases.held.shop:Shop",
    "memory": "usecases.held.memory:Memory",
    "bench": "usecases.cloth.bench.measures:Measure",
    "benchmark": "command.benchmark.run:run_benchmark",
    "pick": "store.records:Pick",
    "programme": "store.records:Programme",
    "format": "usecases.files.formats:Format",
}


def words() -> str:
    """The page."""
    rows = []
    for term, place in sorted(TERMS.items()):
        module, _, name = place.partition(":")
        said = inspect.getdoc(getattr(import_module(f"nematex.{module}"), name)) or ""
        first = " ".join(said.split("\n\n")[0].split()).replace("|", "/")
        rows.append(f"| {term} | {first} | `{module.replace('.', '/')}.py` |")
    return HEAD + "\n".join(rows) + "\n"
