"""Whether anything was ever put into a shop."""

from __future__ import annotations

from sqlalchemy import exists, select

from nematex.store.database import Work
from nematex.store.models import ClothRow, PatternRow
from nematex.store.settings import settings


def is_untouched(work: Work) -> bool:
    """Neither cloth nor pattern, and no name."""
    has_rows = (work.scalar(select(exists().where(row.id.is_not(None)))) for row in (ClothRow, PatternRow))
    return not any(has_rows) and "shop" not in settings(work)
