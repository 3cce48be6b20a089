"""A step of the order of work as a picture: the pieces it is done to, the edges it is done along lit; and the whole garment small, with
those pieces lit."""

from __future__ import annotations

from collections.abc import Collection
from html import escape

from widehem.core.geometry.paths import Path, svg_d
from widehem.core.geometry.points import Point
from widehem.core.making.steps import Step
from widehem.core.output.svg_style import frame_of, spread_out
from widehem.core.pattern.garment import EdgeRef, Garment
from widehem.core.pattern.piece import Piece

WIDE, LETTERS, NOTCH, LONG, LETTER = (
    1.7,
    0.03,
    1.2,
    16,
    0.6,
)  # width to height of the picture; words, of its larger side; cm of a notch; letters
# of a long title; a letter, of its height


def step_svg(garment: Garment, step: Step) -> tuple[str, str]:
    """The inside of the picture of a step, and its view box."""
    known = {piece.name: piece for piece in garment.pieces}
    pieces = [known[name] for name in step.pieces if name in known] or list(garment.shell)
    lay = spread_out(pieces, WIDE)
    laid = [piece.moved(lay[piece.name]) for piece in pieces]
    frame = frame_of(laid)
    _, _, wide, high = map(float, frame.split())
    size = max(wide, high * WIDE) * LETTERS
    rows = [_piece(piece, step.edges, size) for piece in laid]
    return "".join(rows), frame


def garment_svg(garment: Garment, lit: Collection[str]) -> tuple[str, str]:
    """The inside of the picture of the whole garment with some pieces lit, and its view box."""
    lay = spread_out(garment.pieces, WIDE)
    laid = [piece.moved(lay[piece.name]) for piece in garment.pieces]
    rows = [f'<path class="{"piece is-lit" if p.name in lit else "piece"}" d="{svg_d(p.ring, closed=True)}"/>' for p in laid]
    return "".join(rows), frame_of(laid)


def _piece(piece: Piece, edges: Collection[EdgeRef], size: float) -> str:
    rows = [f'<path class="piece layer-{piece.layer}" d="{svg_d(piece.ring, closed=True)}"/>']
    rows += [f'<path class="inside" d="{svg_d([path])}"/>' for path in piece.inside]
    rows += [f'<path class="inside" d="{svg_d([Path.through(dart.inner, dart.point, dart.outer)])}"/>' for dart in piece.darts]
    for edge in piece.edges:
        if EdgeRef(piece.name, edge.name) not in edges:
            continue
        rows.append(f'<path class="l-fresh" d="{svg_d(edge.parts)}"/>')
        for notch in edge.notches:
            at = edge.place(notch.along)
            into = -piece.outward(at.direction)
            ends = [at.point + at.direction * (0.5 * n) for n in range(notch.count)]
            rows += [f'<path class="make-notch" d="{svg_d([Path.through(end, end + into * NOTCH)])}"/>' for end in ends]
            side = "end" if into.x < 0 else "start"
            rows.append(_word(notch.name, at.point + into * (NOTCH * 1.4), size * 0.6, "make-word", side))
    rows += _name(piece, size)
    return f"<g>{''.join(rows)}</g>"


def _name(piece: Piece, size: float) -> list[str]:
    """The title of a piece in its lower part, where notches seldom lie; in parts where it is long."""
    _, top, _, bottom = piece.bounds
    lines = piece.title.split(", ") if len(piece.title) > LONG else [piece.title]
    for share in (0.78, 0.68, 0.58, 0.48):
        y = top + (bottom - top) * share - size * 0.6 * (len(lines) - 1)
        ends = piece.stretch_at(Point(0.0, y), Point(1.0, 0.0))
        if ends is not None:
            room = abs(ends[1].x - ends[0].x) * 0.9
            mine = min(size, room / (max(map(len, lines)) * LETTER))
            if mine > size * 0.45 or share < 0.5:
                middle = ends[0].toward(ends[1], 0.5)
                return [
                    _word(line, middle + Point(0.0, mine * 1.2 * n), mine, "make-name", "middle")
                    for n, line in enumerate(lines)
                ]
    return []


def _word(text: str, at: Point, size: float, kind: str, anchor: str) -> str:
    return f'<text class="{kind}" text-anchor="{anchor}" x="{at.x:.2f}" y="{at.y + size * 0.35:.2f}" font-size="{size:.2f}">{escape(text)}</text>'
