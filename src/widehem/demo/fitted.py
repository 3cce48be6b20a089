"""Fittings of the demo: a first round that led to alterations and a second that was good, one in the middle, one just begun."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.design.design import Step
from widehem.core.fitting.alteration import About
from widehem.core.units import Unit
from widehem.demo.sketch import sketches
from widehem.store.alterations import Alteration, put_alterations
from widehem.store.charts import chart_drawn_on, core_chart
from widehem.store.fittings import CLOTH, TOILE, begin_round, note_events
from widehem.store.models import Docket
from widehem.store.notes import add_note

Event = dict[str, Any]
# garment, how many days ago, of what, who was there, worn underneath, shoes, unit, what was noted
ROUNDS: tuple[tuple[str, int, str, str, str, str, Unit, tuple[Event, ...]], ...] = (
    ("Smock of the deckhand", 12, TOILE, "Odile, Tam", "", "heels 5 cm", "cm", (
        {"what": "verdict", "look": "structure", "verdict": "good"},
        {"what": "verdict", "look": "neckline", "verdict": "good"},
        {"what": "verdict", "look": "armhole", "verdict": "alter"},
        {"what": "verdict", "look": "shoulder", "verdict": "see"},
        {"what": "sign", "sign": "cannot_reach", "pinned": "1.2", "way": "out", "figure": "back", "x": 0.62, "y": 0.26},
        {"what": "sign", "sign": "drags_from_neck", "pinned": "0.6", "way": "down", "hand": "right", "figure": "front", "x": 0.4, "y": 0.19},
        {"what": "movement", "test": "reach", "verdict": "alter", "words": "the boathook cannot be lifted"},
        {"what": "note", "words": "Lifts the boathook over the head through the whole second act."},
    )),
    ("Smock of the deckhand", 3, TOILE, "Odile", "", "heels 5 cm", "cm", (
        {"what": "verdict", "look": "armhole", "verdict": "good"},
        {"what": "verdict", "look": "shoulder", "verdict": "good"},
        {"what": "verdict", "look": "darts", "verdict": "good"},
        {"what": "movement", "test": "reach", "verdict": "good"},
    )),
    ("Practice trousers", 6, TOILE, "Tam", "", "boots", "in", (
        {"what": "verdict", "look": "structure", "verdict": "good"},
        {"what": "verdict", "look": "seat", "verdict": "alter"},
        {"what": "sign", "sign": "smile", "pinned": "3/8", "way": "longer", "figure": "front", "x": 0.5, "y": 0.5},
        {"what": "sign", "sign": "drops_seated", "pinned": "1/2", "way": "up", "figure": "back", "x": 0.5, "y": 0.4},
        {"what": "movement", "test": "stairs", "verdict": "see", "words": "pulls at the third step"},
    )),
    ("Keeper's gown", 1, TOILE, "Odile, Wen", "corset and padding", "flat", "cm", (
        {"what": "verdict", "look": "neckline", "verdict": "see"},
        {"what": "sign", "sign": "neck_gapes", "pinned": "0.8", "way": "in", "figure": "front", "x": 0.5, "y": 0.17},
        {"what": "sign", "sign": "folds_back_waist", "pinned": "1", "way": "shorter", "figure": "back", "x": 0.5, "y": 0.36},
        {"what": "sign", "words": "the padding shifts when she bows"},
    )),
    ("Watch coat", 1, CLOTH, "Tam", "waistcoat", "boots", "cm", (
        {"what": "verdict", "look": "hem", "verdict": "alter"},
        {"what": "sign", "sign": "hem_dips", "pinned": "1.5", "way": "up", "figure": "front", "x": 0.5, "y": 0.75},
    )),
)  # fmt: skip
# garment and fitting: what was noted, with its picture
PICTURES: dict[tuple[str, int], tuple[tuple[str, str], ...]] = {
    ("Smock of the deckhand", 1): (("Let out at the back armhole, pinned with a strip.", "pinned-back"),),
}
# garment, operation, settings, why
ALTERED: tuple[tuple[str, str, dict[str, float | str], str], ...] = (
    ("Smock of the deckhand", "alter.across", {"by": 1.2, "part": "back"}, "fitting 1: the boathook cannot be lifted"),
    ("Smock of the deckhand", "alter.slope", {"by": -0.6, "hand": "right"}, "fitting 1: drags from the neck, right"),
    ("Practice trousers", "alter.fork", {"by": 1.0}, "fitting 1: lines smile from the fork"),
)


def load_fittings(session: Session) -> None:
    """The fittings and what was altered after them."""
    dockets = {docket.name: docket for docket in session.scalars(select(Docket).order_by(Docket.id.desc()))}
    for count, (name, ago, kind, people, foundation, shoes, unit, noted) in enumerate(ROUNDS):
        row = begin_round(
            session,
            dockets[name],
            date.today() - timedelta(days=ago),
            kind=kind,
            people=people,
            foundation=foundation,
            shoes=shoes,
        )
        note_events(session, row, [{**event, "client": f"demo-{count}-{n:02}"} for n, event in enumerate(noted)], unit)
        for words, drawn in PICTURES.get((name, row.number), ()):
            add_note(session, dockets[name], words, sketches(drawn), row.id)
    found: dict[str, list[Alteration]] = {}
    for number, (name, code, settings, why) in enumerate(ALTERED, 1):
        chart = core_chart(session, chart_drawn_on(session, dockets[name]))
        step = Step(f"demo{number}", code, settings)
        found.setdefault(name, []).append(Alteration(step, About.of(step, chart, why)))
    for name, alterations in found.items():
        put_alterations(dockets[name], alterations)
