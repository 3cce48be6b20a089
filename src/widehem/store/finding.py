"""Finding productions, wearers and garments by what they are called."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from sqlalchemy import ColumnElement, and_, case, literal, or_, select
from sqlalchemy.orm import Session, contains_eager, joinedload

from widehem.core.values import record
from widehem.store.models import DesignRow, Docket, Production, Wearer

MOST = 20  # of each kind


@record(frozen=True)
class Found:
    """What was found, each kind by name, at most MOST of it."""

    productions: tuple[Production, ...] = ()
    wearers: tuple[Wearer, ...] = ()
    dockets: tuple[Docket, ...] = ()
    designs: tuple[DesignRow, ...] = ()


def find(session: Session, words: Sequence[str]) -> Found:
    """Whatever has every word somewhere in its name, or in those of what it belongs to. words: without case."""
    if not words:
        return Found()
    productions = select(Production).where(_all(words, Production.name, Production.company)).order_by(Production.name)
    wearers = (
        select(Wearer)
        .join(Wearer.production)
        .where(_all(words, Wearer.name, Wearer.role, Production.name), _any(words, Wearer.name, Wearer.role))
        .options(contains_eager(Wearer.production))
        .order_by(_how_many(words, Wearer.name).desc(), Wearer.name)
    )
    dockets = (
        select(Docket)
        .join(Docket.wearer)
        .join(Docket.production)
        .where(_all(words, Docket.name, Wearer.name, Production.name), _any(words, Docket.name, Wearer.name))
        .options(contains_eager(Docket.wearer), contains_eager(Docket.production), joinedload(Docket.design))
        .order_by(_how_many(words, Docket.name).desc(), Docket.updated_at.desc())
    )
    designs = (
        select(DesignRow)
        .where(DesignRow.own, DesignRow.binned_at.is_(None), _all(words, DesignRow.name, DesignRow.summary))
        .order_by(_how_many(words, DesignRow.name).desc(), DesignRow.name)
    )
    found = (tuple(session.scalars(query.limit(MOST))) for query in (productions, wearers, dockets, designs))
    return Found(*found)


def _like(word: str) -> str:
    for sign in ("\\", "%", "_"):
        word = word.replace(sign, f"\\{sign}")
    return f"%{word}%"


def _all(words: Sequence[str], *columns: Any) -> ColumnElement[bool]:
    """Every word is in one of the columns."""
    return and_(*(or_(*(column.ilike(_like(word), escape="\\") for column in columns)) for word in words))


def _how_many(words: Sequence[str], column: Any) -> ColumnElement[int]:
    """How many of the words are in a name: what is called so itself comes first."""
    return sum((case((column.ilike(_like(word), escape="\\"), 1), else_=0) for word in words), start=literal(0))


def _any(words: Sequence[str], *columns: Any) -> ColumnElement[bool]:
    """One of the words is in the thing's own names, not only in those of what it belongs to."""
    return or_(*(column.ilike(_like(word), escape="\\") for column in columns for word in words))
