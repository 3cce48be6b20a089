"""The book of a costume: what it should look like, its layers, quick changes, hours, costs, what went wrong; printed for the workroom and
for whoever dresses its wearer."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from sqlalchemy.orm import Session

from widehem.core.design.costume import closing_words
from widehem.core.design.make import Made
from widehem.core.making.book import LONGEST, SIDES, BookError, CostumeBook, with_change, with_cost, with_shot, with_wrong
from widehem.core.marking.made import cut_rows
from widehem.core.output.pdf_book import Leaf, book_pdf
from widehem.core.output.photo import PhotoError
from widehem.core.output.sheets import PAPERS
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.values import replace
from widehem.jobs.hours import HOURS, hours_key, known_times
from widehem.store.books import book_of, book_row, keep_book
from widehem.store.cloths import how_made, pace
from widehem.store.costumes import costumes_of
from widehem.store.dockets import find_wearer
from widehem.store.journal import tell
from widehem.store.lays import laid, lays_of
from widehem.store.making import Work, find_work
from widehem.store.models import Docket, Picture, Wearer
from widehem.store.papers import by_use_words, cautions
from widehem.web.at_work import ask
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works, today
from widehem.web.in_hand import in_hand
from widehem.web.notes import sent_pictures
from widehem.web.selvedge import selvedge
from widehem.web.show import display
from widehem.web.writing import writing

pages = Blueprint("book", __name__)
WITH_PICTURES = ("book.add",)


@dataclass(frozen=True)
class Worn:
    """A garment in its book. made: as it is drawn, None where it cannot be; guessed, spent: minutes of making."""

    work: Work | None
    docket: Docket
    made: Made | None
    guessed: float
    spent: float
    steps: tuple[int, int]

    @property
    def pieces(self) -> list[str]:
        """What is cut for it, a line each."""
        if self.made is None:
            return []
        return [f"{row.piece}: {row.cut}, {row.material}" for row in cut_rows(self.made.garment.pieces, "cloth", display())]

    @property
    def closes(self) -> str:
        """How it closes: as it was written, or as it is drawn."""
        if self.docket.closes or self.made is None:
            return self.docket.closes
        return " ".join(words.text(display()) for words in closing_words(self.made))


def _worn(session: Session, dockets: list[Docket]) -> tuple[list[Worn], bool]:
    """The garments of a costume; and whether hours are still to be worked out."""
    works = [find_work(session, docket.id) for docket in dockets]
    own = pace(session)
    keys = {work.docket.id: hours_key(work) for work in works if work is not None}
    times = known_times(current_works().ledger, list(keys.values()))
    found = []
    for docket, work in zip(dockets, works, strict=True):
        made, how = None, how_made(docket)
        if work is not None:
            try:
                made = work.made()
            except (OptionError, CannotDraft):
                made = None
        mine = times.get(keys.get(docket.id, "")) or {}
        guessed = sum(minutes * own.get(kind, 1.0) for name, (kind, minutes) in mine.items() if name not in how.left_out)
        spent = sum(entry.minutes or 0.0 for entry in how.done.values())
        whole = len([name for name in mine if name not in how.left_out])
        found.append(Worn(work, docket, made, guessed, spent, (len(how.done), whole)))
    return found, any(name not in times for name in keys.values())


def _opened(session: Session, wearer_id: int, costume: str) -> tuple[Wearer, list[Docket], CostumeBook]:
    """A wearer, the garments of a costume of theirs, and its book. 404 where there is none."""
    wearer = find_wearer(session, wearer_id)
    dockets = costumes_of(session, wearer_id).get(costume)
    if wearer is None or not dockets:
        abort(404)
    return wearer, list(dockets), book_of(book_row(session, wearer_id, costume))


def _laid_cost(session: Session, wearer: Wearer, dockets: list[Docket]) -> float:
    """What the cloth costs that was laid for this costume: its share of a lay for more than it."""
    mine, whole = {docket.id for docket in dockets}, 0.0
    for row in lays_of(session, wearer.production_id):
        share = len(mine & set(row.dockets)) / max(len(row.dockets), 1)
        if share:
            whole += laid(row).lay.cost * share
    return whole


@pages.get("/wearers/<int:wearer_id>/book")
def page(wearer_id: int) -> Any:
    """The book of one of a wearer's costumes."""
    return _page(wearer_id, request.args.get("costume", ""), {}, "")


def _page(wearer_id: int, costume: str, typed: Mapping[str, str], told: str) -> Any:
    with current_store().read() as session:
        hand = in_hand(wearer_id, session)
        wearer, dockets, book = _opened(session, wearer_id, costume)
        worn, rest = _worn(session, dockets)
        cloth = _laid_cost(session, wearer, dockets)
        others = list(costumes_of(session, wearer_id))
    if rest:
        numbers = [row.docket.id for row in worn]
        ask(HOURS, {"dockets": numbers}, f"Working out the hours of {costume}", f"dockets {numbers}")
    guessed, spent = sum(row.guessed for row in worn), sum(row.spent for row in worn)
    money = book.spent + cloth
    slots = [
        Slot(
            "Hours",
            "count",
            f"{spent / 60:.1f}",
            "" if rest else f"of about {guessed / 60:.0f}",
            "written down while it is made",
        ),
        Slot(
            "Pictures",
            "look" if book.unseen else "true",
            str(len(book.shots)),
            "",
            f"none {SIDES[book.unseen[0]].lower()}" if book.unseen else "all round",
        ),
    ]
    if book.budget or money:
        over = bool(book.budget) and money > book.budget
        slots.append(
            Slot(
                "Costs",
                "not" if over else "count",
                f"{money:.2f}",
                f"of {book.budget:.2f}" if book.budget else "",
                f"{money - book.budget:.2f} too much" if over else "",
            )
        )
    return render_template(
        "book.html", wearer=wearer, costume=costume, others=others, worn=worn, book=book, sides=SIDES, cloth=cloth, typed=typed, told=told, longest=LONGEST, rest=rest,
        cautions=[*cautions(wearer), *dict.fromkeys(line for row in worn for line in by_use_words(row.docket, display()))],
        selvedge=selvedge(hand.wearer, hand.docket, hand.chart, ""), slots=slots, tally="",
        next=Next("Print the book", url_for(".printed", wearer_id=wearer_id, costume=costume), "The costumes", url_for("costumes.every", wearer_id=wearer_id), file=True),
    )  # fmt: skip


