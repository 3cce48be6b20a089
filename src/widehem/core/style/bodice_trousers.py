"""Joining a half of a bodice to a half of trousers: how the bodice lies, the centre, the side, and darts that become
diamonds."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Cubic, Line, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between, turn
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.pattern.checks.curves import changes
from widehem.core.pattern.edge import Dart, Edge, EdgeKind, Notch
from widehem.core.pattern.inside import BalanceLine, Diamond
from widehem.core.pattern.piece import Piece
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record, replace

BLEND = 10.0  # cm each way over which a corner at the centre back is rubbed round
SIDES_APART = 1.5
SIDES_EQUAL = 0.005
WIDEST, LEAST, CLEAR_OF_SIDE = 4.5, 1.0, 2.0
LOWERED = 2.0  # cm that the point of the front dart is lowered
ALONE = 10.0  # cm a dart without a partner runs on beyond the waist
PAST_MOST = 0.8  # cm
LOOKS = 12  # places on a curve at which its bend is looked at
ROUND_BELOW = 10.0  # cm of the trouser side that is drawn again below the waist


@record(frozen=True)
class Low:
    """The lower edges of a bodice: enough to lay it."""

    edges: tuple[Edge, ...]

    def edge(self, name: str) -> Edge:
        return next(edge for edge in self.edges if edge.name == name)

    def moved(self, by: Transform) -> Low:
        return Low(tuple(edge.moved(by) for edge in self.edges))


@record(frozen=True)
class Laid:
    """A half bodice laid above its trousers. corner: degrees at the centre; gap: between the waists at the centre, cm; pick:
    which
    way its side runs over the waist, where that is settled."""

    bodice: Piece | Low
    gap: float
    corner: float = 0.0
    pick: int | None = None


def above_front(bodice: Piece, trousers: Piece, gap: float) -> Laid:
    """The front straight above: on the carried-up centre front, its side waist this far above the other."""
    mine, other = bodice.edge("waist"), trousers.edge("waist")
    by = Point(other.start.x - mine.start.x, other.end.y - gap - mine.end.y)
    laid = bodice.moved(Transform().translate(by.x, by.y))
    return Laid(laid, other.start.y - laid.edge("waist").start.y)


def above_back(bodice: Piece | Low, trousers: Piece, side_gap: float, centre_gap: float) -> Laid:
    """The back with its centre waist point on the carried-on centre back, turned about it until the side waists are right."""
    mine, other = bodice.edge("waist"), trousers.edge("waist")
    up = trousers.edge("crotch").parts[-1].arriving
    at = other.start + up * centre_gap
    arm = mine.end - mine.start
    want = other.end.y - side_gap - at.y
    if abs(want) >= arm.size * 0.6:
        raise CannotDraft(
            ("nape_waist", "crotch_depth", "waist_hip"),
            say("The back of the bodice cannot be laid above the trousers: its side would lie {0} off. Read nape to waist "
                "and crotch depth again.", want),
        )  # fmt: skip
    angle = math.asin(want / arm.size) - math.atan2(arm.y, arm.x)
    laid = bodice.moved(turn(at, angle).translate(at.x - mine.start.x, at.y - mine.start.y))
    corner = angle_between(laid.edge("centre_back").parts[-1].arriving, -up)
    return Laid(laid, centre_gap, corner)


def centre_and_crotch(laid: Laid, trousers: Piece, name: str) -> tuple[Path, Path]:
    """The centre from the neck down to the waist of the trousers, and the crotch from there to the fork."""
    crotch = trousers.edge("crotch").parts[0].reverse()
    top = laid.bodice.edge(name).start
    waist = laid.bodice.edge(name).end
    straight = crotch.segments[0]
    if laid.corner < 0.05 or not isinstance(straight, Line):
        return Path.through(top, crotch.start), crotch
    above, below = min(BLEND, top.to(waist) / 2), min(BLEND, waist.to(straight.end) * 0.8)
    start = waist + (top - waist).unit() * above
    end = waist + (straight.end - straight.start).unit() * below
    whole = Path((Line(top, start), curve_between(start, waist - start, end, end - waist), Line(end, straight.end)))
    whole = whole + Path(crotch.segments[1:])
    return whole.cut(top.to(waist) + laid.gap)


def middle_of_sides(laid: Laid, trousers: Piece) -> tuple[Point, float]:
    """The point between both side waists, and how much of what they are apart sideways goes to the darts instead, cm
    outwards."""
    mine, other = laid.bodice.edge("waist").end, trousers.edge("waist").end
    apart = mine.x - other.x
    spare = max(abs(apart) - SIDES_APART, 0.0)
    outwards = 1.0 if mine.x > laid.bodice.edge("waist").start.x else -1.0
    wider = 1.0 if apart * outwards > 0 else -1.0  # the bodice is the wider one
    middle = mine.toward(other, 0.5)
    return middle - Point(outwards * wider * spare / 2 * (1 if wider > 0 else -1), 0.0), spare / 2


Even = Literal["first", "even", "calm"]  # by the first rules; bends one way from the waist up; and waves as little as may be


def side_of(laid: Laid, trousers: Piece, middle: Point, *, even: Even = "even", pick: int | None = None) -> tuple[Edge, int]:
    """From the hem up to the underarm over the point between the waists, rubbed round; and which of the ways it may run there
    was picked, where that is not settled already."""
    lower = trousers.edge("side").parts[0].reverse()
    side = laid.bodice.edge("side")
    first = side.parts[0]
    kept = lower.cut(lower.length - min(ROUND_BELOW, lower.length / 3))[0]
    way = (middle - kept.end).unit() + (first.end - middle).unit()
    chord = (first.end - middle).unit()
    if even != "first" and way.cross(chord) * chord.cross(first.arriving) < 0:
        way = chord * (2 * first.arriving.dot(chord)) - first.arriving
    tried = [_over_the_waist(kept, middle, each, first) for each in _ways(way, middle, kept.end, first, calm=even == "calm")]
    if even == "calm" and not side.darts:  # straight past the point between the waists, where it would wave over it
        past = Path((curve_between(kept.end, kept.arriving, first.end, first.arriving),))
        near = past.at_level(middle.y)
        if near is not None and (near.to(middle) < PAST_MOST or pick == len(tried)):
            tried.append(past)
    if pick is None:
        pick = min(range(len(tried)), key=lambda number: _unrest(kept + tried[number])) if len(tried) > 1 else 0
    up = tried[min(pick, len(tried) - 1)]
    return Edge("side", (kept + up, *side.parts[1:]), side.darts), pick


def _unrest(path: Path) -> tuple[int, float]:
    """How often a line changes its bend, and how much it turns altogether, this way and that, radians."""
    turned = [turn for curve in path.segments if isinstance(curve, Cubic) for turn in curve.turns(LOOKS)[0]]
    return changes(turned), sum(map(abs, turned))


def _over_the_waist(kept: Path, middle: Point, way: Point, first: Path) -> Path:
    return Path((curve_between(kept.end, kept.arriving, middle, way), curve_between(middle, way, first.end, first.arriving)))


def _ways(way: Point, middle: Point, low: Point, first: Path, *, calm: bool) -> list[Point]:
    """Directions in which a side may run over the point between the waists; the usual one first."""
    if not calm:
        return [way]
    below, above = (middle - low).unit(), (first.end - middle).unit()
    return [way, (below + above).unit(), (below * 2 + above).unit(), (below + above * 2).unit(), below, above]


@record(frozen=True)
class _Pair:
    """A dart of the bodice and one of the trousers under it, either may be missing."""

    upper: Dart | None
    lower: Dart | None


def diamonds_of(laid: Laid, trousers: Piece, less: float, lowered: float, unsewn: bool) -> tuple[tuple[Diamond, ...], float]:
    """The darts above and below as long diamonds, from the centre outwards, and what they were too wide for, cm.

    less: what the sides give to them; lowered: how far the upper points are lowered; unsewn: leave out a second one.
    """
    uppers = list(laid.bodice.edge("waist").darts)
    lowers = list(trousers.edge("waist").darts)
    pairs = [_Pair(u, lo) for u, lo in _in_order(uppers, lowers)]
    if unsewn:
        pairs = pairs[:1]
    total = sum(_width(pair) for pair in pairs)
    share = max(total - less, 0.0) / total if total else 0.0
    found, over = [], 0.0
    for number, pair in enumerate(pairs, 1):
        width = _width(pair) * share
        over += max(width - WIDEST, 0.0)
        width = min(width, WIDEST)
        if width < LEAST:
            over += width
            continue
        found.append(_diamond(f"waist_dart_{number}", pair, width, laid, trousers, lowered))
    return tuple(found), over


def _in_order(uppers: Sequence[Dart], lowers: Sequence[Dart]) -> list[tuple[Dart | None, Dart | None]]:
    count = max(len(uppers), len(lowers))
    return [(uppers[i] if i < len(uppers) else None, lowers[i] if i < len(lowers) else None) for i in range(count)]


def _width(pair: _Pair) -> float:
    """The mean of both; half of one alone."""
    return ((pair.upper.intake if pair.upper else 0.0) + (pair.lower.intake if pair.lower else 0.0)) / 2


def _mouth(dart: Dart) -> Point:
    return dart.inner.toward(dart.outer, 0.5)


def _diamond(name: str, pair: _Pair, width: float, laid: Laid, trousers: Piece, lowered: float) -> Diamond:
    gap = laid.gap / 2
    if pair.upper is not None:
        mouth = _mouth(pair.upper)
        way = (mouth - pair.upper.point).unit()
        top = pair.upper.point + way * min(lowered, pair.upper.point.to(mouth) / 2)
        middle = mouth + way * gap
    else:
        assert pair.lower is not None
        way = Point(0.0, 1.0)
        middle = _mouth(pair.lower) - way * gap
        top = middle - way * ALONE
    if pair.lower is not None:
        below = _mouth(pair.lower)
        bottom = pair.lower.point + Point((middle + way * gap).x - below.x, 0.0)
    else:
        bottom = middle + way * ALONE
    across = (bottom - top).unit().square()
    centre = trousers.edge("waist").start
    if across.dot(centre - middle) > 0:
        across = -across
    return Diamond(name, top, bottom, middle - across * (width / 2), middle + across * (width / 2))


@record(frozen=True)
class Waist:
    """What lies between bodice and trousers: the point between both sides, the diamonds, and the whole side; pick: which way
    that
    runs over the waist."""

    middle: Point
    diamonds: tuple[Diamond, ...]
    side: Edge
    pick: int


def waist_of(
    laid: Laid, trousers: Piece, lowered: float = 0.0, *, unsewn: bool = False, even: Even = "even", pick: int | None = None
) -> Waist:
    """The waist of a half. lowered: how far the upper points of its darts are lowered; unsewn: a second dart is left out; even,
    pick: see side_of."""
    middle, given = middle_of_sides(laid, trousers)
    diamonds, over = diamonds_of(laid, trousers, given, lowered, unsewn)
    outwards = 1.0 if middle.x > trousers.edge("waist").start.x else -1.0
    kept, at = list(diamonds), middle.x - outwards * over
    while kept and (at - kept[-1].outer.x) * outwards < CLEAR_OF_SIDE:  # too near the side: that takes it instead
        at -= outwards * kept.pop().intake
    middle = Point(at, middle.y)
    side, chosen = side_of(laid, trousers, middle, even=even, pick=laid.pick if pick is None else pick)
    return Waist(middle, tuple(kept), side, chosen)


def back_with_side(
    bodice: Piece, trousers: Piece, gap: float, centre_gap: float, side: float, *, unsewn: bool, even: Even = "even"
) -> Laid:
    """The back laid so that its side comes out as long as the front's. gap: at the side, to begin with, cm."""
    low = Low(tuple(bodice.edge(name) for name in ("centre_back", "waist", "side")))

    def over(trial: float) -> float:
        laid = above_back(low, trousers, trial, centre_gap)
        return waist_of(laid, trousers, unsewn=unsewn, even=even, pick=pick).side.length - side

    first = waist_of(above_back(low, trousers, gap, centre_gap), trousers, unsewn=unsewn, even=even)
    pick = first.pick
    try:
        gap = settle(over, gap, near=SIDES_EQUAL)
    except NoSolutionError as none:
        gap = none.best
    return replace(above_back(bodice, trousers, gap, centre_gap), pick=pick)


