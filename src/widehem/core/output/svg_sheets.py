"""The map of the sheets for the screen: pieces with their lines, sheet edges, names, empty sheets hatched."""

from __future__ import annotations

from html import escape

from widehem.core.geometry.paths import svg_d
from widehem.core.marking.made import cut_words
from widehem.core.output.ink import Dot, Laid, Stroke, Words, ring_path
from widehem.core.output.sheets import Sheets

MARGIN = 2.0


def map_frame(sheets: Sheets) -> tuple[float, float]:
    """Width and height of the map, cm on paper."""
    if not sheets.paper.width:
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
        rows.append(f'<path class="piece whole" d="{svg_d([ring_path(laid.cut)], closed=True)}"/>')
        for mark in laid.ink:
            if isinstance(mark, Stroke):
                rows.append(f'<path class="l-{mark.kind}" d="{svg_d(mark.paths, closed=mark.closed)}"/>')
            elif isinstance(mark, Dot):
                rows.append(f'<circle class="l-{mark.kind}" cx="{mark.middle.x:.2f}" cy="{mark.middle.y:.2f}" r="0.5"/>')
            elif mark.text == "FOLD":
                rows.append(_words(mark, 1.5))
    rows.append("</g>")
    if sheets.paper.width:
        rows += _grid(sheets)
    rows += [row for laid in sheets.layout.pieces for row in _name(laid, sheets.scale)]
    rows.append("</svg>")
    return "".join(rows)


def _name(laid: Laid, scale: float) -> list[str]:
    """What the piece is and how it is cut, over the grid."""
    label, rows = laid.marked.label, []
    x, y = (label.middle.x + laid.dx) * scale, (label.middle.y + laid.dy) * scale
    for i, words in enumerate((laid.marked.piece.title, f"cut {cut_words(laid.marked.piece)}")):
        look, size = ("t-name", 1.9) if i == 0 else ("t-note", 1.35)
        rows.append(
            f'<text class="{look} t-middle halo" x="{x:.2f}" y="{y + i * 2.2:.2f}" font-size="{size}">{escape(words)}</text>'
        )
    return rows


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
        box = f'x="{tile.x:.2f}" y="{tile.y:.2f}" width="{wide:.2f}" height="{high:.2f}"'
        if tile.empty:
            rows.append(f'<rect class="empty" {box}/>')
            rows.append(
                f'<text class="t-note t-middle" x="{tile.x + wide / 2:.2f}" y="{tile.y + high / 2:.2f}" font-size="1.4">not '
                f"printed</text>"
            )
        rows.append(f'<rect class="l-sheet" {box}/>')
        flag_x, flag_y = tile.x + 0.4, tile.y + high - 3.1
        rows.append(f'<rect class="flag-sheet" x="{flag_x:.2f}" y="{flag_y:.2f}" width="3.6" height="2.6"/>')
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
