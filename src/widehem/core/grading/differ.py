"""Two ways of grading held against each other in one size: spot by spot, seam by seam, and outline by outline."""

from __future__ import annotations

from shapely import LinearRing, hausdorff_distance
from shapely.affinity import translate

from widehem.core.geometry.points import Point
from widehem.core.grading.propose import at_of, shape_differs, spots_of
from widehem.core.grading.tables import frame_of
from widehem.core.pattern.garment import Garment
from widehem.core.shifting.net import Net, net_of
from widehem.core.shifting.spots import Place
from widehem.core.units import Saying
from widehem.core.values import record

FINE = 0.05  # cm between the points of an outline that is compared


@record(frozen=True)
class Apart:
    """A spot in two ways: how far the second lies beyond the first, out and up, cm."""

    piece: str
    place: Place
    out: float
    up: float

    @property
    def far(self) -> float:
        return Point(self.out, self.up).size


@record(frozen=True)
class SeamApart:
    """A seam in two ways: its name, and how long its first side is in each, cm."""

    title: str
    first: float
    second: float

    @property
    def by(self) -> float:
        return self.second - self.first


@record(frozen=True)
class Difference:
    """Two garments in one size. outlines: by piece, the largest distance between the two outlines, cm. why: where they cannot be
    held against each other spot by spot."""

    spots: tuple[Apart, ...]
    seams: tuple[SeamApart, ...]
    outlines: dict[str, float]
    why: Saying | None = None

    @property
    def node(self) -> float:
        """The largest distance between two spots, cm."""
        return max((spot.far for spot in self.spots), default=0.0)

    @property
    def outline(self) -> float:
        return max(self.outlines.values(), default=0.0)


def difference(one: Garment, other: Garment) -> Difference:
    """How far a garment lies from another of the same size, both in the frames of their pieces."""
    seams = tuple(
        SeamApart(seam.title, one.length_of(seam.first), other.length_of(twin.first))
        for seam in one.seams
        for twin in other.seams
        if twin.name == seam.name
    )
    why = shape_differs(one, other)
    if why is not None:
        return Difference((), seams, {}, why)
    spots: list[Apart] = []
    outlines: dict[str, float] = {}
    for piece in one.pieces:
        net, second = net_of(piece), net_of(other.piece(piece.name))
        axes = frame_of(piece), frame_of(second.piece)
        for place, node in spots_of(net):
            there = at_of(net, second, place, node) if _same_curves(net, second, place) else None
            if there is not None:
                here = place.at if place.target.kind != "level" else Point(axes[0].x, place.at.y)
                move = Point((there.x - axes[1].x) - (here.x - axes[0].x), there.y - here.y)
                if place.target.kind == "level":
                    move = Point(0.0, there.y - here.y)
                spots.append(Apart(piece.name, place, *axes[0].rule(here, move)))
        rings = [LinearRing([tuple(at) for at in shape.outline(FINE / 2)]) for shape in (piece, second.piece)]
        moved = translate(rings[1], axes[0].x - axes[1].x)
        outlines[piece.name] = float(hausdorff_distance(rings[0].segmentize(FINE * 4), moved.segmentize(FINE * 4)))
    return Difference(tuple(spots), seams, outlines)


def _same_curves(net: Net, other: Net, place: Place) -> bool:
    if place.target.kind != "edge":
        return True
    edges = [thing.piece.edge(place.target.name) for thing in (net, other)]
    return [len(part.segments) for part in edges[0].parts] == [len(part.segments) for part in edges[1].parts]
