"""Sleeves that grow from the body, with or without a gusset; and what falls from an armhole without a cap."""

from __future__ import annotations

import math
from collections.abc import Mapping

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.checks.upper import ArmholeOn, FrontInside
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import EdgeRef, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, plain
from widehem.core.pattern.shaping import trimmed
from widehem.core.setting.option import Option
from widehem.core.style.asks import all_of, hangs_free, places_left, without
from widehem.core.style.notching import notched
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.sectors import sector
from widehem.core.style.sewing_on import rim_at
from widehem.core.units import Saying, say
from widehem.core.values import replace

APART = 0.15  # cm that front and back may differ
LONG = Option(
    "long",
    "Length",
    "length",
    45.0,
    "from the shoulder tip along the arm; a formula follows the body: arm_length",
    5.0,
    90.0,
    0.5,
)
SLOPE = Option(
    "slope", "Slope", "number", 25.0, "degrees that the sleeve falls: little lets the arm up, much lies closer", 0.0, 50.0, 5.0
)
HEM = Option("hem", "Hem, half", "length", 18.0, "width of the sleeve at its hem, on front and back each", 8.0, 60.0, 0.5)
DOWN = Option("down", "Underarm down", "length", 6.0, "how far below the armhole the underarm lies at the side", 0.0, 30.0, 0.5)
GUSSET = Option("gusset", "Gusset", "length", 0.0, "side of the square under the arm; 0 is none", 0.0, 16.0, 0.5)


@operation(
    "sleeve.kimono", "sleeves", "Kimono sleeve", "body and sleeve are one: the shoulder runs on along the arm",
    options=(LONG, SLOPE, HEM, DOWN, GUSSET), names={"piece": "the gusset"},
    halves=True,
)  # fmt: skip
def kimono(job: Job) -> Change:
    """Front and back carried on over the arm; both seams of the sleeve are as long in front as behind."""
    long, half, down = job.length("long"), job.length("hem"), job.length("down")
    pieces = {piece.name: piece for piece in job.garment.pieces}
    arms = _arms(job, long, half, down)
    if not _lie_flat(job, arms):
        raise CannotStyle(_would_fit(job, long, half, down))
    seams = list(job.garment.seams)
    dropped = []
    for piece, over, hem, under in arms.values():
        pieces[piece.name] = _grown(piece, over, hem, under, job.length("gusset"))
        dropped.append(EdgeRef(piece.name, piece.edges_of("armhole")[0].name))
    front, back = (arms[part][0].name for part in (FRONT, BACK))
    extra = [Seam(job.free_seam("underarm"), "Underarm seam", (SeamEdge(back, "underarm"),), (SeamEdge(front, "underarm"),))]
    made: tuple[str, ...] = ()
    side = job.length("gusset")
    if side > 0.5:
        name = job.free_piece("gusset")
        a = [Point(0.0, 0.0), Point(side, 0.0), Point(side, side), Point(0.0, side)]
        edges = tuple(Edge(f"gusset_{n}", (Path.through(a[n - 1], a[n % 4]),), role="gore") for n in range(1, 5))
        gusset = Piece(
            name,
            "Gusset",
            edges,
            stands="pair",
            layer="inside",
            serves=back,
            grain=(Point(side * 0.2, side * 0.2), Point(side * 0.8, side * 0.8)),
        )
        pieces[name] = gusset
        made = (name,)
    asks = all_of(without(ArmholeOn, FrontInside), places_left("tip", "underarm"), hangs_free("bust"))
    said = say("The sleeve is {0} long from the shoulder tip and {1} round at its hem.", long, 2 * half)
    return Change(tuple(pieces.values()), (*seams, *extra), dropped=tuple(dropped), said=(said,), made=made, asks=asks)


Arm = tuple[Piece, Path, Path, Path]


def _arms(job: Job, long: float, half: float, down: float) -> dict[str, Arm]:
    """Front and back with the lines over the arm, of the hem and under the arm; the back's as long as the front's."""
    arms: dict[str, Arm] = {}
    want = 0.0
    for part in (FRONT, BACK):
        arms[part] = _arm(job, with_armhole(job, part), long, half, down, want)
        want = arms[part][3].length
    return arms


def _lie_flat(job: Job, arms: Mapping[str, Arm]) -> bool:
    """Whether no outline would cross itself."""
    return all(_grown(*arm, job.length("gusset")).simple for arm in arms.values())


