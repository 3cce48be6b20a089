"""The pattern on paper: tiled sheets with a first page to check the print, a length of a roll, or one big page."""

from __future__ import annotations

import io
from collections.abc import Sequence
from itertools import product

from reportlab.pdfgen.canvas import Canvas

from widehem.core.marking.made import Pattern
from widehem.core.output.ink import Ink
from widehem.core.output.pdf_first import caution_lines, first_page, squares, words_at, write_cautions
from widehem.core.output.pdf_layers import Layers
from widehem.core.output.pdf_pen import POINTS_PER_CM, load_fonts
from widehem.core.output.sheets import FOOT, MARGIN, OVERLAP, TEST_CM, Paper, Sheet, Sheets, sheets_for
from widehem.core.output.titles import title_of

CM = POINTS_PER_CM
WORDS_FROM, LEAST_WIDE = 12.0, 22.0  # cm: where the words beside the squares begin, and the least width of one big page


def sheets_pdf(
    pattern: Pattern, paper: Paper, scale: float = 1.0, sheets: Sheets | None = None,
    parts: Sequence[tuple[str, Sequence[Ink], Sequence[float]]] = (),
) -> bytes:  # fmt: skip
    """The pattern cut into sheets of this paper, or whole on one page, as a PDF. sheets: where that was worked out already. parts: what
    is drawn in place of its pieces, where there are several sizes: the name of each, its ink, the dashes of its cutting line."""
    load_fonts()
    sheets = sheets or sheets_for(pattern, paper, scale)
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pageCompression=1, invariant=1)
    canvas.setTitle(title_of(pattern))
    canvas.setCreator("Wide Hem")
    layers = Layers(canvas)
    size = sheets.layout.width, sheets.layout.height
    for of, ink, dash in parts or [("", [mark for laid in sheets.layout.pieces for mark in laid.ink], ())]:
        layers.add(ink, size, scale, of, dash)
    if len(sheets.tiles) == 1 and not paper.height:
        _one_page(canvas, pattern, sheets, layers)
    else:
        wide, high = paper.width, paper.height or paper.tile[1] / paper.stretch[1] + 2 * MARGIN + FOOT
        canvas.setPageSize((wide * CM, high * CM))
        with_corner(canvas, paper, high)
        first_page(canvas, pattern, sheets, high)
        canvas.showPage()
        for number, tile in enumerate(sheets.printed, 1):
            _tile(canvas, pattern, sheets, tile, number, layers)
    layers.told()
    canvas.save()
    return buffer.getvalue()


def with_corner(canvas: Canvas, paper: Paper, high: float) -> None:
    """Draw about the upper left corner of what can be printed, in centimetres as they come out on this printer."""
    wide, tall = paper.stretch
    canvas.translate(MARGIN * CM, (high - MARGIN) * CM)
    canvas.scale(1 / wide, 1 / tall)


def _one_page(canvas: Canvas, pattern: Pattern, sheets: Sheets, layers: Layers) -> None:
    """The squares, what protects, and the whole work below them."""
    paper, layout, scale = sheets.paper, sheets.layout, sheets.scale
    stretched, tall = paper.stretch
    width = paper.width * stretched if paper.width else max(layout.width * scale, LEAST_WIDE) + 2 * MARGIN
    beside = width - WORDS_FROM - 2 * MARGIN
    top = max(TEST_CM, 3.1 + CAUTION * len(caution_lines(pattern, beside))) + 3.0
    height = layout.height * scale + top + 2 * MARGIN * tall
    canvas.setPageSize((width / stretched * CM, height / tall * CM))
    with_corner(canvas, paper, height / tall)
    squares(canvas, 0.0, -TEST_CM)
    words_at(canvas, WORDS_FROM, -0.8, title_of(pattern), 12, strong=True)
    words_at(canvas, WORDS_FROM, -1.6, f"{sheets.words}. Print at 100 %, no fit to page.", 10)
    words_at(canvas, WORDS_FROM, -2.3, "Lay a ruler on both squares before you cut.", 10)
    write_cautions(canvas, pattern, WORDS_FROM, -3.1, beside)
    canvas.translate(0, -top * CM)
    layers.draw()


CAUTION = 0.5


def _tile(canvas: Canvas, pattern: Pattern, sheets: Sheets, tile: Sheet, number: int, layers: Layers) -> None:
    paper = sheets.paper
    tile_w, tile_h = paper.tile
    with_corner(canvas, paper, paper.height or tile_h / paper.stretch[1] + 2 * MARGIN + FOOT)
    canvas.saveState()
    window = canvas.beginPath()
    window.rect(0, -tile_h * CM, tile_w * CM, tile_h * CM)
    canvas.clipPath(window, stroke=0, fill=0)
    canvas.translate(-tile.x * CM, tile.y * CM)
    layers.draw()
    _diamonds(canvas, sheets)
    canvas.restoreState()
    canvas.setLineWidth(0.4)
    canvas.setDash()
    canvas.rect(0, -tile_h * CM, tile_w * CM, tile_h * CM)
    canvas.setDash([2, 3], 0)
    if tile.column < sheets.columns - 1:
        x = (tile_w - OVERLAP) * CM
        canvas.line(x, 0, x, -tile_h * CM)
    if tile.row < sheets.rows - 1:
        y = (OVERLAP - tile_h) * CM
        canvas.line(0, y, tile_w * CM, y)
    canvas.setDash()
    low = 0.12 - tile_h - FOOT
    words_at(canvas, 0, low, tile.name, 13, strong=True)
    foot = f"{title_of(pattern)} · {sheets.words} · sheet {number} of {len(sheets.printed)}"
    words_at(canvas, 1.4, low + 0.04, foot, 8)
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
