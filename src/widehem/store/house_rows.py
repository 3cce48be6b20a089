"""The tables of what the house has of its own: lists of measures, figure tables, plans of ease, values, size charts, shift rules, and
what hangs on the rail."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, LargeBinary, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column, relationship

from widehem.store.base import Base, now


class HouseList(Base):
    """A list of measures a workroom takes again and again."""

    __tablename__ = "house_list"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    codes: Mapped[list[str]]
    created_at: Mapped[datetime] = mapped_column(default=now)


class HouseTable(Base):
    """A figure table of the workroom's own, copied from another and changed."""

    __tablename__ = "house_table"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    bust_difference: Mapped[float]
    row: Mapped[dict[str, float]]
    formulas: Mapped[dict[str, str]]
    young: Mapped[bool]
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}

    @property
    def code(self) -> str:
        """The code a wearer keeps."""
        return f"house-{self.id}"


class HouseEase(Base):
    """A plan of ease of the workroom's own. amounts: cm round the body by level."""

    __tablename__ = "house_ease"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    why: Mapped[str] = mapped_column(String(200), default="")
    amounts: Mapped[dict[str, float]]
    cloth: Mapped[str] = mapped_column(String(10), default="woven")
    layers: Mapped[float] = mapped_column(default=0.0)
    stretch: Mapped[float] = mapped_column(default=30.0)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}

    @property
    def code(self) -> str:
        """The code the plan goes by in an address."""
        return f"house-{self.id}"


class HouseRow(Base):
    """A value of the house in place of a default. of: a method, a plan of allowances, '' for every method; text as it was
    written."""

    __tablename__ = "house_value"
    __table_args__ = (UniqueConstraint("of", "key"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    of: Mapped[str] = mapped_column(String(60), default="")
    key: Mapped[str] = mapped_column(String(60))
    text: Mapped[str] = mapped_column(String(60))


class Printer(Base):
    """A printer or plotter of the workroom: how wide and how high the test square of 5 cm comes out on it, as it was measured.
    address: 'host:port' of a plotter that plot files are sent to."""

    __tablename__ = "printer"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    across: Mapped[str] = mapped_column(String(20))
    down: Mapped[str] = mapped_column(String(20))
    address: Mapped[str] = mapped_column(String(80), default="", server_default="")


class HouseSizes(Base):
    """A size chart of the workroom's own. figure: code of a figure table; base: number of its base size, from 0; rows: cm by size for
    each measure."""

    __tablename__ = "house_sizes"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    figure: Mapped[str] = mapped_column(String(40), default="curved")
    key: Mapped[str] = mapped_column(String(40), default="bust")
    sizes: Mapped[list[str]]
    letters: Mapped[list[str]]
    base: Mapped[int]
    rows: Mapped[dict[str, Any]]
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}

    @property
    def code(self) -> str:
        """The code a design keeps."""
        return f"house-{self.id}"


class HouseRules(Base):
    """A table of shift rules of the workroom's own, as data."""

    __tablename__ = "house_rules"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    data: Mapped[dict[str, Any]]
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}

    @property
    def code(self) -> str:
        """The code a design keeps."""
        return f"house-{self.id}"


class OnRail(Base):
    """A finished garment on the rail. fits: the body it fits by measure, as it was written, unit and all: what it measures, less the
    ease it wants. production_id: what it is lent to, None when it is free."""

    __tablename__ = "on_rail"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    kind: Mapped[str] = mapped_column(String(60), default="")
    place: Mapped[str] = mapped_column(String(120), default="")
    words: Mapped[str] = mapped_column(String(400), default="")
    fits: Mapped[dict[str, str]]
    ease: Mapped[dict[str, str]] = mapped_column(default=dict)
    created_at: Mapped[datetime] = mapped_column(default=now)
    photo: Mapped[RailPhoto | None] = relationship(cascade="all, delete-orphan", passive_deletes=True)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}


class RailPhoto(Base):
    """A small picture of a garment on the rail, drawn anew from what was sent."""

    __tablename__ = "rail_photo"
    on_rail_id: Mapped[int] = mapped_column(ForeignKey("on_rail.id", ondelete="CASCADE"), primary_key=True)
    data: Mapped[bytes] = mapped_column(LargeBinary)
