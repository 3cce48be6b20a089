"""Pieces so plain that every figure of theirs can be told by heart: boxes with named sides, a dart, a level."""

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece


def straight(*spots: tuple[float, float]) -> Path:
    return Path.through(*(Point(*spot) for spot in spots))


def box(name: str, wide: float, high: float, *, stands="fold", roles=("waist", "side", "hem"), levels=(), of="") -> Piece:
    """A box from its middle line outwards: top, outer side, bottom, and the middle; clockwise from the top of the middle."""
    top, side, bottom = roles
    middle = f"centre_{of or name}"
    edges = (
        Edge(top, (straight((0, 0), (wide, 0)),)),
        Edge(side, (straight((wide, 0), (wide, high)),)),
        Edge(bottom, (straight((wide, high), (0, high)),), (), "hem"),
        Edge(middle, (straight((0, high), (0, 0)),), (), "fold" if stands == "fold" else "seam"),
    )
    balance = tuple(BalanceLine.across(level, y) for level, y in levels)
    return Piece(name, name.capitalize(), edges, of, balance, "shell", stands, middle)


def darted_box(name: str, wide: float, high: float, *, at: float, takes: float, deep: float, levels=()) -> Piece:
    """A box with one dart in its top: its middle so far from the centre, so wide at the mouth, so deep."""
    whole = box(name, wide, high, levels=levels)
    inner, outer = Point(at - takes / 2, 0.0), Point(at + takes / 2, 0.0)
    dart = Dart(
        f"{name}_dart", Point(at, deep), inner, outer, Point(at, 0.0), takes, deep, Path.through(inner, Point(at, -0.1), outer)
    )
    parts = straight((0, 0), tuple(inner)), straight(tuple(outer), (wide, 0))
    return whole.with_edge(Edge("waist", parts, (dart,)))
