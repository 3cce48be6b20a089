"""A table of shift rules as a grading ruler in true size: a card for each spot, to be printed, glued on card and cut out."""

from __future__ import annotations

import io
from collections.abc import Iterator, Mapping

from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from widehem.core.grading.tables import KINDS, Rule, RuleTable
from widehem.core.output.pdf_first import squares, words_at
from widehem.core.output.pdf_pen import PLAIN, POINTS_PER_CM, load_fonts
from widehem.core.output.pdf_sheets import with_corner
from widehem.core.output.sheets import TEST_CM, Paper
from widehem.core.units import METRIC, Display
from widehem.core.values import record

CM = POINTS_PER_CM
STEPS = 3  # sizes either side of the base
EDGE, HEAD, LEAST = 0.5, 1.25, 3.4  # cm: round the dots, for the words, the least width of a card
NEAR = 0.06  # cm: dots nearer to each other than that are one
NAMES = 1.4  # cm from the bottom of the squares to the first card


def ruler_pdf(table: RuleTable, paper: Paper, show: Display = METRIC) -> bytes:
    """All cards of a table on sheets of this paper, true size."""
    load_fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pageCompression=1, invariant=1)
    canvas.setTitle(f"{table.name}, grading ruler")
    canvas.setCreator("Wide Hem")
    wide, high = paper.tile
    sheet = _Sheet(canvas, paper, wide, high)
    sheet.begin()
    words_at(canvas, 0, -0.6, f"Grading ruler: {table.name}", 15, strong=True)
    told = (
        f"A step stands for {show.full(table.unit)} of girth. Print at 100 %, lay a ruler on both squares, glue it on card and cut the cards out. "
        "Lay the cross on the point of the base, the long edge parallel to the centre, and prick through the dot of the size."
    )
    lines = simpleSplit(told, PLAIN, 10, wide * CM)
    for number, line in enumerate(lines):
        words_at(canvas, 0, -1.3 - 0.5 * number, line, 10)
    down = 1.3 + 0.5 * len(lines) + TEST_CM
    squares(canvas, 0, -down)
    sheet.down = down + NAMES
    for kind, title in KINDS.items():
        if cards := list(_cards(table, kind)):
            sheet.headed(title)
            for card in cards:
                sheet.card(card, show)
            sheet.row_ends()
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


@record(frozen=True)
class _Card:
    """What is on one card: the spot, how far it moves a step at first, where its dots are by the number of steps, out and up, cm."""

    name: str
    rule: Rule
    dots: Mapping[int, tuple[float, float]]


def _cards(table: RuleTable, kind: str) -> Iterator[_Card]:
    """The cards of a kind, its rules from a size on among them; a spot that does not move makes none."""
    rules = {rule.pattern: rule for rule in table.rules_of(kind)}
    for since in table.bands:
        for rule in table.rules_of(kind, since):
            rules.setdefault(rule.pattern, Rule(rule.pattern, 0.0, 0.0))
    for pattern, rule in rules.items():
        dots = {step: table.moved(kind, pattern, step) for step in range(-STEPS, STEPS + 1) if step}
        if any(abs(out) + abs(up) > 1e-9 for out, up in dots.values()):
            yield _Card(pattern.partition(" or ")[0], rule, dots)


class _Sheet:
    """Where the next card goes."""

    def __init__(self, canvas: Canvas, paper: Paper, wide: float, high: float) -> None:
        self.canvas, self.paper, self.wide, self.high = canvas, paper, wide, high
        self.down = self.across = self.row = 0.0

    def begin(self) -> None:
        self.canvas.setPageSize((self.paper.width * CM, self.paper.height * CM))
        with_corner(self.canvas, self.paper, self.paper.height)
        self.down = self.across = self.row = 0.0

    def room(self, high: float) -> None:
        if self.down + high > self.high:
            self.canvas.showPage()
            self.begin()

    def headed(self, title: str) -> None:
        self.room(6.0)
        words_at(self.canvas, 0, -self.down - 0.5, title, 12, strong=True)
        self.down += 0.8

    def row_ends(self) -> None:
        self.down, self.across, self.row = self.down + self.row + (0.4 if self.row else 0.0), 0.0, 0.0

    def card(self, card: _Card, show: Display) -> None:
        """One card: a cross for the base, a dot for each size, the long edge at its left."""
        name, rule = card.name, card.rule
        out, up = (max(abs(dot[way]) for dot in card.dots.values()) for way in (0, 1))
        wide, high = max(2 * out + 2 * EDGE + 0.6, LEAST), 2 * up + 2 * EDGE + HEAD + 0.6
        if self.across + wide > self.wide:
            self.row_ends()
        self.room(high)
        if not self.across:
            self.row = 0.0
        canvas, x, y = self.canvas, self.across, -self.down
        canvas.setLineWidth(0.5)
        canvas.setDash()
        canvas.rect(x * CM, (y - high) * CM, wide * CM, high * CM)
        canvas.setLineWidth(2.0)
        canvas.line(x * CM, y * CM, x * CM, (y - high) * CM)  # the edge that is kept parallel to the centre
        words_at(canvas, x + 0.2, y - 0.45, name[: int(wide * 5)], 8.5, strong=True)
        words_at(canvas, x + 0.2, y - 0.85, f"{_fine(show).signed(rule.out, 2)} out, {_fine(show).signed(rule.up, 2)} up", 7.5)
        base_x, base_y = x + wide / 2, y - HEAD - (high - HEAD) / 2
        canvas.setLineWidth(0.6)
        for dx, dy in ((0.35, 0.0), (0.0, 0.35)):
            canvas.line((base_x - dx) * CM, (base_y - dy) * CM, (base_x + dx) * CM, (base_y + dy) * CM)
        for step, (right, above) in card.dots.items():
            if abs(right) + abs(above) > NEAR:
                at_x, at_y = base_x + right, base_y + above
                canvas.circle(at_x * CM, at_y * CM, 0.04 * CM, stroke=0, fill=1)
                words_at(canvas, at_x + 0.09, at_y + 0.07, f"{step:+d}".replace("-", "−"), 6)
        self.across += wide + 0.4
        self.row = max(self.row, high)


def _fine(show: Display) -> Display:
    """As shifts are said: in inches to a sixty-fourth."""
    return Display(show.unit, 64)
