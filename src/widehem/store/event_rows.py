"""The table of what was done and can be taken back."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import Index, String
from sqlalchemy.orm import Mapped, mapped_column

from widehem.store.base import Base, now


class Event(Base):
    """Something that was done and can be taken back. words: a sentence; changes: of each row what stood before and after, by
    column;
    of what: the production, wearer and docket it is told with, which may be gone; undoes: the event it takes back, undone_by:
    the one
    that took it back. by: the mark of the browser."""

    __tablename__ = "event"
    __table_args__ = (Index("ix_event_docket_id_id", "docket_id", "id"), Index("ix_event_wearer_id_id", "wearer_id", "id"))
    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(default=now)
    by: Mapped[str] = mapped_column(String(16), default="")
    words: Mapped[str] = mapped_column(String(300))
    production_id: Mapped[int | None]
    wearer_id: Mapped[int | None]
    docket_id: Mapped[int | None]
    changes: Mapped[list[Any]] = mapped_column(default=list)
    undoes: Mapped[int | None]
    undone_by: Mapped[int | None]
