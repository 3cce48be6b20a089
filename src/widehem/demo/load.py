"""Putting the demo into an empty store."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any, cast

from sqlalchemy import func, select
from sqlalchemy.orm import Session

import widehem.core.drafting.methods  # noqa: F401 - registers them
from widehem.core.body.figure_tables import TABLES
from widehem.core.design.ships import shipped
from widehem.core.drafting.ease_plans import PLANS
from widehem.core.drafting.method import METHODS
from widehem.core.marking.house import HouseValue
from widehem.core.units import Unit, parse_length
from widehem.core.values import replace
from widehem.demo.bought import load_paper
from widehem.demo.fitted import load_fittings
from widehem.demo.made import load_making
from widehem.demo.people import (
    COMPANY,
    COSTUMES,
    DESIGNED,
    GARMENTS,
    HOURS,
    HOUSE_EASE,
    HOUSE_LIST,
    HOUSE_TABLE,
    HOUSE_VALUES,
    NOTES,
    NOWHERE,
    PEOPLE,
    PRODUCTION,
    STANDS,
    WEARS,
    Person,
)
from widehem.demo.portrait import portrait
from widehem.demo.sized import load_sizes
from widehem.demo.sketch import sketches
from widehem.store.charts import add_reading, begin_chart, charts_of
from widehem.store.costumes import not_in_any, put_over
from widehem.store.database import Store
from widehem.store.ease import add_plan
from widehem.store.files import company
from widehem.store.house import keep_values, open_docket
from widehem.store.models import Docket, HouseList, Photo, Production, Wearer
from widehem.store.notes import Noted, add_note
from widehem.store.recipes import begin_design, hand_out, keep_version
from widehem.store.tables import copy_table, keep_table


def load_demo(store: Store) -> bool:
    """Load the demo unless there is work already; returns whether it was loaded."""
    with store.write() as session:
        if session.scalar(select(func.count()).select_from(Production)):
            return False
        production = Production(name=PRODUCTION, company=COMPANY)
        session.add(production)
        session.flush()
        tables = _house(session)
        wearers = {person.name: _wearer(session, production, person, tables) for person in PEOPLE}
        dockets: dict[str, int] = {}
        for garment in GARMENTS:
            wearer = wearers[garment.wearer]
            oldest = charts_of(session, wearer.id)[-1].id if garment.drawn_on_oldest else None
            method = METHODS[garment.method]
            docket = open_docket(
                session, wearer, garment.name, method, options=garment.options, ease=garment.ease, plan=garment.plan, amounts={},
                foundation=garment.over, chart_id=oldest, bodice_id=dockets.get(garment.bodice), armhole=garment.armhole,
                rules=garment.rules or method.rules, accepted=garment.accepted, **_stand(*STANDS.get(garment.name, NOWHERE)),
            )  # fmt: skip
            dockets[garment.name] = docket.id
        _notes(session, production)
        for code, worn_by in DESIGNED.items():
            design = begin_design(session, shipped()[code])
            hand_out(session, design, [wearers[name] for name in worn_by], shipped()[code].name)
            keep_version(session, design, "as it came")
        _costumes(session, wearers)
        load_paper(session, wearers)
        load_fittings(session)
        load_sizes(session, production, [person.chart for person in company(session, production.id)])
        load_making(session, production, wearers)
    return True


def _costumes(session: Session, wearers: dict[str, Wearer]) -> None:
    for costume, layers in COSTUMES.items():
        worn = {docket.name: docket for docket in not_in_any(session, wearers[WEARS[costume]].id)}
        for name, (counts, closes, attaches, quick) in layers.items():
            docket = worn[name]
            put_over(session, docket, costume)
            docket.counts, docket.closes, docket.attaches, docket.quick = counts, closes, attaches, quick


def _stand(due: int | None, waits: str, *done: int | None) -> dict[str, Any]:
    """Where a garment stands, as its columns."""
    today = date.today()
    days = (None if ago is None else today - timedelta(days=ago) for ago in done)
    ready = None if due is None else today + timedelta(days=due)
    return {"due_on": ready, "waits": waits, **dict(zip(("cut_on", "fitted_on", "finished_on"), days, strict=True))}


def _notes(session: Session, production: Production) -> None:
    named: dict[str, Noted] = {"": production}
    named |= {wearer.name: wearer for wearer in session.scalars(select(Wearer))}
    named |= {docket.name: docket for docket in session.scalars(select(Docket))}
    for name, words, drawn in NOTES:
        add_note(session, named[name], words, sketches(*drawn))


def _wearer(session: Session, production: Production, person: Person, tables: dict[str, str]) -> Wearer:
    wearer = Wearer(
        production_id=production.id, name=person.name, role=person.role, figure=tables.get(person.figure, person.figure),
            allergies=person.allergies,
        movement=person.movement,
    )  # fmt: skip
    session.add(wearer)
    session.flush()
    if person.photo:
        session.add(Photo(wearer_id=wearer.id, data=portrait()))
    for sitting in person.sittings:
        chart = begin_chart(session, wearer, date.today() - timedelta(days=sitting.days), carry=sitting.carry)
        chart.foundation, chart.shoes, chart.measured_by, chart.note = sitting.over, sitting.shoes, sitting.by, sitting.note
        for place, words in sitting.readings.items():
            code, _, side = place.partition(":")
            for turn, text in enumerate(words.split(" / "), 1):
                add_reading(
                    session,
                    chart,
                    code,
                    turn,
                    parse_length(text, cast(Unit, sitting.unit)),
                    side=side,
                    hour=HOURS.get((person.name, place), ""),
                )
        session.flush()
    return wearer


def _house(session: Session) -> dict[str, str]:
    """A list, a plan of ease and a figure table of the workroom's own; returns the codes of tables by name."""
    name, codes = HOUSE_LIST
    session.add(HouseList(name=name, codes=codes))
    keep_values(session, (HouseValue(*value) for value in HOUSE_VALUES))
    title, base, formulas = HOUSE_TABLE
    plan, why, like, amounts = HOUSE_EASE
    add_plan(session, replace(PLANS[like], why=why, amounts={**PLANS[like].amounts, **amounts}), plan)
    row = copy_table(session, TABLES[base], title)
    keep_table(row, replace(TABLES[base], name=title, formulas={**TABLES[base].formulas, **formulas}))
    return {title: row.code}
