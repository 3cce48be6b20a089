"""What belongs to the front of a coat besides its body: lapel and roll line, facing, collar, shoulder pad."""

from __future__ import annotations

import math

from fontTools.misc.transform import Transform

from widehem.core.drafting.methods.coat_shape import Frame, Half
from widehem.core.drafting.upper import DOWN, square_down
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, mirror_in, turn
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.inside import Cloth, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.values import record

ROLL_BEYOND = 2.0
SINGLE_OUT, SINGLE_DOWN, PEAK_UP, PEAK_OUT = 4.0, 1.0, 3.0, 1.0
FACING_IN, FACING_SHOULDER, FACING_PAST = 7.0, 5.0, 4.0
COLLAR_HIGH, COLLAR_IN, COLLAR_OUT, COLLAR_HOLLOW = 7.0, 2.0, 1.0, 1.5
PAD_IN, PAD_DOWN, PAD_PART = 10.0, 10.0, 0.85  # never more of the shoulder than that part
BUTTON_APART, BUTTON_IN, LAST_BUTTON = 11.0, 4.0, 20.0


@record(frozen=True)
class Lapel:
    """The front edge of a coat. corner: of the lapel; turns: where it begins to turn; gorge: from the neck to the corner;
    edge: from the corner to the hem."""

    corner: Point
    turns: Point
    gorge: Path
    edge: Path
    roll: InnerLine


def lapel_of(front: Half, at: Frame, overlap: float, turns: float, double: bool) -> Lapel:
    """The lapel in the frame of the front (x outwards from the centre front). turns: height of the first button, cm."""
    neck = front.top
    corner = Point(-overlap - PEAK_OUT, neck.y - PEAK_UP) if double else Point(-overlap - SINGLE_OUT, neck.y + SINGLE_DOWN)
    start, foot = Point(-overlap, turns), Point(-overlap, at.hem)
    reach = corner.to(start)
    curved = curve_between(corner, Point(-0.12 if double else 0.1, 1.0), start, DOWN, reach * 0.35, reach * 0.3)
    edge = Path((curved,)) + Path.through(start, foot)
    gorge = Path.through(neck, corner)
    roll_top = front.snp - front.way * ROLL_BEYOND
    crossed = front.neck.crossings(start, roll_top - start)
    upper = front.neck
    if crossed:
        index, t = crossed[-1]
        upper = front.neck.split(index, t)[0]
    top = upper.end
    outline = upper.reverse() + gorge + Path((curved,)) + Path.through(start, top)
    folded = outline.moved(mirror_in(start, roll_top))
    return Lapel(corner, start, gorge, edge, InnerLine("roll_line", "Roll line", Path.through(start, top), folded))


def facing_of(front: Half, lapel: Lapel, at: Frame, overlap: float, shoulder: float) -> tuple[Piece, Path]:
    """The facing, and its inner edge as it lies on the front."""
    strip = min(FACING_SHOULDER, shoulder - 2.0)
    on_shoulder = front.snp + front.way * strip
    x = max(FACING_IN - overlap, FACING_PAST)
    low = Point(x, min(lapel.turns.y + 4.0, at.hem - 6.0))
    inner = Path(
        (curve_between(on_shoulder, square_down(front.way), low, DOWN, on_shoulder.to(low) * 0.4, on_shoulder.to(low) * 0.4),)
    )
    inner = inner + Path.through(low, Point(x, at.hem))
    edges = (
        Edge("front_edge", (lapel.edge,)),
        Edge(
            "facing_hem",
            (Path.through(lapel.edge.end, inner.end),),
            (),
            "hem",
            role="hem",
            notches=(Notch("centre front", overlap),),
        ),
        Edge("inner", (inner.reverse(),), role="facing"),
        Edge("facing_shoulder", (Path.through(on_shoulder, front.snp),), role="shoulder"),
        Edge("facing_neck", (front.neck.reverse(),), role="neck"),
        Edge("gorge", (lapel.gorge,)),
    )
    grain = Point(x - 2.0, low.y + 4.0), Point(x - 2.0, at.hem - 8.0)
    return Piece(
        "facing",
        "Coat facing",
        edges,
        layer="facing",
        marks={"snp": front.snp},
        grain=grain,
        cloths=(Cloth("cloth", "2, a pair"),),
        serves="front",
    ), inner


