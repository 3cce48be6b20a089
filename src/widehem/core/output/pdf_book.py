"""The book of a costume on paper: for the workroom with pieces, hours and costs; for the dresser with how it is put on and comes off."""

from __future__ import annotations

import io
from collections.abc import Sequence
from html import escape
from typing import Any

from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.utils import ImageReader
from reportlab.platypus import Flowable, Image, KeepTogether, Paragraph, Table

from widehem.core.making.book import SIDES, CostumeBook
from widehem.core.output.pdf_leaf import bound, wide_of
from widehem.core.output.pdf_pen import PLAIN, STRONG, load_fonts
from widehem.core.output.sheets import Paper
from widehem.core.units import Display
from widehem.core.values import record

TITLE = ParagraphStyle("title", fontName=STRONG, fontSize=19, leading=23)
PART = ParagraphStyle("part", fontName=STRONG, fontSize=13, leading=17, spaceBefore=12)
BODY = ParagraphStyle("body", fontName=PLAIN, fontSize=10.5, leading=14)
SMALL = ParagraphStyle("small", fontName=PLAIN, fontSize=9, leading=12)
RULES = [
    ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LINEBELOW", (0, 0), (-1, -1), 0.3, "#000000"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
    ("TOPPADDING", (0, 0), (-1, -1), 2), ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
]  # fmt: skip
ACROSS, HIGH = 3, 150.0  # pictures side by side; points high at most


@record(frozen=True)
class Leaf:
    """A garment in a book: its name, what is cut for it, how it closes and holds, minutes thought and spent, its version."""

    name: str
    pieces: tuple[str, ...]
    closes: str
    attaches: str
    quick: str
    guessed: float
    spent: float
    version: str
    cautions: tuple[str, ...] = ()


def book_pdf(
    title: str, about: str, book: CostumeBook, leaves: Sequence[Leaf], pictures: Sequence[bytes | None], cautions: Sequence[str], spent: float,
    paper: Paper, show: Display, *, dresser: bool,
) -> bytes:  # fmt: skip
    """The pages. pictures: the data of those of the book, in its order; spent: on cloth that was laid, besides its own costs; dresser: for
    whoever dresses the wearer, without hours and costs."""
    load_fonts()
    wide = wide_of(paper)
    story: list[Flowable] = [Paragraph(escape(title), TITLE), Paragraph(escape(about), BODY)]
    if book.about:
        story.append(Paragraph(escape(book.about), BODY))
    story += _pictures(book, pictures, wide)
    careful = dict.fromkeys((*cautions, *(line for leaf in leaves for line in leaf.cautions)))
    if careful:
        story += [Paragraph("With care", PART), *(Paragraph(escape(line), BODY) for line in careful)]
    story += _worn(book, leaves, wide)
    story += _changes(book, wide)
    if not dresser:
        story += _made(leaves, wide)
        story += _money(book, spent)
        if book.wrong:
            story.append(Paragraph("What went wrong", PART))
            story += [Paragraph(f"{escape(row.on)}: {escape(row.words)}", BODY) for row in book.wrong]
    return bound(title, story, paper, show)


def _pictures(book: CostumeBook, pictures: Sequence[bytes | None], wide: float) -> list[Flowable]:
    cells: list[Any] = []
    for shot, data in zip(book.shots, pictures, strict=True):
        if data is None:
            continue
        across, high = ImageReader(io.BytesIO(data)).getSize()
        scale = min(HIGH / high, (wide / ACROSS - 10) / across)
        words = f"{SIDES[shot.side]}{f': {shot.words}' if shot.words else ''}"
        cells.append([Image(io.BytesIO(data), across * scale, high * scale), Paragraph(escape(words), SMALL)])
    if not cells:
        return []
    rows = [cells[n : n + ACROSS] for n in range(0, len(cells), ACROSS)]
    rows[-1] += [""] * (ACROSS - len(rows[-1]))
    table = Table(rows, colWidths=[wide / ACROSS] * ACROSS, hAlign="LEFT")
    table.setStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0)])
    return [Paragraph("Pictures", PART), table]


def _cell(text: str) -> Paragraph:
    return Paragraph(escape(text or "–"), SMALL)


def _worn(book: CostumeBook, leaves: Sequence[Leaf], wide: float) -> list[Flowable]:
    rows: list[list[Any]] = [
        [_cell(""), _cell("From the skin outwards"), _cell("Closes"), _cell("Holds to the rest"), _cell("In a hurry")]
    ]
    for number, leaf in enumerate(leaves, 1):
        rows.append([_cell(str(number)), *map(_cell, (leaf.name, leaf.closes, leaf.attaches, leaf.quick))])
    found: list[Flowable] = [Paragraph("Put on in this order", PART)]
    if book.under:
        found.append(Paragraph(f"Underneath: {escape(book.under)}", BODY))
    table = Table(
        rows, colWidths=[wide * part for part in (0.05, 0.25, 0.24, 0.22, 0.24)], repeatRows=1, hAlign="LEFT", style=RULES
    )
    return [*found, table]


def _changes(book: CostumeBook, wide: float) -> list[Flowable]:
    if not book.changes:
        return []
    rows: list[list[Any]] = [[_cell("When"), _cell("Who"), _cell("Opens what"), _cell("In")]]
    for row in book.changes:
        rows.append(
            [
                _cell(row.when),
                _cell(row.who),
                _cell(row.what),
                _cell(f"{f'{row.seconds} s' if row.seconds else ''}{', in the dark' if row.dark else ''}"),
            ]
        )
    table = Table(rows, colWidths=[wide * part for part in (0.22, 0.2, 0.38, 0.2)], repeatRows=1, hAlign="LEFT", style=RULES)
    return [KeepTogether([Paragraph("Quick changes", PART), table])]


def _made(leaves: Sequence[Leaf], wide: float) -> list[Flowable]:
    found: list[Flowable] = [Paragraph("Pieces and hours", PART)]
    for leaf in leaves:
        thought = f"about {leaf.guessed / 60:.1f} h thought, " if leaf.guessed else ""
        hours = f"{thought}{leaf.spent / 60:.1f} h written down"
        found.append(Paragraph(f"<b>{escape(leaf.name)}</b>, {escape(leaf.version)}: {hours}", BODY))
        found.append(Paragraph(escape("; ".join(leaf.pieces) or "It cannot be drawn as it is kept."), SMALL))
    return found


def _money(book: CostumeBook, spent: float) -> list[Flowable]:
    rows = [f"{cost.words}: {cost.amount:.2f}" for cost in book.costs]
    if spent:
        rows.append(f"Cloth, as laid: {spent:.2f}")
    whole = book.spent + spent
    if not rows and not book.budget:
        return []
    left = f" of {book.budget:.2f}: {book.budget - whole:.2f} left" if book.budget else ""
    return [
        Paragraph("Costs", PART),
        *(Paragraph(escape(row), BODY) for row in rows),
        Paragraph(f"<b>Together {whole:.2f}{left}</b>", BODY),
    ]
