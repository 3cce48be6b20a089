"""Places on a garment that a demand can name: marks, levels, corners of the draft."""

from __future__ import annotations

from widehem.core.geometry.points import Point
from widehem.core.pattern.garment import Chain, EdgeRef, Garment, SeamEdge


def corner(garment: Garment, ref: EdgeRef, end: str) -> tuple[SeamEdge, Point] | None:
    """The start or end of what is left of an edge of the draft; None when it is gone."""
    chain = on_one_side(garment, ref)
    if not chain:
        return None
    entry = chain[0 if end == "start" else -1]
    edge = garment.edge(entry)
    return entry, edge.start if (end == "start") != entry.back else edge.end


def on_one_side(garment: Garment, ref: EdgeRef) -> Chain:
    """What is left of an edge of the draft on one side of the body."""
    return tuple(e for e in garment.left_of(ref) if garment.piece(e.piece).stands != "left" and garment.edge(e).hand != "left")


def spot(garment: Garment, piece: str, name: str) -> tuple[str, Point] | None:
    """A place on a piece: a mark by its name, a corner as 'edge.start', or 'edge.middle'. The piece it lies on now, and the point."""
    edge, dot, end = name.partition(".")
    if end == "middle":
        chain = on_one_side(garment, EdgeRef(piece, edge))
        whole = garment.edge(chain[0]) if len(chain) == 1 else None
        return (chain[0].piece, whole.place(whole.length / 2).point) if whole else None
    if dot:
        found = corner(garment, EdgeRef(piece, edge), end)
        return (found[0].piece, found[1]) if found else None
    for entry in garment.pieces:
        if (entry.name == piece or entry.of == piece) and name in entry.marks and entry.stands != "left":
            return entry.name, entry.marks[name]
    return None


def apart(garment: Garment, piece: str, first: str, second: str) -> tuple[float, tuple[str, ...]] | None:
    """How far two places of a piece are apart, and what to light; a level is taken plumb. None where one of them is gone.

    A place on another part of a piece that was cut in two is not held: both must lie on one.
    """
    other = spot(garment, piece, second)
    if other is None:
        return None
    held = garment.piece(other[0])
    if first.startswith("@"):
        line = held.level(first[1:])
        if line is None:
            return None
        at, way = line.straight
        return abs(way.cross(other[1] - at)), (f"@{first[1:]}",)
    one = spot(garment, piece, first)
    if one is None or one[0] != other[0]:
        return None
    edges = [name.partition(".")[0] for name in (first, second) if "." in name]
    return one[1].to(other[1]), tuple(f"{held.name}.{edge}" for edge in edges)
