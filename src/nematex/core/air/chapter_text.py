"""Chapters as services of films read them: lines of times and titles, and WebVTT.

W3C, WebVTT: The Web Video Text Tracks Format: chapters are cues, each named by one line of text.
"""

from __future__ import annotations

from collections.abc import Sequence

Mark = tuple[float, str]  # where a chapter begins, in s, and its title


def chapter_lines(marks: Sequence[Mark]) -> list[str]:
    """'0:00 Opening'; hours in all of them where the film has one."""
    long = bool(marks) and marks[-1][0] >= 3600
    return [f"{_clock(start, long)} {title}" for start, title in marks]


def _clock(seconds: float, with_hours: bool) -> str:
    """Down to the whole second: a chapter must not begin after what it shows."""
    whole = int(seconds)
    minutes, rest = divmod(whole, 60)
    if not with_hours:
        return f"{minutes}:{rest:02}"
    return f"{minutes // 60}:{minutes % 60:02}:{rest:02}"


def webvtt(marks: Sequence[Mark], length_s: float) -> str:
    """Chapters as WebVTT; the last one ends with the film."""
    ends = [start for start, _ in marks[1:]] + [max(length_s, start + 1.0) for start, _ in marks[-1:]]
    cues = [
        f"{number}\n{_stamp(start)} --> {_stamp(end)}\n{_cue(title)}\n"
        for number, ((start, title), end) in enumerate(zip(marks, ends, strict=True), 1)
    ]
    return "WEBVTT\n\n" + "\n".join(cues)


def _stamp(seconds: float) -> str:
    ms = round(seconds * 1000)
    return f"{ms // 3_600_000:02}:{ms // 60_000 % 60:02}:{ms // 1000 % 60:02}.{ms % 1000:03}"


def _cue(title: str) -> str:
    """One line of cue text: what WebVTT reads as a sign is written out."""
    plain = " ".join(title.split()) or "…"
    return plain.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
