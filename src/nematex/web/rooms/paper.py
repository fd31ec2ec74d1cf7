"""What is printed: the paper asked for, and the reply that a browser opens as a PDF."""

from __future__ import annotations

from dataclasses import dataclass

from flask import Response, request

from nematex.core.errors import UnknownChoice
from nematex.web.pdf import pdf


@dataclass(frozen=True)
class Paper:
    """A sheet in mm."""

    name: str
    width: float
    height: float


PAPERS = {"A4": Paper("A4", 210.0, 297.0), "Letter": Paper("Letter", 215.9, 279.4)}


def paper_asked() -> Paper:
    asked = request.args.get("paper", "A4")
    if asked not in PAPERS:
        raise UnknownChoice("paper", asked, PAPERS, "paper")
    return PAPERS[asked]


def as_pdf(html: str, name: str) -> Response:
    disposition = f'inline; filename="{name}.pdf"'
    return Response(pdf(html), content_type="application/pdf", headers={"Content-Disposition": disposition})
