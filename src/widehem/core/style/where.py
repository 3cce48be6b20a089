"""A place on a garment that is found again on any body: said in the names of the draft, with another way where it is not
there."""

from __future__ import annotations

from typing import Literal

from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.garment import Chain, EdgeRef, Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.places import spot as mark_of
from widehem.core.pattern.ring import Spot
from widehem.core.units import Saying, say
from widehem.core.values import record

Kind = Literal["part", "cm", "dart", "notch", "level", "under", "beside", "meets"]


class LostPlaceError(Exception):
    """A place that is not on this garment: what was looked for, and what would fit."""

    def __init__(self, saying: Saying) -> None:
        super().__init__(saying.text())
        self.saying = saying


@record(frozen=True)
class Where:
    """A place along an edge of the draft.

    piece, edge: as drafted, however it was cut since. kind: a part of it (0 to 1), so many cm of it, at a dart, a notch or
    a level, plumb under a mark, level beside a mark, or where the seam of another piece ends ('shoulder.end'). place: the
    figure or the name. end: the neighbour in the draft from which it is counted; '' is its start. otherwise: another way
    where this one is not there.
    """

    piece: str
    edge: str
    kind: Kind = "part"
    place: float | str = 0.5
    end: str = ""
    otherwise: Where | None = None

    def as_data(self) -> dict[str, object]:
        """As it is kept in a file."""
        found: dict[str, object] = {"piece": self.piece, "edge": self.edge, "kind": self.kind, "place": self.place}
        if self.end:
            found["end"] = self.end
        if self.otherwise is not None:
            found["otherwise"] = self.otherwise.as_data()
        return found

    @staticmethod
    def from_data(data: dict[str, object]) -> Where:
        """Raises KeyError or ValueError for what is not a place."""
        other, place = data.get("otherwise"), data["place"]
        if data["kind"] not in ("part", "cm", "dart", "notch", "level", "under", "beside", "meets"):
            raise ValueError(f'"{data["kind"]}" is no way to say a place.')
        return Where(
            str(data["piece"]), str(data["edge"]), data["kind"],
            float(place) if isinstance(place, int | float) else str(place), str(data.get("end", "")),
            Where.from_data(other) if isinstance(other, dict) else None,
        )  # fmt: skip


@record(frozen=True)
class Found:
    """A place found: the piece it lies on now, the spot on its outline, and the point."""

    piece: Piece
    spot: Spot
    point: Point


def find(garment: Garment, where: Where) -> Found:
    """The place on this garment. Raises LostPlaceError naming what there is instead."""
    try:
        return _find(garment, where)
    except LostPlaceError:
        if where.otherwise is None:
            raise
        return find(garment, where.otherwise)


def _find(garment: Garment, where: Where) -> Found:
    chain = garment.left_of(EdgeRef(where.piece, where.edge))
    words = f"{where.piece} {where.edge}".replace("_", " ")
    if not chain:
        raise LostPlaceError(say(f"The {words} is not there any more."))
    if where.kind == "dart":
        return _at_dart(garment, chain, str(where.place), words)
    along = _along(garment, chain, where, words)
    whole = garment.length_of(chain)
    if not -1e-6 <= along <= whole + 1e-6:
        raise LostPlaceError(
            say(f"The {words} is {{0}} long: there is no place {{1u}} along it, {{0}} would fit.", whole, along)
        )
    return _at(garment, chain, min(max(along, 0.0), whole))


def _at(garment: Garment, chain: Chain, along: float) -> Found:
    """The place so far along what is left of an edge."""
    for entry in chain:
        edge = garment.edge(entry)
        if along <= edge.length + 1e-9 or entry is chain[-1]:
            on = edge.length - along if entry.back else along
            return Found(garment.piece(entry.piece), Spot(entry.edge, on), edge.place(on).point)
        along -= edge.length
    raise AssertionError("a chain has at least one edge")


def _at_dart(garment: Garment, chain: Chain, name: str, words: str) -> Found:
    for entry in chain:
        for dart in garment.edge(entry).gaps:
            held = [held for held, _ in dart.holds] if isinstance(dart, Dart) else []
            if dart.name == name or name in held:
                return Found(garment.piece(entry.piece), Spot(entry.edge, dart=dart.name), dart.inner.toward(dart.outer, 0.5))
    raise LostPlaceError(say(f"The {words} has no {name.replace('_', ' ')} here."))


def _along(garment: Garment, chain: Chain, where: Where, words: str) -> float:
    """How far along what is left of an edge a place lies, from its start, cm."""
    whole = garment.length_of(chain)
    if where.kind in ("part", "cm"):
        along = float(where.place) * (whole if where.kind == "part" else 1.0)
        return whole - along if _counts_from_the_end(garment, chain, where, words) else along
    gone = 0.0
    for entry in chain:
        piece, edge = garment.piece(entry.piece), garment.edge(entry)
        found: float | None = None
        if where.kind == "notch":
            notch = edge.notch(str(where.place))
            found = notch.along if notch is not None else None
        else:
            line = _line(garment, piece, where)
            found = edge.at_line(*line) if line is not None else None
            if line is not None and found is None:
                found = edge.at_mouth(*line)
        if found is not None:
            return gone + (edge.length - found if entry.back else found)
        gone += edge.length
    raise LostPlaceError(say(f"The {words} does not meet the {str(where.place).replace('_', ' ').replace('.', ' ')}."))


def _line(garment: Garment, piece: Piece, where: Where) -> tuple[Point, Point] | None:
    """The line that meets the edge at a place: a level, the plumb or the level through a mark, or through the end of a seam."""
    name = str(where.place)
    if where.kind == "level":
        level = piece.level(name)
        return level.straight if level is not None else None
    if where.kind == "meets":
        edge, _, end = name.partition(".")
        found = next((s for s in garment.seams if s.name == edge), None)
        if found is None:
            return None
        for chain in found.chains:
            for entry in (chain[0], chain[-1]):
                if entry.piece == piece.name:
                    side = garment.edge(entry)
                    return (side.end if (end == "end") != entry.back else side.start), Point(1.0, 0.0)
        return None
    mark = mark_of(garment, piece.name, name)
    if mark is None or mark[0] != piece.name:
        return None
    return mark[1], Point(0.0, 1.0) if where.kind == "under" else Point(1.0, 0.0)


def _counts_from_the_end(garment: Garment, chain: Chain, where: Where, words: str) -> bool:
    """Whether a place is counted from the end of its edge: the end that the named neighbour lies at."""
    if not where.end:
        return False
    last = chain[-1]
    before, after = garment.piece(last.piece).beside(last.edge)
    if where.end in ((before if last.back else after).name, (before if last.back else after).role):
        return True
    first = chain[0]
    before, after = garment.piece(first.piece).beside(first.edge)
    if where.end in ((after if first.back else before).name, (after if first.back else before).role):
        return False
    raise LostPlaceError(say(f"The {words} has no {where.end.replace('_', ' ')} beside it to count from."))
