"""The shopping list of a production: cloth and notions to buy, less what lies in the stock; ticked on a phone."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.making.cloths import ClothKind
from widehem.core.making.shopping import Held, Laid, Line, Takes, shopping
from widehem.core.marking.materials import Needs, together
from widehem.core.units import Display
from widehem.core.values import replace
from widehem.jobs.materials import MATERIALS, dockets_in, known, needs_key
from widehem.store.cloths import cloth_of, cloths, how_made
from widehem.store.journal import tell
from widehem.store.lays import laid, lays_of
from widehem.store.making import Work, works_of
from widehem.store.models import Production, Stock
from widehem.store.planning import plan_of_days
from widehem.web.at_work import ask
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.writing import writing

pages = Blueprint("shopping", __name__)
OUTER = ("cloth", "jersey", "toile", "block")


@pages.get("/productions/<int:production_id>/shopping")
def listed(production_id: int) -> Any:
    """What is to be bought."""
    show = display()
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        plan, all_cloths = plan_of_days(production), cloths(session)
        works = works_of(session, dockets_in(session, production_id))
        keys = {work.docket.id: needs_key(work, show) for work in works}
        there = _needs(production, production_id, keys, show)
        lines = _lines(session, production_id, works, {n: there.get(k) for n, k in keys.items()}, all_cloths)
        notions = [(row.name, row.count, row.place) for row in session.scalars(select(Stock).where(Stock.kind == "notion"))]
    rest = sum(name not in there for name in keys.values())
    needs = together(row for row in there.values() if row is not None)
    left = [line for line in lines if line.buy and line.cloth not in plan.bought]
    slots = [
        Slot("To buy", "count", str(len(left)), "cloths", "not ticked yet" if left else "all of it is there"),
        Slot("Notions", "count", str(sum(words not in plan.bought for words, _ in needs.notions)), "", "not ticked yet"),
    ]
    return render_template(
        "shopping.html", production=production, lines=lines, known=all_cloths, notions=sorted(needs.notions), held=notions, bought=plan.bought, rest=rest,
        selvedge=Selvedge(production), slots=slots, tally="", next=Next("To the materials", url_for("materials.production", production_id=production_id)),
    )  # fmt: skip


def _needs(production: Production, number: int, keys: dict[int, str], show: Display) -> dict[str, Needs | None]:
    """What the garments take, as far as it is worked out; what is not is asked for."""
    ledger = current_works().ledger
    there = known(ledger, list(keys.values()))
    if len(there) < len(set(keys.values())):
        wish = {"production": number, "unit": show.unit, "fraction": show.fraction}
        if not ask(MATERIALS, wish, f"Working out what {production.name} takes", f"{number} {show.unit}").unfinished:
            there = known(ledger, list(keys.values()))
    return there


def _lines(
    session: Session, production: int, works: list[Work], needs: dict[int, Needs | None], known_cloths: dict[str, ClothKind]
) -> list[Line]:
    takes: list[Takes] = []
    lays: list[Laid] = []
    made = {work.docket.id: how_made(work.docket) for work in works}
    cloth_by: dict[tuple[int, str], str] = {}
    covered: set[tuple[int, str]] = set()
    for work in works:
        for material in (needs.get(work.docket.id) or Needs((), ())).materials:
            cloth_by[work.docket.id, material.name] = cloth_of(made[work.docket.id], material.name, known_cloths).code
    for row in lays_of(session, production):
        found = laid(row)
        fresh = [
            number for number in row.dockets if (number, row.material) in cloth_by and (number, row.material) not in covered
        ]
        if found.lay.placed and len(fresh) == len(row.dockets):
            covered.update((number, row.material) for number in fresh)
            lays.append(Laid(cloth_by[fresh[0], row.material], found.lay.to_buy, found.lay.table.width))
    for work in works:
        for material in (needs.get(work.docket.id) or Needs((), ())).materials:
            at = work.docket.id, material.name
            takes.append(Takes(cloth_by[at], material.area, f"{work.docket.name}, {work.docket.wearer.name}", at in covered))
    stock = [
        Held(s.cloth, s.name, s.length, s.width, s.place) for s in session.scalars(select(Stock).where(Stock.kind == "cloth"))
    ]
    return shopping(takes, lays, stock)


@pages.post("/productions/<int:production_id>/shopping")
def tick(production_id: int) -> Any:
    """Tick something as bought, or as still to buy."""
    what, on = request.form.get("what", "")[:200], request.form.get("on") == "1"
    with writing() as session:
        production = session.get(Production, production_id)
        if production is None or not what:
            abort(404)
        plan = plan_of_days(production)
        rest = tuple(name for name in plan.bought if name != what)
        production.plan = replace(plan, bought=(*rest, what) if on else rest).as_data()
        known_cloths = cloths(session)
        name = known_cloths[what].name if what in known_cloths else what
        tell(session, f"{name[:80]}: {'bought' if on else 'still to buy'}.", production)
    return redirect(url_for(".listed", production_id=production_id), 303)
