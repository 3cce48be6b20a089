"""The alterations of a wearer's garment as they are kept on its docket: each a step with what it is about."""

from __future__ import annotations

import secrets
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.core.design.design import Step
from widehem.core.fitting.alteration import About
from widehem.core.fitting.learning import WEARERS, Altered, Habit, habits
from widehem.core.values import replace
from widehem.store.charts import core_chart, latest_chart
from widehem.store.fittings import folded_round, rounds_of
from widehem.store.models import Docket, now

MOST = 60


@dataclass(frozen=True)
class Alteration:
    """A step of one wearer's paper, and what it is about."""

    step: Step
    about: About

    def as_data(self) -> dict[str, Any]:
        return {**self.step.as_data(), "about": self.about.as_data()}

    @staticmethod
    def from_data(data: Mapping[str, Any]) -> Alteration:
        """Raises KeyError, ValueError, TypeError for what it is not."""
        return Alteration(Step.from_data(data), About.from_data(data.get("about", {})))


def alterations_on(docket: Docket) -> tuple[Alteration, ...]:
    """The alterations of a docket, in their order; those that cannot be read are left out."""
    found = []
    for row in docket.alterations:
        try:
            found.append(Alteration.from_data(row))
        except (KeyError, ValueError, TypeError):
            continue
    return tuple(found)


def put_alterations(docket: Docket, found: Sequence[Alteration]) -> None:
    """Keep these, and no others."""
    docket.alterations = [one.as_data() for one in found]
    docket.updated_at = now()


def with_alteration(found: Sequence[Alteration], one: Alteration) -> tuple[Alteration, ...]:
    """These with one in place of the one of its id, or at the end."""
    if any(old.step.id == one.step.id for old in found):
        return tuple(one if old.step.id == one.step.id else old for old in found)
    return (*found, one)


def switched(found: Sequence[Alteration], number: str) -> tuple[Alteration, ...]:
    """These with one left out, or done again."""
    return tuple(replace(one, step=replace(one.step, off=not one.step.off)) if one.step.id == number else one for one in found)


def new_number() -> str:
    return f"a{secrets.token_hex(4)}"


def garments_of(session: Session, wearer_id: int, but: int = 0) -> list[Altered]:
    """What was altered and what was judged good on the garments of a wearer. but: the one in hand."""
    query = select(Docket).where(Docket.wearer_id == wearer_id, Docket.id != but).order_by(Docket.id)
    return [found for docket in session.scalars(query) if (found := _altered(session, docket)).about or found.good]


def _altered(session: Session, docket: Docket) -> Altered:
    rounds = rounds_of(session, docket.id)
    about = tuple(one.about for one in alterations_on(docket) if not one.step.off)
    return Altered(docket.name, about, folded_round(rounds[-1]).good if rounds else frozenset())


def habits_of(session: Session) -> tuple[Habit, ...]:
    """What the wearers of the house have in common in their alterations; nothing while too few have any."""
    altered = list(session.scalars(select(Docket.wearer_id).where(func.json_array_length(Docket.alterations) > 0).distinct()))
    if len(altered) < WEARERS:
        return ()
    company = [(garments_of(session, wearer), core_chart(session, latest_chart(session, wearer))) for wearer in altered]
    return habits(company)
