"""A panel of a seam-shaped gown: both edges shaped from underarm to waist and flared below.

In the frame of a panel u runs outwards from its upright centre line, y down from the waist.
"""

from __future__ import annotations

import math

from widehem.core.drafting.upper import DOWN
from widehem.core.geometry.curves import Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, square_to
from widehem.core.values import record, replace

ROUND = 4.0  # cm each way over which the corner at the waist is rubbed round
COMES_IN = 3.0  # cm the underarm must lie above the bust, or the edge does not come in again
UP = Point(0.0, -1.0)
FLOWS_FROM, FLOWS = 4.0, 16.0  # cm: nearer to the bust an edge does not come in at the underarm; four times its radius beyond
BUST_ROOM, RUN_OVER = (
    3.0,
    0.5,
)  # cm between underarm and bust: in which an edge can come in again; under which it runs straight into it


@record(frozen=True)
class Levels:
    """Heights, cm: y of bust, underarm; how long the skirt is; t: flare in radians; hip: y of the hip."""

    bust: float
    underarm: float
    length: float
    flare: float
    hip: float

    @property
    def ends(self) -> float:
        """How far below the waist the hem ends at the edges."""
        return self.length * math.cos(self.flare)


@record(frozen=True)
class Stations:
    """Where an edge stands at the underarm, the bust and the waist: u, cm. hand: -1 at the centre, 1 at the side."""

    underarm: float
    bust: float
    waist: float
    hand: float

    def lowered(self, room: float, *, flows: bool) -> Stations:
        """The stations with the underarm so near (cm) above the bust: too near to come in again, it runs over into it. flows: it
        comes in only as far as one soft curve can; by the earlier rules it made a step."""
        if flows:
            steps = self.underarm - self.bust
            return replace(
                self, underarm=self.bust + math.copysign(min(abs(steps), max(room - FLOWS_FROM, 0.0) ** 2 / FLOWS), steps)
            )
        share = min(max(room / RUN_OVER, 0.0), 1.0)
        return replace(self, underarm=self.bust + (self.underarm - self.bust) * share)


def shaped_edge(at: Stations, levels: Levels, top: Point) -> Path:
    """From the top (upright above the underarm) down to the hem."""
    way = Point(at.hand * math.sin(levels.flare), math.cos(levels.flare))
    waist, foot = Point(at.waist, 0.0), Point(at.waist, 0.0) + way * levels.length
    bust = Point(at.bust, levels.bust)
    parts: list[Segment] = []
    if top.y < levels.underarm - 1e-6:
        parts += Path.through(top, Point(at.underarm, levels.underarm)).segments
    if bust.y > levels.underarm + 1e-6:
        parts.append(curve_between(Point(at.underarm, levels.underarm), DOWN, bust, DOWN))
    chord = waist - bust
    upper = Path((curve_between(bust, DOWN, waist, chord),))
    whole = upper.length
    above = min(ROUND, whole / 2)
    kept, _ = upper.cut(whole - above)
    middle = (chord.unit() + way).unit()
    parts += kept.segments
    parts.append(curve_between(kept.end, kept.arriving, waist, middle))
    below = waist + way * min(ROUND, levels.length / 2)
    parts.append(curve_between(waist, middle, below, way))
    parts += Path.through(below, foot).segments
    return Path(tuple(parts))


def level_hem(centre: Path, side: Path, length: float) -> Path:
    """From the centre edge to the side edge, square to both, in the middle as long below the waist as they are; on a short
    skirt a little longer there, or it would wave."""
    a, b = centre.end, side.end
    out, into = square_to(centre.arriving, b - a), square_to(side.arriving, b - a)
    way = side.arriving
    middle = Point((a.x + b.x) / 2, max(length, b.y + (b.x - a.x) / 2 * abs(way.x / way.y) / 3))
    return Path((curve_between(a, out, middle, Point(1.0, 0.0)), curve_between(middle, Point(1.0, 0.0), b, into)))


def split_at(path: Path, y: float) -> tuple[Path, Path]:
    """The path above and below a level it crosses once on its way down."""
    index, t = path.crossings(Point(0.0, y), Point(1.0, 0.0))[-1]
    return path.split(index, t)
