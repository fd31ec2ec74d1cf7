"""HTML to PDF and to pixels, with nothing fetched but our own fonts and what the page carries itself."""

from __future__ import annotations

import base64
import io
from pathlib import Path

import pypdfium2

STATIC = Path(__file__).parent / "static"
FAMILIES = {"literata": "Literata", "instrument-sans": "Instrument Sans"}
FONTS = {f"nematex:{name}": STATIC / "vendor" / f"{name}-latin-wght-normal.woff2" for name in FAMILIES}
PHOTO = "data:image/jpeg;base64,"
PX_PER_POINT = 96 / 72


def fonts_by_name() -> str:
    """The style that names the fonts for `pdf` and `png`."""
    return "".join(f'@font-face{{font-family:"{family}";src:url(nematex:{name})}}' for name, family in FAMILIES.items())


def fonts_inside() -> str:
    """The style that carries the fonts in itself, for a picture that is opened anywhere."""
    faces = []
    for name, family in FAMILIES.items():
        data = base64.b64encode(FONTS[f"nematex:{name}"].read_bytes()).decode()
        faces.append(f'@font-face{{font-family:"{family}";src:url(data:font/woff2;base64,{data}) format("woff2")}}')
    return "".join(faces)


def pdf(html: str) -> bytes:
    """A page of HTML as a PDF, true to the size its style sheet says."""
    from weasyprint import HTML  # loads Pango: only where something is printed
    from weasyprint.urls import URLFetcher, URLFetcherResponse

    class OnlyOurs(URLFetcher):  # type: ignore[misc]
        """Answers for the fonts that ship and for photos that the page carries, and for nothing else."""

        def fetch(self, url: str, headers: object = None) -> object:  # noqa: ARG002
            if url.startswith(PHOTO):
                return URLFetcherResponse(url, base64.b64decode(url[len(PHOTO) :]), {"Content-Type": "image/jpeg"})
            if url not in FONTS:
                raise ValueError(f"not ours: {url[:60]}")
            return URLFetcherResponse(url, FONTS[url].read_bytes(), {"Content-Type": "font/woff2"})

    made: bytes = HTML(string=html, base_url="nematex:", url_fetcher=OnlyOurs()).write_pdf()
    return made


def png(svg: str, width: float, height: float) -> bytes:
    """A drawing of width × height px as a PNG; its fonts are those that ship."""
    style = f"{fonts_by_name()}@page{{size:{width}px {height}px;margin:0}}body{{margin:0}}svg{{display:block}}"
    with pypdfium2.PdfDocument(pdf(f"<style>{style}</style>{svg}")) as made:
        picture = made[0].render(scale=PX_PER_POINT).to_pil()
    found = io.BytesIO()
    picture.save(found, "PNG", optimize=True)
    return found.getvalue()
