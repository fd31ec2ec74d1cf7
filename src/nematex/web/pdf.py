"""HTML to PDF, with nothing fetched but our own fonts."""

from __future__ import annotations

from pathlib import Path
from typing import Any

STATIC = Path(__file__).parent / "static"
FONTS = ("vendor/instrument-sans-latin-wght-normal.woff2", "vendor/literata-latin-wght-normal.woff2")


def _own_files(url: str, *_: Any, **__: Any) -> dict[str, Any]:
    """Only the fonts that ship."""
    name = url.removeprefix("nematex:")
    if name not in FONTS:
        raise ValueError(f"not ours: {url}")
    return {"string": (STATIC / name).read_bytes(), "mime_type": "font/woff2"}


def pdf(html: str) -> bytes:
    """A page of HTML as a PDF, true to the size its style sheet says."""
    from weasyprint import HTML  # loads Pango: only where something is printed

    made: bytes = HTML(string=html, base_url="nematex:", url_fetcher=_own_files).write_pdf()
    return made