def _would_fit(job: Job, long: float, half: float, down: float) -> Saying:
    """Why it does not fit, with a lower underarm, or a narrower hem, that would."""
    for words, tried in (
        ("put the underarm {0} down, and it fits.", [(half, down + more) for more in range(1, 13)]),
        ("make the hem {0} wide, half, and it fits.", [(half - less, down) for less in range(1, 11) if half - less >= HEM.low]),
    ):
        for wide, low in tried:
            try:
                arms = _arms(job, long, wide, low)
            except CannotStyle:
                continue
            if _lie_flat(job, arms):
                return say("The sleeve would run into the body under the arm: " + words, low if wide == half else wide)
    return say("The sleeve would run into the body under the arm {0} down: let it fall less, or set a sleeve in.", down)


def with_armhole(job: Job, part: str) -> Piece:
    for piece in job.garment.shell:
        if piece.of == part and len(piece.edges_of("armhole")) == 1 and piece.edges_of("shoulder") and piece.edges_of("side"):
            if piece.edges_of("shoulder")[0].gaps:
                raise CannotStyle(say(f"A dart lies in the shoulder of the {plain(piece.name)}: swing it away first."))
            return piece
    raise CannotStyle(
        say(f"The {part} has no whole armhole between shoulder and side: let the sleeve grow before panels are cut.")
    )


def _arm(job: Job, piece: Piece, long: float, half: float, down: float, want: float) -> tuple[Piece, Path, Path, Path]:
    """The line over the arm from the shoulder on, the hem, and the line under it to the side; all from above to below."""
    shoulder, side = piece.edges_of("shoulder")[0], piece.edges_of("side")[0]
    hole = piece.edges_of("armhole")[0]
    tip = hole.end if shoulder.start.to(hole.end) < 1e-3 or shoulder.end.to(hole.end) < 1e-3 else hole.start
    snp = shoulder.end if shoulder.start.to(tip) < 1e-3 else shoulder.start
    out = 1.0 if tip.x > snp.x else -1.0
    if side.length < down + 4.0:
        raise CannotStyle(
            say("The side is {0} long: the underarm lies {1u} down it at most.", side.length, side.length - 4.0), ("down",)
        )
    along = (tip - snp).unit()
    falls = math.radians(job.length("slope"))
    way = Point(out * math.cos(falls), math.sin(falls))
    wrist = tip + way * long
    reach = min(long * 0.3, 12.0)
    over = Path((curve_between(tip, along, tip + way * reach, way, reach * 0.4, reach * 0.4),)) + Path.through(
        tip + way * reach, wrist
    )
    across = way.square() if way.square().y > 0 else -way.square()
    low = wrist + across * half
    hem = Path.through(wrist, low)
    under_corner = hole.start if tip is hole.end else hole.end
    from_top = side.start.to(under_corner) < 1e-3
    place = side.place(down if from_top else side.length - down)
    up = -place.direction if from_top else place.direction
    inner = place.point
    if (low - inner).dot(Point(out, 0.0)) < 3.0:
        raise CannotStyle(say("The sleeve ends inside the body: make it longer, or its hem narrower."), ("long",))

    def drawn(bulge: float) -> Path:
        far = low.to(inner)
        return Path((curve_between(low, -way, inner, -up, far * bulge, far * 0.42),))

    under = drawn(0.42)
    if want:
        under = drawn(solve_or_nearest(lambda b: drawn(b).length - want, 0.15, 0.95))
        if abs(under.length - want) > APART:
            words = (
                "Under the arm front and back would be {0} apart: let the underarm down further, or let the sleeve fall less."
            )
            raise CannotStyle(say(words, abs(under.length - want)), ("down",))
    return piece, over, hem, under


