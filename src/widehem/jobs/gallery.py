"""Every method drawn small on one body."""

from __future__ import annotations

import json
from collections.abc import Iterable
from typing import Any

from sqlalchemy.orm import Session

from widehem.core.body.chart import Chart
from widehem.core.design.design import method_design
from widehem.core.design.make import armhole_in, make
from widehem.core.design.sensitivity import filled_in
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, Method, by_part
from widehem.core.output.svg_small import small_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Saying, say
from widehem.core.values import record, replace
from widehem.jobs.keys import body, garment, key
from widehem.jobs.kinds import At, JobError, kind
from widehem.store.charts import chart_numbered, core_chart
from widehem.store.dockets import USUAL_BODICES, bodice_for, find_wearer
from widehem.store.making import Work, find_work, made_now
from widehem.store.models import Docket

GALLERY = "gallery"


@record(frozen=True)
class Shown:
    """A method as it is shown on a body. chart: what it is drawn on, where something was not read partly estimated; bodice: of
    the
    wearer, in whose armhole a sleeve is shown, None for what it is made for; key: what the picture is kept under."""

    method: Method
    chart: Chart
    whole: Chart
    bodice: Docket | None
    key: str


@record(frozen=True)
class Picture:
    """A small picture and its view box, or why there is none."""

    inside: str
    box: str
    trouble: Saying | None = None

    def as_bytes(self) -> bytes:
        trouble = [self.trouble.template, list(self.trouble.lengths)] if self.trouble else None
        return json.dumps([self.inside, self.box, trouble]).encode()

    @staticmethod
    def from_bytes(data: bytes) -> Picture:
        inside, box, trouble = json.loads(data)
        return Picture(inside, box, Saying(trouble[0], tuple(trouble[1])) if trouble else None)


def shown_on(session: Session, wearer_id: int, chart: Chart) -> list[Shown]:
    """Every method on the chart of a wearer, in the order of the parts of the body."""
    whole = filled_in(chart)
    works: dict[int, Work | None] = {}
    found = []
    for method in (method for members in by_part(METHODS.values()).values() for method in members):
        on, bodice = _needed(method, chart, whole), None
        rests_on: tuple[object, ...] = ()
        if method.for_armhole:
            bodice = bodice_for(session, wearer_id, method)
            if bodice is not None and bodice.id not in works:
                works[bodice.id] = find_work(session, bodice.id)
            work = works.get(bodice.id) if bodice is not None else None
            own = (work.method.code, *garment(work)) if work is not None else ()
            rests_on = (own, METHODS[method.made_for].rules, body(whole))
        found.append(Shown(method, on, whole, bodice, key("picture", method.code, method.rules, body(on), rests_on)))
    return found


def _needed(method: Method, chart: Chart, whole: Chart) -> Chart:
    """The chart with estimates of what a method needs and no more: what it only may use changes it by being read."""
    wanted = set(method.uses())
    return replace(chart, readings={code: r for code, r in whole.readings.items() if code in wanted or code in chart.readings})


def drawn(session: Session, shown: Shown) -> Picture:
    """The picture of a method on a body."""
    try:
        made = make(method_design(shown.method), shown.chart, armhole=_armhole(session, shown))
        return Picture(*small_svg(made))
    except CannotDraft as refusal:
        return Picture("", "", refusal.saying)
    except OptionError as error:
        return Picture("", "", say(str(error).replace("{", "(").replace("}", ")")))


def _armhole(session: Session, shown: Shown) -> Armhole | None:
    """The armhole a sleeve is shown in: of the wearer's own garment, or of what it is made for, drafted for this body."""
    method, bodice = shown.method, shown.bodice
    if not method.for_armhole:
        return None
    made = made_now(session, bodice) if bodice is not None else None
    found = armhole_in(made) if made is not None else None
    if found is not None and bodice is not None and method.made_for in (bodice.method, *USUAL_BODICES):
        return found
    try:
        return armhole_in(make(method_design(METHODS[method.made_for]), shown.whole))
    except (CannotDraft, OptionError):
        return found


def pictures(kept: dict[str, bytes], shown: Iterable[Shown]) -> dict[str, Picture]:
    """The pictures that are kept, by the code of their method."""
    return {entry.method.code: Picture.from_bytes(kept[entry.key]) for entry in shown if entry.key in kept}


@kind(GALLERY)
def draw_gallery(at: At, wish: dict[str, Any]) -> None:
    """Draw what is not drawn yet. wish: the numbers of a wearer and of a chart, None for the newest."""
    with at.store.read() as session:
        if find_wearer(session, wish["wearer"]) is None:
            raise JobError("This wearer was deleted meanwhile.")
        row = chart_numbered(session, wish["wearer"], wish["chart"])
        entries = shown_on(session, wish["wearer"], core_chart(session, row))
        kept = at.ledger.found([entry.key for entry in entries])
        rest = [entry for entry in entries if entry.key not in kept]
        for done, entry in enumerate(rest):
            at.step(len(entries) - len(rest) + done, len(entries))
            at.ledger.keep(entry.key, drawn(session, entry).as_bytes())
    at.step(len(entries), len(entries))
