"""The tables of cutting and making: lays of cloth, cloths as the house has them, the stock, books of costumes, exercises done."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from sqlalchemy import ForeignKey, LargeBinary, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column, relationship

from widehem.store.base import Base, now


class LayRow(Base):
    """A lay of one cloth for garments of a production. dockets: their numbers; material: as their pieces name it; cloth: as it is to lie
    on the table; lies_on: as it lay when it was laid last; shapes: what is cut, as it was then; placed: where each lies, rest: what found
    no place; drawn: the mark of all that the shapes follow from; stock: the leftovers it was laid on first, each with its own lay."""

    __tablename__ = "lay"
    id: Mapped[int] = mapped_column(primary_key=True)
    production_id: Mapped[int] = mapped_column(ForeignKey("production.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    material: Mapped[str] = mapped_column(String(60))
    dockets: Mapped[list[Any]]
    cloth: Mapped[dict[str, Any]]
    shapes: Mapped[list[Any]] = mapped_column(default=list)
    placed: Mapped[list[Any]] = mapped_column(default=list)
    rest: Mapped[list[Any]] = mapped_column(default=list)
    stock: Mapped[list[Any]] = mapped_column(default=list)
    drawn: Mapped[str] = mapped_column(String(40), default="")
    lies_on: Mapped[dict[str, Any]] = mapped_column(default=dict)
    cut_on: Mapped[date | None]
    by_hand: Mapped[bool] = mapped_column(default=False)
    created_at: Mapped[datetime] = mapped_column(default=now)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}


class HouseCloth(Base):
    """A cloth as the house has it. began: the cloth it began as; parts: what it is, by heading; own: what the house says of it in place
    of the usual; shrinks: per cent of its length."""

    __tablename__ = "house_cloth"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    began: Mapped[str] = mapped_column(String(40))
    parts: Mapped[dict[str, str]]
    own: Mapped[dict[str, str]] = mapped_column(default=dict)
    shrinks: Mapped[float] = mapped_column(default=0.0)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}

    @property
    def code(self) -> str:
        """The code a garment keeps."""
        return f"house-{self.id}"


class Stock(Base):
    """Cloth or notions in the house. kind: cloth or notion; cloth: what cloth it is, by its code; length, width: cm, of a cloth; count: of
    a notion; shrinks: per cent, 0 when it is shrunk already; price: for a metre, or each."""

    __tablename__ = "stock"
    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(10), default="cloth")
    name: Mapped[str] = mapped_column(String(120))
    cloth: Mapped[str] = mapped_column(String(40), default="")
    length: Mapped[float] = mapped_column(default=0.0)
    width: Mapped[float] = mapped_column(default=0.0)
    count: Mapped[int] = mapped_column(default=0)
    shrinks: Mapped[float] = mapped_column(default=0.0)
    price: Mapped[float] = mapped_column(default=0.0)
    place: Mapped[str] = mapped_column(String(120), default="")
    words: Mapped[str] = mapped_column(String(400), default="")
    created_at: Mapped[datetime] = mapped_column(default=now)
    photo: Mapped[StockPhoto | None] = relationship(cascade="all, delete-orphan", passive_deletes=True)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}


class StockPhoto(Base):
    """A small picture of something in the stock, drawn anew from what was sent."""

    __tablename__ = "stock_photo"
    stock_id: Mapped[int] = mapped_column(ForeignKey("stock.id", ondelete="CASCADE"), primary_key=True)
    data: Mapped[bytes] = mapped_column(LargeBinary)


class Book(Base):
    """The book of a costume: of one wearer, by the name of the costume. data: as core.making.book reads it."""

    __tablename__ = "book"
    __table_args__ = (UniqueConstraint("wearer_id", "costume"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    wearer_id: Mapped[int] = mapped_column(ForeignKey("wearer.id", ondelete="CASCADE"))
    costume: Mapped[str] = mapped_column(String(80))
    data: Mapped[dict[str, Any]] = mapped_column(default=dict)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = {"version_id_col": version}


class Practice(Base):
    """One exercise somebody did. person: as they wrote their name; exercise: what it was, made again from it; right: whether it was found;
    data: what was answered."""

    __tablename__ = "practice"
    id: Mapped[int] = mapped_column(primary_key=True)
    person: Mapped[str] = mapped_column(String(60), index=True)
    exercise: Mapped[str] = mapped_column(String(80))
    right: Mapped[bool]
    data: Mapped[dict[str, Any]] = mapped_column(default=dict)
    created_at: Mapped[datetime] = mapped_column(default=now)
