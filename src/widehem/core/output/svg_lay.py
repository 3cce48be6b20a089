"""A lay of cloth as a picture: the cloth lying from left to right, its selvedges, its fold and its stripes, every piece with its name and
its grain."""

from __future__ import annotations

import math
from html import escape
from typing import NamedTuple

from shapely import Point, Polygon

from widehem.core.making.lay.cutouts import Cutout
from widehem.core.making.lay.placed import Lay, Placed
from widehem.core.output.lay_words import Written, letters, written
from widehem.core.units import CM_PER_INCH, Display

LETTERS, LEAST_LETTERS = 0.034, 0.0247  # of the width of the cloth: the largest and the least words
WORDS = 0.024  # of the width of the cloth: words beside it
GRAIN_ROOM = 1.2  # cm that a grain line has round its middle at least
ROOM, END = 7.0, 12.0  # cm round the cloth; beyond the lay
STEP = {"cm": 50.0, "in": 18 * CM_PER_INCH}  # between marks along the cloth


class Picture(NamedTuple):
    """The inside of a drawing, its view box, its size, cm on the cloth, and what the letters in it stand for."""

    inside: str
    box: str
    width: float
    height: float
    key: list[tuple[str, str]]


def lay_svg(lay: Lay, show: Display, *, hand: bool = False, long: float | None = None) -> Picture:
    """The cloth with what lies on it. hand: pieces can be taken hold of; long: the length of cloth there is, cm."""
    table, low = lay.table, _low(lay)
    length = long or lay.length
    whole = table.width / 2 if table.folded else table.width
    end = length + (0.0 if long else END)
    rows = [f'<rect class="lay-cloth" x="0" y="0" width="{end:.1f}" height="{whole:.1f}"/>']
    rows += _selvedges(lay, end, whole)
    rows += _stripes(lay, end, whole, low)
    rows += _marks(length, whole, show)
    outlines = {put.id: Polygon([(x, y + low) for x, y in lay.rings[put.id]]) for put in lay.placed}
    most, least = LETTERS * whole, LEAST_LETTERS * whole
    words = {put.id: written(lay.by_id[put.id], outlines[put.id], most, least) for put in lay.placed}
    given, key = letters(lay, words)
    for put in lay.placed:
        inside = words[put.id] or written(lay.by_id[put.id], outlines[put.id], most, least, given[put.id])
        rows.append(_piece(lay.by_id[put.id], put, outlines[put.id], inside, hand=hand))
    rows.append(f'<path class="lay-end" d="M{length:.1f} -3V{whole + 3:.1f}"/>')
    view = f"{-ROOM / 2:.1f} {-ROOM:.1f} {end + ROOM:.1f} {whole + 2 * ROOM:.1f}"
    return Picture("".join(rows), view, end + ROOM, whole + 2 * ROOM, key)


def _low(lay: Lay) -> float:
    """Where the part of the cloth begins that is laid on."""
    return 0.0 if lay.table.folded else lay.table.selvedge


def _selvedges(lay: Lay, end: float, whole: float) -> list[str]:
    table, size = lay.table, WORDS * whole
    far = whole - table.selvedge
    found = [f'<path class="lay-selvedge" d="M0 {far:.2f}H{end:.1f}"/>']
    if table.folded:
        found.append(
            f'<path class="l-fold" d="M0 0H{end:.1f}"/><text class="lay-word" x="1" y="-1.2" font-size="{size:.2f}">fold</text>'
        )
    else:
        found.append(f'<path class="lay-selvedge" d="M0 {table.selvedge:.2f}H{end:.1f}"/>')
        found.append(f'<text class="lay-word" x="1" y="-1.2" font-size="{size:.2f}">selvedge</text>')
    found.append(f'<text class="lay-word" x="1" y="{whole + size:.1f}" font-size="{size:.2f}">selvedge</text>')
    return found


def _stripes(lay: Lay, end: float, whole: float, low: float) -> list[str]:
    table, found = lay.table, []
    if table.along:
        bars = [f"M{n * table.along:.2f} 0V{whole:.1f}" for n in range(int(end / table.along) + 1)]
        found.append(f'<path class="lay-stripe" d="{"".join(bars)}"/>')
    if table.across:
        middle = 0.0 if table.folded else low + table.high / 2
        first = middle - math.floor(middle / table.across) * table.across
        lines = [f"M0 {first + n * table.across:.2f}H{end:.1f}" for n in range(int((whole - first) / table.across) + 1)]
        found.append(f'<path class="lay-stripe" d="{"".join(lines)}"/>')
    return found


