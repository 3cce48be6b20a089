"""Cutting a layout into sheets of paper: which tiles there are, what they are called, which stay empty."""

from __future__ import annotations

import math
from collections.abc import Sequence

from shapely import MultiPolygon, Polygon, box, intersects, prepare

from widehem.core.geometry.points import Point
from widehem.core.marking.made import Pattern
from widehem.core.output.arrange import Put, Ring, on_roll, on_sheets, quarter, ring_of
from widehem.core.output.laid import EDGE, GAPS, Layout, placed
from widehem.core.units import CM_PER_INCH
from widehem.core.values import record, replace

MARGIN, OVERLAP, FOOT = 1.0, 1.0, 0.6
TEST_CM, TEST_IN = 5.0, 2.0
SCALES = {"1:1": 1.0, "1:2": 0.5, "1:4": 0.25, "1:5": 0.2}
LONGEST = 500.0  # cm: a page of a PDF may be no longer


class PaperError(ValueError):
    """A paper or scale that is not known; one sentence."""


@record(frozen=True)
class Paper:
    """A kind of paper, upright, cm; its name with lengths as Display.words takes them. No height: a roll, cut where the work ends; no width either: one page as large as the work.
    stretch: what is printed on it comes out so many times as wide and as high as it was drawn."""

    code: str
    name: str
    width: float
    height: float
    stretch: tuple[float, float] = (1.0, 1.0)

    @property
    def tile(self) -> tuple[float, float]:
        """What can be drawn on one sheet, cm as they come out."""
        wide, high = self.stretch
        return (self.width - 2 * MARGIN) * wide, ((self.height or LONGEST) - 2 * MARGIN - FOOT) * high

    @property
    def roll(self) -> bool:
        return bool(self.width) and not self.height


PAPERS = {
    paper.code: paper
    for paper in (
        Paper("a4", "A4", 21.0, 29.7),
        Paper("letter", "Letter", 8.5 * CM_PER_INCH, 11 * CM_PER_INCH),
        Paper("a3", "A3", 29.7, 42.0),
        Paper("tabloid", "Tabloid", 11 * CM_PER_INCH, 17 * CM_PER_INCH),
        Paper("a0", "A0", 84.1, 118.9),
        Paper("roll60", "Roll, {60} wide", 60.0, 0.0),
        Paper("roll90", "Roll, {90} wide", 90.0, 0.0),
        Paper("roll120", "Roll, {120} wide", 120.0, 0.0),
        Paper("one", "One big page", 0.0, 0.0),
    )
}
STRETCH = 0.9, 1.1  # what a printer may be off


def calibrated(paper: Paper, across: float, down: float) -> Paper:
    """The paper on a printer whose test square of 5 cm comes out so wide and so high, cm. Raises PaperError."""
    found = across / TEST_CM, down / TEST_CM
    for measured, factor in zip((across, down), found, strict=True):
        if not STRETCH[0] <= factor <= STRETCH[1]:
            raise PaperError(
                f"A test square of {measured:g} cm in place of {TEST_CM:g} is more than a printer is off: switch off its fit to page, "
                "print the square again, and measure between the middles of its lines."
            )
    return replace(paper, stretch=found)


def paper_named(code: str) -> Paper:
    """The paper with this code. Raises PaperError."""
    if code not in PAPERS:
        raise PaperError(f'There is no paper "{code}": there are {", ".join(PAPERS)}.')
    return PAPERS[code]


def scale_named(code: str) -> float:
    """'1:2' to 0.5. Raises PaperError."""
    if code not in SCALES:
        raise PaperError(f'The scale "{code}" is not known: there are {", ".join(SCALES)}.')
    return SCALES[code]


def scale_words(scale: float) -> str:
    """A scale in words."""
    return "full size" if scale == 1 else f"scale 1:{1 / scale:g}"


@record(frozen=True)
class Sheet:
    """One tile: its name (row letter, column number) and its upper left corner on the layout, cm on paper."""

    name: str
    row: int
    column: int
    x: float
    y: float
    empty: bool


