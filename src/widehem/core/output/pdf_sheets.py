"""The pattern on paper: tiled sheets with a first page to check the print, or one big page."""

from __future__ import annotations

import io
from itertools import product

from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.made import Pattern
from widehem.core.output.ink import Layout, ring_path
from widehem.core.output.pdf_pen import PLAIN, POINTS_PER_CM, STRONG, draw_ink, load_fonts, on_paper, stroke
from widehem.core.output.sheets import FOOT, MARGIN, OVERLAP, TEST_CM, TEST_IN, Paper, Sheet, Sheets, sheets_for
from widehem.core.units import CM_PER_INCH

CM = POINTS_PER_CM
WORK = "work"


def sheets_pdf(pattern: Pattern, paper: Paper, scale: float = 1.0) -> bytes:
    """The pattern cut into sheets of this paper, or whole on one page, as a PDF."""
    load_fonts()
    sheets = sheets_for(pattern, paper, scale)
    layout = sheets.layout
    buffer = io.BytesIO()
    if not paper.width:
        _one_page(buffer, pattern, layout, scale)
        return buffer.getvalue()
    canvas = Canvas(buffer, pagesize=(paper.width * CM, paper.height * CM), pageCompression=1, invariant=1)
    _about(canvas, pattern)
    _work(canvas, layout, scale)
    _first_page(canvas, pattern, sheets)
    for number, tile in enumerate(sheets.printed, 1):
        _tile(canvas, pattern, sheets, tile, number)
    canvas.save()
    return buffer.getvalue()


def _about(canvas: Canvas, pattern: Pattern) -> None:
    canvas.setTitle(heading_line(pattern))
    canvas.setCreator("Wide Hem")


def heading_line(pattern: Pattern) -> str:
    """Costume, wearer and production in one line."""
    head = pattern.heading
    parts = (head.costume or ", ".join(m.piece.title for m in pattern.pieces), head.wearer, head.production)
    return " · ".join(part for part in parts if part)


def _work(canvas: Canvas, layout: Layout, scale: float) -> None:
    """The whole work once, as a form to be placed on every sheet."""
    canvas.beginForm(WORK, 0, -layout.height * scale * CM, layout.width * scale * CM, 0)
    for laid in layout.pieces:
        draw_ink(canvas, laid.ink, scale)
    canvas.endForm()


def _one_page(buffer: io.BytesIO, pattern: Pattern, layout: Layout, scale: float) -> None:
    width = max(layout.width * scale, 22.0) + 2 * MARGIN
    top = max(TEST_CM, 3.1 + CAUTION_LINE * len(_caution_lines(pattern, width - 12.0 - 2 * MARGIN))) + 3.0
    height = layout.height * scale + top + 2 * MARGIN
    canvas = Canvas(buffer, pagesize=(width * CM, height * CM), pageCompression=1, invariant=1)
    _about(canvas, pattern)
    _work(canvas, layout, scale)
    canvas.translate(MARGIN * CM, (height - MARGIN) * CM)
    _squares(canvas, 0.0, -TEST_CM)
    words = "full size" if scale == 1 else f"scale 1:{1 / scale:g}"
    _words(canvas, 12.0, -0.8, heading_line(pattern), 12, strong=True)
    _words(canvas, 12.0, -1.6, f"{words}. Print at 100 %, no fit to page.", 10)
    _words(canvas, 12.0, -2.3, "Lay a ruler on both squares before you cut.", 10)
    _cautions(canvas, pattern, 12.0, -3.1, width - 12.0 - 2 * MARGIN)
    canvas.translate(0, -top * CM)
    canvas.doForm(WORK)
    canvas.save()


def _words(canvas: Canvas, x: float, y: float, text: str, size: float, *, strong: bool = False) -> None:
    canvas.setFont(STRONG if strong else PLAIN, size)
    canvas.drawString(x * CM, y * CM, text)


CAUTION_LINE, CAUTION_SIZE = 0.5, 10  # cm from line to line, points


def _caution_lines(pattern: Pattern, wide: float) -> list[str]:
    """What protects whoever wears or sews it, broken into lines, cm wide."""
    return [line for words in pattern.cautions for line in simpleSplit(f"Caution. {words}", STRONG, CAUTION_SIZE, wide * CM)]


def _cautions(canvas: Canvas, pattern: Pattern, x: float, y: float, wide: float) -> float:
    """Write what protects; returns how high that is, cm."""
    lines = _caution_lines(pattern, wide)
    for i, line in enumerate(lines):
        _words(canvas, x, y - i * CAUTION_LINE, line, CAUTION_SIZE, strong=True)
    return CAUTION_LINE * len(lines)


def _squares(canvas: Canvas, x: float, y: float) -> None:
    """A 5 cm and a 2 inch square, their lower left corners at x, y and beside it, cm."""
    canvas.setLineWidth(0.8)
    canvas.setDash()
    inch = TEST_IN * CM_PER_INCH
    canvas.rect(x * CM, y * CM, TEST_CM * CM, TEST_CM * CM)
    canvas.rect((x + TEST_CM + 0.8) * CM, y * CM, inch * CM, inch * CM)
    for i in range(1, 5):
        canvas.line((x + i) * CM, y * CM, (x + i) * CM, (y + 0.25) * CM)
    _words(canvas, x + 1.9, y + 2.4, "5 cm", 12, strong=True)
    _words(canvas, x + TEST_CM + 2.7, y + 2.4, "2 in", 12, strong=True)