def _collar_neck(length: float) -> Path:
    """The neck edge of a collar, hollowed between the fold and its end, as long as the neckline, cm."""
    start = Point(0.0, COLLAR_HIGH)

    def edge(wide: float) -> Path:
        low = Point(wide * 0.55, COLLAR_HIGH - COLLAR_HOLLOW)
        end = Point(wide, COLLAR_HIGH - COLLAR_HOLLOW / 3)
        return Path(
            (
                curve_between(start, Point(1.0, 0.0), low, Point(1.0, 0.0)),
                curve_between(low, Point(1.0, 0.0), end, Point(1.0, 0.25)),
            )
        )

    return edge(solve_or_nearest(lambda wide: edge(wide).length - length, length * 0.7, length, near=1e-5))


def collar_of(length: float, behind: float, *, falls: bool = True) -> Piece:
    """Half a collar on the fold; length: half the neckline to the centre front, behind: of it to the shoulder seam, cm. falls:
    its neck edge is hollowed and its corner lies further out, so that it falls over the neck without pulling."""
    neck = _collar_neck(length) if falls else Path.through(Point(0.0, COLLAR_HIGH), Point(length, COLLAR_HIGH))
    end = neck.end
    corner = Point(end.x + COLLAR_OUT, COLLAR_IN / 2) if falls else Point(length - COLLAR_IN, COLLAR_IN)
    outer = Path((curve_between(corner, Point(-1.0, -0.25), Point(0.0, 0.0), Point(-1.0, 0.0)),))
    edges = (
        Edge("centre_back", (Path.through(Point(0.0, 0.0), Point(0.0, COLLAR_HIGH)),), (), "fold"),
        Edge(
            "collar_neck",
            (neck,),
            role="neck_seam",
            notches=(Notch("shoulder seam", behind),),
        ),
        Edge("collar_front", (Path.through(end, corner),), role="collar"),
        Edge("collar_outer", (outer,), role="collar"),
    )
    cloths = Cloth("cloth", "2 on the fold"), Cloth("interfacing", "1 on the fold, straight or crosswise")
    return Piece("collar", "Coat collar", edges, stands="fold", middle="centre_back", cloths=cloths)


def pad_of(front: Half, back: Half) -> Piece:
    """The shoulder pad: both armholes laid together at the shoulder; x runs along the seam, the tip at 0."""
    parts = []
    for half, flip in ((back, -1.0), (front, 1.0)):
        upper = half.hole.cut(min(PAD_DOWN, half.hole.length * 0.45))[0]
        level = math.atan2(half.way.y, half.way.x)
        onto = Transform(1, 0, 0, flip, 0, 0).transform(turn(Point(0.0, 0.0), -level)).translate(-half.tip.x, -half.tip.y)
        parts.append(upper.moved(onto))
    outer = parts[0].reverse() + parts[1]
    reach = min(PAD_IN, PAD_PART * front.snp.to(front.tip))
    inside = Point(-reach, 0.0)
    first = curve_between(
        outer.end, Point(-1.0, 0.25), inside, Point(0.0, -1.0), outer.end.to(inside) * 0.45, outer.end.to(inside) * 0.45
    )
    second = curve_between(
        inside, Point(0.0, -1.0), outer.start, Point(1.0, 0.25), outer.start.to(inside) * 0.45, outer.start.to(inside) * 0.45
    )
    edges = Edge("pad_armhole", (outer,), role="pad"), Edge("pad_inner", (Path((first, second)),), role="pad")
    middle = Point(-reach * 0.45, 0.0)
    grain = middle - Point(0.0, 3.0), middle + Point(0.0, 3.0)
    return Piece("pad", "Shoulder pad", edges, layer="inside", grain=grain, cloths=(Cloth("cloth", "4"), Cloth("wadding", "2")))


def buttons(at: Frame, turns: float, overlap: float, double: bool) -> tuple[Point, ...]:
    """Where the buttons lie: on the centre front, or in two rows as far to either side of it."""
    count = max(1, min(4, int((at.hem - LAST_BUTTON - turns) / BUTTON_APART) + 1))
    levels = [turns + BUTTON_APART * number for number in range(count)]
    aside = (-(overlap - BUTTON_IN), overlap - BUTTON_IN) if double else (0.0,)
    return tuple(Point(x, y) for y in levels for x in aside)
