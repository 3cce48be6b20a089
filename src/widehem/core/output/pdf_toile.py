"""The toile sheet: what the toile measures beside the chart with room for the tape, the room in it, and what to do before and at the
fitting."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape
from typing import Any

from reportlab.graphics.shapes import Drawing, Line, Polygon, String
from reportlab.lib.colors import HexColor
from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import Flowable, KeepTogether, Paragraph, Table

from widehem.core.fitting.around import Around
from widehem.core.fitting.stand import StandRow
from widehem.core.fitting.words import BEFORE, FIRST_ROUND, LATER_ROUNDS
from widehem.core.output.pdf_leaf import bound, wide_of
from widehem.core.output.pdf_pen import PLAIN, STRONG, load_fonts
from widehem.core.output.sheets import Paper
from widehem.core.units import Display

_TITLE = ParagraphStyle("title", fontName=STRONG, fontSize=17, leading=21)
_PART = ParagraphStyle("part", fontName=STRONG, fontSize=12, leading=16, spaceBefore=10)
_BODY = ParagraphStyle("body", fontName=PLAIN, fontSize=9.5, leading=12.5)
_HEAD = ("Measure", "body", "garment", "has more", "usually", "by tape")
INK, SHADE = "#1b2a4a", "#e3d7bc"
HIGH, HALF = 150.0, 0.3  # points high at most; of a girth to each side, as the drawing has it


def toile_pdf(title: str, about: str, rows: Sequence[StandRow], curves: Sequence[Around], paper: Paper, show: Display) -> bytes:
    """One or two pages to lay beside the toile."""
    load_fonts()
    wide = wide_of(paper)
    story: list[Flowable] = [Paragraph(escape(title), _TITLE), Paragraph(escape(about), _BODY)]
    for kind, words in (("read", "The draft was drawn from these"), ("witness", "The draft never looked at these")):
        mine = [row for row in rows if row.kind == kind]
        if mine:
            story += [Paragraph(words, _PART), _table(mine, wide, show)]
    strange = [row for row in rows if row.strange]
    if strange:
        story.append(Paragraph("Not as usual", _PART))
        story += [Paragraph(escape(f"{row.name}: {row.saying.text(show)}"), _BODY) for row in strange]
    for curve in curves:
        words = "Room round one leg" if curve.limb else "Room round the body"
        story.append(
            KeepTogether([Paragraph(words, _PART), Paragraph(escape(curve.saying.text(show)), _BODY), _room(curve, wide, show)])
        )
    for words, lines in (("Before it is put on", BEFORE), ("The first round", FIRST_ROUND), ("Later rounds", LATER_ROUNDS)):
        story.append(KeepTogether([Paragraph(words, _PART), *(Paragraph(f"□ {escape(line)}", _BODY) for line in lines)]))
    return bound(title, story, paper, show)


def _table(rows: Sequence[StandRow], wide: float, show: Display) -> Table:
    cells = [list(_HEAD)]
    for row in rows:
        usual = "" if row.usual is None else show.signed(row.usual)
        cells.append([row.name, show.length(row.body), show.length(row.toile), show.signed(row.ease), usual, ""])
    table = Table(cells, colWidths=[wide * part for part in (0.34, 0.12, 0.13, 0.13, 0.12, 0.16)], repeatRows=1)
    style: list[Any] = [
        ("FONT", (0, 0), (-1, 0), STRONG, 8.5), ("FONT", (0, 1), (-1, -1), PLAIN, 9.5), ("ALIGN", (1, 0), (-1, -1), "RIGHT"),
        ("LINEBELOW", (0, 0), (-1, -1), 0.3, "#b9b2a6"), ("BOX", (-1, 1), (-1, -1), 0.6, INK), ("INNERGRID", (-1, 1), (-1, -1), 0.6, INK),
        ("TOPPADDING", (0, 0), (-1, -1), 1.5), ("BOTTOMPADDING", (0, 0), (-1, -1), 2.5), ("LEFTPADDING", (0, 0), (0, -1), 0),
    ]  # fmt: skip
    style += [("FONT", (0, number), (-2, number), STRONG, 9.5) for number, row in enumerate(rows, 1) if row.strange]
    table.setStyle(style)
    return table


def _room(curve: Around, wide: float, show: Display) -> Drawing:
    """The garment round the body, as on the screen."""
    levels = curve.levels
    tall = levels[-1].down - levels[0].down
    scale = min(HIGH / tall, wide * 0.5 / (2 * HALF * max(level.garment for level in levels)))
    middle, top = wide / 2, tall * scale + 8
    drawing = Drawing(wide, top + 8)

    def outline(row: list[tuple[float, float]]) -> list[float]:
        right = [(middle + girth * HALF * scale, top - (down - levels[0].down) * scale) for down, girth in row]
        left = [(2 * middle - x, y) for x, y in reversed(right)]
        return [value for spot in (*right, *left) for value in spot]

    body = [(level.down, level.body) for level in levels if level.body is not None]
    if len(body) > 1:
        drawing.add(Polygon(outline(body), fillColor=HexColor(SHADE), strokeColor=None))
    drawing.add(
        Polygon(
            outline([(level.down, level.garment) for level in levels]), fillColor=None, strokeColor=HexColor(INK), strokeWidth=1
        )
    )
    last = top + 20.0
    for level in curve.named:
        y = top - (level.down - levels[0].down) * scale
        at = min(y, last - 10)
        last = at
        reach = level.garment * HALF * scale
        drawing.add(Line(middle + reach, y, middle + wide * 0.3, at, strokeColor=HexColor("#8a8166"), strokeWidth=0.4))
        room = "" if level.room is None else show.signed(level.room)
        drawing.add(
            String(middle + wide * 0.31, at - 3, f"{level.name.replace('_', ' ')} {room}", fontName=PLAIN, fontSize=8.5)
        )
    return drawing
