"""The tables of fittings: rounds, and what was noted in them, which is only ever added to."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from sqlalchemy import ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column, relationship

from widehem.store.base import Base, now


class FittingRound(Base):
    """One fitting of a garment: the first, the second. kind: of the toile or of the cloth; people: who was there; foundation, shoes: what
    was worn."""

    __tablename__ = "fitting_round"
    id: Mapped[int] = mapped_column(primary_key=True)
    docket_id: Mapped[int] = mapped_column(ForeignKey("docket.id", ondelete="CASCADE"), index=True)
    number: Mapped[int]
    taken_on: Mapped[date]
    kind: Mapped[str] = mapped_column(String(10), default="toile")
    people: Mapped[str] = mapped_column(String(200), default="")
    foundation: Mapped[str] = mapped_column(String(200), default="")
    shoes: Mapped[str] = mapped_column(String(200), default="")
    created_at: Mapped[datetime] = mapped_column(default=now)
    noted: Mapped[list[FittingEvent]] = relationship(
        back_populates="round", cascade="all, delete-orphan", passive_deletes=True, order_by="FittingEvent.id"
    )


class FittingEvent(Base):
    """Something noted at a fitting. client: the number the phone gave it, so that what is sent twice is kept once; what, data: as
    core.fitting.record checks them; unit: in which a pin was read."""

    __tablename__ = "fitting_event"
    __table_args__ = (UniqueConstraint("round_id", "client"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    round_id: Mapped[int] = mapped_column(ForeignKey("fitting_round.id", ondelete="CASCADE"))
    client: Mapped[str] = mapped_column(String(40))
    what: Mapped[str] = mapped_column(String(10))
    data: Mapped[dict[str, Any]]
    created_at: Mapped[datetime] = mapped_column(default=now)
    round: Mapped[FittingRound] = relationship(back_populates="noted")
