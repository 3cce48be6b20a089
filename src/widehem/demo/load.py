"""Putting the demo into an empty store."""

from __future__ import annotations

from typing import cast

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.core.units import Unit, parse_length
from widehem.demo.people import COMPANY, GARMENTS, MEASURED_BY, PEOPLE, PRODUCTION, Person
from widehem.store.charts import add_reading
from widehem.store.database import Store
from widehem.store.models import ChartRow, Docket, Production, Wearer


def load_demo(store: Store) -> bool:
    """Load the demo unless there is work already; returns whether it was loaded."""
    with store.write() as session:
        if session.scalar(select(func.count()).select_from(Production)):
            return False
        production = Production(name=PRODUCTION, company=COMPANY)
        session.add(production)
        session.flush()
        wearers = {person.name: _wearer(session, production, person) for person in PEOPLE}
        for garment in GARMENTS:
            session.add(
                Docket(
                    production_id=production.id,
                    wearer_id=wearers[garment.wearer].id,
                    name=garment.name,
                    method="skirt.two_panel",
                    options=garment.options,
                    ease=garment.ease,
                    plan=garment.plan,
                    amounts={},
                )
            )
            session.flush()
    return True


def _wearer(session: Session, production: Production, person: Person) -> Wearer:
    wearer = Wearer(production_id=production.id, name=person.name, role=person.role, figure=person.figure)
    session.add(wearer)
    session.flush()
    chart = ChartRow(
        wearer_id=wearer.id, taken_on=person.taken_on, foundation=person.foundation, shoes=person.shoes, measured_by=MEASURED_BY
    )
    session.add(chart)
    session.flush()
    for code, words in person.readings.items():
        for turn, text in enumerate(words.split(" / "), 1):
            add_reading(session, chart, code, turn, parse_length(text, cast(Unit, person.unit)))
    return wearer
