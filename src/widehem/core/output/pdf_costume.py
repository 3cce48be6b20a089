"""The sheet of a costume on paper: layer by layer from the skin outwards its figures, its pieces, what it needs, how it closes."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape
from typing import Any

from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import Flowable, KeepTogether, Paragraph, Table

from widehem.core.design.costume import Layer, closing_words, goes_over, rounds
from widehem.core.design.make import Made
from widehem.core.design.words import step_words
from widehem.core.marking.made import cut_rows, notions_of
from widehem.core.output.pdf_leaf import bound, wide_of
from widehem.core.output.pdf_pen import FIGURES, PLAIN, STRONG, load_fonts
from widehem.core.output.sheets import Paper
from widehem.core.units import Display
from widehem.core.values import record

_TITLE = ParagraphStyle("title", fontName=STRONG, fontSize=17, leading=21)
_LAYER = ParagraphStyle("layer", fontName=STRONG, fontSize=13, leading=17, spaceBefore=12)
_PART = ParagraphStyle("part", fontName=STRONG, fontSize=10, leading=14, spaceBefore=6)
_BODY = ParagraphStyle("body", fontName=PLAIN, fontSize=9.5, leading=12.5)
_RULES = [
    ("FONT", (0, 0), (-1, -1), PLAIN, 9), ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LINEBELOW", (0, 0), (-1, -1), 0.3, "#b9b2a6"),
    ("TOPPADDING", (0, 0), (-1, -1), 1.5), ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5), ("LEFTPADDING", (0, 0), (-1, -1), 0),
]  # fmt: skip


@record(frozen=True)
class Worn:
    """A layer with what was written about it: where it closes, how it holds to the rest, how it comes off in a hurry."""

    layer: Layer
    closes: str = ""
    attaches: str = ""
    quick: str = ""
    cloth: str = "cloth"


def costume_pdf(title: str, about: str, worn: Sequence[Worn], cautions: Sequence[str], paper: Paper, show: Display) -> bytes:
    """Every computed figure of a costume before the first line is drawn, and its pieces layer by layer. about: whose it is."""
    load_fonts()
    wide = wide_of(paper)
    story: list[Flowable] = [Paragraph(escape(title), _TITLE), Paragraph(escape(about), _BODY)]
    story += [Paragraph(f"<font name='{STRONG}'>Caution.</font> {escape(line)}", _BODY) for line in cautions]
    layers = [entry.layer for entry in worn]
    story += _order(worn, wide, show)
    story += _round(layers, wide, show)
    for number, (entry, over) in enumerate(zip(worn, goes_over(layers), strict=True), 1):
        story.append(Paragraph(escape(f"{number} {entry.layer.name}"), _LAYER))
        story.append(Paragraph(escape(over.saying.text(show)), _BODY))
        made = entry.layer.made
        if made is None:
            story.append(Paragraph(escape(entry.layer.wrong.text(show) if entry.layer.wrong else "It cannot be drawn."), _BODY))
            continue
        story += _pieces(made, entry.cloth, wide, show)
        story += _design(made, wide, show)
        story += _figures(made, wide, show)
    return bound(title, story, paper, show)


def _cell(text: str) -> Paragraph:
    return Paragraph(escape(text), _BODY)


def _order(worn: Sequence[Worn], wide: float, show: Display) -> list[Flowable]:
    """What is put on over what, how each closes and holds, and how it comes off in a hurry."""
    rows: list[list[Any]] = [["", "From the skin outwards", "Closes", "Holds", "In a hurry"]]
    for number, entry in enumerate(worn, 1):
        closes = entry.closes
        if not closes and entry.layer.made is not None:
            closes = " ".join(words.text(show) for words in closing_words(entry.layer.made))
        rows.append([str(number), *map(_cell, (entry.layer.name, closes, entry.attaches, entry.quick))])
    columns = [wide * part for part in (0.04, 0.24, 0.24, 0.2, 0.28)]
    return [Paragraph("Put on in this order", _PART), Table(rows, columns, repeatRows=1, hAlign="LEFT", style=_RULES)]


def _round(layers: Sequence[Layer], wide: float, show: Display) -> list[Flowable]:
    found = rounds(layers)
    if not found:
        return []
    rows: list[list[Any]] = [["Round", "Body", *(str(n) for n in range(1, len(layers) + 1)), "How they lie"]]
    for level in found:
        girths = ["" if girth is None else show.length(girth) for girth in level.girths]
        words = " ".join(entry.text(show) for entry in level.words)
        rows.append([_cell(level.title), show.length(level.body), *girths, _cell(words)])
    each = min(0.4 / (len(layers) + 1), 0.1)
    columns = [wide * part for part in (0.16, each, *([each] * len(layers)), 0.84 - each * (len(layers) + 1))]
    figures = [
        ("FONT", (1, 1), (-2, -1), FIGURES, 9),
        ("ALIGN", (1, 0), (-2, -1), "RIGHT"),
        ("LEFTPADDING", (-1, 0), (-1, -1), 8),
    ]
    return [
        Paragraph("Finished girths, by layer", _PART),
        Table(rows, columns, repeatRows=1, hAlign="LEFT", style=[*_RULES, *figures]),
    ]


def _pieces(made: Made, cloth: str, wide: float, show: Display) -> list[Flowable]:
    rows = [[_cell(row.piece), _cell(row.cut), _cell(row.material)] for row in cut_rows(made.garment.pieces, cloth, show)]
    head = Paragraph(f"Pieces: {len(made.garment.pieces)}", _PART)
    table = Table(rows, [wide * part for part in (0.44, 0.28, 0.28)], hAlign="LEFT", style=_RULES)
    needs = (
        [Paragraph(escape("Needs: " + "; ".join(need.rstrip(".") for need in found) + "."), _BODY)]
        if (found := notions_of(made, show))
        else []
    )
    return [KeepTogether([head, table]), *needs]


def _design(made: Made, wide: float, show: Display) -> list[Flowable]:
    """What the design changes of the block, step by step, with what it came to on this body."""
    steps = [step for step in made.design.steps if not step.off]
    if not steps:
        return []
    rows = []
    for number, step in enumerate(steps, 2):
        said = " ".join(note.text(show) for note, of in zip(made.notes, made.told, strict=True) if of == step.id)
        rows.append([str(number), _cell(step_words(step).text(show)), _cell(said)])
    return [
        Paragraph("Steps of the design", _PART),
        Table(rows, [wide * part for part in (0.05, 0.45, 0.5)], hAlign="LEFT", style=_RULES),
    ]


def _figures(made: Made, wide: float, show: Display) -> list[Flowable]:
    """Every sum of the draft in its order: what it is, how it was worked out, the figure."""
    rows: list[list[Any]] = []
    for step in made.steps:
        for n, line in enumerate(step.sums):
            quantity = line.quantity
            working = quantity.working(show) if quantity.parts and quantity.sign != "as drawn from" else ""
            rows.append([f"{step.number}" if n == 0 else "", _cell(line.name), _cell(working), quantity.figure(show)])
    if not rows:
        return []
    columns = [wide * part for part in (0.05, 0.37, 0.44, 0.14)]
    figures = [("FONT", (3, 0), (3, -1), FIGURES, 9), ("ALIGN", (3, 0), (3, -1), "RIGHT")]
    return [Paragraph("Figures of the draft", _PART), Table(rows, columns, hAlign="LEFT", style=[*_RULES, *figures])]
