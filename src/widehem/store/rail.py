"""The rail of finished garments: what they measure, where they hang, whom they fit."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.units import LengthError, parse_length
from widehem.store.models import OnRail, RailPhoto


@dataclass(frozen=True)
class Hanging:
    """A garment on the rail as it is looked at. fits_cm: what it measures; ease_cm: the ease it wants, by measure."""

    id: int
    name: str
    kind: str
    place: str
    words: str
    fits_cm: Mapping[str, float]
    ease_cm: Mapping[str, float]
    fits: Mapping[str, str]
    ease: Mapping[str, str]
    pictured: bool
    version: int


def on_rail(session: Session) -> list[Hanging]:
    """Everything on the rail, by name."""
    pictured = set(session.scalars(select(RailPhoto.on_rail_id)))
    rows = session.scalars(select(OnRail).order_by(OnRail.name, OnRail.id))
    return [
        Hanging(row.id, row.name, row.kind, row.place, row.words, _cm(row.fits), _cm(row.ease), row.fits, row.ease, row.id in pictured, row.version)
        for row in rows
    ]  # fmt: skip


def _cm(texts: Mapping[str, str]) -> dict[str, float]:
    """Lengths as they were written, cm; what cannot be read is left out."""
    found = {}
    for code, text in texts.items():
        if code in CATALOGUE:
            try:
                found[code] = parse_length(text, "cm").cm
            except LengthError:
                continue
    return found
