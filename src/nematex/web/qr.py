"""An address as a picture that a phone reads."""

from __future__ import annotations

import io

import segno


def qr_svg(address: str) -> str:
    """The code as SVG without a size of its own, dark on light."""
    out = io.BytesIO()
    segno.make(address, error="m").save(out, kind="svg", xmldecl=False, svgns=True, omitsize=True, border=3, light="#fff")
    return out.getvalue().decode()