def _marks(length: float, whole: float, show: Display) -> list[str]:
    step, found, size = STEP[show.unit], [], WORDS * whole
    for number in range(1, int(length / step) + 1):
        x = number * step
        found.append(
            f'<path class="tape-tick" d="M{x:.1f} {whole:.1f}v2"/><text class="lay-word" text-anchor="middle" x="{x:.1f}" y="{whole + 1.5 + size:.1f}" '
            f'font-size="{size:.2f}">{show.length(x, 0)}</text>'
        )
    return found


def _piece(shape: Cutout, put: Placed, outline: Polygon, words: Written | None, *, hand: bool) -> str:
    d = "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in outline.exterior.coords[:-1]) + "Z"
    titles = "".join(f", {part}" for part in (shape.of, "mirrored" if shape.hand == -1 else "") if part)
    name = escape(shape.title + titles)
    taken = (
        f' class="lay-piece" tabindex="0" role="button" data-put="{escape(put.id)}" data-x="{put.x:.3f}" data-y="{put.y:.3f}" data-turned="{put.turned}" '
        f'data-flipped="{int(put.flipped)}" data-free="{int(shape.free)}" aria-label="{name}, {put.x:.0f} along, {put.y:.0f} across"'
        if hand
        else ' class="lay-piece"'
    )
    inside = _inside(put, outline, words) if words is not None else ""
    return f'<g{taken}><title>{name}</title><path class="lay-ring{" is-single" if shape.single else ""}" d="{d}"/>{inside}</g>'


def _inside(put: Placed, polygon: Polygon, words: Written) -> str:
    """What is written in a piece, and its grain below."""
    turn = f' transform="rotate(-90 {words.x:.1f} {words.y:.1f})"' if words.upright else ""
    found = [
        f'<text class="lay-name" x="{words.x:.1f}" y="{words.y + words.size * (0.35 + 1.15 * (number - (len(words.lines) - 1) / 2)):.1f}" '
        f'font-size="{words.size:.2f}"{turn}>{escape(line)}</text>'
        for number, line in enumerate(words.lines)
    ]
    down = words.size * (0.7 + 0.6 * len(words.lines))
    reach = float(polygon.exterior.distance(Point(words.x, words.y + down)))
    inside = not words.upright and reach > GRAIN_ROOM and polygon.contains(Point(words.x, words.y + down))
    return "".join(found) + (_grain(put, words.x, words.y + down, reach) if inside else "")


def _grain(put: Placed, x: float, y: float, reach: float) -> str:
    """The grain, its head where the piece has its lower end."""
    long = min(6.0, reach * 0.8)
    tip = {0: (long, 0.0), 180: (-long, 0.0), 90: (0.0, long), 270: (0.0, -long)}[put.turned]
    ux, uy = tip[0] / long, tip[1] / long
    ends = (x - tip[0], y - tip[1]), (x + tip[0], y + tip[1])
    head = "".join(f"M{ends[1][0]:.2f} {ends[1][1]:.2f}l{(-ux - s * uy) * 0.9:.2f} {(-uy + s * ux) * 0.9:.2f}" for s in (1, -1))
    return f'<path class="lay-grain" d="M{ends[0][0]:.2f} {ends[0][1]:.2f}L{ends[1][0]:.2f} {ends[1][1]:.2f}{head}"/>'


STYLE = (
    ".lay-cloth{fill:none;stroke:#000;stroke-width:.2}.lay-ring{fill:none;stroke:#000;stroke-width:.35}.is-single{stroke-dasharray:1.5 1}.lay-name,.lay-word"
    "{font-family:sans-serif;text-anchor:middle}.lay-selvedge,.lay-end,.lay-stripe,.lay-grain,.tape-tick,.l-fold{fill:none;stroke:#000;stroke-width:.2}"
    ".lay-selvedge{stroke-dasharray:.8 .8}.l-fold{stroke-dasharray:4 1 1 1}.lay-word{text-anchor:start}"
)


def lay_picture(lay: Lay, show: Display) -> bytes:
    """A lay as an SVG file by itself, at one to five."""
    picture = lay_svg(lay, show)
    size = f'width="{picture.width * 2:.0f}mm" height="{picture.height * 2:.0f}mm"'
    return f'<svg xmlns="http://www.w3.org/2000/svg" {size} viewBox="{picture.box}"><style>{STYLE}</style>{picture.inside}</svg>\n'.encode()
