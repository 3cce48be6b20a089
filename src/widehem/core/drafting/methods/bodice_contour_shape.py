"""Shapes of a contour bodice: panel edges over the bust, side seams, the hem that rises to the side."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from widehem.core.drafting.upper import DOWN
from widehem.core.geometry.curves import Cubic, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, square_to, turn
from widehem.core.pattern.checks.curves import changes
from widehem.core.values import record

# the difference bust - under bust, and what the front loses under the bust on each half, cm
INTAKE = ((10.0, 5.0), (13.0, 5.7), (15.0, 6.4), (18.0, 7.6), (20.0, 7.6), (23.0, 8.9))
ABOVE_FULL, ABOVE_USUAL, ABOVE_PART, ABOVE_FROM, ABOVE_TO = 2.5, 1.9, 0.19, 10.0, 13.0
TOWARDS_CENTRE, EACH_LEAST, SHARED_FROM = 3 / 8, 1.3, 2.6
HEM_RISE, RISES_AT = 3.8, 90.0  # cm from the centre to the side; on a hip of so much, on a smaller one in proportion
STEEPER = (0.8, 1.0, 1.2, 1.4)  # than the straight above it a line may lean over one of its places
LOOKS = 12  # places on a curve at which its bend is looked at
FURTHER, PANEL_RADIUS = (1.0, 1.25, 1.5, 1.8, 2.2, 2.8, 3.4), 4.05  # of RUBBED, one after the other; cm
RUBBED = 2.2  # cm each way over which a corner of a panel edge is rubbed round
CLOSE_TO_WAIST, CLOSE_FIRST = 4.5, 0.5  # cm that a ribcage ends above the waist; by the first rules
CLEAR, LEFT_AT_HIP = 0.6, 0.3  # cm that a panel edge passes the bust point, and that is left at the hip


@record(frozen=True)
class Heights:
    """Levels below the nape, cm. back_under, front_under: the underarms; hem: at the centre; close: how near the waist a ribcage
    ends that is no place of its own in a panel edge; calm: lines never swing out beyond the places they run through; hem_rise: from the centre to the side."""

    top: float
    bust: float
    under_bust: float
    waist: float
    hip: float
    hem: float
    back_under: float
    front_under: float
    close: float
    calm: bool = False
    hem_rise: float = HEM_RISE


def under_intake(difference: float) -> float:
    """What a half front loses under the bust, cm."""
    if difference <= INTAKE[0][0]:
        return difference / 2
    for (low, a), (high, b) in pairwise(INTAKE):
        if difference <= high:
            return a + (b - a) * (difference - low) / (high - low)
    return INTAKE[-1][1]


def above_intake(difference: float) -> float:
    """What it loses at the top edge to each side of the panel line, cm."""
    if difference < ABOVE_FROM:
        return ABOVE_PART * difference
    return ABOVE_USUAL if difference <= ABOVE_TO else ABOVE_FULL


def shared(intake: float) -> tuple[float, float]:
    """An intake split to the centre and to the side of the panel line, cm."""
    centre = intake * TOWARDS_CENTRE
    if intake >= SHARED_FROM:
        centre = max(centre, EACH_LEAST)
    return centre, intake - centre


def panel_edge(line: float, hand: float, off: Sequence[float], heights: Heights, *, even: bool = True) -> tuple[Path, Path]:
    """A panel edge: from the top edge down to the bust, and from there to the hip level and on.

    line: x of the panel line; hand: -1 for the edge towards the centre, 1 for the other. off: how far it stands off the
    line at the top, at the bust, under it, at the waist and at the hip, cm. even: it runs evenly through all of them; by the
    first rules it was plumb again under the bust.
    """
    levels = (heights.top, heights.bust, heights.under_bust, heights.waist, heights.hip)
    spots = [Point(line + hand * x, y) for x, y in zip(off, levels, strict=True)]
    upper = Path((curve_between(spots[0], spots[1] - spots[0], spots[1], DOWN),))
    if even:
        low = spots[2:] if abs(spots[3].y - spots[2].y) > heights.close else spots[3:]
        return upper, through(spots[1], DOWN, *low, calm=heights.calm)
    out: list[Segment] = [curve_between(spots[1], DOWN, spots[2], DOWN)]
    way = (spots[4] - spots[2]).unit()
    down = (spots[4] - spots[3]).unit()
    if abs(spots[3].y - spots[2].y) > 0.5:
        out.append(curve_between(spots[2], DOWN, spots[3], way))
    out.append(curve_between(out[-1].end, way, spots[4], down))
    return upper, Path(tuple(out)) + Path.through(spots[4], spots[4] + down * 20)


def through(start: Point, way: Point, *spots: Point, calm: bool) -> Path:
    """From start in a direction smoothly through all spots, and straight on after the last. calm: see Heights."""
    points, ways = (start, *spots), [way]
    for before, after in zip(points, points[2:], strict=False):
        ways.append((after - before).unit())
    ways.append((points[-1] - points[-2]).unit())
    tried = [ways, *(_calmer(points, ways, steeper) for steeper in STEEPER)] if calm else [ways]
    return min((_over(points, each) for each in tried), key=_unrest) if calm else _over(points, ways)


def _unrest(path: Path) -> tuple[int, float]:
    """How often a line changes its bend, and how tight its tightest turn is."""
    turned, sharpest = list[float](), 0.0
    for curve in path.segments:
        if isinstance(curve, Cubic):
            here, sharp = curve.turns(LOOKS)
            turned += here
            sharpest = max(sharpest, sharp)
    return changes(turned), sharpest


def _calmer(points: Sequence[Point], ways: Sequence[Point], steeper: float) -> list[Point]:
    """The directions of a line that runs down through points, leaning more where it would else swing out before the next of
    them, where the straights on both sides lean the same way. steeper: how much more than the one above at most, as a factor."""
    leans = [(b.x - a.x) / (b.y - a.y) for a, b in pairwise(points)]
    found = [way.x / way.y for way in ways]
    for i in range(len(points) - 2, 0, -1):
        above, below = leans[i - 1], leans[i]
        if above * below > 0:
            wanted = 1.5 * below - 0.5 * found[i + 1]  # from there on it bends one way only
            found[i] = math.copysign(min(max(abs(found[i]), abs(wanted)), steeper * abs(above)), above)
    return [Point(lean, 1.0).unit() for lean in found]


def _over(points: Sequence[Point], ways: Sequence[Point]) -> Path:
    curves = tuple(curve_between(a, v, b, w) for (a, b), (v, w) in zip(pairwise(points), pairwise(ways), strict=True))
    return Path(curves) + Path.through(points[-1], points[-1] + ways[-1] * 20)


def rubbed_round(above: Path, below: Path, *, again: bool) -> tuple[Path, float]:
    """Two parts of a panel edge as one line without a corner where they meet, as long as both; and how far along that is, cm.

    A curve over the corner is shorter than the corner: what it is shorter the lower part ends further down. again: from further
    away, where it would turn too tight.
    """
    for further in FURTHER if again else FURTHER[:1]:  # where the corner is sharp, or the panel small, from further away
        each = min(RUBBED * further, above.length / 2, below.length / 2)
        first, last = above.cut(above.length - each)[0], below.cut(each)[1]
        over = curve_between(first.end, first.arriving, last.start, last.leaving)
        if over.turns(16)[1] < 1 / PANEL_RADIUS:
            break
    whole = first + Path((over,)) + last
    return longer_at_end(whole, above.length + below.length - whole.length), above.length


def onto_way(way: Point, own: Point, other: Point) -> Point:
    """A direction as it lies once the line `own` beside it has been laid along the line `other`."""
    turned = math.atan2(own.cross(other), own.dot(other))
    return way.unit().moved(turn(Point(0.0, 0.0), turned))


def cut_at_hem(path: Path, y: float) -> Path:
    """The path down to a level; one that ends above it is carried straight on."""
    if path.end.y < y and path.arriving.y > 0.0:
        return longer_at_end(path, (y - path.end.y) / path.arriving.y)
    index, t = path.crossings(Point(0.0, y), Point(1.0, 0.0))[-1]
    return Path(path.segments[:index]) if t < 1e-6 and index else path.split(index, t)[0]


def longer_at_end(path: Path, by: float) -> Path:
    """The path carried straight on by so much."""
    return path + Path.through(path.end, path.end + path.arriving * by) if by > 1e-6 else path


def longer_at_start(path: Path, by: float) -> Path:
    """The path begun straight by so much earlier."""
    return Path.through(path.start - path.leaving * by, path.start) + path if by > 1e-6 else path


def rise(share: float, most: float) -> float:
    """How much higher than at the centre the hem lies, this share of the way to the side, cm."""
    return most * (1 - math.cos(math.pi * min(max(share, 0.0), 1.0))) / 2


def between(a: Point, way_a: Point, b: Point, way_b: Point) -> Path:
    """A hem or top edge from a to b, leaving square to one edge and arriving square to the other."""
    return Path((curve_between(a, square_to(way_a, b - a), b, square_to(way_b, b - a)),))
