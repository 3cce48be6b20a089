"""The table on which outlines from elsewhere are named: pieces with the numbers of their edges."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from html import escape

from widehem.core.geometry.paths import Path, svg_d
from widehem.core.output.svg_style import frame_of, spread_out
from widehem.core.pattern.piece import Piece

IN, LETTERS, ASPECT = 1.2, 50, 1.35


def outlines_svg(pieces: Mapping[str, Piece], to: Callable[[str], str], opened: str) -> tuple[str, str]:
    """The inside of the drawing and its view box. to: where a piece leads; opened: the one that is named now."""
    if not pieces:
        return "", "0 0 10 10"
    lay = spread_out(list(pieces.values()))
    laid = {name: piece.moved(lay[piece.name]) for name, piece in pieces.items()}
    left, top, wide, high = (float(n) for n in frame_of(list(laid.values())).split())
    size = max(wide, high * ASPECT) / LETTERS
    rows = []
    for name, piece in laid.items():
        here = " is-at" if name == opened else ""
        rows.append(
            f'<a href="{escape(to(name))}" class="pick whole{here}" aria-label="{escape(piece.title)}"><path class="cloth layer-{piece.layer}" '
            f'd="{svg_d(piece.ring, closed=True)}"/>'
        )
        rows += [f'<path class="inside" d="{svg_d([inside])}"/>' for inside in piece.inside]
        rows += [f'<path class="inside" d="{svg_d([Path.through(d.inner, d.point, d.outer)])}"/>' for d in piece.darts]
        rows += [f'<path class="edge kind-{edge.kind}" d="{svg_d(list(edge.paths()))}"/>' for edge in piece.edges]
        rows.append("</a>")
        for number, edge in enumerate(piece.edges, 1):
            spot = edge.place(edge.length / 2)
            at = spot.point - piece.outward(spot.direction) * size * IN
            rows.append(
                f'<text class="t-number{here}" x="{at.x:.2f}" y="{at.y + size * 0.35:.2f}" font-size="{size:.2f}">{number}</text>'
            )
    return "".join(rows), f"{left:.2f} {top:.2f} {wide:.2f} {high:.2f}"
