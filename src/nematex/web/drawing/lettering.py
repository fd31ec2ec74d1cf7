"""How wide a text is in the fonts that ship, so that a caption in a picture is broken where it has to be."""

from __future__ import annotations

from functools import cache

from fontTools.ttLib import TTFont

from nematex.web.pdf import FONTS

TEXT, NAME = "instrument-sans", "literata"


@cache
def _advances(font: str) -> tuple[dict[int, float], float]:
    """Letter → its advance as a share of the size, and that of a letter that the font has not."""
    with TTFont(FONTS[f"nematex:{font}"]) as face:
        unit, metrics = face["head"].unitsPerEm, face["hmtx"]
        found = {code: metrics[glyph][0] / unit for code, glyph in face.getBestCmap().items()}
    return found, found.get(ord("m"), 0.8)


def width_of(text: str, size: float, font: str = TEXT) -> float:
    """The width of a line, in the unit of the size."""
    advances, other = _advances(font)
    return size * sum(advances.get(ord(letter), other) for letter in text)


def broken(text: str, size: float, width: float, lines: int, font: str = TEXT) -> list[str]:
    """The text in at most so many lines of this width; what does not fit ends with '…'."""
    found, line = [], ""
    words = text.split()
    while words:
        longer = f"{line} {words[0]}".strip()
        if width_of(longer, size, font) <= width or not line:
            line = longer
            words.pop(0)
        else:
            found.append(line)
            line = ""
        if len(found) == lines:
            break
    if line and len(found) < lines:
        found.append(line)
    if words or any(width_of(each, size, font) > width for each in found):
        found = [_cut(each, size, width, font, last=bool(words) and each is found[-1]) for each in found]
    return found


def _cut(line: str, size: float, width: float, font: str, last: bool) -> str:
    if width_of(line, size, font) <= width and not last:
        return line
    while line and width_of(line + "…", size, font) > width:
        line = line[:-1]
    return line.rstrip(" ,·") + "…"
