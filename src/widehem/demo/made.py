"""Cutting and making in the demo: the days of the production, a stock, lays, an order of work half ticked, a book of a costume, exercises
that somebody did."""

from __future__ import annotations

from datetime import date, timedelta
from itertools import islice
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.making.book import Change, Cost, CostumeBook, Shot, Wrong
from widehem.core.making.calendar import Plan
from widehem.core.making.cloths import CLOTHS
from widehem.core.making.kept import Done, HowMade
from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.cutouts import cutouts
from widehem.core.making.lay.grid import improving
from widehem.core.making.order import usual_order
from widehem.core.making.plan import work_of
from widehem.core.making.steps import steps_of
from widehem.core.marking.made import mark_up
from widehem.core.units import METRIC
from widehem.demo.sketch import sketches
from widehem.jobs.laying import drawn_mark
from widehem.store.books import keep_book
from widehem.store.lays import keep_lay
from widehem.store.making import Work, find_work
from widehem.store.models import Docket, HouseCloth, LayRow, Picture, Practice, Production, Stock, Wearer
from widehem.store.papers import wanted_of

REHEARSAL, OPENING = 60, 66  # days from now
# cloth, its code, length and width in cm, per cent it shrinks, place, price, what is to be known
CLOTH = (
    ("Grey ferry cloth", "suiting", 310.0, 150.0, 2.0, "shelf A, left", 18.5, "Left over from the keepers; a faint stripe along the selvedge."),
    ("Rest of the watch coat", "coating", 85.0, 140.0, 0.0, "shelf A, left", 32.0, ""),
    ("Calico, unbleached", "calico", 1200.0, 160.0, 3.0, "roll at the door", 3.2, "For toiles."),
    ("Lantern silk", "taffeta", 140.0, 115.0, 0.0, "box 4, in tissue", 24.0, "Pin holes stay."),
    ("Blue lining", "lining_twill", 260.0, 140.0, 0.0, "shelf B", 6.8, ""),
    ("Shirt lawn", "lawn", 430.0, 140.0, 3.0, "shelf B", 7.5, "Washed once already? Ask Odile."),
)  # fmt: skip
NOTIONS = (
    ("Brass buttons with a shank", 34, "tin on the window"),
    ("Hooks and bars", 120, "drawer 2"),
    ("Long zips, black", 3, "drawer 2"),
)
# costume garment, how many of its first steps are done, and how many days ago the first was
TICKED = (
    ("Ferry master's waistcoat", "Gideon Fenn", 17, 6),
    ("Deckhand's shirt", "Gideon Fenn", 99, 15),
    ("Heron bodice", "Runa Sable", 5, 2),
)
USES = {"Ferry master's waistcoat": ("stairs", "quick"), "Lamplighter's robe": ("flame", "stairs"), "Heron suit": ("flying", "dance", "heat"),
    "Lamp child's smock": ("child",), "Deckhand's shirt": ("water",)}  # fmt: skip
LAID = (("cloth", ("Ferry master's waistcoat",), OnTable(150.0, way="one", shrinks=2.0, price=18.5)), ("lining", ("Ferry master's waistcoat",), OnTable(140.0, price=6.8)),
    ("cloth", ("Deckhand's shirt",), OnTable(140.0, shrinks=3.0, price=7.5)))  # fmt: skip
PRACTISED = (
    ("Tam", "chart:3", True), ("Tam", "draft:2", False), ("Tam", "draft:5", True), ("Tam", "marking:1", True), ("Wen", "chart:1", True), ("Wen", "chart:8", False),
)  # fmt: skip


def load_making(session: Session, production: Production, wearers: dict[str, Wearer]) -> None:
    """What is cut and made, from the days to the book."""
    today = date.today()
    production.plan = Plan(
        today + timedelta(days=REHEARSAL), today + timedelta(days=OPENING), 1, 6.0, 3, 5, ("Long zips, black",)
    ).as_data()
    session.add(
        HouseCloth(
            name="Lantern silk, ours",
            began="taffeta",
            parts={part: getattr(CLOTHS["taffeta"], part) for part in PARTS},
            shrinks=0.0,
            own={
                "press": "Dry, the iron on one dot, through the old sheet. Steam leaves rings.",
                "mark": "Thread only; the white basting one.",
            },
        )
    )
    for name, cloth, length, width, shrinks, place, price, words in CLOTH:
        session.add(
            Stock(
                kind="cloth",
                name=name,
                cloth=cloth,
                length=length,
                width=width,
                shrinks=shrinks,
                place=place,
                price=price,
                words=words,
            )
        )
    for name, count, place in NOTIONS:
        session.add(Stock(kind="notion", name=name, count=count, place=place))
    for person, exercise, right in PRACTISED:
        session.add(Practice(person=person, exercise=exercise, right=right, data={}))
    session.flush()
    for name, uses in USES.items():
        for docket in session.scalars(select(Docket).where(Docket.name == name)):
            docket.making = HowMade(uses=uses).as_data()
    for name, wearer, count, ago in TICKED:
        _ticked(session, name, wearers[wearer], count, today - timedelta(days=ago))
    for material, names, table in LAID:
        _lay(session, production, wearers["Gideon Fenn"], material, names, table)
    _book(session, production, wearers["Gideon Fenn"], today)