@record(frozen=True)
class Sheets:
    """A layout cut into tiles. scale: of the drawing. width, height: of the work on paper, cm."""

    paper: Paper
    scale: float
    layout: Layout
    tiles: tuple[Sheet, ...]
    rows: int
    columns: int
    step: tuple[float, float]

    @property
    def printed(self) -> tuple[Sheet, ...]:
        return tuple(tile for tile in self.tiles if not tile.empty)

    @property
    def left_out(self) -> tuple[Sheet, ...]:
        return tuple(tile for tile in self.tiles if tile.empty)

    @property
    def words(self) -> str:
        return scale_words(self.scale)


def row_name(row: int) -> str:
    """A to Z, then AA, AB ..."""
    name = ""
    row += 1
    while row:
        row, rest = divmod(row - 1, 26)
        name = chr(65 + rest) + name
    return name


def cut_into_sheets(layout: Layout, paper: Paper, scale: float = 1.0) -> Sheets:
    """Tiles with 1 cm overlap; those without any cloth are marked empty. Words are placed so that they cross no border."""
    width, height = layout.width * scale, layout.height * scale
    said = scale_words(scale)
    if not paper.width or (paper.roll and height <= paper.tile[1] and width <= paper.tile[0] + 1e-6):
        lettered = layout.on_paper(scale, said)
        return Sheets(paper, scale, lettered, (Sheet("A1", 0, 0, 0.0, 0.0, False),), 1, 1, (width, height))
    if paper.roll:  # too much for one length of it: lengths that are laid together as sheets are
        paper = replace(paper, height=min(LONGEST, height / paper.stretch[1] + 2 * MARGIN + FOOT))
    tile_w, tile_h = paper.tile
    step = (tile_w - OVERLAP, tile_h - OVERLAP)
    columns = max(1, math.ceil((width - OVERLAP) / step[0] - 1e-9))
    rows = max(1, math.ceil((height - OVERLAP) / step[1] - 1e-9))
    cloth = MultiPolygon([Polygon([(p.x * scale, p.y * scale) for p in laid.cut]) for laid in layout.pieces])
    prepare(cloth)
    places = [(row, column, column * step[0], row * step[1]) for row in range(rows) for column in range(columns)]
    x, y = [place[2] for place in places], [place[3] for place in places]
    own_right = [x + (tile_w if column == columns - 1 else step[0]) for _, column, x, _ in places]
    own_bottom = [y + (tile_h if row == rows - 1 else step[1]) for row, _, _, y in places]
    full = intersects(cloth, box(x, y, own_right, own_bottom))
    tiles = [
        Sheet(f"{row_name(row)}{column + 1}", row, column, x, y, not cloth_on_it)
        for (row, column, x, y), cloth_on_it in zip(places, full, strict=True)
    ]
    borders = _borders(columns, rows, step, scale, layout)
    return Sheets(paper, scale, layout.on_paper(scale, said, borders), tuple(tiles), rows, columns, step)


def _borders(
    columns: int, rows: int, step: tuple[float, float], scale: float, layout: Layout
) -> tuple[tuple[Point, Point], ...]:
    """Where sheets begin and end, on the layout, cm of the garment."""
    across = sorted({(n * step[0] + more) / scale for n in range(1, columns) for more in (0.0, OVERLAP)})
    down = sorted({(n * step[1] + more) / scale for n in range(1, rows) for more in (0.0, OVERLAP)})
    wide, high = layout.width + 99, layout.height + 99
    return (
        *((Point(x, -99.0), Point(x, high)) for x in across),
        *((Point(-99.0, y), Point(wide, y)) for y in down),
    )


def sheets_for(pattern: Pattern, paper: Paper, scale: float = 1.0, puts: Sequence[Put] | None = None) -> Sheets:
    """The pieces arranged on the paper so that it is saved: turned where that helps, in so many columns as print on the fewest
    sheets. puts: where each goes, where that is known."""
    return cut_into_sheets(arranged(pattern, paper, scale, puts), paper, scale)


