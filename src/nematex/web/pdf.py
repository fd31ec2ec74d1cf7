"""HTML to PDF, with nothing fetched but our own fonts."""

from __future__ import annotations

from pathlib import Path

STATIC = Path(__file__).parent / "static"
FONTS = {f"nematex:{name}": STATIC / "vendor" / f"{name}-latin-wght-normal.woff2" for name in ("instrument-sans", "literata")}


def pdf(html: str) -> bytes:
    """A page of HTML as a PDF, true to the size its style sheet says."""
    from weasyprint import HTML  # loads Pango: only where something is printed
    from weasyprint.urls import URLFetcher, URLFetcherResponse

    class OwnFonts(URLFetcher):  # type: ignore[misc]
        """Answers for the fonts that ship, and for nothing else."""

        def fetch(self, url: str, headers: object = None) -> object:  # noqa: ARG002
            if url not in FONTS:
                raise ValueError(f"not ours: {url}")
            return URLFetcherResponse(url, FONTS[url].read_bytes(), {"Content-Type": "font/woff2"})

    made: bytes = HTML(string=html, base_url="nematex:", url_fetcher=OwnFonts()).write_pdf()
    return made
