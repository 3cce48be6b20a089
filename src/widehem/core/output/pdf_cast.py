"""Who wears what, with which alteration: the plan of a cast on paper, to be ticked off."""

from __future__ import annotations

from html import escape

from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import Flowable, Paragraph, Table

from widehem.core.grading.cast import CastPlan, Wears
from widehem.core.output.pdf_leaf import bound, wide_of
from widehem.core.output.pdf_pen import PLAIN, POINTS_PER_CM, STRONG, load_fonts
from widehem.core.output.sheets import Paper
from widehem.core.units import Display

_TITLE = ParagraphStyle("title", fontName=STRONG, fontSize=17, leading=21)
_PART = ParagraphStyle("part", fontName=STRONG, fontSize=12, leading=16, spaceBefore=10)
_BODY = ParagraphStyle("body", fontName=PLAIN, fontSize=9.5, leading=12.5)
_RULES = [
    ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LINEBELOW", (0, 0), (-1, -1), 0.3, "#b9b2a6"), ("TOPPADDING", (0, 0), (-1, -1), 2),
    ("BOTTOMPADDING", (0, 0), (-1, -1), 2), ("LEFTPADDING", (0, 0), (-1, -1), 0), ("BOX", (0, 0), (0, -1), 0.6, "#1b2a4a"), ("INNERGRID", (0, 0), (0, -1), 0.6, "#1b2a4a"),
]  # fmt: skip


def cast_pdf(title: str, about: str, plan: CastPlan, paper: Paper, show: Display) -> bytes:
    """The plan by size, then who needs a draft of their own; a box before every name."""
    load_fonts()
    wide = wide_of(paper)
    proven = "Nothing better can be." if plan.proven else "The best found in the time; it is not proven that nothing is better."
    story: list[Flowable] = [Paragraph(escape(title), _TITLE), Paragraph(escape(f"{about} {proven}"), _BODY)]
    for size in plan.sizes:
        story += [Paragraph(escape(size), _PART), _table(plan.wearing(size), wide, show)]
    if plan.own:
        story += [Paragraph("A draft of their own", _PART), _table(plan.own, wide, show)]
    return bound(title, story, paper, show)


def _table(rows: tuple[Wears, ...], wide: float, show: Display) -> Table:
    cells = [["", Paragraph(escape(wears.person.name), _BODY), Paragraph(escape(told(wears, show)), _BODY)] for wears in rows]
    box = 0.55 * POINTS_PER_CM
    table = Table(cells, colWidths=[box, wide * 0.3, wide * 0.7 - box])
    table.setStyle(_RULES)
    return table


def told(wears: Wears, show: Display) -> str:
    """What is done for a wearer, in a sentence."""
    if wears.fit is None:
        return wears.why.text(show) if wears.why is not None else ""
    words = ", ".join(one.saying().text(show) for one in wears.fit.alterations)
    return f"{words[:1].upper()}{words[1:]}." if words else "As it is."
