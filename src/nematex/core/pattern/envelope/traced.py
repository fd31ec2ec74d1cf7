"""A text that is written anew step by step, each letter knowing where it stood in the text as it was pasted."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass

from nematex.core.cloth.lexicon import plain


@dataclass(frozen=True, slots=True)
class Traced:
    """`text` with, for each of its letters, where what it came from begins and ends in the original text."""

    text: str
    starts: list[int]
    ends: list[int]

    @classmethod
    def of(cls, text: str) -> Traced:
        return cls(text, list(range(len(text))), list(range(1, len(text) + 1)))

    def sub(self, pattern: re.Pattern[str], written: str | Callable[[re.Match[str]], str]) -> Traced:
        """As re.sub; what is written anew stands for all that it replaces. A replacement that is the same changes nothing."""
        text: list[str] = []
        starts: list[int] = []
        ends: list[int] = []
        done = 0
        for match in pattern.finditer(self.text):
            new = match.expand(written) if isinstance(written, str) else written(match)
            if new == match.group():
                continue
            at, to = match.span()
            text += (self.text[done:at], new)
            starts += self.starts[done:at] + [self._begin(at, to)] * len(new)
            ends += self.ends[done:at] + [self._end(at, to)] * len(new)
            done = to
        text.append(self.text[done:])
        return Traced("".join(text), starts + self.starts[done:], ends + self.ends[done:])

    def folded(self) -> Traced:
        """In small letters without accents; one that becomes two ('ß' → 'ss') stands where it stood."""
        text = list(self.text.lower()) if self.text.isascii() else [plain(each) for each in self.text]
        starts = [start for new, start in zip(text, self.starts, strict=True) for _ in new]
        ends = [end for new, end in zip(text, self.ends, strict=True) for _ in new]
        return Traced("".join(text), starts, ends)

    def span(self, start: int, end: int) -> tuple[int, int]:
        """Where letters start to end (at least one) stood."""
        return self.starts[start], self.ends[end - 1]

    def _begin(self, at: int, to: int) -> int:
        return self.starts[at] if to > at else (self.ends[at - 1] if at else 0)

    def _end(self, at: int, to: int) -> int:
        return self.ends[to - 1] if to > at else (self.ends[at - 1] if at else 0)
