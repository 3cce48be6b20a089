"""The tables. Readings are only ever added; everything drawn is computed again from them."""

from __future__ import annotations

from datetime import date, datetime
from typing import TYPE_CHECKING, Any

from sqlalchemy import JSON, ForeignKey, Index, LargeBinary, String, func, select
from sqlalchemy.orm import Mapped, column_property, mapped_column, relationship

from widehem.core.drafting.ease_plans import over_layers
from widehem.core.drafting.method import METHODS
from widehem.core.pattern.wear import Wear
from widehem.store.base import Base, now
from widehem.store.design_rows import DesignRow, DesignVersion, Traced
from widehem.store.event_rows import Event
from widehem.store.fitting_rows import FittingEvent, FittingRound
from widehem.store.house_rows import (
    HouseEase,
    HouseList,
    HouseRow,
    HouseRules,
    HouseSizes,
    HouseTable,
    OnRail,
    Printer,
    RailPhoto,
)
from widehem.store.intake_rows import Intake, IntakeChart, IntakeReading, IntakeWearer
from widehem.store.listening_rows import Heard, Listening
from widehem.store.making_rows import Book, HouseCloth, LayRow, Practice, Stock, StockPhoto

__all__ = [
    "NEVER_CHANGED",
    "AcceptedDoubt",
    "Base",
    "Book",
    "ChartRow",
    "DesignRow",
    "DesignVersion",
    "Docket",
    "Event",
    "FittingEvent",
    "FittingRound",
    "Heard",
    "HouseCloth",
    "HouseEase",
    "HouseList",
    "HouseRow",
    "HouseRules",
    "HouseSizes",
    "HouseTable",
    "Intake",
    "IntakeChart",
    "IntakeReading",
    "IntakeWearer",
    "LayRow",
    "Listening",
    "Note",
    "OnRail",
    "Photo",
    "Picture",
    "Practice",
    "Printer",
    "Production",
    "RailPhoto",
    "ReadingRow",
    "Stock",
    "StockPhoto",
    "Traced",
    "Wearer",
    "now",
]  # fmt: skip


class Production(Base):
    """A production and the company that makes it. cast: how its cast is planned: against which sizes, how far is altered. plan: its days,
    and what is bought, as core.making.calendar reads it."""

    __tablename__ = "production"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    company: Mapped[str] = mapped_column(String(120), default="")
    cast: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    plan: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    created_at: Mapped[datetime] = mapped_column(default=now)
    binned_at: Mapped[datetime | None]
    wearers: Mapped[list[Wearer]] = relationship(
        back_populates="production", cascade="all, delete-orphan", order_by="Wearer.name"
    )
    dockets: Mapped[list[Docket]] = relationship(
        back_populates="production", cascade="all, delete-orphan", order_by="Docket.id"
    )


