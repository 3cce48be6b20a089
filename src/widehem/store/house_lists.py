"""Lists of measures of the workroom's own."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.store.models import HouseList


def house_lists(session: Session) -> list[HouseList]:
    """Every list of the workroom, by name."""
    return list(session.scalars(select(HouseList).order_by(HouseList.name)))
