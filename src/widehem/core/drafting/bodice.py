"""A bodice while it is drawn: both halves, their darts, and how they become pieces.

Everything stands in the frame of its half (x from the centre outwards); `side_by_side` lays back and front on the sheet.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from widehem.core.drafting.finished import show_edges
from widehem.core.drafting.quantity import Quantity
from widehem.core.drafting.refusal import CannotDraft
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.upper import OUT, PLACES, Gap, Stretch, Walk, cut_walk, ring_edges, share_out_dart
from widehem.core.drafting.waist import DartPlan, lay_dart, waist_over_darts
from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.block import Block, EdgeName, Level, PitchNotch, Seam
from widehem.core.pattern.piece import Edge, EdgeKind, Piece
from widehem.core.units import say

APART = 7.0  # cm between back and front on the sheet
SIDE_MOST, ONE_DART_MOST, SHORT = 2.5, 4.5, 2.5
DIP_MOST = 1.2
GIRTH_SLACK = 0.1
LETTERS = {"back": "LM", "front": "PQ"}
TITLES = {"neck": "neck", "shoulder": "shoulder", "armhole": "armhole", "side": "side seam", "waist": "waist"}


@dataclass
class Half:
    """One half piece. chest, under: on the armhole. bust_point, angle: of the front; open_at: where its dart is open."""

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
    spans: tuple[tuple[Point, Point], ...] = ()

    def length(self, edge: str) -> float:
        return sum(stretch.path.length for stretch in self.walk if stretch.edge == edge)


@dataclass(frozen=True)
class Lean:
    """How the waist is taken in: by the side, and by darts, each half piece, cm. down: how far the side runs below the waist
    level so that the waist meets it squarely."""

    side: float
    dart: float
    count: int
    down: float


def share_waist(total: float, count: str, run: float, tall: float) -> Lean:
    """Share what the waist has to lose. total: both half pieces together, cm; run: a usual half waist; tall: side height."""
    half = total / 2
    if (half <= SIDE_MOST and count == "auto") or half <= 0 or count == "none":
        side, dart, darts = half, 0.0, 0
    else:
        side = min(half / 3, SIDE_MOST)
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
    start, side_in, darts = Point(0.0, level), lean.side, lean.dart
    made, over = None, 0.0
    before: tuple[float, float] | None = None  # how much too long it was, and what was then taken
    for _ in range(8):
        end = side_waist(half.under, level, side_in, lean.down)
        plans = []
        guide = Point(end.x, level)
        for number, (x, top) in enumerate(middles, 1):
            name, takes = f"{half.name}_waist_dart_{number}", darts / len(middles)
            plans.append(lay_dart(name, start, guide, x, takes, level - top, Point(x, top)))
        made = waist_over_darts(start, OUT, end, half.under, plans)
        if made is None:
            break
        over = sum(part.length for part in made.parts) - target
        if abs(over) < 0.005:
            break
        gain = (over - before[0]) / before[1] if before else -1.0  # what the last centimetre taken did
        before = (over, over / max(-gain, 0.2))
        if middles:
            darts += before[1]
        else:
            side_in += before[1]
    if made is None or abs(over) > GIRTH_SLACK / 2:
        raise CannotDraft(
            blame, say("The waist line cannot be drawn over its darts: read waist and bust again, or take fewer darts.")
        )
    half.waist, half.plans = end, tuple(plans)
    half.walk = (
        *half.walk,
        Stretch("side", Path.through(half.under, end)),
        *(Stretch("waist", part.reverse()) for part in reversed(made.parts)),
    )
    half.gaps["waist"] = [Gap(dart.name, dart.point) for dart in made.darts]
    _square_underarm(half)


def _square_underarm(half: Half) -> None:
    """Turn the last bit of the armhole square to the side as it leans now."""
    at = max(i for i, stretch in enumerate(half.walk) if stretch.edge == "armhole")
    path = half.walk[at].path
    last = path.segments[-1]
    assert isinstance(last, Cubic)
    arriving = (half.waist - half.under).square().unit()
    if arriving.dot(last.end - last.start) < 0:
        arriving = -arriving
    squared = Cubic(last.start, last.out, last.end - arriving * last.end.to(last.into), last.end)
    half.walk = (*half.walk[:at], Stretch("armhole", Path((*path.segments[:-1], squared))), *half.walk[at + 1 :])


def place_dart(half: Half, bust_point: Point, angle: float, shares: dict[str, float], below: float) -> None:
    """Move the bust dart, open at the shoulder, to where it is wanted.

    shares: how much (radians) shall be open at each place. below: how far down the side its dart lies, cm.
    """
    order = [place for place in PLACES if place in shares or place == "shoulder"]
    parts: dict[str, Walk] = {}
    rest, name = half.walk, ""
    for place in order:
        parts[name], rest = _cut_at(half, rest, place, bust_point, below)
        name = place
    parts[name] = rest
    shifted = share_out_dart(parts, order, shares, "shoulder", angle, bust_point)
    half.walk = tuple(stretch for name in ("", *order) for stretch in shifted[name])
    turned = {"": 0.0}
    total = 0.0
    for place in order:
        total += shares.get(place, 0.0) - (angle if place == "shoulder" else 0.0)
        turned[place] = total
    _darts_along(half, bust_point, shares, turned, order)


def _cut_at(half: Half, walk: Walk, place: str, bust_point: Point, below: float) -> tuple[Walk, Walk]:
    """The walk cut at a place."""
    length = sum(stretch.path.length for stretch in walk if stretch.edge == place)
    if place == "neck":
        return cut_walk(walk, "neck", length / 2)
    if place == "shoulder":
        return cut_walk(walk, "shoulder", next(s.path.length for s in walk if s.edge == "shoulder"))
    if place == "armhole":
        upper = next(s for s in walk if s.edge == "armhole").path.segments[0]
        return cut_walk(walk, "armhole", upper.length)
    if place == "side":
        return cut_walk(walk, "side", below)
    if half.plans:
        return walk[:-1], walk[-1:]
    whole = next(s for s in walk if s.edge == "waist").path
    index, t = whole.crossings(bust_point, Point(0.0, 1.0))[0]
    return cut_walk(walk, "waist", whole.split(index, t)[0].length)


def _darts_along(half: Half, bust_point: Point, shares: dict[str, float], turned: dict[str, float], order: list[str]) -> None:
    """Name the darts of every edge after the bust dart was moved, and turn what was turned with its part."""
    number = 0
    before_waist = turned[order[order.index("waist") - 1]] if "waist" in order else turned[order[-1]]
    for place in order:
        if not shares.get(place):
            continue
        number += 1
        gap = Gap(
            f"bust_dart_{number}" if number > 1 else "bust_dart",
            bust_point,
            SHORT,
            "second" if place in ("neck", "shoulder") else "first",
        )
        if place == "waist":
            others = half.gaps.get("waist", [])[1:] if half.plans else []
            half.gaps["waist"] = [gap, *(Gap(g.name, g.apex.moved(turn(bust_point, before_waist)), g.short) for g in others)]
        else:
            half.gaps[place] = [gap]
    if "waist" not in order and before_waist:
        spot = turn(bust_point, before_waist)
        half.gaps["waist"] = [Gap(g.name, g.apex.moved(spot), g.short) for g in half.gaps.get("waist", [])]
    carried = turned[max((p for p in order if PLACES.index(p) <= PLACES.index("armhole")), key=PLACES.index)]
    (inner, outer) = half.spans
    half.spans = (inner, (outer[0].moved(turn(bust_point, carried)), outer[1].moved(turn(bust_point, carried))))


def side_by_side(front_centre: float) -> Table:
    """The back as it is drawn, the front turned over with its centre at x = front_centre."""
    return Table({"back": as_drawn(), "front": turned_over(front_centre)})


def piece_of(sheet: Sheet, half: Half, board: Table, levels: dict[str, float], title: str) -> Piece:
    """The half as a piece on the sheet."""
    lay = board.of(half.name)
    centre = f"centre_{half.name}"
    kind: EdgeKind = "opening" if sheet.choice("opening_at") == centre else "fold"
    line = Path.through(half.top.moved(lay), Point(0.0, levels["waist"]).moved(lay))
    ring = ring_edges(half.walk, half.gaps, {}, lay)
    if half.name == "front" and sheet.choice("neck_shape") == "v":
        ring = tuple(replace(edge, pointed=True) if edge.name == "neck" else edge for edge in ring)
    edges = (Edge(centre, (line,), (), kind), *ring)
    spans = {"bust": tuple((a.moved(lay), b.moved(lay)) for a, b in half.spans)}
    return Piece(half.name, title, edges, levels, "fold" if kind == "fold" else "pair", centre, spans)


def block_of(
    sheet: Sheet,
    back: Piece,
    front: Piece,
    shoulder_ease: float,
    plan: dict[str, Quantity],
    least: dict[str, float],
    *,
    side_ease: float = 0.0,
    bust_slack: float = GIRTH_SLACK,
) -> Block:
    """Both pieces with what holds them together.

    plan: ease round the body at bust and waist. shoulder_ease, side_ease: how much longer the back is than the front there.
    """
    armhole = EdgeName("front", "armhole"), EdgeName("back", "armhole")
    pitch = tuple(
        PitchNotch(piece.name, "armhole", piece.edge("armhole").length / 3, "pitch", 2 if piece.name == "back" else 1)
        for piece in (back, front)
    )
    return Block(
        (back, front),
        (
            Seam("side", "Side seam", (EdgeName("back", "side"),), (EdgeName("front", "side"),), (side_ease, side_ease)),
            Seam("shoulder", "Shoulder", (EdgeName("back", "shoulder"),), (EdgeName("front", "shoulder"),), (shoulder_ease, shoulder_ease)),
        ),
        (
            Level("bust", "Bust", sheet.measure("bust").value, plan["bust"].value, least["bust"], bust_slack),
            Level("waist", "Waist", sheet.measure("waist").value, plan["waist"].value, least["waist"], GIRTH_SLACK, "waist"),
        ),
        armhole=armhole,
        neck=sheet.measure("neck").value,
        armscye=sheet.chart.get("armscye"),
        pitch=pitch,
    )  # fmt: skip


def show_half(sheet: Sheet, piece: Piece, edges: Sequence[str]) -> None:
    """Draw finished edges of a piece on the sheet, its darts with them."""
    show_edges(sheet, piece, edges, TITLES, {"waist": LETTERS[piece.name]})


def angle_words(radians: float) -> Quantity:
    """An angle as a plain number of degrees."""
    return Quantity(round(math.degrees(radians), 2), plain=True, source="constant")
