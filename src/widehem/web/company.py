"""The whole company at a glance: every wearer by measure, with gaps, doubts and the age of the chart."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from flask import Blueprint, abort, render_template, request, url_for
from markupsafe import Markup, escape

from widehem.core.body.catalogue import CATALOGUE, ZONES
from widehem.core.body.chart import Chart
from widehem.core.body.doubts import doubts
from widehem.core.body.occasion import age_words, too_old
from widehem.core.output.svg_strip import strip
from widehem.core.units import Display
from widehem.store.files import Measured, accepted_doubts, company
from widehem.store.models import Production, Wearer
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, today
from widehem.web.selvedge import Selvedge
from widehem.web.show import display, figure

pages = Blueprint("company", __name__)


@dataclass(frozen=True)
class Row:
    """One wearer: the chart, which measures are in doubt, how old the chart is in days."""

    wearer: Wearer
    chart: Chart
    doubted: frozenset[str]
    age: int | None

    @property
    def old(self) -> bool:
        return self.age is not None and too_old(self.chart, self.age)

    @property
    def age_words(self) -> str:
        return "no chart" if self.age is None else age_words(self.age)


@pages.get("/productions/<int:production_id>/company")
def table(production_id: int) -> str:
    """The table of one zone of the body; a name can be looked for."""
    zone = request.args.get("zone", ZONES[0])
    zone = zone if zone in ZONES else ZONES[0]
    wanted = request.args.get("find", "").strip()[:60]
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        people = company(session, production_id)
        accepted = accepted_doubts(session, [person.row.id for person in people if person.row])
    rows = [_row(person, accepted) for person in people]
    found = [row for row in rows if wanted.lower() in f"{row.wearer.name} {row.wearer.role}".lower()]
    show = display()
    codes = [code for code, entry in CATALOGUE.items() if entry.zone == zone]
    strips = {}
    for code in codes:
        values = [(row.wearer.name, value) for row in found for value in (row.chart.get(code),) if value is not None]
        least, most = (min(v for _, v in values), max(v for _, v in values)) if values else (0.0, 0.0)
        label = f"{CATALOGUE[code].name}: {len(values)} wearers from {show.length(least)} to {show.full(most)}"
        if len(values) == 1:
            label = f"{CATALOGUE[code].name}: 1 wearer, {show.full(least)}"
        strips[code] = strip(values, label)
    gaps = sum(1 for row in found for code in codes if code not in row.chart)
    doubted, old = sum(1 for row in rows if row.doubted), sum(1 for row in rows if row.old)
    slots = [
        Slot(
            "Wearers",
            "count",
            str(len(found)),
            f"of {len(rows)}",
            f"with {wanted}" if wanted else "all of them",
        ),
        Slot("Gaps in this table", "open" if gaps else "count", str(gaps), "to read", zone.lower()),
        Slot(
            "Doubts",
            "look" if doubted else "true",
            str(doubted),
            "charts",
            "with a figure to look at" if doubted else "none open",
        ),
        Slot("Age of charts", "look" if old else "true", str(old), "too old", "children after eight weeks"),
    ]
    return render_template(
        "company.html",
        production=production,
        rows=[(row, cells(row, codes, show)) for row in found],
        codes=codes,
        catalogue=CATALOGUE,
        zones=ZONES,
        zone=zone,
        find=wanted,
        strips={code: (Markup(entry.svg), entry.low, entry.high) if entry else None for code, entry in strips.items()},
        selvedge=Selvedge(production),
        slots=slots,
        tally="",
        next=Next("Back to the production", url_for("people.production", production_id=production_id)),
    )


def cells(row: Row, codes: list[str], show: Display) -> Markup:
    """The figures of one wearer, each a link to its field.

    Put together by hand: a table of a large company has ten thousand of them.
    """
    at = f'href="/wearers/{row.wearer.id}/measure?list=all&amp;at='
    name, values = escape(row.wearer.name), row.chart.values
    found = []
    for code in codes:
        value = values.get(code)
        if value is None:
            words = (
                f'<a class="dots" {at}{code}"><span class="visually-hidden">read {CATALOGUE[code].name} of {name}</span></a>'
            )
        elif code in row.doubted:
            words = (
                f'<a {at}{code}" class="in-doubt">{_figure(value, show)}<span class="visually-hidden"> look again</span></a>'
            )
        else:
            words = f'<a {at}{code}">{_figure(value, show)}</a>'
        found.append(f'<td class="num r">{words}</td>')
    return Markup("".join(found))  # every part is escaped above


@lru_cache(maxsize=20_000)
def _figure(cm: float, show: Display) -> Markup:
    return figure(show.length(cm))


def _row(person: Measured, accepted: dict[int, set[str]]) -> Row:
    kept = accepted.get(person.row.id, set()) if person.row else set()
    doubted = frozenset(code for doubt in doubts(person.chart) if doubt.key not in kept for code in doubt.measures)
    age = (today() - person.row.taken_on).days if person.row else None
    return Row(person.wearer, person.chart, doubted, age)
