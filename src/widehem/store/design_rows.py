"""The tables of designs: what they are, what they were traced from, what they were called once."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from widehem.store.base import Base, now


class DesignRow(Base):
    """A design, without a wearer. rules: the version of the method's rules it was made by. Settings are kept as they were
    written, unit and all; steps as they stand in a file. outlines: what it is made of, where no method
    draws it. own: a maker named it and works on it; else it is just a block. grading: how it is graded: way, chart, table, single
    rules, breaks."""

    __tablename__ = "design"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    method: Mapped[str] = mapped_column(String(60), index=True)
    rules: Mapped[int] = mapped_column(default=1)
    options: Mapped[dict[str, str]] = mapped_column(default=dict)
    ease: Mapped[dict[str, str]] = mapped_column(default=dict)
    steps: Mapped[list[Any]] = mapped_column(default=list)
    outlines: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    own: Mapped[bool] = mapped_column(default=False, server_default="0")
    grading: Mapped[dict[str, Any]] = mapped_column(default=dict, server_default="{}")
    summary: Mapped[str] = mapped_column(String(300), default="", server_default="")
    notes: Mapped[str] = mapped_column(String(2000), default="", server_default="")
    binned_at: Mapped[datetime | None]
    version: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(default=now)
    updated_at: Mapped[datetime] = mapped_column(default=now)
    __mapper_args__ = {"version_id_col": version}


class Traced(Base):
    """The picture that outlines were traced from, drawn anew, in pixels."""

    __tablename__ = "traced"
    id: Mapped[int] = mapped_column(primary_key=True)
    design_id: Mapped[int] = mapped_column(ForeignKey("design.id", ondelete="CASCADE"), index=True)
    data: Mapped[bytes]
    width: Mapped[int]
    height: Mapped[int]


class DesignVersion(Base):
    """What a design was when it was given a name. data: options, ease and steps, as they stood."""

    __tablename__ = "design_version"
    id: Mapped[int] = mapped_column(primary_key=True)
    design_id: Mapped[int] = mapped_column(ForeignKey("design.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    data: Mapped[dict[str, Any]]
    created_at: Mapped[datetime] = mapped_column(default=now)