def _grown(piece: Piece, over: Path, hem: Path, under: Path, gusset: float) -> Piece:
    shoulder, side, hole = piece.edges_of("shoulder")[0], piece.edges_of("side")[0], piece.edges_of("armhole")[0]
    tip_first = shoulder.start.to(over.start) < 1e-3
    new_shoulder = replace(shoulder, parts=((over.reverse() + shoulder.parts[0]) if tip_first else (shoulder.parts[0] + over),))
    off = side.length - _left(side, under.end)
    side_first = side.start.to(hole.start) < 1e-3 or side.start.to(hole.end) < 1e-3
    new_side = trimmed(side, at_start=off) if side_first else trimmed(side, at_end=off)
    wrist = Edge("wrist", (hem.reverse() if tip_first else hem,), kind="hem", role="wrist")
    underarm = Edge("underarm", (under.reverse() if tip_first else under,), role="underarm")
    ring: list[Edge] = []
    for edge in piece.edges:
        if edge.name == hole.name:
            ring += [underarm, wrist] if tip_first else [wrist, underarm]
        elif edge.name == shoulder.name:
            ring.append(new_shoulder)
        else:
            ring.append(new_side if edge.name == side.name else edge)
    marks = {name: mark for name, mark in piece.marks.items() if name not in ("tip", "underarm")}
    lines = piece.lines
    if gusset > 0.5:
        at = under.place(under.length * 0.75)
        inside = -piece.outward(at.direction if not tip_first else -at.direction)
        lines = (*lines, InnerLine("gusset_slit", "Slit for the gusset", Path.through(at.point, at.point + inside * gusset)))
    balance = tuple(
        _to_side(line, new_side) for line in piece.balance if line.height > under.end.y - 0.5 or line.level != "bust"
    )
    return replace(piece, edges=tuple(ring), marks=marks, lines=lines, balance=balance)


def _to_side(line: BalanceLine, side: Edge) -> BalanceLine:
    """A level below the underarm ends at the side, not at the sleeve that hangs beside it."""
    ends = [(line.lines[0][0], line.lines[0]), (line.lines[-1][1], line.lines[-1])]
    _, (a, b) = min(
        ends, key=lambda end: min(end[0].to(side.start), end[0].to(side.end), end[0].to(side.place(side.length / 2).point))
    )
    if side.at_line(a, (b - a).unit()) is None:
        return line
    outwards = (line.lines[-1][1] - line.lines[0][0]).dot(side.start - line.lines[0][0]) > 0
    return replace(line, between=(line.between[0], side.name) if outwards else (side.name, line.between[1]))


def _left(side: Edge, spot: Point) -> float:
    """How much of a side lies below a place on it, cm."""
    along = side.at_level(spot.y) or 0.0
    return side.length - along if side.start.y < side.end.y else along


WIDE = Option("wide", "Width", "length", 8.0, "from the armhole to its edge", 3.0, 40.0, 0.5)
TIMES = Option("times", "Flare", "number", 1.6, "how many times the armhole its outer edge is", 1.0, 4.0, 0.1)
UPPER = Option(
    "upper", "Along the armhole", "number", 60.0, "per cent of it, from the shoulder on both sides", 20.0, 100.0, 5.0
)


@operation(
    "sleeve.flutter", "sleeves", "Flutter sleeve", "a part of a ring along the upper armhole: it falls free",
    options=(WIDE, TIMES, UPPER), wheres={"armhole": "any place on the armhole"}, names={"piece": "the sleeve"}, phase="derive",
    halves=True,
)  # fmt: skip
def flutter(job: Job) -> Change:
    """A ring piece whose inner edge is the upper part of the armhole; the rest of the armhole is faced or bound."""
    garment, chain = job.garment, rim_at(job, "armhole", "armhole")
    if len(chain) != 2:
        raise CannotStyle(say("A flutter sleeve goes over one shoulder seam; this armhole has more."), ("armhole",))
    share = job.length("upper") / 100
    lengths = [garment.edge(entry).length for entry in chain]
    inner = sum(lengths) * share
    wide = job.length("wide")
    name = job.free_piece("flutter")
    piece = sector(
        name, "Flutter sleeve", inner, inner * job.length("times"), wide, of="sleeve", names=("flutter_top", "flutter_front", "wrist", "flutter_back"),
        roles=("lap", "pocket", "wrist", "pocket"), kinds=("seam", "hem", "hem", "hem"), stands="pair",
    )  # fmt: skip
    at = inner * lengths[0] / sum(lengths)
    piece = piece.with_edge(replace(piece.edge("flutter_top"), notches=(Notch("shoulder", at),)))
    made = garment
    for entry, long in zip(chain, lengths, strict=True):
        first = entry is chain[0]
        edge = garment.edge(entry)
        along = long * (1 - share) if first else long * share
        made = notched(made, entry, [Notch("end of the flutter", edge.length - along if entry.back else along)])
    said = say("{0} of an armhole of {1}; its edge is {2} long.", inner, sum(lengths), inner * job.length("times"))
    return Change((*made.pieces, piece), made=(name,), said=(said,))