PARTS = ("weight", "slips", "frays", "heat", "pile", "stretch", "marks")


def _work(session: Session, name: str, wearer: Wearer) -> Work | None:
    found = session.scalar(select(Docket.id).where(Docket.name == name, Docket.wearer_id == wearer.id).order_by(Docket.id))
    return find_work(session, found) if found is not None else None


def _ticked(session: Session, name: str, wearer: Wearer, count: int, first: date) -> None:
    """The first steps of a garment done, with the minutes they took."""
    work = _work(session, name, wearer)
    if work is None:
        return
    docket, order = work.docket, work_of(work.made().garment)
    steps = steps_of(order, wanted_of(docket), CLOTHS["suiting"])
    done: dict[str, Done] = {}
    for number, step in enumerate(steps[:count]):
        day = min(first + timedelta(days=number // 6), date.today())
        done[step.id] = Done(
            day.isoformat(), float(round(step.minutes * PACE[number % len(PACE)])) or None, step.kind, step.minutes
        )
    own: dict[str, str] = {}
    chosen: tuple[str, ...] = ()
    if name == OWN_STEP[0]:
        chosen = usual_order(order)
        at = chosen.index(OWN_STEP[1]) + 1
        chosen, own = (*chosen[:at], "own:1", *chosen[at:]), {"own:1": OWN_STEP[2]}
    kept = HowMade.from_data(docket.making or {})
    docket.making = HowMade(CLOTHS_OF.get(name, {}), chosen, own, done, (), kept.uses).as_data()
    if docket.cut_on is None:
        docket.cut_on = first - timedelta(days=1)
    if count >= len(steps):
        docket.fitted_on, docket.finished_on = date.today() - timedelta(days=2), date.today() - timedelta(days=1)


PACE = (1.2, 0.9, 1.4, 1.1, 1.0)  # times of what was thought
OWN_STEP = (
    "Ferry master's waistcoat",
    "panel_front.inside",
    "Braid along both front panel seams, before the side seams close it",
)
CLOTHS_OF = {
    "Ferry master's waistcoat": {"cloth": "suiting", "lining": "lining_twill"},
    "Deckhand's shirt": {"cloth": "lawn"},
    "Heron bodice": {"cloth": "taffeta"},
}


def _lay(
    session: Session, production: Production, wearer: Wearer, material: str, names: tuple[str, ...], table: OnTable
) -> None:
    """A lay of a cloth, as found by cells."""
    works = [work for name in names if (work := _work(session, name, wearer)) is not None]
    shapes = [
        shape for work in works
        for shape in cutouts(mark_up(work.made(), wanted_of(work.docket), show=METRIC), material, table)
    ]  # fmt: skip
    if not shapes:
        return
    best = list(islice(improving(shapes, table), FEW_LAYS))[-1]
    docket = works[0].docket
    name = f"{material[:1].upper()}{material[1:]}: {docket.name} for {docket.wearer.name}"
    row = LayRow(
        production_id=production.id, name=name, material=material, dockets=[work.docket.id for work in works], cloth=table.data
    )
    session.add(row)
    keep_lay(row, shapes, best, (), drawn_mark(works, material))


FEW_LAYS = 6


def _book(session: Session, production: Production, wearer: Wearer, today: date) -> None:
    """The book of one costume."""
    shots: list[Shot] = []
    for name, side, words in (
        ("smock", "front", "as the deckhand, second act"),
        ("laced-back", "back", "from the old sketch-book"),
        ("gangway", "sketch", "the hem on the gangway"),
    ):
        drawn = sketches(name)[0]
        row = Picture(production_id=production.id, data=drawn.large, small=drawn.small)
        session.add(row)
        session.flush()
        shots.append(Shot(row.id, side, words))
    book: dict[str, Any] = {
        "about": "The ferry master in his best, before the storm: stiff in front, worn behind. Pictures from the sketch-book of the house.",
        "under": "Own shirt, flat belt; boots with 3 cm heels.", "notions": "Watch chain, lantern hook at the left hip.", "budget": 240.0,
    }  # fmt: skip
    costume = session.scalar(select(Docket.costume).where(Docket.wearer_id == wearer.id, Docket.costume != "").limit(1))
    if not costume:
        return
    keep_book(
        session, wearer.id, costume,
        CostumeBook(
            **book, shots=tuple(shots), changes=(Change("After the storm, second act", "Wen", "coat from the top button down, then the waistcoat at the back strap", 40, True),),
            costs=(Cost("Brass buttons", 18.4), Cost("Braid, 6 m", 27.0)),
            wrong=(Wrong((today - timedelta(days=4)).isoformat(), "Front edge pulled: the facing had been cut off grain. Cut it again along the selvedge."),),
        ),
    )  # fmt: skip