def arranged(pattern: Pattern, paper: Paper, scale: float = 1.0, puts: Sequence[Put] | None = None) -> Layout:
    """The pieces where they lie on this paper."""
    laid = tuple(
        placed(marked, put.x + EDGE, put.y + EDGE, put.turned)
        for marked, put in zip(pattern.pieces, puts or puts_for(pattern, paper, scale), strict=True)
    )
    bounds = [entry.marked.bounds for entry in laid]
    return Layout(laid, max(b[2] for b in bounds) + EDGE, max(b[3] for b in bounds) + EDGE)


def puts_for(pattern: Pattern, paper: Paper, scale: float = 1.0) -> list[Put]:
    """Where each piece goes on this paper."""
    rings = [ring_of(marked.cut) for marked in pattern.pieces]
    if not paper.height:
        wide = (paper.tile[0] - 2 * EDGE) / scale if paper.width else _about_square(pattern)
        needs = max(min(right - left, bottom - top) for left, top, right, bottom in (m.bounds for m in pattern.pieces))
        if wide >= needs + 1:
            try:
                return on_roll(rings, wide, ROLL_TURNS if paper.width else (0,))
            except ValueError:  # a piece lies only across it, or aslant
                pass
        return _row(rings, GAPS[-1])
    step = (paper.tile[0] - OVERLAP) / scale, (paper.tile[1] - OVERLAP) / scale
    fields = [puts for columns in _columns(pattern, step[0]) if (puts := _tried(rings, step, columns))]
    rows = [_row(rings, gap) for gap in GAPS]
    return min((*fields, *rows), key=lambda puts: _printed(rings, puts, step))


TABLE = 1.4  # of a table, its width by its depth
ROLL_TURNS = (0, 2, 1, 3)


def _row(rings: Sequence[Ring], gap: float) -> list[Put]:
    """Pieces side by side."""
    x, found = 0.0, []
    for ring in rings:
        found.append(Put(x, 0.0, 0))
        x += max(x for x, _ in ring) - min(x for x, _ in ring) + gap
    return found


def _tried(rings: Sequence[Ring], step: tuple[float, float], columns: int) -> list[Put]:
    try:
        return on_sheets(rings, step, columns)
    except ValueError:
        return []


def _columns(pattern: Pattern, step: float) -> list[int]:
    """How many columns of sheets are tried: round about as many as make a square."""
    about = _about_square(pattern) / step
    return sorted({max(1, round(about * share)) for share in (0.7, 1.0, 1.35)})


def _about_square(pattern: Pattern) -> float:
    """The side of a square on which all pieces lie, cm."""
    boxes = [(right - left + 1) * (bottom - top + 1) for left, top, right, bottom in (m.bounds for m in pattern.pieces)]
    widest = max(right - left for left, _, right, _ in (m.bounds for m in pattern.pieces))
    return max(math.sqrt(sum(boxes)), widest + 2)


def _printed(rings: Sequence[Ring], puts: Sequence[Put], step: tuple[float, float]) -> tuple[int, float]:
    """How many sheets have cloth on them, and how far all of it reaches as a table stands before one: it is laid together there."""
    found: set[tuple[int, int]] = set()
    wide = high = 0.0
    for ring, put in zip(rings, puts, strict=True):
        turned = [quarter(spot, put.turned) for spot in ring]
        left, top = min(x for x, _ in turned) - put.x - EDGE, min(y for _, y in turned) - put.y - EDGE
        cloth = Polygon([(x - left, y - top) for x, y in turned])
        near, above, far, below = cloth.bounds
        wide, high = max(wide, far), max(high, below)
        spots = [
            (column, row)
            for column in range(int(near // step[0]), int(far // step[0]) + 1)
            for row in range(int(above // step[1]), int(below // step[1]) + 1)
        ]
        boxes = box(*zip(*((c * step[0], r * step[1], (c + 1) * step[0], (r + 1) * step[1]) for c, r in spots), strict=True))
        prepare(cloth)
        found |= {spot for spot, on_it in zip(spots, intersects(cloth, boxes), strict=True) if on_it}
    return len(found), max(wide / TABLE, high)
