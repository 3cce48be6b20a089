"""Cutting a layout into sheets of paper: which tiles there are, what they are called, which stay empty."""

from __future__ import annotations

import math

from shapely import MultiPolygon, Polygon, box, intersects, prepare

from widehem.core.marking.made import Pattern
from widehem.core.output.ink import GAPS, Layout, lay_out
from widehem.core.units import CM_PER_INCH
from widehem.core.values import record

MARGIN, OVERLAP, FOOT = 1.0, 1.0, 0.6
TEST_CM, TEST_IN = 5.0, 2.0
SCALES = {"1:1": 1.0, "1:2": 0.5, "1:4": 0.25}


class PaperError(ValueError):
    """A paper or scale that is not known; one sentence."""


@record(frozen=True)
class Paper:
    """A kind of paper, upright, cm. Zero size: one page as large as the work."""

    code: str
    name: str
    width: float
    height: float

    @property
    def tile(self) -> tuple[float, float]:
        """What can be drawn on one sheet, cm."""
        return self.width - 2 * MARGIN, self.height - 2 * MARGIN - FOOT


PAPERS = {
    paper.code: paper
    for paper in (
        Paper("a4", "A4", 21.0, 29.7),
        Paper("letter", "Letter", 8.5 * CM_PER_INCH, 11 * CM_PER_INCH),
        Paper("a3", "A3", 29.7, 42.0),
        Paper("one", "One big page", 0.0, 0.0),
    )
}


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
        return "full size" if self.scale == 1 else f"scale 1:{1 / self.scale:g}"


def row_name(row: int) -> str:
    """A to Z, then AA, AB ..."""
    name = ""
    row += 1
    while row:
        row, rest = divmod(row - 1, 26)
        name = chr(65 + rest) + name
    return name


def cut_into_sheets(layout: Layout, paper: Paper, scale: float = 1.0) -> Sheets:
    """Tiles with 1 cm overlap; those without any cloth are marked empty."""
    width, height = layout.width * scale, layout.height * scale
    if not paper.width:
        return Sheets(paper, scale, layout, (Sheet("A1", 0, 0, 0.0, 0.0, False),), 1, 1, (width, height))
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
    return Sheets(paper, scale, layout, tuple(tiles), rows, columns, step)


def sheets_for(pattern: Pattern, paper: Paper, scale: float = 1.0) -> Sheets:
    """The pieces laid side by side and cut into sheets, with the gap between them that saves most paper."""
    if not paper.width:
        return cut_into_sheets(lay_out(pattern), paper, scale)
    tried = [cut_into_sheets(lay_out(pattern, gap), paper, scale) for gap in GAPS]
    return min(tried, key=lambda sheets: len(sheets.printed))
