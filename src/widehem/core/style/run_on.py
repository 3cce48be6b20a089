"""What hangs on below: pieces that end at the waist carried on over the hip; a cloak that falls from the shoulders; seams left
open."""

from __future__ import annotations

import math
from itertools import pairwise

from widehem.core.geometry.curves import Line, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.checks.shapes import HemRises
from widehem.core.pattern.checks.upper import ArmholeOn, FrontInside, SideLeans
from widehem.core.pattern.checks.whole import FloorClear
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.garment import EdgeRef, Garment, SeamEdge
from widehem.core.pattern.inside import BalanceLine, Diamond
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, plain
from widehem.core.pattern.shaping import faired_end, faired_start
from widehem.core.setting.option import Option
from widehem.core.style.asks import all_of, also, hangs_free, notches_left, places_left, without
from widehem.core.style.grown_sleeves import with_armhole
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

LONG = Option("long", "Below the waist", "length", 22.0, "how far the pieces run on", 6.0, 125.0, 1.0)
EASE = Option("ease", "Ease at the hip", "length", 8.0, "round the body; less than nothing in a knit", -20.0, 60.0, 1.0)
FLARE = Option("flare", "Flare at the hem", "length", 0.0, "at each side of each seam, beyond the hip", 0.0, 40.0, 0.5)
BELOW_HIP, APART = 8.0, 0.15  # cm under the hip from where a side runs straight; that front and back may differ
USUAL = 0.04  # of the hip: so much more or less in front is no belly
LOWER_DART = 12.0  # cm that a waist dart runs on below the waist at most


@operation(
    "length.run_on", "length", "Run on below the waist", "pieces that end at the waist go on over the hip, without a seam there",
    options=(LONG, EASE, FLARE),
    halves=True,
)  # fmt: skip
def run_on(job: Job) -> Change:
    """Carry front and back on below the waist: the middle straight down, the side out to the hip; waist darts run out again."""
    garment, long = job.garment, job.length("long")
    hip, deep = job.measure("hip", "hip"), job.measure("waist_hip", "height of the hip below the waist")
    ending = [
        p for p in garment.shell if p.edges_of("waist") and p.edges_of("side") and p.middle and p.level("waist") is not None
    ]
    if not ending or any(p not in ending for p in garment.shell if p.edges_of("waist")):
        raise CannotStyle(say("Nothing with a middle and a side ends at the waist: run it on before panels are cut."))
    pieces = {piece.name: piece for piece in garment.pieces}
    dropped: list[EdgeRef] = []
    front_arc = job.context.chart.get("hip_front")
    sides: dict[str, float] = {}
    wants: dict[str, float] = {}
    flare = job.length("flare")
    for piece in ending:
        share = (front_arc if piece.of == FRONT else hip - front_arc) / hip if front_arc is not None else 0.5
        share = 0.5 if abs(share - 0.5) < USUAL else share
        want = (hip + job.length("ease")) * share / 2
        wants[piece.name] = want
        _, sides[piece.name] = _lower(piece, (want, deep), long, flare, 0.0)
        dropped.append(EdgeRef(piece.name, piece.edges_of("waist")[0].name))
    refs = [EdgeRef(piece.name, edge.name) for piece in ending for edge in piece.edges_of("side")]
    for piece in ending:
        most = max(sides[piece.name], sides.get(_partner(garment, piece), 0.0))
        pieces[piece.name], _ = _lower(piece, (wants[piece.name], deep), long, flare, most)
    asks = all_of(
        _waist_by_level,
        without(SideLeans, FloorClear),
        notches_left(*refs),
        also(HemRises(0.0, free=True)),
        hangs_free("hip") if flare else None,
    )
    said = say("The pieces run {0} on below the waist; the hip is {1} round.", long, hip + job.length("ease"))
    return Change(tuple(pieces.values()), dropped=tuple(dropped), said=(said,), asks=asks)


