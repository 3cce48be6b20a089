"""Stretches of an edge that are not sewn flat: eased, gathered, laid in pleats; from where to where, and into what."""

from __future__ import annotations

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart, Edge, Pleat
from widehem.core.pattern.garment import Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.units import Display
from widehem.core.values import record

LEAST = 0.4  # cm of ease that is marked
GATHERED = 1.25  # times as long as what it is sewn to, and it is gathered
IN = 0.45  # cm inside the stitching line that the mark runs
CLEAR = 1.5  # cm from the corners, where no notches say where it begins
SPOTS = 24


@record(frozen=True)
class Zone:
    """line: beside the stretch, with a tick at both ends. words: what is done there. ends: on the edge, cm along it."""

    edge: str
    line: Path
    ticks: tuple[Path, Path]
    words: str
    ends: tuple[float, float]


def zones(garment: Garment, piece: Piece, show: Display) -> tuple[Zone, ...]:
    """Where a piece is eased or gathered into what it is sewn to. piece: as it lies where it is marked."""
    found: list[Zone] = []
    for seam in garment.seams:
        if seam.twin or seam.faced:
            continue
        for mine, other in ((seam.first, seam.second), (seam.second, seam.first)):
            whole, less = garment.length_of(mine), garment.length_of(other)
            if whole - less < LEAST:
                continue
            for entry in mine:
                if entry.piece == piece.name:
                    part = garment.edge(entry).length / whole
                    found.append(_zone(piece, entry, less * part, (whole - less) * part, show))
    return tuple(zone for zone in found if zone.ends[1] - zone.ends[0] > 2 * CLEAR)


def _zone(piece: Piece, entry: SeamEdge, into: float, ease: float, show: Display) -> Zone:
    edge = piece.edge(entry.edge)
    notches = sorted(notch.along for notch in edge.notches)
    begin, end = (notches[0], notches[-1]) if len(notches) > 1 and notches[-1] - notches[0] > edge.length / 3 else (
        min(CLEAR, edge.length / 4), edge.length - min(CLEAR, edge.length / 4),
    )  # fmt: skip
    gathered = into > 0 and (into + ease) / into > GATHERED
    flat = into - (edge.length - (end - begin))  # what the stretch itself is sewn to
    words = f"gather to {show.full(flat)}" if gathered else f"ease in {show.full(ease)}"
    return Zone(edge.name, _inside(piece, edge, begin, end), _ticks(piece, edge, begin, end), words, (begin, end))


def _inside(piece: Piece, edge: Edge, begin: float, end: float) -> Path:
    places = [edge.place(begin + (end - begin) * n / SPOTS) for n in range(SPOTS + 1)]
    return Path.through(*(_in(piece, place.point, place.direction, IN) for place in places))


def _ticks(piece: Piece, edge: Edge, begin: float, end: float) -> tuple[Path, Path]:
    first, last = (
        Path.through(place.point, _in(piece, place.point, place.direction, 2 * IN))
        for place in (edge.place(along) for along in (begin, end))
    )
    return first, last


def _in(piece: Piece, at: Point, way: Point, by: float) -> Point:
    return at - piece.outward(way) * by


def folded(edge: Edge) -> tuple[Pleat | Dart, ...]:
    """The gaps of an edge that are folded and not sewn to a point: pleats and tucks."""
    return tuple(gap for gap in edge.gaps if isinstance(gap, Pleat) or (isinstance(gap, Dart) and gap.sewn is not None))