def _first_page(canvas: Canvas, pattern: Pattern, sheets: Sheets) -> None:
    """What it is, how to print it, the test squares, and the map of the sheets."""
    paper = sheets.paper
    head = pattern.heading
    top = paper.height - MARGIN
    _words(canvas, MARGIN, top - 0.8, heading_line(pattern), 15, strong=True)
    printed = len(sheets.printed)
    lines = [
        f"{sheets.words.capitalize()} on {printed} sheets of {paper.name}, {pattern.plan.name.lower()} allowances."
        if pattern.plan.code != "none"
        else f"{sheets.words.capitalize()} on {printed} sheets of {paper.name}, stitching lines without allowances.",
        "Print at 100 %: no fit to page, no shrinking. Then lay a ruler on both squares.",
        f"Lay the sheets over each other by {pattern.show.constant(OVERLAP)} {pattern.show.unit} so that the diamonds meet.",
    ]
    if sheets.left_out:
        lines.append(f"Left out because nothing lies on them: {', '.join(tile.name for tile in sheets.left_out)}.")
    tail = " · ".join(part for part in (head.maker, head.date, head.version) if part)
    if tail:
        lines.append(tail)
    for i, line in enumerate(lines):
        _words(canvas, MARGIN, top - 1.7 - i * 0.6, line, 10)
    told = top - 1.7 - len(lines) * 0.6
    y = told - _cautions(canvas, pattern, MARGIN, told, paper.width - 2 * MARGIN) - TEST_CM
    _squares(canvas, MARGIN, y)
    x = MARGIN + TEST_CM + TEST_IN * CM_PER_INCH + 1.8
    for i, row in enumerate(pattern.cut_list):
        _words(canvas, x, y + TEST_CM - 0.5 - i * 0.55, f"{row.piece}: cut {row.cut}", 9)
    _map(canvas, sheets, MARGIN, y - 1.2, paper.width - 2 * MARGIN, y - 1.2 - MARGIN - 0.8)
    canvas.showPage()


def _map(canvas: Canvas, sheets: Sheets, x: float, y: float, room_wide: float, room_high: float) -> None:
    """A small plan of all sheets with the pieces on them; x, y is its upper left corner, cm."""
    tile_w, tile_h = sheets.paper.tile
    wide = sheets.step[0] * (sheets.columns - 1) + tile_w
    high = sheets.step[1] * (sheets.rows - 1) + tile_h
    small = min(room_wide / wide, room_high / high)
    canvas.saveState()
    canvas.translate(x * CM, y * CM)
    _words(canvas, 0, 0.25, "Map of the sheets", 10, strong=True)
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
        canvas.setFont(STRONG, 9)
        left, low = grid(corners[3])
        canvas.drawString(left + 4, low + 5, f"{tile.name}, left out" if tile.empty else tile.name)
    canvas.restoreState()


def _tile(canvas: Canvas, pattern: Pattern, sheets: Sheets, tile: Sheet, number: int) -> None:
    paper = sheets.paper
    tile_w, tile_h = paper.tile
    canvas.saveState()
    canvas.translate(MARGIN * CM, (paper.height - MARGIN) * CM)
    window = canvas.beginPath()
    window.rect(0, -tile_h * CM, tile_w * CM, tile_h * CM)
    canvas.clipPath(window, stroke=0, fill=0)
    canvas.translate(-tile.x * CM, tile.y * CM)
    canvas.doForm(WORK)
    _diamonds(canvas, sheets)
    canvas.restoreState()
    canvas.setLineWidth(0.4)
    canvas.setDash()
    canvas.rect(MARGIN * CM, (paper.height - MARGIN - tile_h) * CM, tile_w * CM, tile_h * CM)
    canvas.setDash([2, 3], 0)
    if tile.column < sheets.columns - 1:
        x = (MARGIN + tile_w - OVERLAP) * CM
        canvas.line(x, (paper.height - MARGIN) * CM, x, (paper.height - MARGIN - tile_h) * CM)
    if tile.row < sheets.rows - 1:
        y = (paper.height - MARGIN - tile_h + OVERLAP) * CM
        canvas.line(MARGIN * CM, y, (MARGIN + tile_w) * CM, y)
    canvas.setDash()
    low = paper.height - MARGIN - tile_h - FOOT + 0.12
    _words(canvas, MARGIN, low, tile.name, 13, strong=True)
    foot = f"{heading_line(pattern)} · {sheets.words} · sheet {number} of {len(sheets.printed)}"
    _words(canvas, MARGIN + 1.4, low + 0.04, foot, 8)
    canvas.showPage()


def _diamonds(canvas: Canvas, sheets: Sheets) -> None:
    """Marks in the middle of every overlap, drawn at the same place on both sheets."""
    (step_x, step_y), half = sheets.step, OVERLAP / 2
    for row, column in product(range(sheets.rows), range(sheets.columns)):
        middle_x, middle_y = column * step_x + step_x / 2, row * step_y + step_y / 2
        if column < sheets.columns - 1:
            _diamond(canvas, (column + 1) * step_x + half, middle_y)
        if row < sheets.rows - 1:
            _diamond(canvas, middle_x, (row + 1) * step_y + half)


def _diamond(canvas: Canvas, x: float, y: float, half: float = 0.3) -> None:
    shape = canvas.beginPath()
    for i, (dx, dy) in enumerate(((0, -half), (half, 0), (0, half), (-half, 0))):
        spot = ((x + dx) * CM, -(y + dy) * CM)
        shape.moveTo(*spot) if i == 0 else shape.lineTo(*spot)
    shape.close()
    canvas.drawPath(shape, stroke=0, fill=1)