@pages.post("/wearers/<int:wearer_id>/book")
def add(wearer_id: int) -> Any:
    """Write something into a book: what it is about, a picture, a quick change, a cost, what went wrong."""
    form, costume = request.form, request.form.get("costume", "")
    try:
        with writing() as session:
            wearer, _, book = _opened(session, wearer_id, costume)
            changed, words = WRITES.get(form.get("what", "about"), _about)(session, wearer, book)
            keep_book(session, wearer_id, costume, changed)
            tell(session, f"{words} in the book of {costume}.", wearer)
    except (BookError, PhotoError) as error:
        return _page(wearer_id, costume, form, str(error)), 422
    return redirect(url_for(".page", wearer_id=wearer_id, costume=costume), 303)


Written = tuple[CostumeBook, str]


def _about(_session: Session, _wearer: Wearer, book: CostumeBook) -> Written:
    form = request.form
    about, under, notions = (form.get(name, "").strip()[:LONGEST] for name in ("about", "under", "notions"))
    text = form.get("budget", "").strip().replace(",", ".") or "0"
    try:
        budget = float(text)
    except ValueError:
        raise BookError(f'Budget: "{text[:12]}" is no figure: write it like 250 or 99.50.') from None
    changed = replace(book, about=about, under=under, notions=notions, budget=budget)
    return CostumeBook.from_data(changed.as_data()), "Wrote what it is about"


def _shot(session: Session, wearer: Wearer, book: CostumeBook) -> Written:
    drawn = sent_pictures(1)
    if not drawn:
        raise BookError("Picture: choose a file, JPEG, PNG or WebP.")
    row = Picture(production_id=wearer.production_id, data=drawn[0].large, small=drawn[0].small)
    session.add(row)
    session.flush()
    side = request.form.get("side", "front")
    return with_shot(book, row.id, side if side in SIDES else "front", request.form.get("words", "")), "Put a picture"


def _change(_session: Session, _wearer: Wearer, book: CostumeBook) -> Written:
    form = request.form
    made = with_change(
        book,
        form.get("when", ""),
        form.get("who", ""),
        form.get("opens", ""),
        form.get("seconds", ""),
        dark=form.get("dark") == "1",
    )
    return made, "Wrote a quick change"


def _cost(_session: Session, _wearer: Wearer, book: CostumeBook) -> Written:
    return with_cost(book, request.form.get("words", ""), request.form.get("amount", "")), "Wrote a cost"


def _wrong(_session: Session, _wearer: Wearer, book: CostumeBook) -> Written:
    return with_wrong(book, request.form.get("words", ""), today()), "Wrote what went wrong"


WRITES: Mapping[str, Callable[[Session, Wearer, CostumeBook], Written]] = {
    "about": _about, "shot": _shot, "change": _change, "cost": _cost, "wrong": _wrong,
}  # fmt: skip


@pages.post("/wearers/<int:wearer_id>/book/out")
def out(wearer_id: int) -> Any:
    """Take an entry out of a book."""
    form, costume = request.form, request.form.get("costume", "")
    with writing() as session:
        wearer, _, book = _opened(session, wearer_id, costume)
        try:
            changed = book.without(form.get("kind", ""), int(form.get("number", "-1")))
        except (KeyError, IndexError, ValueError):
            abort(404)
        keep_book(session, wearer_id, costume, changed)
        tell(session, f"Took an entry out of the book of {costume}.", wearer)
    return redirect(url_for(".page", wearer_id=wearer_id, costume=costume), 303)


@pages.get("/wearers/<int:wearer_id>/book.pdf")
def printed(wearer_id: int) -> Response:
    """The book as a PDF: for the workroom, or for the dresser."""
    costume, dresser, show = request.args.get("costume", ""), request.args.get("for") == "dresser", display()
    with current_store().read() as session:
        wearer, dockets, book = _opened(session, wearer_id, costume)
        worn, _ = _worn(session, dockets)
        cloth = _laid_cost(session, wearer, dockets)
        pictures = [row.data if (row := session.get(Picture, shot.picture)) is not None else None for shot in book.shots]
        about = " · ".join(
            word for word in (wearer.name, wearer.role, wearer.production.name, wearer.production.company) if word
        )
        careful = cautions(wearer)
    leaves = [
        Leaf(
            row.docket.name, tuple(row.pieces), row.closes, row.docket.attaches, row.docket.quick, row.guessed, row.spent, f"draft {row.docket.version}",
            tuple(by_use_words(row.docket, show)),
        )
        for row in worn
    ]  # fmt: skip
    paper = PAPERS["letter"] if request.args.get("paper") == "letter" else PAPERS["a4"]
    title = f"{costume}, {'for dressing' if dresser else 'the book'}"
    data = book_pdf(title, about, book, leaves, pictures, careful, cloth, paper, show, dresser=dresser)
    return handed(data, f"{title} of {wearer.name}.pdf", "application/pdf")
