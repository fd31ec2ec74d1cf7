"""What nobody should type, and some will: numbers too large, texts too long, odd signs."""

from __future__ import annotations

from random import Random

# fmt: off
NUMBERS = (
    "0", "-1", "-0", "1e309", "-1e400", "nan", "inf", "²", "½", "1/0", "5/0m", "0x10", "1_000", "٣", "9" * 400,
    "9" * 5000, "1." + "3" * 900,
    "1e-400", "2147483648", "9223372036854775808", "+5", "1,2,3", "12 to 3", "--5",
)
TEXTS = (
    "", " ", "\x0b", "\x00", "\x1b[31m", "\ud800", "\u202e", "\ufeff", "🧵" * 400, "é" * 301, "ﬃ" * 90, "a" * 81,
    "a" * 121, "a" * 301, "a" * 601,
    "b" * 2001, "c" * 70000, "(" * 20000, "[" * 6000, "{{7*7}}", "<script>alert(1)</script>", "';--", "%00",
    "../../etc", "=1+1", "@x",
    "\r\nSet-Cookie: a=b", "a;b;c;d;e", "| | | |", "; ; ;", "[curve]", "not suitable for", "\t", "\u2028",
    "no heavier than", "null", "None",
    "{\"a\": 1}", "[1", "#a4452a", "on", "//evil.example", "/\\evil.example",
)
# fmt: on
SIGNS = 60  # of a text of signs at random


def odd_text(random: Random) -> str:
    """One odd value: a number, a text, signs at random, or two of them together."""
    chosen = random.random()
    if chosen < 0.35:
        return random.choice(NUMBERS)
    if chosen < 0.8:
        return random.choice(TEXTS)
    if chosen < 0.9:
        return "".join(chr(random.randrange(1, random.choice((256, 0x3000)))) for _ in range(random.randrange(1, SIGNS)))
    unit = random.choice(("m", "cm", "in", "gsm", "oz", "%", "£", "per m", "yd"))
    return f"{random.choice(NUMBERS)[:500]} {unit} {random.choice(TEXTS)[:500]}"


def damaged(text: str, random: Random) -> str:
    """A text with a piece doubled, cut, or replaced by something odd."""
    if not text:
        return odd_text(random)
    start = random.randrange(len(text))
    end = min(len(text), start + random.randrange(1, 12))
    return random.choice((text[:start] + text[end:], text[:end] * 2, text[:start] + odd_text(random)[:200] + text[end:]))