def half(laid: Laid, trousers: Piece, waist: Waist, kind: EdgeKind) -> Piece:
    """A half of the suit, in the frame in which both parts lie. kind: of the seam at its centre."""
    bodice = laid.bodice
    assert isinstance(bodice, Piece)
    centre, crotch = centre_and_crotch(laid, trousers, bodice.middle)
    low = trousers.edge("crotch")
    notches = tuple(
        replace(notch, along=min(low.length - notch.along, crotch.length)) for notch in low.notches if notch.name == "crotch"
    )
    edges = (
        Edge(bodice.middle, (centre,), (), kind),
        Edge("crotch", (crotch,), (), "seam", True, notches=notches),
        Edge("inseam", (trousers.edge("inseam").parts[0].reverse(),)),
        Edge("hem", (trousers.edge("hem").parts[0].reverse(),), (), "hem"),
        replace(waist.side, notches=_from_the_hem(trousers.edge("side"))),
        *(edge for edge in bodice.edges if edge.name not in (bodice.middle, "waist", "side")),
    )
    middle = waist.middle
    across = Point(1.0 if middle.x > trousers.edge("waist").start.x else -1.0, 0.0)
    balance = (
        *(line for line in bodice.balance if line.level not in trousers.levels),
        BalanceLine("waist", ((middle - across, middle),), notched=False),
        *(line for line in trousers.balance if line.level != "waist"),
    )
    return Piece(
        bodice.name, f"Suit {bodice.name}", edges, bodice.of, balance, "shell", "pair", bodice.middle,
        {**trousers.marks, **bodice.marks}, trousers.grain, waist.diamonds,
    )  # fmt: skip


def _from_the_hem(side: Edge) -> tuple[Notch, ...]:
    """The notches of a trouser side, counted from the hem."""
    return tuple(sorted((replace(notch, along=side.length - notch.along) for notch in side.notches), key=lambda n: n.along))
