"""The map of the sheets for the screen: pieces with their lines, sheet edges, names, empty sheets hatched."""

from __future__ import annotations

from html import escape
from typing import Any

from shapely import Polygon, box

from widehem.core.geometry.paths import svg_d
from widehem.core.marking.labels import cut_words
from widehem.core.output.ink import Dot, Stroke, Words, ring_path
from widehem.core.output.sheets import Sheets

MARGIN = 2.0


def map_frame(sheets: Sheets) -> tuple[float, float]:
    """Width and height of the map, cm on paper."""
    if len(sheets.tiles) == 1 and not sheets.paper.height:
        return sheets.layout.width * sheets.scale, sheets.layout.height * sheets.scale
    tile_w, tile_h = sheets.paper.tile
    return sheets.step[0] * (sheets.columns - 1) + tile_w, sheets.step[1] * (sheets.rows - 1) + tile_h


def sheet_map_svg(sheets: Sheets) -> str:
    """A whole svg element; a unit is a centimetre on the paper."""
    width, height = map_frame(sheets)
    printed = len(sheets.printed)
    label = f"Plan of {printed} sheets in {sheets.rows} rows of {sheets.columns}, with the pieces laid over them"
    rows = [
        f'<svg class="wh-draw" viewBox="{-MARGIN} {-MARGIN} {width + 2 * MARGIN:.2f} {height + 2 * MARGIN:.2f}" '
        f'preserveAspectRatio="xMinYMin meet" role="img" aria-label="{label}">',
        '<defs><pattern id="hatch" width="3" height="3" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">'
        '<line class="l-hatch" x1="0" y1="0" x2="0" y2="3"/></pattern></defs>',
        f'<rect class="paper" x="0" y="0" width="{width:.2f}" height="{height:.2f}"/>',
        f'<g transform="scale({sheets.scale:g})">',
    ]
    for laid in sheets.layout.pieces:
        rows.append(
            f'<path class="piece whole" d="{svg_d([ring_path(laid.cut)], closed=True)}"><title>{escape(laid.marked.piece.title)}</title></path>'
        )
        for mark in laid.ink:
            if isinstance(mark, Stroke):
                rows.append(f'<path class="l-{mark.kind}" d="{svg_d(mark.paths, closed=mark.closed)}"/>')
            elif isinstance(mark, Dot):
                rows.append(f'<circle class="l-{mark.kind}" cx="{mark.middle.x:.2f}" cy="{mark.middle.y:.2f}" r="0.5"/>')
            elif mark.text == "FOLD":
                rows.append(_words(mark, 1.5))
    rows.append("</g>")
    if sheets.paper.height or len(sheets.tiles) > 1:
        rows += _grid(sheets)
    rows += _names(sheets)
    rows.append("</svg>")
    return "".join(rows)


def _names(sheets: Sheets) -> list[str]:
    """What each piece is and how it is cut: inside it, beside the names of the sheets and off the other names; smaller where
    it is small, and left to the cut list where there is no room at all."""
    taken = [box(*flag) for flag in _flags(sheets)] if sheets.paper.height else []
    rows: list[str] = []
    for laid in sheets.layout.pieces:
        left, top, right, bottom = laid.marked.bounds
        at = (left + right) / 2 * sheets.scale, (top + bottom) / 2 * sheets.scale
        cloth = Polygon([(p.x * sheets.scale, p.y * sheets.scale) for p in laid.cut]).buffer(0)
        title = laid.marked.piece.title
        for lines, size in _ways(title, f"cut {cut_words(laid.marked.piece)}"):
            found = _room(cloth, taken, at, lines, size)
            if found is None:
                continue
            taken.append(found)
            left, top, right, _ = found.bounds
            for i, words in enumerate(lines):
                look, part = ("t-name", 1.0) if words in title else ("t-note", NOTE)
                rows.append(
                    f'<text class="{look} t-middle halo" x="{(left + right) / 2:.2f}" y="{top + (i + 0.8) * LINE * size:.2f}" '
                    f'font-size="{size * part:.2f}">{escape(words)}</text>'
                )
            break
    return rows


SIZES, NOTE, LINE = (1.9, 1.5, 1.2, 0.95), 0.7, 1.15  # of a name, cm; of the words below it; from line to line
LETTER, NOTE_LETTER = 0.56, 0.61  # how wide a letter is, of its size
AWAY = (0, -2, 2, -4, 4, -6, 6, -9, 9, -12, 12, -16, 16)  # lines a name may stand higher or lower


