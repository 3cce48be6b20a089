"""The table of the Cut station: pieces with their cutting lines, every edge of them to be pointed at for its allowance."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from html import escape

from widehem.core.geometry.paths import Path, svg_d
from widehem.core.marking.made import Pattern
from widehem.core.marking.piece import MarkedPiece
from widehem.core.output.ink import ring_path
from widehem.core.output.svg_style import spread_out
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.units import Display

EDGE, ASPECT, LETTERS = 5.0, 1.35, 62  # cm round the drawing; its shape, about; as high as so many figures are
Address = Callable[[str, str], str]


def edges_svg(
    pattern: Pattern, to: Address, show: Display, at: tuple[str, str] = ("", ""), own: Sequence[str] = ()
) -> tuple[str, str]:
    """The inside of the drawing and its view box. to: where an edge of a piece leads; at: the one that is pointed at; own: 'piece.edge'
    of those with a figure of their own."""
    lay = spread_out([marked.piece for marked in pattern.pieces])
    laid = [marked.moved(lay[marked.piece.name]) for marked in pattern.pieces]
    bounds = [marked.bounds for marked in laid]
    left, top = min(b[0] for b in bounds) - EDGE, min(b[1] for b in bounds) - EDGE
    wide, high = max(b[2] for b in bounds) - left + EDGE, max(b[3] for b in bounds) - top + EDGE
    size = max(wide, high * ASPECT) / LETTERS
    rows = [_piece(marked) for marked in laid]
    rows += [
        _pick(marked, edge, to, show, at, own, size) for marked in laid for edge in marked.piece.edges if edge.kind != "fold"
    ]
    return "".join(rows), f"{left:.2f} {top:.2f} {wide:.2f} {high:.2f}"


def _piece(marked: MarkedPiece) -> str:
    piece = marked.piece
    rows = [f'<path class="cloth layer-{piece.layer}" d="{svg_d([ring_path(marked.cut)], closed=True)}"/>']
    rows += [f'<path class="l-stitch" d="{svg_d(list(edge.paths()))}"/>' for edge in piece.edges]
    rows += [f'<path class="inside" d="{svg_d(list(paths))}"/>' for _, paths in marked.inner_paths()]
    rows += [f'<path class="l-notch" d="{svg_d([Path.through(n.at, n.inner)])}"/>' for n in marked.notches]
    return "".join(rows)


def _pick(
    marked: MarkedPiece, edge: Edge, to: Address, show: Display, at: tuple[str, str], own: Sequence[str], size: float
) -> str:
    piece = marked.piece
    amount = show.constant(marked.amounts[edge.name])
    words = f"{plain(piece.name)}, {ROLES[edge.role].words} {plain(edge.name)}, allowance {amount} {show.unit}"
    line = svg_d(edge.parts)
    here = at == (piece.name, edge.name)
    mine = f"{piece.name}.{edge.name}" in own
    classes = "pick" + (" is-at" if here else "") + (" is-own" if mine else "")
    figure = ""
    if edge.length > 4 or here or mine:
        spot = edge.place(edge.length / 2)
        out = spot.point + piece.outward(spot.direction) * (marked.amounts[edge.name] + size * 0.8)
        figure = f'<text class="t-allow" x="{out.x:.2f}" y="{out.y + size * 0.35:.2f}" font-size="{size:.2f}">{amount}</text>'
    return (
        f'<a href="{escape(to(piece.name, edge.name))}" class="{classes}" aria-label="{escape(words)}"><path class="reach" d="{line}"/>'
        f'<path class="edge" d="{line}"/>{figure}</a>'
    )
