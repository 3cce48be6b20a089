"""The method card: every step with this wearer's figures, to draft by hand at the table."""

from __future__ import annotations

import io
from html import escape
from typing import Any

from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.design.cautions import cautions
from widehem.core.design.make import Made
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.labels import Heading
from widehem.core.output.pdf_pen import FIGURES, PLAIN, POINTS_PER_CM, STRONG, load_fonts, on_paper, stroke
from widehem.core.output.sheets import Paper
from widehem.core.units import METRIC, Display

_TITLE = ParagraphStyle("title", fontName=STRONG, fontSize=17, leading=21)
_HEAD = ParagraphStyle("head", fontName=STRONG, fontSize=11.5, leading=15)
_BODY = ParagraphStyle("body", fontName=PLAIN, fontSize=10, leading=13.5)
_FIGURE = ParagraphStyle("figure", fontName=FIGURES, fontSize=9.5, leading=12.5, leftIndent=12)
_ROOM_HIGH = 8.5


class _Sketch(Flowable):  # type: ignore[misc]
    """The finished draft, small, with its letters."""

    def __init__(self, draft: Made, wide: float) -> None:
        super().__init__()
        self.draft = draft
        lefts, tops, rights, bottoms = zip(*(piece.bounds for piece in draft.laid), strict=True)
        self.left, self.top = min(lefts), min(tops)
        self.small = min((wide - 2) / (max(rights) - self.left), (_ROOM_HIGH - 1.8) / (max(bottoms) - self.top))
        self.width, self.height = wide * POINTS_PER_CM, _ROOM_HIGH * POINTS_PER_CM

    def draw(self) -> None:
        canvas: Any = self.canv
        canvas.saveState()
        canvas.translate(
            (1 - self.left * self.small) * POINTS_PER_CM, self.height + (self.top * self.small - 1.0) * POINTS_PER_CM
        )
        place = on_paper(self.small)
        for piece in self.draft.laid:
            stroke(canvas, piece.ring, "grain", place, closed=True)
            for dart in piece.darts:
                stroke(canvas, [Path.through(dart.inner, dart.point, dart.outer)], "thin", place)
            for inside in piece.inside:
                stroke(canvas, [inside], "thin", place)
        canvas.setFont(STRONG, 8)
        middle = (self.left + max(piece.bounds[2] for piece in self.draft.laid)) / 2
        for mark in self.draft.marks:
            if mark.letter and mark.at is not None:
                x, y = place(Point(mark.at.x, mark.at.y))
                canvas.circle(x, y, 1.3, stroke=0, fill=1)
                canvas.drawString(x + (3 if mark.at.x > middle else -8), y + 3, mark.letter)
        canvas.restoreState()


def card_pdf(draft: Made, heading: Heading, paper: Paper, show: Display = METRIC) -> bytes:
    """The steps of a draft with their arithmetic, as a PDF on sheets of this paper."""
    load_fonts()
    buffer = io.BytesIO()
    size = (paper.width * POINTS_PER_CM, paper.height * POINTS_PER_CM)
    edge = 1.6 * POINTS_PER_CM
    title = f"{draft.method.name}: method card"
    document = SimpleDocTemplate(
        buffer, pagesize=size, leftMargin=edge, rightMargin=edge, topMargin=edge, bottomMargin=edge, title=title, invariant=1,
            creator="Wide Hem"
    )  # fmt: skip
    line = " · ".join(
        part for part in (heading.wearer, heading.costume, heading.production, heading.date, heading.version) if part
    )
    story: list[Flowable] = [Paragraph(escape(title), _TITLE)]
    if line:
        story.append(Paragraph(escape(line), _BODY))
    story += [Paragraph(f"<font name='{STRONG}'>Caution.</font> {escape(caution)}", _BODY) for caution in heading.cautions]
    story += [
        Paragraph(f"<font name='{STRONG}'>Caution.</font> {escape(danger.saying.text(show))}", _BODY)
        for danger in cautions(draft)
    ]
    story += [Paragraph(f"<font name='{STRONG}'>Accepted.</font> {escape(line)}", _BODY) for line in heading.accepted]
    if heading.house:
        story.append(Paragraph(f"<font name='{STRONG}'>The house's.</font> {escape('; '.join(heading.house))}", _BODY))
    story += [Spacer(1, 8), _figures(draft, show), Spacer(1, 6)]
    story += [Paragraph(escape(note.text(show)), _BODY) for note in draft.notes]
    story.append(_Sketch(draft, paper.width - 3.2))
    for step in draft.steps:
        rows: list[Flowable] = [
            Paragraph(f"{step.number}&nbsp;&nbsp;{escape(step.title)}", _HEAD),
            Paragraph(escape(step.text.text(show)), _BODY),
        ]
        for entry in step.sums:
            quantity = entry.quantity
            working = quantity.working(show)
            whole = (
                f"{entry.name}: {working} = {quantity.figure(show)}"
                if quantity.parts
                else f"{entry.name} {quantity.figure(show)}"
            )
            rows.append(Paragraph(escape(f"{whole} {show.unit}"), _FIGURE))
        rows.append(Spacer(1, 5))
        story.append(KeepTogether(rows))

    def foot(canvas: Any, _document: object) -> None:
        canvas.setFont(PLAIN, 8)
        canvas.drawString(edge, edge * 0.55, f"{title}{' · ' + line if line else ''} · page {canvas.getPageNumber()}")

    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return buffer.getvalue()


def _figures(draft: Made, show: Display) -> Table:
    """Measures and ease, side by side."""
    measures = [(CATALOGUE[code].name, show.full(draft.chart.get(code) or 0.0)) for code in draft.measures_used()]
    ease = [(amount.name.capitalize(), show.full(amount.value)) for amount in draft.ease.values()]
    settings = [
        (
            draft.method.option(code).name,
            _choice(draft, code, value) if isinstance(value, str) else _amount(draft, code, float(value), show),
        )
        for code, value in draft.options.items()
    ]
    left = measures + ease
    rows = []
    for i in range(max(len(left), len(settings))):
        a = left[i] if i < len(left) else ("", "")
        b = settings[i] if i < len(settings) else ("", "")
        rows.append([*a, "", *b])
    return Table(
        rows,
        hAlign="LEFT",
        style=[
            ("FONT", (0, 0), (-1, -1), PLAIN, 9),
            ("FONT", (1, 0), (1, -1), FIGURES, 9),
            ("TOPPADDING", (0, 0), (-1, -1), 1),
            ("BOTTOMPADDING", (0, 0), (-1, -1), 1),
            ("LINEBELOW", (0, 0), (1, len(left) - 1), 0.3, "#888888"),
            ("LINEBELOW", (3, 0), (4, -1), 0.3, "#888888"),
        ],
    )


def _amount(draft: Made, code: str, value: float, show: Display) -> str:
    return f"{value:g}" if draft.method.option(code).kind == "number" else show.full(value)


def _choice(draft: Made, code: str, value: str) -> str:
    return next((choice.name for choice in draft.method.option(code).choices if choice.code == value), value)
