"""Rows of amounts that name no view: the garment's own are of its only view, what goes with it goes with every view.

Invariant: every row has a view; a lining, an interfacing or a contrast that names none is there for each view of the garment.
"""

from __future__ import annotations

from nematex.core.pattern.paste.draft import Draft
from nematex.core.pattern.paste.open_state import UNSAID

ONLY = "A"


def name_views(draft: Draft) -> None:
    """Give each row its view; changes the draft."""
    views = list(dict.fromkeys(row["view"] for row in draft.requirements if row["use"] == "main" and row["view"] != UNSAID))
    rows = []
    for row in draft.requirements:
        of_views = [row["view"]] if row["view"] != UNSAID else views if views and row["use"] != "main" else [ONLY]
        rows += [{**row, "view": view} for view in of_views]
    draft.requirements[:] = rows
