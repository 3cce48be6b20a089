"""The first page: what it is, how to print it, the squares to lay a ruler on, the cut list, the map of the sheets."""

from __future__ import annotations

from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.made import Pattern
from widehem.core.output.ink import ring_path
from widehem.core.output.pdf_pen import PLAIN, POINTS_PER_CM, STRONG, on_paper, stroke
from widehem.core.output.sheets import MARGIN, OVERLAP, TEST_CM, TEST_IN, Sheets
from widehem.core.output.titles import title_of
from widehem.core.units import CM_PER_INCH

CM = POINTS_PER_CM


def words_at(canvas: Canvas, x: float, y: float, text: str, size: float, *, strong: bool = False) -> None:
    canvas.setFont(STRONG if strong else PLAIN, size)
    canvas.drawString(x * CM, y * CM, text)


CAUTION_LINE, CAUTION_SIZE = 0.5, 10  # cm from line to line, points


def caution_lines(pattern: Pattern, wide: float) -> list[str]:
    """What protects whoever wears or sews it, broken into lines, cm wide."""
    return [line for words in pattern.cautions for line in simpleSplit(f"Caution. {words}", STRONG, CAUTION_SIZE, wide * CM)]


def write_cautions(canvas: Canvas, pattern: Pattern, x: float, y: float, wide: float) -> float:
    """Write what protects; returns how high that is, cm."""
    lines = caution_lines(pattern, wide)
    for i, line in enumerate(lines):
        words_at(canvas, x, y - i * CAUTION_LINE, line, CAUTION_SIZE, strong=True)
    return CAUTION_LINE * len(lines)


def squares(canvas: Canvas, x: float, y: float) -> None:
    """A 5 cm and a 2 inch square, their lower left corners at x, y and beside it, cm."""
    canvas.setLineWidth(0.8)
    canvas.setDash()
    inch = TEST_IN * CM_PER_INCH
    canvas.rect(x * CM, y * CM, TEST_CM * CM, TEST_CM * CM)
    canvas.rect((x + TEST_CM + 0.8) * CM, y * CM, inch * CM, inch * CM)
    for i in range(1, 5):
        canvas.line((x + i) * CM, y * CM, (x + i) * CM, (y + 0.25) * CM)
    words_at(canvas, x + 1.9, y + 2.4, "5 cm", 12, strong=True)
    words_at(canvas, x + TEST_CM + 2.7, y + 2.4, "2 in", 12, strong=True)


def first_page(canvas: Canvas, pattern: Pattern, sheets: Sheets, high: float) -> None:
    """What it is, how to print it, the test squares, and the map of the sheets. high: of the page, cm."""
    paper, head = sheets.paper, pattern.heading
    wide, _ = paper.tile
    words_at(canvas, 0, -0.8, title_of(pattern), 15, strong=True)
    printed = len(sheets.printed)
    allowed = f"{pattern.plan.name.lower()} allowances" if pattern.plan.code != "none" else "stitching lines without allowances"
    lines = [
        f"{sheets.words.capitalize()} on {printed} {'sheets' if printed > 1 else 'sheet'} of {pattern.show.words(paper.name)}, {allowed}.",
        "Print at 100 %: no fit to page, no shrinking. Then lay a ruler on both squares.",
        f"Lay the sheets over each other by {pattern.show.constant(OVERLAP)} {pattern.show.unit} so that the diamonds meet.",
    ]
    if paper.stretch != (1.0, 1.0):
        lines.append(
            f"Drawn for a printer whose {TEST_CM:g} cm come out as {_said(paper.stretch)}: here they have to be right."
        )
    if sheets.left_out:
        lines.append(f"Left out because nothing lies on them: {', '.join(tile.name for tile in sheets.left_out)}.")
    tail = " · ".join(part for part in (head.maker, head.date, head.version) if part)
    if tail:
        lines.append(tail)
    lines = [row for line in lines for row in simpleSplit(line, PLAIN, 10, wide * CM)]
    for i, line in enumerate(lines):
        words_at(canvas, 0, -1.7 - i * 0.6, line, 10)
    told = -1.7 - len(lines) * 0.6
    y = told - write_cautions(canvas, pattern, 0, told, wide) - TEST_CM
    squares(canvas, 0, y)
    x = TEST_CM + TEST_IN * CM_PER_INCH + 1.8
    below = min(_cut_list(canvas, pattern, x, y + TEST_CM - 0.3, wide - x), y)
    rooms = [
        (x - 0.6, high - 2 * MARGIN + y - 2.0, y),
        (wide, high - 2 * MARGIN + below - 2.0, below),
    ]  # beside the list, or below it
    across, down = _extent(sheets)
    room = max(rooms, key=lambda room: min(room[0] / across, room[1] / down))
    _map(canvas, sheets, 0, room[2] - 1.2, room[0], room[1])


def _said(stretch: tuple[float, float]) -> str:
    return " and ".join(f"{TEST_CM * factor:.2f}" for factor in stretch)


def _cut_list(canvas: Canvas, pattern: Pattern, x: float, y: float, wide: float) -> float:
    """What to cut, where each seam is sewn, what a hem has to spare; returns how far down that goes, cm."""
    rows = [f"{row.piece}: cut {row.cut}, {row.material}" for row in pattern.cut_list]
    rows += list(pattern.sew_at)
    for line in (part for row in rows for part in simpleSplit(row, PLAIN, 8.5, wide * CM)):
        words_at(canvas, x, y, line, 8.5)
        y -= 0.42
    return y


def _extent(sheets: Sheets) -> tuple[float, float]:
    """How wide and how high all sheets are together, laid over each other, cm."""
    tile_w, tile_h = sheets.paper.tile
    return sheets.step[0] * (sheets.columns - 1) + tile_w, sheets.step[1] * (sheets.rows - 1) + tile_h


def _map(canvas: Canvas, sheets: Sheets, x: float, y: float, room_wide: float, room_high: float) -> None:
    """A small plan of all sheets with the pieces on them; x, y is its upper left corner, cm."""
    tile_w, tile_h = sheets.paper.tile
    wide, high = _extent(sheets)
    small = min(room_wide / wide, room_high / high)
    canvas.saveState()
    canvas.translate(x * CM, y * CM)
    words_at(canvas, 0, 0.25, "Map of the sheets", 10, strong=True)
    place = on_paper(small * sheets.scale)
    canvas.setFillGray(0.93)
    for laid in sheets.layout.pieces:
        stroke(canvas, [ring_path(laid.cut)], "grain", place, closed=True, fill=True)
    canvas.setFillGray(0)
    grid = on_paper(small)
    for tile in sheets.tiles:
        corners = [
            Point(tile.x, tile.y),
            Point(tile.x + tile_w, tile.y),
            Point(tile.x + tile_w, tile.y + tile_h),
            Point(tile.x, tile.y + tile_h),
        ]
        stroke(canvas, [ring_path(corners)], "thin", grid, closed=True)
        if tile.empty:
            stroke(canvas, [Path.through(corners[0], corners[2])], "thin", grid)
            stroke(canvas, [Path.through(corners[1], corners[3])], "thin", grid)
        size = min(9.0, tile_h * small * CM * 0.3, tile_w * small * CM * 0.4)
        canvas.setFont(STRONG, size)
        left, low = grid(corners[3])
        canvas.drawString(left + size * 0.4, low + size * 0.5, tile.name)
    canvas.restoreState()
