"""The tables of a file of charts that is being taken in."""

from __future__ import annotations

from datetime import date, datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from widehem.store.base import Base, now


class Intake(Base):
    """A file of charts that is being taken in: staged in small steps, then moved among the rest all at once. job: who asked
    for it;
    kept_at: when it was moved."""

    __tablename__ = "intake"
    id: Mapped[int] = mapped_column(primary_key=True)
    job: Mapped[str] = mapped_column(String(40), unique=True)
    production_id: Mapped[int] = mapped_column(ForeignKey("production.id", ondelete="CASCADE"), index=True)
    begun_at: Mapped[datetime] = mapped_column(default=now)
    kept_at: Mapped[datetime | None]
    new_wearers: Mapped[int] = mapped_column(default=0)
    readings: Mapped[int] = mapped_column(default=0)


class IntakeWearer(Base):
    """A wearer of a file. wearer_id: who it is here; none yet for a new one."""

    __tablename__ = "intake_wearer"
    id: Mapped[int] = mapped_column(primary_key=True)
    intake_id: Mapped[int] = mapped_column(ForeignKey("intake.id", ondelete="CASCADE"), index=True)
    wearer_id: Mapped[int | None]
    name: Mapped[str] = mapped_column(String(120))
    role: Mapped[str] = mapped_column(String(120), default="")
    figure: Mapped[str] = mapped_column(String(40), default="curved")


class IntakeChart(Base):
    """A chart of a file. chart_id: the chart it goes on; none yet for a new one."""

    __tablename__ = "intake_chart"
    id: Mapped[int] = mapped_column(primary_key=True)
    intake_id: Mapped[int] = mapped_column(ForeignKey("intake.id", ondelete="CASCADE"), index=True)
    intake_wearer_id: Mapped[int] = mapped_column(ForeignKey("intake_wearer.id", ondelete="CASCADE"), index=True)
    chart_id: Mapped[int | None]
    taken_on: Mapped[date]
    foundation: Mapped[str] = mapped_column(String(200), default="")
    shoes: Mapped[str] = mapped_column(String(200), default="")
    measured_by: Mapped[str] = mapped_column(String(120), default="")
    note: Mapped[str] = mapped_column(String(600), default="")


class IntakeReading(Base):
    """A reading of a file, as it will stand on the chart."""

    __tablename__ = "intake_reading"
    id: Mapped[int] = mapped_column(primary_key=True)
    intake_chart_id: Mapped[int] = mapped_column(ForeignKey("intake_chart.id", ondelete="CASCADE"), index=True)
    measure: Mapped[str] = mapped_column(String(40))
    turn: Mapped[int] = mapped_column(default=1)
    ticks: Mapped[int | None]
    typed: Mapped[str] = mapped_column(String(60), default="")
    unit: Mapped[str] = mapped_column(String(2), default="cm")
    side: Mapped[str] = mapped_column(String(5), default="")
    carried_on: Mapped[date | None]
    hour: Mapped[str] = mapped_column(String(5), default="", server_default="")
