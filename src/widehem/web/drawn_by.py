"""What a docket is drawn by: the rules of its method, and the armhole a sleeve is set into."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from flask import Blueprint, abort, redirect, request, url_for

from widehem.core.design.compare import compare_made
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.store.dockets import armholes_of, find_docket
from widehem.store.journal import tell
from widehem.store.keeping import StoreError
from widehem.store.making import Work, find_work
from widehem.store.models import Docket
from widehem.web.here import current_store
from widehem.web.numbers import number_of
from widehem.web.writing import writing

pages = Blueprint("drawn_by", __name__)


def load(docket_id: int) -> Work:
    """A docket with what it is drawn on. 404 when there is none."""
    with current_store().read() as session:
        work = find_work(session, docket_id)
        docket = work.docket if work is not None else find_docket(session, docket_id)
    if docket is None:
        abort(404)
    if work is None:
        raise StoreError(
            f"{docket.name} is drawn by {docket.method}, a method this version of Wide Hem does not have. It is kept as it is: open it with "
            "the version it was made by."
        )
    return work


@dataclass(frozen=True)
class Older:
    """A docket drawn by other rules than today's. differs: figures that today's rules draw otherwise; today: whether they can
    draw it."""

    rules: int
    newest: int
    differs: int
    today: bool


def older_rules(work: Work) -> Older | None:
    """What today's rules would draw otherwise; None for a docket that is drawn by them."""
    if not work.by_older_rules:
        return None
    try:
        rows = compare_made(work.made(), work.made(work.design().by_rules(work.method.rules)))
    except (OptionError, CannotDraft):
        return Older(work.docket.rules, work.method.rules, 0, False)
    return Older(work.docket.rules, work.method.rules, sum(row.differs for row in rows), True)


def armholes(docket: Docket) -> list[Docket]:
    """Garments of the same wearer that a sleeve can be set into."""
    with current_store().read() as session:
        return armholes_of(session, docket.wearer_id)


@pages.post("/dockets/<int:docket_id>/rules")
def by_todays_rules(docket_id: int) -> Any:
    """Draw a docket by today's rules of its method from now on, or by the earlier ones again."""
    work = load(docket_id)
    asked = request.form.get("rules", type=number_of)
    if asked != work.method.rules and asked not in work.method.earlier:
        abort(400)
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        tell(session, f"{docket.name} is drawn by {'today’s' if asked == work.method.rules else 'earlier'} rules.", docket)
        docket.rules = asked
    return redirect(url_for("board.draft", docket_id=docket_id), 303)


@pages.post("/dockets/<int:docket_id>/armhole")
def for_armhole(docket_id: int) -> Any:
    """Set a sleeve into another garment of the same wearer."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        chosen = next(
            (other for other in armholes_of(session, docket.wearer_id) if str(other.id) == request.form.get("bodice")), None
        )
        if chosen is not None:
            tell(session, f"Set {docket.name} into {chosen.name}.", docket)
            docket.bodice_id, docket.armhole = chosen.id, {}
    return redirect(url_for("board.draft", docket_id=docket_id, slip="settings"), 303)