class Wearer(Base):
    """Somebody who is measured."""

    __tablename__ = "wearer"
    id: Mapped[int] = mapped_column(primary_key=True)
    production_id: Mapped[int] = mapped_column(ForeignKey("production.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    role: Mapped[str] = mapped_column(String(120), default="")
    figure: Mapped[str] = mapped_column(String(40), default="curved")
    allergies: Mapped[str] = mapped_column(String(400), default="")
    movement: Mapped[str] = mapped_column(String(400), default="")
    created_at: Mapped[datetime] = mapped_column(default=now)
    binned_at: Mapped[datetime | None]
    production: Mapped[Production] = relationship(back_populates="wearers")
    charts: Mapped[list[ChartRow]] = relationship(back_populates="wearer", cascade="all, delete-orphan", order_by="ChartRow.id")
    dockets: Mapped[list[Docket]] = relationship(back_populates="wearer", cascade="all, delete-orphan")
    photo: Mapped[Photo | None] = relationship(cascade="all, delete-orphan", passive_deletes=True)


class Photo(Base):
    """A small picture of a wearer, drawn anew from what was sent: nothing of the file it came in is kept."""

    __tablename__ = "photo"
    wearer_id: Mapped[int] = mapped_column(ForeignKey("wearer.id", ondelete="CASCADE"), primary_key=True)
    data: Mapped[bytes] = mapped_column(LargeBinary)
    created_at: Mapped[datetime] = mapped_column(default=now)


class Picture(Base):
    """A picture of a note, drawn anew from what was sent, and small beside it. It never changes; a note names those it shows."""

    __tablename__ = "picture"
    id: Mapped[int] = mapped_column(primary_key=True)
    production_id: Mapped[int] = mapped_column(ForeignKey("production.id", ondelete="CASCADE"), index=True)
    data: Mapped[bytes] = mapped_column(LargeBinary)
    small: Mapped[bytes] = mapped_column(LargeBinary)
    created_at: Mapped[datetime] = mapped_column(default=now)


class Note(Base):
    """What somebody noted on a production, a wearer or a garment. wearer_id, docket_id: of a wearer's note the first, of a
    garment's both. round_id: the fitting it was made at. pictures: the numbers of those it shows, in their order."""

    __tablename__ = "note"
    __table_args__ = (Index("ix_note_production_id", "production_id", "wearer_id", "docket_id"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    production_id: Mapped[int] = mapped_column(ForeignKey("production.id", ondelete="CASCADE"))
    wearer_id: Mapped[int | None] = mapped_column(ForeignKey("wearer.id", ondelete="CASCADE"))
    docket_id: Mapped[int | None] = mapped_column(ForeignKey("docket.id", ondelete="CASCADE"))
    round_id: Mapped[int | None] = mapped_column(ForeignKey("fitting_round.id", ondelete="SET NULL"), index=True)
    words: Mapped[str] = mapped_column(String(2000), default="")
    pictures: Mapped[list[Any]] = mapped_column(default=list)
    created_at: Mapped[datetime] = mapped_column(default=now)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}


class ChartRow(Base):
    """One occasion of measuring: over what, in which shoes, by whom, when."""

    __tablename__ = "chart"
    id: Mapped[int] = mapped_column(primary_key=True)
    wearer_id: Mapped[int] = mapped_column(ForeignKey("wearer.id", ondelete="CASCADE"), index=True)
    taken_on: Mapped[date]
    foundation: Mapped[str] = mapped_column(String(200), default="")
    shoes: Mapped[str] = mapped_column(String(200), default="")
    measured_by: Mapped[str] = mapped_column(String(120), default="")
    note: Mapped[str] = mapped_column(String(600), default="")
    created_at: Mapped[datetime] = mapped_column(default=now)
    wearer: Mapped[Wearer] = relationship(back_populates="charts")
    readings: Mapped[list[ReadingRow]] = relationship(
        back_populates="chart", cascade="all, delete-orphan", order_by="ReadingRow.id"
    )
    accepted: Mapped[list[AcceptedDoubt]] = relationship(back_populates="chart", cascade="all, delete-orphan")


class ReadingRow(Base):
    """One reading, never changed: a later row for the same measure, side and turn replaces it. ticks None: struck out.

    side: '' for both alike, left or right. carried_on: the day it was read, when it came over from an older chart. hour: the
    time of day it was read at, '16:30', where that was noted.
    """

    __tablename__ = "reading"
    __table_args__ = (Index("ix_reading_chart_measure", "chart_id", "measure"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    chart_id: Mapped[int] = mapped_column(ForeignKey("chart.id", ondelete="CASCADE"))
    measure: Mapped[str] = mapped_column(String(40))
    turn: Mapped[int] = mapped_column(default=1)
    ticks: Mapped[int | None]
    typed: Mapped[str] = mapped_column(String(60), default="")
    unit: Mapped[str] = mapped_column(String(2), default="cm")
    side: Mapped[str] = mapped_column(String(5), default="")
    carried_on: Mapped[date | None]
    hour: Mapped[str] = mapped_column(String(5), default="", server_default="")
    created_at: Mapped[datetime] = mapped_column(default=now)
    chart: Mapped[ChartRow] = relationship(back_populates="readings")


NEVER_CHANGED = (
    "CREATE TRIGGER reading_is_never_changed BEFORE UPDATE ON reading "
    "BEGIN SELECT RAISE(ABORT, 'a reading is never changed, only followed by another'); END"
)


class AcceptedDoubt(Base):
    """A doubt the maker knows about and keeps, with a word why; it holds for these very figures."""

    __tablename__ = "accepted_doubt"
    id: Mapped[int] = mapped_column(primary_key=True)
    chart_id: Mapped[int] = mapped_column(ForeignKey("chart.id", ondelete="CASCADE"), index=True)
    doubt: Mapped[str] = mapped_column(String(300))
    why: Mapped[str] = mapped_column(String(300))
    created_at: Mapped[datetime] = mapped_column(default=now)
    chart: Mapped[ChartRow] = relationship(back_populates="accepted")


class Docket(Base):
    """One garment for one wearer: a design on a chart, with the docket's own settings over the design's and the wearer's
    alterations.

    rules: the version of the method's rules it is drawn by, until the maker draws it by those of today. options, ease: its
    own settings, as they were written; '' takes one of the design back to the method's default. house: the values of the
    house on the day it was opened, under both.

    chart_id: the chart it is drawn on; None follows the newest. foundation: what the costume is worn over. bodice_id: the
    docket whose armhole a sleeve is drawn for; armhole: that of a garment that exists, as it was typed, in its place. plan, amounts: its plan of allowances, and those of them that are its own; marking: what else is wanted on its
    pattern, as store.papers reads it; making: how it is made up, as core.making.kept reads it. looks:
    what was seen when the draft was looked at. accepted: checks
    that are not true and were accepted, by name: why, by whom, and the figure then. due_on: the day it has to be ready; waits:
    what it waits for, '' for nothing; stays: what the design was
    when the docket left off following it: options, ease and steps; None while it follows; costume: of which costume of the
    wearer it is a layer, worn: its place there from the skin outwards, from 1, counts: what it is under the next, closes,
    attaches, quick: where it closes, how it holds to the rest, how it comes off in a hurry; cut_on, fitted_on, finished_on: when that was done.
    """

    __tablename__ = "docket"
    id: Mapped[int] = mapped_column(primary_key=True)
    production_id: Mapped[int] = mapped_column(ForeignKey("production.id", ondelete="CASCADE"), index=True)
    wearer_id: Mapped[int] = mapped_column(ForeignKey("wearer.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    design_id: Mapped[int] = mapped_column(ForeignKey("design.id"), index=True)
    chart_id: Mapped[int | None] = mapped_column(ForeignKey("chart.id", ondelete="SET NULL"))
    foundation: Mapped[str] = mapped_column(String(200), default="")
    bodice_id: Mapped[int | None] = mapped_column(ForeignKey("docket.id", ondelete="SET NULL"))
    armhole: Mapped[dict[str, str]] = mapped_column(default=dict)
    rules: Mapped[int] = mapped_column(default=1)
    options: Mapped[dict[str, str]] = mapped_column(default=dict)
    ease: Mapped[dict[str, str]] = mapped_column(default=dict)
    alterations: Mapped[list[Any]] = mapped_column(default=list)
    house: Mapped[dict[str, str]] = mapped_column(default=dict)
    plan: Mapped[str] = mapped_column(String(40), default="cloth")
    amounts: Mapped[dict[str, str]] = mapped_column(default=dict)
    paper: Mapped[str] = mapped_column(String(20), default="a4")
    marking: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    making: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    looks: Mapped[dict[str, str]] = mapped_column(default=dict)
    accepted: Mapped[dict[str, Any]] = mapped_column(default=dict)
    stays: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    costume: Mapped[str] = mapped_column(String(80), default="", server_default="")
    worn: Mapped[int] = mapped_column(default=0, server_default="0")
    counts: Mapped[str] = mapped_column(String(10), default="ordinary", server_default="ordinary")
    closes: Mapped[str] = mapped_column(String(200), default="", server_default="")
    attaches: Mapped[str] = mapped_column(String(200), default="", server_default="")
    quick: Mapped[str] = mapped_column(String(400), default="", server_default="")
    due_on: Mapped[date | None]
    waits: Mapped[str] = mapped_column(String(20), default="", server_default="")
    cut_on: Mapped[date | None]
    fitted_on: Mapped[date | None]
    finished_on: Mapped[date | None]
    version: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(default=now)
    updated_at: Mapped[datetime] = mapped_column(default=now)
    binned_at: Mapped[datetime | None]
    production: Mapped[Production] = relationship(back_populates="dockets")
    wearer: Mapped[Wearer] = relationship(back_populates="dockets")
    design: Mapped[DesignRow] = relationship(lazy="joined", innerjoin=True)
    __mapper_args__ = {"version_id_col": version}

    @property
    def method(self) -> str:
        """The code of the method its design is drawn by."""
        return self.design.method

    @property
    def all_options(self) -> dict[str, str]:
        """The options in force: the design's with the docket's own over them."""
        return _over(self.given_options, self.options)

    @property
    def given_options(self) -> dict[str, str]:
        """The options before the docket's own: the house's with the design's over them."""
        return {**self._of_house("o."), **self.of_design("options"), **self.of_costume}

    if TYPE_CHECKING:
        under: Mapped[int]  # ordinary and padded garments worn under it in its costume, counted in the database
        padded_under: Mapped[int]

    @property
    def of_costume(self) -> dict[str, str]:
        """What is worn underneath in its costume, as options; nothing for a garment that is in none."""
        if not self.costume:
            return {}
        return {"layers": str(self.under), "padded": str(self.padded_under)}

    @property
    def given_ease(self) -> dict[str, str]:
        """The ease before the docket's own: the house's with the design's over it, and with room for what is worn underneath."""
        given = {**self._of_house("e."), **self.of_design("ease")}
        method = METHODS.get(self.method)
        return over_layers(method, given, self._more_room) if method is not None and self.costume else given

    @property
    def _more_room(self) -> float:
        """The room that the layers of its costume take beyond those its design was planned over, cm round the body."""

        def room(options: dict[str, str]) -> float:
            layers, padded = (_number(options.get(code, "")) for code in ("layers", "padded"))
            return Wear(layers=layers, padded=padded).under()

        return room({**self.of_costume, **self.options}) - room(self.of_design("options"))

    def of_design(self, what: str) -> Any:
        """Options, ease, steps or outlines of its design: as they are now, or as they were when it left off following."""
        if self.stays is not None and what in self.stays:
            return self.stays[what]
        return getattr(self.design, what)

    def _of_house(self, start: str) -> dict[str, str]:
        return {key.removeprefix(start): text for key, text in self.house.items() if key.startswith(start)}

    @property
    def all_ease(self) -> dict[str, str]:
        """The ease in force."""
        return _over(self.given_ease, self.ease)


def _number(text: str) -> float:
    try:
        return float(text or 0)
    except ValueError:
        return 0.0


def _over(design: dict[str, str], own: dict[str, str]) -> dict[str, str]:
    return {code: text for code, text in {**design, **own}.items() if text != ""}


INNER = Docket.__table__.alias("inner")


def _worn_under(counts: str) -> Any:
    """How many garments of a kind are worn under a docket in its costume."""
    return (
        select(func.count())
        .select_from(INNER)
        .where(
            INNER.c.wearer_id == Docket.wearer_id, INNER.c.costume == Docket.costume, Docket.costume != "",
            INNER.c.worn < Docket.worn, INNER.c.counts == counts, INNER.c.binned_at.is_(None),
        )
        .correlate(Docket.__table__)
        .scalar_subquery()
    )  # fmt: skip


for _name, _counts in (("under", "ordinary"), ("padded_under", "padded")):
    Docket.__mapper__.add_property(_name, column_property(_worn_under(_counts)))
