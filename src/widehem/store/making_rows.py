"""The tables of cutting and making: lays of cloth, and cloths as the house has them."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from widehem.store.base import Base, now


class LayRow(Base):
    """A lay of one cloth for garments of a production. dockets: their numbers; material: as their pieces name it; cloth: as it lies on the
    table; shapes: what is cut, as it was when it was laid; placed: where each lies, rest: what found no place; drawn: the mark of all
    that the shapes follow from; stock: the leftovers it was laid on first, each with its own lay."""

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