def _waist_by_level(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
    """The waist is a level now, no edge."""
    return tuple(replace(d, edge="") if isinstance(d, Girth) and d.edge == "waist" else d for d in demands)


def _partner(garment: Garment, piece: Piece) -> str:
    """The piece its side is sewn to."""
    for _, _, other in garment.seams_at(EdgeRef(piece.name, piece.edges_of("side")[0].name)):
        return other[0].piece
    return ""


def _lower(piece: Piece, hip: tuple[float, float], long: float, flare: float, side_long: float) -> tuple[Piece, float]:
    """A piece carried on below its waist. hip: half the width there, and how far below; side_long: how long the side below the waist
    is to be, 0 as it comes. And how long it is."""
    want, deep = hip
    waist, side, middle = piece.edges_of("waist")[0], piece.edges_of("side")[0], piece.edge(piece.middle)
    at_end = middle.end.to(waist.start) < 1e-3  # the outline runs down the middle, out along the waist, up the side
    if not at_end and middle.start.to(waist.end) > 1e-3:
        raise CannotStyle(say(f"The waist of the {plain(piece.name)} does not run from its middle to its side."))
    corner = waist.start if at_end else waist.end
    foot = waist.end if at_end else waist.start
    down = (middle.arriving if at_end else -middle.leaving).unit()
    out = down.square() if down.square().dot(foot - corner) > 0 else -down.square()
    low = corner + down * long
    hip_out = corner + down * deep + out * want
    coming = -side.leaving if at_end else side.arriving  # down the side, towards the waist

    straight = long > deep + BELOW_HIP
    width = (foot - corner).dot(out)
    share = math.sin(min(long / deep, 1.0) * math.pi / 2)
    wide = want + flare if straight else width + (want + flare - width) * share

    ending = corner + down * long + out * wide
    last = (ending - hip_out).unit() if straight else (down + out * 0.06).unit()
    way = (coming + ((hip_out if straight else ending) - foot).unit()).unit()

    def drawn(share: float) -> Path:
        """The side from the waist down: one curve over the hip, straight below it."""
        knee = hip_out if straight else ending
        far = foot.to(knee)
        curve = Path((curve_between(foot, way, knee, last, far * share, far * max(0.75 - share * 0.5, 0.1)),))
        return curve + Path.through(knee, ending) if straight else curve

    new = drawn(0.36)
    if side_long > new.length + 0.01:  # as long as its partner: a little rounder over the hip
        new = drawn(solve_or_nearest(lambda share: drawn(share).length - side_long, 0.3, 1.3))
        if side_long - new.length > APART:
            words = "Below the waist front and back would be {0} apart at the side: begin with a bodice without a dart in its shoulder."
            raise CannotStyle(say(words, side_long - new.length))
    upper = faired_start(side.parts[0], -way, 6.0) if at_end else faired_end(side.parts[-1], way, 6.0)
    whole = new.reverse() + upper if at_end else upper + new
    parts = (whole, *side.parts[1:]) if at_end else (*side.parts[:-1], whole)
    shift = new.length if at_end else 0.0
    led = replace(side, parts=parts, notches=tuple(replace(n, along=n.along + shift) for n in side.notches))
    return _assembled(piece, waist, led, middle, low, last, ending, (out, down), at_end=at_end), new.length


def _assembled(
    piece: Piece,
    waist: Edge,
    side: Edge,
    middle: Edge,
    low: Point,
    last: Point,
    ending: Point,
    ways: tuple[Point, Point],
    *,
    at_end: bool,
) -> Piece:
    """The piece with its side, its longer middle and a hem; its waist is a level."""
    out, down = ways
    square = last.square() if last.square().dot(ending - low) > 0 else -last.square()
    curve = Path((curve_between(low, out, ending, square),))
    hem = Edge("hem", (curve if at_end else curve.reverse(),), kind="hem", role="hem")
    tail = Path((Line(middle.end, low),)) if at_end else Path((Line(low, middle.start),))
    long_middle = replace(middle, parts=(middle.parts[0] + tail,) if at_end else (tail + middle.parts[0],))
    ring: list[Edge] = []
    for edge in piece.edges:
        if edge.name == waist.name:
            ring.append(hem)
        elif edge.name == side.name:
            ring.append(side)
        else:
            ring.append(long_middle if edge.name == middle.name else edge)
    diamonds = [*piece.diamonds]
    for gap in waist.gaps:
        if isinstance(gap, Dart):
            deep = min(LOWER_DART, max(gap.length * 0.9, 5.0))
            diamonds.append(Diamond(gap.name, gap.point, gap.middle + down * deep, gap.inner, gap.outer))
    edges = _along(waist, at_end=at_end)
    levels = tuple(BalanceLine("waist", edges) if level.level == "waist" else level for level in piece.balance)
    return replace(piece, edges=tuple(ring), diamonds=tuple(diamonds), balance=levels)


def _along(waist: Edge, *, at_end: bool) -> tuple[tuple[Point, Point], ...]:
    """The level that a waist has become, from the middle: where darts lie in it, straight; else as it ran."""
    if waist.gaps:
        return ((waist.start, waist.end),) if at_end else ((waist.end, waist.start),)
    path = waist.parts[0] if at_end else waist.parts[0].reverse()
    return tuple(pairwise(path.place(path.length * n / 6).point for n in range(7)))


CLOAK = Option(
    "long",
    "Length",
    "length",
    110.0,
    "from the neck down the middle; a formula follows the body: nape_floor - 8",
    30.0,
    170.0,
    1.0,
)
WIDE = Option(
    "fall", "Fall", "number", 62.0, "degrees: 90 hangs straight down, less stands off and takes more cloth", 35.0, 80.0, 1.0
)


@operation(
    "cloak.drape", "length", "Cloak from the shoulders", "front and back run over the shoulder down to the hem; armhole and side are gone",
    options=(CLOAK, WIDE),
    halves=True,
)  # fmt: skip
def cloak(job: Job) -> Change:
    """Let the shoulder seam run on over the arm to the hem, alike in front and behind, and cut the hem as far from the neck
    everywhere."""
    long, fall = job.length("long"), math.radians(job.length("fall"))
    pieces = {piece.name: piece for piece in job.garment.pieces}
    dropped: list[EdgeRef] = []
    over_long = 0.0
    for part in (BACK, FRONT):
        piece = with_armhole(job, part)
        if any(edge.gaps for edge in piece.edges_of("neck", "shoulder")):
            raise CannotStyle(say(f"A dart lies in neck or shoulder of the {plain(piece.name)}: swing it away first."))
        made, over_long = _draped(piece, long, fall, over_long)
        pieces[piece.name] = made
        dropped += [EdgeRef(piece.name, edge.name) for edge in piece.edges if not made.has(edge.name)]
    asks = all_of(
        without(ArmholeOn, FrontInside, SideLeans),
        places_left("tip", "underarm"),
        hangs_free("bust", "waist", "hip"),
        also(HemRises(0.0, free=True)),
    )
    said = say("The seam runs {0} over shoulder and arm to the hem.", over_long)
    return Change(tuple(pieces.values()), dropped=tuple(dropped), said=(said,), asks=asks)


def _draped(piece: Piece, long: float, fall: float, want: float) -> tuple[Piece, float]:
    """A piece of a cloak; want: how long its seam over the shoulder is, cm, 0 as it comes."""
    shoulder, neck, middle = piece.edges_of("shoulder")[0], piece.edges_of("neck")[0], piece.edge(piece.middle)
    tip_first = neck.start.to(shoulder.end) < 1e-3  # the outline comes from the tip over the shoulder to the neck
    tip, snp = (shoulder.start, shoulder.end) if tip_first else (shoulder.end, shoulder.start)
    top = neck.end if tip_first else neck.start
    down = (middle.leaving if tip_first else -middle.arriving).unit()
    out = 1.0 if tip.x > snp.x else -1.0
    way = Point(out * math.cos(fall), math.sin(fall))
    along = (tip - snp).unit()
    reach = 14.0
    foot = tip + way * reach

    def drawn(far: float) -> Path:
        return Path((curve_between(tip, along, foot, way, reach * 0.55, reach * 0.45),)) + Path.through(foot, foot + way * far)

    rest = want - shoulder.length - drawn(1.0).length + 1.0 if want else long - shoulder.length * 0.6 - reach
    over = drawn(max(rest, 5.0))
    low = top + down * long
    end = over.end
    hem_way = way.square() if way.square().x * out < 0 else -way.square()  # along the hem, towards the middle
    square = Point(-out, 0.0)
    curve = curve_between(end, hem_way, low, square, end.to(low) * 0.36, end.to(low) * 0.36)
    side = (over.reverse() + shoulder.parts[0]) if tip_first else (shoulder.parts[0] + over)
    new_middle = Path.through(top, low) if tip_first else Path.through(low, top)
    hem = Path((curve,)).reverse() if tip_first else Path((curve,))
    ring = (
        replace(shoulder, parts=(side,), notches=()), neck, replace(middle, parts=(new_middle,), corners=()),
        Edge("hem", (hem,), kind="hem", role="hem"),
    ) if tip_first else (
        replace(shoulder, parts=(side,), notches=()), Edge("hem", (hem,), kind="hem", role="hem"), replace(middle, parts=(new_middle,), corners=()), neck,
    )  # fmt: skip
    marks = {name: mark for name, mark in piece.marks.items() if name in ("snp", "nape")}
    made = replace(piece, edges=ring, marks=marks, diamonds=(), balance=(), lines=(), holes=())
    return made, side.length


@operation(
    "seam.open", "seams", "Leave a seam open", "both its edges are hemmed: a slit from end to end", wheres={"seam": "any place on the seam"},
)  # fmt: skip
def leave_open(job: Job) -> Change:
    """Take a seam away; what was sewn is an edge to be hemmed or bound."""
    found = job.at["seam"]
    ref = SeamEdge(found.piece.name, found.spot.edge).ref
    sewn = [s for s in job.garment.seams if not s.faced and any(e.ref == ref for e in (*s.first, *s.second))]
    if not sewn:
        raise CannotStyle(say("No seam runs there."), ("seam",))
    garment: Garment = job.garment
    for seam in sewn:
        for entry in (*seam.first, *seam.second):
            piece = garment.piece(entry.piece)
            garment = garment.with_piece(piece.with_edge(replace(piece.edge(entry.edge), kind="slit")))
    return Change(garment.pieces, tuple(s for s in job.garment.seams if s not in sewn))
