"""The days of garments as a picture: a row for each, its phases one after the other, today, the rehearsal, what is late."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta
from html import escape
from typing import NamedTuple

from widehem.core.making.calendar import Garment, Plan, Stretch, is_work

ROW, DAY, HEAD, NAME = 30.0, 13.0, 44.0, 240.0  # px: a row, a day, what stands above, the names
LEAST_DAYS, MOST_DAYS = 28, 250
SHORT = {
    "measure": "M", "paper": "P", "toile": "toile", "toile_fitting": "F", "cut": "cut", "sew": "sew", "fitting": "F", "alter": "A", "rehearsal": "R",
}  # fmt: skip


class Days(NamedTuple):
    """The inside of a drawing, its width and height, px."""

    inside: str
    width: float
    height: float


def days_svg(rows: Sequence[tuple[Garment, Sequence[Stretch]]], plan: Plan, today: date) -> Days:
    """The picture. Rows without a day are left out."""
    rows = [(garment, found) for garment, found in rows if found]
    ends = [day for _, found in rows for row in found for day in (row.begin, row.end)]
    first = min([*ends, today]) - timedelta(days=2)
    last = min(max([*ends, today, first + timedelta(days=LEAST_DAYS)]) + timedelta(days=2), first + timedelta(days=MOST_DAYS))
    count = (last - first).days + 1
    width, height = NAME + count * DAY, HEAD + len(rows) * ROW + 8
    found = _days(first, count, height, plan)
    for number, (garment, phases) in enumerate(rows):
        found += _row(HEAD + number * ROW, garment, phases, first)
    x = _x(today, first) + DAY / 2
    found.append(
        f'<path class="d-today" d="M{x:.1f} {HEAD - 12:.0f}V{height:.0f}"/><text class="d-word" x="{x + 3:.1f}" y="{HEAD - 6:.0f}">today</text>'
    )
    return Days("".join(found), width, height)


def _x(day: date, first: date) -> float:
    return NAME + (day - first).days * DAY


def _days(first: date, count: int, height: float, plan: Plan) -> list[str]:
    found = []
    for n in range(count):
        day, x = first + timedelta(days=n), NAME + n * DAY
        if not is_work(day, plan.week):
            found.append(f'<rect class="d-off" x="{x:.1f}" y="{HEAD:.0f}" width="{DAY:.0f}" height="{height - HEAD:.0f}"/>')
        if day.weekday() == 0:
            found.append(
                f'<path class="d-week" d="M{x:.1f} {HEAD - 18:.0f}V{height:.0f}"/><text class="d-word" x="{x + 2:.1f}" y="{HEAD - 22:.0f}">{day.day} '
                f"{day:%b}</text>"
            )
    return found


def _row(y: float, garment: Garment, phases: Sequence[Stretch], first: date) -> list[str]:
    name = f"{garment.name}, {garment.wearer}"
    short = name if len(name) < 36 else f"{name[:34]}…"
    found = [
        f'<text class="d-name" x="4" y="{y + 19:.0f}">{escape(short)}</text>',
        f'<path class="d-line" d="M0 {y + ROW:.0f}H{NAME:.0f}"/>',
    ]
    for row in phases:
        x, wide = _x(row.begin, first), ((row.end - row.begin).days + 1) * DAY
        state = "is-done" if row.done else "is-late" if row.late else "is-to-do"
        words = SHORT[row.phase] if len(SHORT[row.phase]) * 8 < wide else SHORT[row.phase][:1]
        late = f", late by {row.late} working days" if row.late else ", done" if row.done else ""
        found.append(
            f'<g class="d-phase {state}"><title>{escape(f"{row.words}: {row.begin:%d %b} to {row.end:%d %b}{late}")}</title><rect x="{x + 0.5:.1f}" '
            f'y="{y + 5:.0f}" width="{wide - 1:.1f}" height="{ROW - 9:.0f}"/><text x="{x + wide / 2:.1f}" y="{y + 19.5:.0f}">{words}</text></g>'
        )
    return found
