"""What can be done at a level or at a landmark inside a piece: the same operations, with their places found from there."""

from __future__ import annotations

from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Value
from widehem.core.style.operation import OPERATIONS
from widehem.core.style.suggest import GUESSES, Offer, Pointed, Wheres, dart_or_part, drafted_edge, side_of, where_at
from widehem.core.style.where import Where

MARKS = ("bust_point", "blade")  # landmarks that lines and darts are drawn about
NEAR, CORNER = 4.0, 0.4  # cm from a landmark to the point of a dart that belongs to it; from a cut to a corner
BELOW = (0.0, 4.0, -6.0, -3.0)  # cm under a level, as it is tried
TOP_ROLES = ("shoulder", "armhole", "neck", "waist", "cap")


def pointed_inside(piece: Piece, name: str) -> str:
    """What a name inside a piece is: 'level', 'mark', or '' for nothing that is there."""
    if piece.level(name) is not None:
        return "level"
    return "mark" if name in piece.marks and name in MARKS else ""


def offers_inside(garment: Garment, at: Pointed) -> list[Offer]:
    """The operations that apply at a level or a landmark of a piece."""
    piece = garment.piece(at.piece)
    kind = pointed_inside(piece, at.inside)
    if kind == "level":
        return _at_level(garment, piece, at.inside)
    return _at_mark(garment, piece, at.inside) if kind == "mark" else []


def _at_level(garment: Garment, piece: Piece, level: str) -> list[Offer]:
    found = []
    height = piece.level(level)
    choices = {choice.code for choice in OPERATIONS["length.adjust"].option("level").choices}
    if level in choices and height is not None:
        settings: dict[str, Value] = {"level": level}
        if (below := _clear(garment, level)) != 0.0:
            settings["below"] = below
        found.append(Offer(OPERATIONS["length.adjust"], {}, settings=settings))
    ends = _crossed(garment, piece, level)
    if len(ends) == 2:
        across = dict(zip(("start", "end"), ends, strict=True))
        found.append(Offer(OPERATIONS["line.cut"], across))
        above = next((edge for role in TOP_ROLES for edge in piece.edges_of(role)), None)
        if above is not None:
            keep = where_at(garment, Pointed(piece.name, above.name, above.length / 2))
            found.append(Offer(OPERATIONS["piece.crop"], {**across, "keep": keep}))
    return found


def _clear(garment: Garment, level: str) -> float:
    """How far from a level the pieces can be cut across, cm: at none of their corners, and not at their very end."""
    pieces = [(piece, line.height) for piece in garment.shell if (line := piece.level(level)) is not None]
    for below in BELOW:
        if all(
            height + below < piece.bounds[3] - 1.0 and all(abs(edge.start.y - height - below) > CORNER for edge in piece.edges)
            for piece, height in pieces
        ):
            return below
    return 0.0


def _crossed(garment: Garment, piece: Piece, level: str) -> list[Where]:
    """Where a level meets the outline of a piece, in the names of the draft."""
    line = piece.level(level)
    if line is None:
        return []
    found: list[Where] = []
    met: list[Point] = []
    for edge in piece.edges:
        along = None if _along(edge) else edge.at_line(*line.straight)
        if along is None or any(spot.to(edge.place(along).point) < CORNER for spot in met):
            continue
        met.append(edge.place(along).point)
        ref, *_ = drafted_edge(garment, SeamEdge(piece.name, edge.name))
        found.append(Where(ref.piece, ref.edge, "level", level))
    return found


def _along(edge: Edge) -> bool:
    """Whether an edge runs level itself: a waist, a hem."""
    way = edge.end - edge.start
    return abs(way.y) < abs(way.x) * 0.4


def _at_mark(garment: Garment, piece: Piece, mark: str) -> list[Offer]:
    found: list[Offer] = []
    spot, side = piece.marks[mark], side_of(piece)
    for edge in piece.edges:
        for dart in edge.darts:
            if dart.point.to(spot) < NEAR:
                at = Pointed(piece.name, edge.name, 0.0, dart.name)
                for code in ("dart.swing", "dart.divide"):
                    _add(found, code, GUESSES[code](garment, piece, edge, at))
    low = next((edge for role in ("waist", "waist_seam", "hem") for edge in piece.edges_of(role)), None)
    high = next((edge for role in ("shoulder", "armhole", "neck") for edge in piece.edges_of(role)), None)
    if low is not None and high is not None and side is not None and piece.middle:
        ref, *_ = drafted_edge(garment, SeamEdge(piece.name, low.name))
        bottom = dart_or_part(garment, piece, low) if low.darts else Where(ref.piece, ref.edge, "under", mark)
        over = where_at(garment, Pointed(piece.name, side.name, side.length / 2))
        _add(found, "panel.line", {"top": dart_or_part(garment, piece, high), "bottom": bottom, "over": over})
    if low is not None:
        _add(found, "bust.fuller", GUESSES["bust.fuller"](garment, piece, low, Pointed(piece.name, low.name)))
    return found


def _add(found: list[Offer], code: str, wheres: Wheres | None) -> None:
    """An offer, once for each operation."""
    if wheres is not None and not any(offer.operation.code == code for offer in found):
        found.append(Offer(OPERATIONS[code], wheres))
