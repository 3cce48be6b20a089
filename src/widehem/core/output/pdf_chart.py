"""The chart on paper: blank to fill by hand, or filled, with the instruction beside each measure."""

from __future__ import annotations

import io
from collections.abc import Sequence
from html import escape
from typing import Any

from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import Flowable, Paragraph, SimpleDocTemplate, Spacer, Table

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES, Chart, Reading
from widehem.core.body.chart_file import FiledChart
from widehem.core.output.pdf_pen import FIGURES, PLAIN, POINTS_PER_CM, STRONG, load_fonts
from widehem.core.output.sheets import Paper
from widehem.core.units import Display, Length

FIELD_HIGH = 0.9  # cm: room to write by hand
_TITLE = ParagraphStyle("title", fontName=STRONG, fontSize=17, leading=21)
_ZONE = ParagraphStyle("zone", fontName=STRONG, fontSize=12, leading=16, spaceBefore=8)
_SMALL = ParagraphStyle("small", fontName=PLAIN, fontSize=8, leading=9.6)
_NAME = ParagraphStyle("name", fontName=STRONG, fontSize=10, leading=11.5)
_BODY = ParagraphStyle("body", fontName=PLAIN, fontSize=10, leading=14)


def chart_pdf(about: FiledChart, chart: Chart, codes: Sequence[str], paper: Paper, show: Display, *, blank: bool) -> bytes:
    """These measures as a sheet on this paper. blank: fields to fill by hand, two for each measure; else the readings."""
    load_fonts()
    buffer = io.BytesIO()
    edge = 1.5 * POINTS_PER_CM
    title = f"Chart of {about.wearer}" if about.wearer else "Chart"
    document = SimpleDocTemplate(
        buffer, pagesize=(paper.width * POINTS_PER_CM, paper.height * POINTS_PER_CM), leftMargin=edge, rightMargin=edge,
            topMargin=edge,
        bottomMargin=edge, title=title, invariant=1, creator="Wide Hem",
    )  # fmt: skip
    story: list[Flowable] = [Paragraph(escape(title), _TITLE), Paragraph(_about(about, blank=blank), _BODY)]
    story += [Paragraph(f"<font name='{STRONG}'>Caution.</font> {escape(line)}", _BODY) for line in about.cautions]
    zones: dict[str, list[str]] = {}
    for code in codes:
        zones.setdefault(CATALOGUE[code].zone, []).append(code)
    wide = paper.width - 3.0
    for zone, inside in zones.items():
        story += [Paragraph(zone, _ZONE), _table(chart, inside, wide, show, blank=blank), Spacer(1, 2)]

    def foot(canvas: Any, _document: object) -> None:
        canvas.setFont(PLAIN, 8)
        canvas.drawString(edge, edge * 0.55, f"{title} · lengths in {show.unit_words} · page {canvas.getPageNumber()}")

    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return buffer.getvalue()


def _about(about: FiledChart, *, blank: bool) -> str:
    if blank:
        return "Read on ____________   by ________________   over ______________________   shoes ________________"
    words = [
        about.part,
        f"read on {about.read_on.isoformat()}" if about.read_on else "",
        f"by {about.read_by}" if about.read_by else "",
    ]
    words += [f"over {about.foundation}" if about.foundation else "", f"in {about.shoes}" if about.shoes else "", about.note]
    return escape(" · ".join(word for word in words if word))


def _table(chart: Chart, codes: Sequence[str], wide: float, show: Display, *, blank: bool) -> Table:
    rows: list[list[Any]] = []
    for code in codes:
        entry, reading = CATALOGUE[code], chart.readings.get(code)
        needs = "" if entry.alone else " (second person)"
        words = [Paragraph(escape(entry.name + needs), _NAME), Paragraph(escape(entry.how), _SMALL)]
        if not blank and reading is not None and reading.apart:
            words.append(Paragraph(escape(_apart(reading, show)), _SMALL))
        if not blank and reading is not None and reading.carried:
            words.append(Paragraph(f"carried over from {reading.carried.isoformat()}", _SMALL))
        turns = (None, None) if blank or reading is None else (reading.first, reading.second)
        kept = "" if blank or reading is None or reading.cm is None else show.length(reading.cm)
        if not blank and reading is not None and reading.hour:
            words.append(Paragraph(f"at {reading.hour}", _SMALL))
        elif blank and entry.of_the_hour:
            words.append(Paragraph("read at ____ : ____", _SMALL))
        rows.append([words, *(_figure(length, show) for length in turns), kept])
    columns = [wide - 6.6, 2.2, 2.2, 2.2]
    style = [
        ("FONT", (1, 0), (-1, -1), FIGURES, 11),
        ("FONT", (3, 0), (3, -1), STRONG, 12),
        ("ALIGN", (1, 0), (-1, -1), "RIGHT"),
        ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
        ("LINEBELOW", (0, 0), (-1, -1), 0.3, "#777777"),
        ("LEFTPADDING", (0, 0), (0, -1), 0),
        ("TOPPADDING", (0, 0), (-1, -1), 2),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 3),
        ("BOX", (1, 0), (1, -1), 0.5, "#000000"),
        ("BOX", (2, 0), (2, -1), 0.5, "#000000"),
        ("INNERGRID", (1, 0), (2, -1), 0.5, "#000000"),
    ]
    heights = None
    if blank:
        heights = [
            max(FIELD_HIGH * POINTS_PER_CM, sum(p.wrap(columns[0] * POINTS_PER_CM - 8, 1000)[1] for p in row[0]) + 6)
            for row in rows
        ]
    return Table(rows, colWidths=[column * POINTS_PER_CM for column in columns], rowHeights=heights, style=style, hAlign="LEFT")


def _apart(reading: Reading, show: Display) -> str:
    """'left 12.0 / 12.2, right 12.4'."""
    sides = []
    for side in SIDES:
        turns = reading.at(side)
        if turns:
            sides.append(f"{side} " + " / ".join(_figure(length, show) for length in (turns.first, turns.second) if length))
    return ", ".join(sides)


def _figure(length: Length | None, show: Display) -> str:
    return show.length(length.cm) if length else ""
