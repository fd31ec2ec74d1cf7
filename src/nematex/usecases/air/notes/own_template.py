"""A shop's own template: Jinja without anything that could run long, grow without end, or reach beyond what it is given.

Names, conditions, loops over what is told, and a few filters. All loops together take 5,000 turns, and what comes of it has at
most 300,000 letters.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from typing import Any

from jinja2 import StrictUndefined, TemplateError, TemplateSyntaxError, UndefinedError, nodes
from jinja2.sandbox import ImmutableSandboxedEnvironment

from nematex.core.air.notes.markup import escape_markdown
from nematex.core.errors import FieldFault

MOST_LETTERS, MOST_LOOPS, MOST_PIECES, DEEPEST = 20_000, 3, 1200, 40
MOST_TURNS, MOST_WRITTEN = 5000, 300_000
FILTERS = ("upper", "lower", "title", "capitalize", "trim", "join", "first", "last", "length")
ALLOWED = (
    nodes.Template, nodes.Output, nodes.TemplateData, nodes.Name, nodes.Getattr, nodes.Getitem, nodes.Const, nodes.If,
    nodes.For, nodes.CondExpr, nodes.Filter, nodes.Test, nodes.Compare, nodes.Operand, nodes.And, nodes.Or, nodes.Not,
    nodes.Concat,
)  # fmt: skip


class TooLong(TemplateError):
    """A template that does not come to its end."""


class Words(str):
    """A text that is told; it is written, never looped over."""

    __slots__ = ()

    def __iter__(self) -> Iterator[str]:
        raise TooLong("a text cannot be looped over")


class Address(Words):
    """An address or a time: it stands as it is, in Markdown too."""

    __slots__ = ()


class Turns:
    """How many turns its loops may still take."""

    def __init__(self) -> None:
        self.left = MOST_TURNS

    def take(self, count: int) -> None:
        self.left -= count
        if self.left < 0:
            raise TooLong(f"its loops take more than {MOST_TURNS} turns")


class Listed(list[Any]):
    """A list that is told; each loop over it takes from the turns."""

    def __init__(self, values: list[Any], turns: Turns) -> None:
        super().__init__(values)
        self.turns = turns

    def __iter__(self) -> Iterator[Any]:
        self.turns.take(len(self))
        return super().__iter__()


def _plain(value: object) -> str:
    return "" if value is None else f"{value!s}"


def _escaped(value: object) -> str:
    return f"{value!s}" if isinstance(value, Address) else escape_markdown(_plain(value))


def _environment(markdown: bool) -> ImmutableSandboxedEnvironment:
    made = ImmutableSandboxedEnvironment(
        trim_blocks=True, lstrip_blocks=True, undefined=StrictUndefined, autoescape=False,
        finalize=_escaped if markdown else _plain, cache_size=0,
    )  # fmt: skip
    made.filters = {name: made.filters[name] for name in FILTERS}
    made.globals.clear()
    return made


def check_template(text: str, field: str = "template") -> None:
    """Whether a template keeps to what is allowed; raises FieldFault."""
    if len(text) > MOST_LETTERS:
        raise FieldFault(field, f"{text[:40]}…", f"is {len(text)} letters long; at most {MOST_LETTERS} are kept")
    try:
        found = _environment(False).parse(text)
    except TemplateSyntaxError as fault:
        raise FieldFault(field, f"line {fault.lineno}", f"cannot be read: {fault.message}"[:300]) from None
    except Exception:  # whatever the library makes of a stranger's text
        raise FieldFault(field, f"{text[:40]}…", "is nested too deep, or holds a number that is too long") from None
    pieces = _walk(found, field, 0, 0)
    if pieces > MOST_PIECES:
        raise FieldFault(field, f"{pieces} pieces", f"says too much: at most {MOST_PIECES} pieces")


def _walk(node: nodes.Node, field: str, loops: int, deep: int) -> int:
    """How many pieces stand below a node, all of them allowed; raises FieldFault."""
    line = f"line {node.lineno}"
    if deep > DEEPEST:
        raise FieldFault(field, line, f"is nested too deep: at most {DEEPEST} things within one another")
    if not isinstance(node, ALLOWED):
        raise FieldFault(field, line, f"uses “{type(node).__name__.lower()}”; names, if, for and filters are allowed")
    if isinstance(node, nodes.For):
        loops += 1
        if loops > MOST_LOOPS or node.recursive:
            raise FieldFault(field, line, f"loops more than {MOST_LOOPS} deep")
        if not isinstance(node.iter, nodes.Name | nodes.Getattr):
            raise FieldFault(field, line, "loops over something other than what is told")
    if isinstance(node, nodes.Filter):
        if node.name not in FILTERS:
            raise FieldFault(field, node.name[:40], f"is no filter here; there are: {', '.join(FILTERS)}")
        if isinstance(node.node, nodes.Filter) and node.name == "join":
            raise FieldFault(field, line, "joins what another filter gives")
    return 1 + sum(_walk(child, field, loops, deep + 1) for child in node.iter_child_nodes())


class OwnTemplate:
    """A template that was read and checked once; raises FieldFault."""

    def __init__(self, text: str, markdown: bool, field: str = "template") -> None:
        check_template(text, field)
        self.field = field
        try:
            self.template = _environment(markdown).from_string(text)
        except Exception as fault:  # whatever the library makes of a stranger's text
            raise FieldFault(field, type(fault).__name__.lower(), f"cannot be used: {fault}"[:300]) from None

    def render(self, told: Mapping[str, Any]) -> str:
        """The text about what is told; raises FieldFault."""
        written: list[str] = []
        letters = 0
        try:
            for piece in self.template.generate(_marked(told, Turns())):
                written.append(piece)
                letters += len(piece)
                if letters > MOST_WRITTEN:
                    raise TooLong(f"writes more than {MOST_WRITTEN} letters")
        except UndefinedError as fault:
            rule = f"is not told here; there are: {', '.join(sorted(told))}"
            raise FieldFault(self.field, str(fault.message)[:80], rule) from None
        except Exception as fault:  # a division by nothing, a name that is no number: whatever it was asked to do
            raise FieldFault(self.field, type(fault).__name__.lower(), f"cannot be used: {fault}"[:300]) from None
        return _tidy("".join(written))


def _marked(value: Any, turns: Turns, name: str = "") -> Any:
    """What is told, its texts, addresses and lists marked as such."""
    if isinstance(value, Mapping):
        return {key: _marked(each, turns, str(key)) for key, each in value.items()}
    if isinstance(value, list | tuple):
        return Listed([_marked(each, turns, name) for each in value], turns)
    if isinstance(value, str):
        return Address(value) if name in ("link", "time") else Words(value)
    return value


_NUMBER = re.compile(r"(?<=[\w:;,] )(\d{1,9})\\([.)])")


def _tidy(text: str) -> str:
    """Without blanks at line ends, more than one empty line, or a number escaped where it begins no line."""
    lines: list[str] = []
    for line in (each.rstrip() for each in text.strip().splitlines()):
        if line or (lines and lines[-1]):
            lines.append(line)
    return _NUMBER.sub(r"\1\2", "\n".join(lines)) + "\n"
