"""Pages of words and tables as a PDF: their margins, and a foot that says what they are of."""

from __future__ import annotations

import io
from typing import Any

from reportlab.platypus import Flowable, SimpleDocTemplate

from widehem.core.output.pdf_pen import PLAIN, POINTS_PER_CM, load_fonts
from widehem.core.output.sheets import Paper
from widehem.core.units import Display

EDGE = 1.5 * POINTS_PER_CM  # points of margin


def wide_of(paper: Paper) -> float:
    """How wide a page is between its margins, points."""
    return paper.width * POINTS_PER_CM - 2 * EDGE


def bound(title: str, story: list[Flowable], paper: Paper, show: Display) -> bytes:
    """The pages, each with title, unit and number at its foot."""
    load_fonts()
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer, pagesize=(paper.width * POINTS_PER_CM, paper.height * POINTS_PER_CM), leftMargin=EDGE, rightMargin=EDGE, topMargin=EDGE,
        bottomMargin=EDGE, title=title, invariant=1, creator="Wide Hem",
    )  # fmt: skip

    def foot(canvas: Any, _document: object) -> None:
        canvas.setFont(PLAIN, 8)
        canvas.drawString(EDGE, EDGE * 0.55, f"{title} · lengths in {show.unit_words} · page {canvas.getPageNumber()}")

    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return buffer.getvalue()
