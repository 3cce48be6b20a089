"""Sizes of the made-up production: a chart of its passengers, a table of rules of its own, designs graded three ways, and the rail."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.body.chart import Chart
from widehem.core.grading.first_table import FIRST
from widehem.core.grading.from_wearers import from_company
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.kept import HowCast, HowGraded
from widehem.core.grading.tables import Rule
from widehem.demo.portrait import portrait
from widehem.store.grading import begin_rules, begin_sizes
from widehem.store.models import DesignRow, OnRail, Production, RailPhoto

PASSENGERS, NARROW = "Passengers of the ferry", "Narrow shoulders"
NARROWER = (("upper_back", Rule("armhole/shoulder", 0.4, 0.4)), ("upper_front", Rule("armhole/shoulder", 0.4, 0.4)))
# design: way, chart, table, rules of its own, breaks
GRADED: dict[str, dict[str, Any]] = {
    "Ferry master's waistcoat": {"way": "rules", "chart": "straight", "rules": "first", "own": [], "breaks": []},
    "Deckhand's shirt": {
        "way": "rules", "chart": "curved", "rules": "first",
        "own": [{"piece": "front", "spot": "hem/side", "out": 1.0, "up": -0.3}, {"piece": "back", "spot": "hem/side", "out": 1.0, "up": -0.3}], "breaks": [],
    },
    "Lamplighter's robe": {"way": "redraft", "chart": "curved", "rules": "first", "own": [], "breaks": []},
    "Ferry clown's suit": {"way": "proposed", "chart": "curved", "rules": "first", "own": [], "breaks": []},
}  # fmt: skip
# name, kind, place, words, what it measures, the ease it wants
RAIL: tuple[tuple[str, str, str, str, dict[str, str], dict[str, str]], ...] = (
    ("Grey frock coat, velvet collar", "coat", "rail 2, bay 4", "left cuff worn thin", {"bust": "121", "waist": "112", "hip": "114", "nape_waist": "45"}, {"bust": "12", "waist": "14", "hip": "10"}),
    ("Lamp black tail coat", "coat", "rail 2, bay 5", "", {"bust": "105", "waist": "88", "hip": "109"}, {"bust": "12", "waist": "12", "hip": "8"}),
    ("River green tea gown", "gown", "rail 5, bay 1", "hooks at the back, no zip", {"bust": "37 in", "waist": "31 in", "hip": "42 in", "waist_floor": "41 in"}, {"bust": "2 in", "waist": "1 in", "hip": "2 in"}),
    ("Deckhand's trousers, patched", "trousers", "rail 3, bay 2", "knees doubled for the fall", {"waist": "84", "hip": "108", "inside_leg": "79"}, {"waist": "2", "hip": "8"}),
    ("Ticket clerk's waistcoat", "waistcoat", "drawer 7", "", {"bust": "101", "waist": "93"}, {"bust": "6", "waist": "6"}),
    ("Child's oilskin", "coat", "rail 1, bay 1", "stiff: not for the dance", {"bust": "84", "waist": "84", "hip": "88"}, {"bust": "16", "waist": "18", "hip": "14"}),
)  # fmt: skip
PICTURED = "Lamp black tail coat"
CAST = {"against": "sizes:curved", "let_out": 3.0, "take_in": 6.0}


def load_sizes(session: Session, production: Production, charts: list[Chart]) -> None:
    """What grading, the cast and the rail have to show."""
    chart = begin_sizes(session, from_company("own", PASSENGERS, charts, HOUSE["curved"]).chart, PASSENGERS)
    table = FIRST
    for kind, rule in NARROWER:
        table = table.with_rule(kind, rule)
    rules = begin_rules(session, table, NARROW)
    for row in session.scalars(select(DesignRow).where(DesignRow.own)):
        if row.name in GRADED:
            row.grading = HowGraded.from_data(GRADED[row.name]).as_data()
    robe = session.scalar(select(DesignRow).where(DesignRow.name == "Lamplighter's robe", DesignRow.own))
    if robe is not None:
        robe.grading = {**robe.grading, "chart": chart.code, "rules": rules.code}
    for name, kind, place, words, fits, ease in RAIL:
        hung = OnRail(name=name, kind=kind, place=place, words=words, fits=_with_unit(fits), ease=_with_unit(ease))
        if name == PICTURED:
            hung.photo = RailPhoto(data=portrait())
        session.add(hung)
    production.cast = HowCast.from_data(CAST).as_data()


def _with_unit(texts: dict[str, str]) -> dict[str, str]:
    return {code: text if text.endswith("in") else f"{text} cm" for code, text in texts.items()}
