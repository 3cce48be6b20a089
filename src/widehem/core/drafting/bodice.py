"""A bodice while it is drawn: both halves, their darts, and how they become pieces.

Everything stands in the frame of its half (x from the centre outwards); `side_by_side` lays back and front on the sheet.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field

from widehem.core.drafting.finished import show_edges
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.upper import OUT, PLACES, Gap, Stretch, Walk, ring_edges
from widehem.core.drafting.waist import DartPlan, Waist, lay_dart, waist_over_darts
from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.checks.held import NotchAt, OnTheBody
from widehem.core.pattern.checks.upper import NECK_MOST, ArmholeOn, FrontInside, NeckOn
from widehem.core.pattern.edge import Edge, EdgeKind, Notch
from widehem.core.pattern.garment import EdgeRef, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.meeting import PITCH
from widehem.core.pattern.piece import Piece, Stands
from widehem.core.pattern.ring import Spot
from widehem.core.pattern.roles import ROLES
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.swing import Share, swing
from widehem.core.units import say
from widehem.core.values import record, replace

BUST_DART = "bust_dart"
APART = 7.0  # cm between back and front on the sheet
SIDE_MOST, ONE_DART_MOST, SHORT = 2.5, 4.5, 2.5
PRESSED = 0.15  # cm that a dart may be wider before a side takes more
DIP_MOST = 1.2
GIRTH_SLACK = 0.1
WAIST_NEAR = 0.005  # cm
LETTERS = {"back": "LM", "front": "PQ"}
TITLES = {"neck": "neck", "shoulder": "shoulder", "armhole": "armhole", "side": "side seam", "waist": "waist"}


@dataclass
class Half:
    """One half piece. chest, under: on the armhole. bust_point: of the front."""

    name: str
    top: Point
    snp: Point
    tip: Point
    chest: Point
    under: Point
    waist: Point
    walk: Walk = ()
    plans: tuple[DartPlan, ...] = ()
    gaps: dict[str, list[Gap]] = field(default_factory=dict)
    bust_point: Point | None = None

    def length(self, edge: str) -> float:
        return sum(stretch.path.length for stretch in self.walk if stretch.edge == edge)


@record(frozen=True)
class Lean:
    """How the waist is taken in: by the side, and by darts, each half piece, cm. down: how far the side runs below the waist
    level so that the waist meets it squarely."""

    side: float
    dart: float
    count: int
    down: float


def share_waist(total: float, count: str, run: float, tall: float, *, lets_in: bool = False) -> Lean:
    """Share what the waist has to lose. total: both half pieces together, cm; run: a usual half waist; tall: side height.
    lets_in: where two darts would get too wide the side takes more."""
    half = total / 2
    if (half <= SIDE_MOST and count == "auto") or half <= 0 or count == "none":
        side, dart, darts = half, 0.0, 0
    else:
        side = min(half / 3, SIDE_MOST)
        if lets_in and count == "auto":
            side = max(side, half - 2 * (ONE_DART_MOST + PRESSED))
        dart = half - side
        darts = 2 if count == "two" or (count == "auto" and dart > ONE_DART_MOST) else 1
    slant = side / tall
    down = max(-DIP_MOST, min(DIP_MOST, 0.5 * slant * run))
    return Lean(side, dart, darts, down)


def side_waist(under: Point, waist: float, lean: float, down: float) -> Point:
    """Where the side meets the waist line: in by `lean` at the waist level, carried on by `down`."""
    tall = waist - under.y
    return Point(under.x - lean * (tall + down) / tall, waist + down)


def draw_waist(half: Half, level: float, lean: Lean, middles: Sequence[tuple[float, float]], blame: tuple[str, ...]) -> None:
    """The waist line of a half over its shut darts, as long as the plan says; adds side and waist to the walk.

    middles: for each dart where its middle lies from the centre and the height of its point, cm. What the curve comes out
    too long or too short the darts take, so that the sides of front and back stay alike; without darts the side takes it.
    """
    target = half.under.x - lean.side - lean.dart
    start = Point(0.0, level)
    made: list[tuple[Point, tuple[DartPlan, ...], Waist]] = []  # as it was drawn last

    def over(taken: float) -> float:
        made.clear()
        darts, side_in = (lean.dart + taken, lean.side) if middles else (lean.dart, lean.side + taken)
        end = side_waist(half.under, level, side_in, lean.down)
        guide = Point(end.x, level)
        plans = tuple(
            lay_dart(f"{half.name}_waist_dart_{number}", start, guide, x, darts / len(middles), level - top, Point(x, top))
            for number, (x, top) in enumerate(middles, 1)
        )
        waist = waist_over_darts(start, OUT, end, half.under, plans)
        if waist is None:
            return math.inf
        made.append((end, plans, waist))
        return sum(part.length for part in waist.parts) - target

    try:
        settle(over, 0.0, slope=-1.0, near=WAIST_NEAR)
    except NoSolutionError as none:
        if abs(none.low) > GIRTH_SLACK / 2:
            made.clear()
    if not made:
        raise CannotDraft(
            blame,
            say(
                "The waist line of {0} cannot be drawn over darts that take {1u}: read waist and bust again, or take fewer darts.",
                target,
                lean.dart,
            ),
        )
    end, half.plans, waist = made[0]
    half.waist = end
    half.walk = (
        *half.walk,
        Stretch("side", Path.through(half.under, end)),
        *(Stretch("waist", part.reverse()) for part in reversed(waist.parts)),
    )
    half.gaps["waist"] = [Gap(dart.name, dart.point) for dart in waist.darts]
    square_underarm(half)


def square_underarm(half: Half) -> None:
    """Turn the last bit of the armhole square to the side as it leans now."""
    at = max(i for i, stretch in enumerate(half.walk) if stretch.edge == "armhole")
    path = half.walk[at].path
    last = path.segments[-1]
    assert isinstance(last, Cubic)
    side = next((stretch.path.leaving for stretch in half.walk if stretch.edge == "side"), half.waist - half.under)
    arriving = side.square().unit()
    if arriving.dot(last.end - last.start) < 0:
        arriving = -arriving
    squared = Cubic(last.start, last.out, last.end - arriving * last.end.to(last.into), last.end)
    half.walk = (*half.walk[:at], Stretch("armhole", Path((*path.segments[:-1], squared))), *half.walk[at + 1 :])


def place_dart(piece: Piece, shares: dict[str, float], below: float) -> Piece:
    """The front with its bust dart, open at the shoulder, where it is wanted.

    shares: the part of its angle (0 to 1) that shall be open at each place. below: how far down the side its dart lies, cm.
    """
    found = []
    for number, place in enumerate((place for place in PLACES if place in shares), 1):
        name = f"bust_dart_{number}" if number > 1 else BUST_DART
        pressed = "outer" if place in ("neck", "shoulder") else "inner"
        found.append(Share(_spot(piece, place, below), shares[place], name, SHORT, pressed))
    return swing(piece, BUST_DART, found)


def _spot(piece: Piece, place: str, below: float) -> Spot:
    """Where a bust dart opens at a place; edges run against the walk, from the waist up to the neck."""
    if place == "shoulder":
        return Spot("shoulder", dart=BUST_DART)
    edge = piece.edge(place)
    if place == "neck":
        return Spot("neck", edge.length / 2)
    if place == "armhole":
        return Spot("armhole", edge.length - edge.parts[-1].segments[-1].length)
    if place == "side":
        return Spot("side", edge.length - below)
    if edge.darts:
        return Spot("waist", dart=edge.darts[0].name)
    index, t = edge.parts[0].crossings(piece.marks["bust_point"], Point(0.0, 1.0))[0]
    return Spot("waist", edge.parts[0].split(index, t)[0].length)


def side_by_side(front_centre: float) -> Table:
    """The back as it is drawn, the front turned over with its centre at x = front_centre."""
    return Table({"back": as_drawn(), "front": turned_over(front_centre)})


def piece_of(sheet: Sheet, half: Half, levels: tuple[BalanceLine, ...], waist: float, title: str) -> Piece:
    """The half as a piece. waist: how far down its middle ends, cm."""
    centre = f"centre_{half.name}"
    kind: EdgeKind = "opening" if sheet.choice("opening_at") == centre else "fold"
    line = Path.through(half.top, Point(0.0, waist))
    ring = ring_edges(half.walk, half.gaps)
    shape = sheet.choice("neck_shape") if half.name == "front" else "round"
    ring = tuple(_pitched(half, shaped_neck(edge, shape)) for edge in ring)
    marks = {"snp": half.snp, "tip": half.tip, "chest" if half.name == "front" else "blade": half.chest, "underarm": half.under}
    if half.name == "back":
        marks["nape"] = half.top
    if half.bust_point is not None:
        marks["bust_point"] = half.bust_point
    stands: Stands = "fold" if kind == "fold" else "pair"
    return Piece(half.name, title, (Edge(centre, (line,), (), kind), *ring), "", levels, "shell", stands, centre, marks)


def shaped_neck(edge: Edge, shape: str) -> Edge:
    """A front neckline with the corners that its shape has on purpose."""
    if edge.role != "neck" or shape == "round":
        return edge
    if shape == "v":
        return replace(edge, pointed=True)
    return replace(edge, corners=tuple(spot.end for part in edge.parts for spot in part.segments[:-1]))


def _pitched(half: Half, edge: Edge) -> Edge:
    """An armhole with its pitch notch."""
    if edge.role != "armhole":
        return edge
    return replace(edge, notches=(pitch_notch(edge.length, half.name),))


def pitch_notch(length: float, part: str) -> Notch:
    """The pitch notch a third up an armhole: single in front, double behind."""
    return Notch(PITCH, length / 3, 2 if part == "back" else 1)


def upper_demands(*pieces: Piece, more: Iterable[tuple[str, str, str]] = ()) -> tuple[Demand, ...]:
    """What holds for any back and front: corners on the body, pitch notches a third up the armhole. more: other corners on
    marks."""
    pitch = (
        NotchAt(EdgeRef(piece.name, edge.name), PITCH, 2 if piece.of == "back" else 1, part=1 / 3)
        for piece in pieces
        for edge in piece.edges_of("armhole")
    )
    return OnTheBody.upper(*pieces, more=more), *pitch


def middle_seams(pieces: Sequence[Piece]) -> list[Seam]:
    """The seams between left and right of pairs that have a middle."""
    return [
        Seam.to_its_mirror(piece.middle, ROLES[piece.middle].words.capitalize(), (piece.name, piece.middle))
        for piece in pieces
        if piece.stands == "pair" and piece.middle
    ]


def sewn(piece: str, edge: str, *, back: bool = False) -> tuple[SeamEdge, ...]:
    """One edge as a side of a seam."""
    return (SeamEdge(piece, edge, back),)


def front_to_back(edge: str, title: str, ease: float = 0.0) -> Seam:
    """The seam between the edge of one name of front and back. ease: how much longer the back is."""
    return Seam(edge, title, sewn("back", edge), sewn("front", edge), (ease, ease))


def hand_over(
    sheet: Sheet,
    board: Table,
    back: Piece,
    front: Piece,
    shoulder_ease: float,
    plan: dict[str, Quantity],
    least: dict[str, float],
    *,
    side_ease: float = 0.0,
    bust_slack: float = GIRTH_SLACK,
    more: Sequence[Demand] = (),
) -> None:
    """Both pieces with what holds them together.

    plan: ease round the body at bust and waist, as asked. shoulder_ease, side_ease: how much longer the back is than the
    front there. more: what else it is held against.
    """
    armscye = sheet.chart.get("armscye")
    sheet.hand_over(
        (back, front),
        board,
        seams=(front_to_back("side", "Side seam", side_ease), front_to_back("shoulder", "Shoulder", shoulder_ease),
            *middle_seams((back, front))),
        demands=(
            Girth("bust", "Bust", sheet.measure("bust").value, plan["bust"].value, least["bust"], bust_slack),
            Girth("waist", "Waist", sheet.measure("waist").value, plan["waist"].value, least["waist"], GIRTH_SLACK, "waist"),
            *upper_demands(back, front),
            NeckOn(sheet.measure("neck").value, None if sheet.choice("neck_shape") == "square" else NECK_MOST),
            ArmholeOn(armscye) if armscye is not None else None,
            FrontInside(),
            *more,
        ),
    )  # fmt: skip


def show_half(sheet: Sheet, piece: Piece, edges: Sequence[str]) -> None:
    """Draw finished edges of a piece, as it lies on the sheet, its darts with them."""
    show_edges(sheet, piece, edges, TITLES, {"waist": LETTERS[piece.name]})


def angle_words(radians: float) -> Quantity:
    """An angle as a plain number of degrees."""
    return Quantity(round(math.degrees(radians), 2), plain=True, source="constant")
