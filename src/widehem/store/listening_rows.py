"""The tables of a digital tape: the chart that listens, and what it heard."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from widehem.store.base import Base, now

if TYPE_CHECKING:
    from widehem.store.models import ChartRow


class Listening(Base):
    """A chart that listens to a digital tape. at, side, turn: the field the next reading fills; at '' when the list is full.

    held: the reading that came last is doubtful; the next one is its second reading until the maker goes on. owner: mark of the
    browser session that began it.
    """

    __tablename__ = "listening"
    id: Mapped[int] = mapped_column(primary_key=True)
    chart_id: Mapped[int] = mapped_column(ForeignKey("chart.id", ondelete="CASCADE"), unique=True)
    pair: Mapped[str] = mapped_column(String(8), unique=True)
    codes: Mapped[list[str]]
    twice: Mapped[bool] = mapped_column(default=False)
    at: Mapped[str] = mapped_column(String(40))
    turn: Mapped[int] = mapped_column(default=1)
    held: Mapped[bool] = mapped_column(default=False)
    owner: Mapped[str] = mapped_column(String(16), default="")
    begun_at: Mapped[datetime] = mapped_column(default=now)
    chart: Mapped[ChartRow] = relationship()
    heard: Mapped[list[Heard]] = relationship(cascade="all, delete-orphan", passive_deletes=True, order_by="Heard.id")


class Heard(Base):
    """One message of a tape and the answer it got, so that a repeated one is answered the same and nothing is kept twice."""

    __tablename__ = "heard"
    id: Mapped[int] = mapped_column(primary_key=True)
    listening_id: Mapped[int] = mapped_column(ForeignKey("listening.id", ondelete="CASCADE"), index=True)
    device: Mapped[str] = mapped_column(String(40))
    number: Mapped[int]
    said: Mapped[str] = mapped_column(String(60))
    measure: Mapped[str] = mapped_column(String(40), default="")
    turn: Mapped[int] = mapped_column(default=1)
    stood: Mapped[int | None]
    undone_at: Mapped[datetime | None]
    answer: Mapped[dict[str, Any]]
    created_at: Mapped[datetime] = mapped_column(default=now)

    @property
    def undone(self) -> bool:
        return self.undone_at is not None
