"""A small picture of a draft: its pieces in outline with their darts."""

from __future__ import annotations

from widehem.core.design.make import Made
from widehem.core.geometry.paths import Path, svg_d

EDGE = 1.5


def small_svg(draft: Made) -> tuple[str, str]:
    """The inside of the picture and its view box, cm."""
    rows = []
    for piece in draft.laid:
        rows.append(f'<path class="piece" d="{svg_d(piece.ring, closed=True)}"/>')
        for dart in piece.darts:
            rows.append(f'<path class="l-finished thin" d="{svg_d([Path.through(dart.inner, dart.point, dart.outer)])}"/>')
        for inside in piece.inside:
            rows.append(f'<path class="l-finished thin" d="{svg_d([inside])}"/>')
    lefts, tops, rights, bottoms = zip(*(piece.bounds for piece in draft.laid), strict=True)
    left, top = min(lefts) - EDGE, min(tops) - EDGE
    return "".join(rows), f"{left:.2f} {top:.2f} {max(rights) - left + EDGE:.2f} {max(bottoms) - top + EDGE:.2f}"
