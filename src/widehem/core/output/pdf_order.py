"""The order of work on paper: every step with its reason, how it is done, and a box to tick."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape
from typing import Any

from reportlab.lib.colors import HexColor
from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import Flowable, KeepTogether, Paragraph, Table

from widehem.core.making.steps import Step
from widehem.core.output.pdf_leaf import bound, wide_of
from widehem.core.output.pdf_pen import PLAIN, STRONG, load_fonts
from widehem.core.output.sheets import Paper
from widehem.core.units import Display

TITLE = ParagraphStyle("title", fontName=STRONG, fontSize=17, leading=21)
PART = ParagraphStyle("part", fontName=STRONG, fontSize=12, leading=16, spaceBefore=9)
BODY = ParagraphStyle("body", fontName=PLAIN, fontSize=10, leading=13)
STEP = ParagraphStyle("step", fontName=STRONG, fontSize=12, leading=15)
WHY = ParagraphStyle("why", fontName=PLAIN, fontSize=9.5, leading=12)
INK = "#000000"
BOX, NUMBER = 20.0, 26.0  # points


def order_pdf(
    title: str, about: str, steps: Sequence[tuple[Step, bool, float]], cloth: Sequence[tuple[str, str]], cautions: Sequence[str],
    paper: Paper, show: Display,
) -> bytes:  # fmt: skip
    """The pages. steps: each with whether it is done and about how many minutes it takes; cloth: what it asks for, by heading."""
    load_fonts()
    wide = wide_of(paper)
    story: list[Flowable] = [Paragraph(escape(title), TITLE), Paragraph(escape(about), BODY)]
    if cautions:
        story += [Paragraph("With care", PART), *(Paragraph(escape(line), BODY) for line in cautions)]
    story.append(Paragraph("The cloth", PART))
    story += [Paragraph(f"<b>{escape(heading)}:</b> {escape(words)}", BODY) for heading, words in cloth]
    story.append(Paragraph("Step by step", PART))
    for number, (step, done, minutes) in enumerate(steps, 1):
        story.append(_step(number, step, done, minutes, wide, show))
    return bound(title, story, paper, show)


def _step(number: int, step: Step, done: bool, minutes: float, wide: float, show: Display) -> Flowable:
    often = f" · {step.times} times" if step.times > 1 else ""
    lines = [Paragraph(f"{escape(step.title)}{often}", STEP), Paragraph(f"<i>{escape(step.because.text(show))}</i>", WHY)]
    if step.how:
        lines.append(Paragraph(escape(" ".join(saying.text(show) for saying in step.how)), BODY))
    told = Paragraph(f"{minutes:.0f} min" if minutes else "", WHY)
    cells: list[list[Any]] = [["×" if done else "", f"{'+' if step.with_last else ''}{number}", lines, told]]
    table = Table(cells, colWidths=[BOX, NUMBER, wide - BOX - NUMBER - 46, 46])
    table.setStyle([
        ("BOX", (0, 0), (0, 0), 1.0, HexColor(INK)), ("VALIGN", (0, 0), (-1, -1), "TOP"), ("FONT", (1, 0), (1, 0), STRONG, 12),
        ("LINEABOVE", (1, 0), (-1, 0), 0.25, HexColor(INK)), ("TOPPADDING", (0, 0), (-1, -1), 2), ("BOTTOMPADDING", (0, 0), (-1, -1), 3),
        ("LEFTPADDING", (2, 0), (2, 0), 2),
    ])  # fmt: skip
    return KeepTogether([table])
