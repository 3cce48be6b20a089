"""Two drafts over each other: the first solid, the second dashed, each with its darts."""

from __future__ import annotations

from collections.abc import Sequence

from fontTools.misc.transform import Transform

from widehem.core.geometry.paths import Path, svg_d
from widehem.core.geometry.points import Point
from widehem.core.pattern.piece import Piece

APART, EDGE = 6.0, 3.0


def compare_svg(pairs: Sequence[tuple[Sequence[Piece], Sequence[Piece], Transform]]) -> tuple[str, str]:
    """The inside of the drawing and its view box, cm; pairs stand beside each other."""
    rows: list[str] = []
    right = bottom = 0.0
    top = 0.0
    for mine, others, onto in pairs:
        boxes = [*(piece.bounds for piece in mine), *(_box(other, onto) for other in others)]
        left, high = min(b[0] for b in boxes), min(b[1] for b in boxes)
        dx = right - left + (APART if rows else 0.0)
        place = Transform().translate(dx, 0)
        looks = [
            *(("l-finished", piece, place) for piece in mine),
            *(("l-other", other, place.transform(onto)) for other in others),
        ]
        for look, drawn, way in looks:
            ring = svg_d([path.moved(way) for path in drawn.ring], closed=True)
            darts = "".join(svg_d([Path.through(d.inner, d.point, d.outer).moved(way)]) for d in drawn.darts)
            darts += "".join(svg_d([diamond.path.moved(way)]) for diamond in drawn.diamonds)
            rows.append(f'<path class="{look}" d="{ring}"/>' + (f'<path class="{look} thin" d="{darts}"/>' if darts else ""))
        right = dx + max(b[2] for b in boxes)
        bottom, top = max(bottom, *(b[3] for b in boxes)), min(top, high)
    box = f"{-EDGE:g} {top - EDGE:.2f} {right + 2 * EDGE:.2f} {bottom - top + 2 * EDGE:.2f}"
    return "".join(rows), box


def _box(piece: Piece, by: Transform) -> tuple[float, float, float, float]:
    a = Point(piece.bounds[0], piece.bounds[1]).moved(by)
    b = Point(piece.bounds[2], piece.bounds[3]).moved(by)
    return a.x, a.y, b.x, b.y
