"""A lay on paper: the whole of it on the first page with its figures, then piece by piece of the cloth at one to five."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence

from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas
from shapely import Polygon

from widehem.core.making.lay.placed import Lay
from widehem.core.output.lay_words import Written, letters, written
from widehem.core.output.pdf_pen import PLAIN, POINTS_PER_CM, STRONG, load_fonts
from widehem.core.output.sheets import Paper
from widehem.core.units import Display

EDGE, HEAD, FOOT, OVERLAP = 1.2, 3.4, 1.5, 1.0  # cm of the page round the drawing; that two pages share
ONE_TO = 5.0
WORDS, SMALL, LEAST = 10.0, 8.0, 5.5  # points
MOST_KEYS = 3  # lines below a drawing
SQUARE = {"cm": (10.0, "10 cm on the cloth: 2 cm here"), "in": (10.16, "4 in on the cloth: 4/5 in here")}


def lay_pdf(title: str, about: str, lays: Sequence[tuple[str, Lay]], paper: Paper, show: Display) -> bytes:
    """Lays of one cloth, each with its heading: an overview, then at one to five."""
    load_fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=(paper.width * POINTS_PER_CM, paper.height * POINTS_PER_CM), invariant=1)
    canvas.setTitle(title)
    canvas.setCreator("Wide Hem")
    for heading, lay in lays:
        room = paper.width - 2 * EDGE, paper.height - 2 * EDGE - HEAD - FOOT
        whole = max(lay.length, 1.0), lay.table.width / lay.table.layers
        scale = min(room[0] / whole[1], room[1] / whole[0])
        _page(canvas, paper, title, f"{heading} · the whole of it", [about, *figures(lay, show)], lay, scale, (0.0, 0.0), show)
        step = ((paper.width - 2 * EDGE) * ONE_TO - OVERLAP, room[1] * ONE_TO - OVERLAP)
        columns, rows = max(math.ceil((whole[1] - OVERLAP) / step[0]), 1), max(math.ceil((whole[0] - OVERLAP) / step[1]), 1)
        for row in range(rows):
            for column in range(columns):
                place = f"{heading} · 1 : 5 · {'ABCDEFGH'[column % 8]}{row + 1} of {'ABCDEFGH'[(columns - 1) % 8]}{rows}"
                _page(canvas, paper, title, place, [], lay, 1 / ONE_TO, (column * step[0], row * step[1]), show)
    canvas.save()
    return buffer.getvalue()


def figures(lay: Lay, show: Display) -> list[str]:
    """What a lay takes, in words."""
    table = lay.table
    folded = "folded lengthwise" if table.folded else "open"
    found = [
        f"{show.full(table.width, 0)} wide, {folded} · length of the lay {show.full(lay.length)} · to buy {show.full(lay.to_buy, 0)} · "
        f"{lay.used * 100:.0f} % of the cloth used"
    ]
    more = []
    if table.shrinks:
        more.append(f"with {table.shrinks:g} % for shrinking")
    if table.way == "one":
        more.append("all pieces one way")
    for repeat, words in ((table.across, "stripes"), (table.along, "bars")):
        if repeat:
            more.append(f"{words} every {show.full(repeat)}")
    if lay.cost:
        more.append(f"costs {lay.cost:.2f}")
    return [*found, *([", ".join(more)] if more else [])]


def _page(
    canvas: Canvas, paper: Paper, title: str, heading: str, lines: Sequence[str], lay: Lay, scale: float, begin: tuple[float, float],
    show: Display,
) -> None:  # fmt: skip
    """A page with the cloth running down it. begin: of what it shows, across and along the cloth, cm."""
    k = POINTS_PER_CM
    top = paper.height - EDGE
    canvas.setFont(STRONG, WORDS + 2)
    canvas.drawString(EDGE * k, (top - 0.5) * k, title)
    canvas.setFont(PLAIN, WORDS)
    for number, line in enumerate([heading, *lines]):
        canvas.drawString(EDGE * k, (top - 1.1 - 0.5 * number) * k, line)
    room = paper.width - 2 * EDGE, paper.height - 2 * EDGE - HEAD - FOOT
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(EDGE * k, (EDGE + FOOT) * k, room[0] * k, room[1] * k)
    canvas.clipPath(frame, stroke=0)
    canvas.translate((EDGE - begin[0] * scale) * k, (paper.height - EDGE - HEAD + begin[1] * scale) * k)
    key = _cloth(canvas, lay, scale * k)
    canvas.restoreState()
    canvas.setFont(PLAIN, SMALL)
    told = simpleSplit(" · ".join(f"{letter} {name}" for letter, name in key), PLAIN, SMALL, room[0] * k)
    for number, line in enumerate(told[:MOST_KEYS]):
        canvas.drawString(EDGE * k, (EDGE + FOOT) * k - (number + 1.2) * SMALL * 1.2, line)
    side, words = SQUARE[show.unit]
    if abs(scale - 1 / ONE_TO) < 1e-9:
        canvas.setLineWidth(0.8)
        canvas.rect((paper.width - EDGE - side * scale) * k, (top - 0.2 - side * scale) * k, side * scale * k, side * scale * k)
        canvas.setFont(PLAIN, SMALL)
        canvas.drawRightString((paper.width - EDGE - side * scale - 0.2) * k, (top - 0.6) * k, words)
    canvas.setFont(PLAIN, SMALL)
    canvas.drawString(
        EDGE * k, EDGE * 0.55 * k, f"{title} · lengths in {show.unit_words} · print at 100 % · page {canvas.getPageNumber()}"
    )
    canvas.showPage()


def _cloth(canvas: Canvas, lay: Lay, k: float) -> list[tuple[str, str]]:
    """The cloth with its pieces; what the letters in them stand for. k: points for a centimetre of cloth; x across it, y down along it."""
    table = lay.table
    whole, low = table.width / table.layers, 0.0 if table.folded else table.selvedge
    canvas.setLineWidth(0.6)
    canvas.rect(0, -lay.length * k, whole * k, lay.length * k)
    canvas.setDash(2, 2)
    for x in [whole - table.selvedge, *([] if table.folded else [table.selvedge])]:
        canvas.line(x * k, 0, x * k, -lay.length * k)
    canvas.setDash(*((9, 3) if table.folded else (1, 0)))
    canvas.line(0, 0, 0, -lay.length * k)
    canvas.setDash()
    outlines = {put.id: Polygon([((y + low) * k, -x * k) for x, y in lay.rings[put.id]]) for put in lay.placed}
    words = {put.id: written(lay.by_id[put.id], outlines[put.id], SMALL, LEAST) for put in lay.placed}
    given, key = letters(lay, words)
    for put in lay.placed:
        shape = lay.by_id[put.id]
        path = canvas.beginPath()
        ring = outlines[put.id].exterior.coords
        path.moveTo(*ring[0])
        for spot in ring[1:-1]:
            path.lineTo(*spot)
        path.close()
        canvas.setLineWidth(1.1)
        canvas.setDash(*((4, 2) if shape.single else (1, 0)))
        canvas.drawPath(path, stroke=1, fill=0)
        canvas.setDash()
        inside = words[put.id] or written(shape, outlines[put.id], SMALL, LEAST, given[put.id])
        if inside is not None:
            _write(canvas, inside)
    return key


def _write(canvas: Canvas, words: Written) -> None:
    canvas.saveState()
    canvas.translate(words.x, words.y)
    if words.upright:
        canvas.rotate(90)
    canvas.setFont(PLAIN, words.size)
    for number, line in enumerate(words.lines):
        canvas.drawCentredString(0, -words.size * (0.35 + 1.15 * (number - (len(words.lines) - 1) / 2)), line)
    canvas.restoreState()