def _ways(title: str, cut: str) -> list[tuple[tuple[str, ...], float]]:
    """The words of a name and their size, the best way first."""
    first, _, rest = title.rpartition(" ")
    broken = (first, rest) if first else (title,)
    return [
        *(((title, cut), size) for size in SIZES), *(((title,), size) for size in SIZES[1:]), *((broken, size) for size in SIZES[1:]),
    ]  # fmt: skip


def _room(cloth: Any, taken: list[Any], at: tuple[float, float], lines: tuple[str, ...], size: float) -> Any:
    """Where words lie inside a piece and off everything else, near their place; None where they do not."""
    wide = max(
        len(words) * (LETTER * size if i == 0 or len(lines) == 1 or " " not in words else NOTE_LETTER * NOTE * size)
        for i, words in enumerate(lines)
    )
    high = LINE * size * len(lines)
    for down in AWAY:
        for aside in (0.0, -0.25, 0.25):
            x, y = at[0] + aside * wide, at[1] + down * LINE * size * 0.5
            found = box(x - wide / 2, y - high / 2, x + wide / 2, y + high / 2)
            if cloth.covers(found) and not any(found.intersects(other) for other in taken):
                return found
    return None


def _flags(sheets: Sheets) -> list[tuple[float, float, float, float]]:
    """Where the names of the sheets stand."""
    high = {tile.row: sheets.paper.tile[1] if tile.row == sheets.rows - 1 else sheets.step[1] for tile in sheets.tiles}
    return [
        (
            tile.x + FLAG[0],
            tile.y + high[tile.row] - FLAG[1],
            tile.x + FLAG[0] + FLAG[2],
            tile.y + high[tile.row] - FLAG[1] + FLAG[3],
        )
        for tile in sheets.tiles
    ]


FLAG = (0.4, 3.1, 3.6, 2.6)  # the name of a sheet: from its left, from its bottom, width, height


def _words(words: Words, size: float) -> str:
    turn = f' transform="rotate({words.turn:g} {words.at.x:.2f} {words.at.y:.2f})"' if words.turn else ""
    where = f'x="{words.at.x:.2f}" y="{words.at.y:.2f}" font-size="{size}"{turn}'
    return f'<text class="t-note t-middle" {where}>{escape(words.text)}</text>'


def _grid(sheets: Sheets) -> list[str]:
    tile_w, tile_h = sheets.paper.tile
    rows = []
    for tile in sheets.tiles:
        wide = tile_w if tile.column == sheets.columns - 1 else sheets.step[0]
        high = tile_h if tile.row == sheets.rows - 1 else sheets.step[1]
        at = f'x="{tile.x:.2f}" y="{tile.y:.2f}" width="{wide:.2f}" height="{high:.2f}"'
        if tile.empty:
            rows.append(f'<rect class="empty" {at}/>')
            rows.append(
                f'<text class="t-note t-middle" x="{tile.x + wide / 2:.2f}" y="{tile.y + high / 2:.2f}" font-size="1.4">not '
                f"printed</text>"
            )
        rows.append(f'<rect class="l-sheet" {at}/>')
        flag_x, flag_y = tile.x + FLAG[0], tile.y + high - FLAG[1]
        rows.append(f'<rect class="flag-sheet" x="{flag_x:.2f}" y="{flag_y:.2f}" width="{FLAG[2]}" height="{FLAG[3]}"/>')
        rows.append(
            f'<text class="t-sheet t-middle" x="{flag_x + 1.8:.2f}" y="{flag_y + 1.9:.2f}" font-size="1.7">{tile.name}</text>'
        )
        if tile.column < sheets.columns - 1:
            rows.append(_diamond(tile.x + wide, tile.y + high / 2))
        if tile.row < sheets.rows - 1:
            rows.append(_diamond(tile.x + wide / 2, tile.y + high))
    return rows


def _diamond(x: float, y: float, half: float = 0.9) -> str:
    corners = (x, y - half), (x + half, y), (x, y + half), (x - half, y)
    return f'<path class="diamond" d="M{"L".join(f"{a:.2f} {b:.2f}" for a, b in corners)}Z"/>'
