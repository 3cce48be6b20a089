"""Room round the body as a picture: the body filled, the garment round it, the room written at every level that has a name."""

from __future__ import annotations

from html import escape

from widehem.core.fitting.around import Around, Level
from widehem.core.units import Display

WIDE = 0.4  # of a girth: how far the picture is drawn to each side of its middle
LETTERS = 0.055  # of the width of the garment: how large names and figures are written
LEAST_TALL = 1.0  # of its width: a short garment is not drawn larger than a long one


def around_svg(found: Around, show: Display) -> tuple[str, str]:
    """The inside of the drawing and its view box."""
    levels = found.levels
    widest = max(level.garment for level in levels) * WIDE
    body = [level for level in levels if level.body is not None]
    rows = []
    if len(body) > 1:
        rows.append(f'<path class="a-body" d="{_outline([(level.down, level.body or 0.0) for level in body])}"/>')
    rows.append(f'<path class="a-garment" d="{_outline([(level.down, level.garment) for level in levels])}"/>')
    size = LETTERS * 2 * widest
    rows += _words(found.named, widest, show, found.tightest, size)
    top, low = levels[0].down, levels[-1].down
    left, wide = widest + 6.5 * size, 2 * widest + 11 * size
    tall = max(low - top + 2 * size, LEAST_TALL * wide)
    box = f"{-left:.1f} {(top + low - tall) / 2:.1f} {wide:.1f} {tall:.1f}"
    return "".join(rows), box


def _outline(row: list[tuple[float, float]]) -> str:
    right = [f"{girth * WIDE:.2f} {down:.2f}" for down, girth in row]
    left = [f"{-girth * WIDE:.2f} {down:.2f}" for down, girth in reversed(row)]
    return "M" + "L".join([*right, *left]) + "Z"


def _words(levels: tuple[Level, ...], widest: float, show: Display, tightest: Level | None, size: float) -> list[str]:
    """Names at the left, room at the right, moved apart where levels lie near each other."""
    found, last = [], -1e9
    for level in levels:
        at = max(level.down, last + 1.25 * size)
        last = at
        reach = level.garment * WIDE
        hand = "a-row is-tight" if level is tightest else "a-row"
        room = "" if level.room is None else f"{show.signed(level.room)}"
        name = escape(level.name.replace("_", " "))
        found.append(
            f'<g class="{hand}"><path class="a-line" d="M{-widest - 2:.1f} {at:.1f}L{-reach:.1f} {level.down:.1f}M{reach:.1f} '
            f'{level.down:.1f}L{widest + 2:.1f} {at:.1f}"/><text class="a-name" font-size="{size:.2f}" x="{-widest - 3:.1f}" y="{at + size / 3:.1f}">{name}</text>'
            f'<text class="a-room" font-size="{size:.2f}" x="{widest + 3:.1f}" y="{at + size / 3:.1f}">{escape(room)}</text></g>'
        )
    return found
