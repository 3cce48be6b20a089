"""Pockets: patches laid on, bags in seams and behind slants, welts and flaps. A place is a level and a plumb line on the piece."""

from __future__ import annotations

from itertools import pairwise

from shapely import Point as SpotOf

from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between
from widehem.core.geometry.spline import spline
from widehem.core.pattern.cutting import part_piece
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import Chain, EdgeRef, SeamEdge
from widehem.core.pattern.inside import OUTER, Cloth, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Spot
from widehem.core.pattern.shaping import strip
from widehem.core.setting.option import Choice, Option
from widehem.core.style.notching import notched
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.style.where import Found
from widehem.core.units import Saying, say
from widehem.core.values import replace

ROUND = 0.5523  # of a radius: the handles of a quarter circle
DRILLED, HAND, PHONE, CATCH = (
    0.3,
    2.0,
    (8.0, 16.0),
    1.3,
)  # cm: holes inside the outline; over the hand; a phone; what the needle catches
EDGE_NEAR = 0.05  # cm
PLACE = Option(
    "place", "Placed by", "choice", "edge", "what its place is measured from",
    choices=(Choice("edge", "The edge", "its nearer side so far from the place"),
        Choice("middle", "The middle of the piece", "its centre halfway between middle and side, so far below the place")),
)  # fmt: skip
INWARDS = Option("inwards", "From the edge", "length", 4.0, "how far its nearer side lies from the place on the edge, level", 0.0, 40.0, 0.5,
    when=(("place", ("edge",)),))  # fmt: skip
BELOW = Option(
    "below",
    "Below the place",
    "length",
    4.5,
    "how far its mouth lies under it",
    -5.0,
    60.0,
    0.5,
    when=(("place", ("middle",)),),
)
ACROSS = Option("across", "Across", "number", 50.0, "per cent of the way from the middle to the side", 10.0, 90.0, 5.0,
    when=(("place", ("middle",)),))  # fmt: skip
OPTIONS = (
    PLACE,
    Option("wide", "Width", "length", 13.0, "of its mouth", 4.0, 40.0, 0.5),
    Option("low", "Narrower below", "length", 0.0, "by so much at its lower edge", 0.0, 12.0, 0.5),
    Option("high", "Height", "length", 15.0, "at its sides", 4.0, 45.0, 0.5),
    Option("tip", "Tip lower", "length", 0.0, "in the middle of its lower edge", 0.0, 8.0, 0.1),
    Option("corner", "Rounded by", "length", 2.0, "its lower corners; 0 is square", 0.0, 10.0, 0.5),
    Option("turned", "Folded in at the mouth", "length", 0.0, "a first fold so deep that it lies under the second row of stitches; 0 "
        "leaves a hem to the allowance", 0.0, 8.0, 0.1),
    INWARDS, BELOW, ACROSS,
)  # fmt: skip


@operation(
    "pocket.patch", "pockets", "Patch pocket", "a pocket laid on, level, by a place on an edge or by the middle of the piece",
    options=OPTIONS, wheres={"beside": "the place beside which, or below which, its mouth lies"}, names={"pocket": "the pocket"},
    phase="derive", rules=2,
)  # fmt: skip
def patch_pocket(job: Job) -> Change:
    """A patch of its own, where it lies drawn and drilled on its piece."""
    found = job.at["beside"]
    wide, high = job.length("wide"), job.length("high")
    corner, inwards = _corner(job, found, wide)
    narrow, tip = job.length("low"), job.length("tip")
    if narrow > wide - 2.0:
        raise CannotStyle(
            say("A mouth of {0} cannot be narrower below by {1}: take {2u} at most.", wide, narrow, wide - 2.0), ("low",)
        )
    shape = _outline(corner, inwards, wide, high, narrow, tip, min(job.length("corner"), (wide - narrow) / 2, high))
    piece, name = found.piece, job.free_piece("pocket", "pocket")
    turned = job.length("turned")
    mouth = Edge("pocket_mouth", (shape[0],), (), "hem", role="pocket")
    edges = (mouth, Edge("pocket_edge", (shape[1],), role="pocket", corners=_corners(shape[1])))
    pocket = Piece(
        name, f"{piece.title}, pocket", edges, layer="inside", grain=_grain(corner, inwards, wide, high), serves=piece.name
    )
    if turned:
        pocket = _with_fold(pocket, turned)
    place = InnerLine(
        free_name((line.name for line in piece.lines), "pocket_place"), "Place of the pocket", shape[0] + shape[1]
    )
    inside = [
        spot + (Point(corner.x + inwards * wide / 2, corner.y + high / 2) - spot).unit() * DRILLED
        for spot in (shape[0].start, shape[0].end)
    ]
    marked = piece.with_on_it(lines=(*piece.lines, place), holes=(*piece.holes, *inside))
    garment = job.garment.with_piece(marked)
    beyond = _reaches_beyond(piece, shape)
    over = (
        (say("It reaches {0} beyond the piece: there it is sewn on when the seam is.", beyond),) if beyond > EDGE_NEAR else ()
    )
    return Change((*garment.pieces, pocket), made=(name,), said=(*_tried(job, wide, high), *over))


def _reaches_beyond(piece: Piece, shape: tuple[Path, Path]) -> float:
    """How far the outline of a pocket lies outside the piece it is set on, cm."""
    spots = [spot for path in shape for spot in path.flat(0.05)]
    return max(float(piece.surface.distance(SpotOf(spot.x, spot.y))) for spot in spots)


def _tried(job: Job, wide: float, high: float) -> tuple[Saying, ...]:
    """Whether a hand gets in, and what it holds."""
    hand = job.context.chart.get("hand")
    found = []
    if hand is not None and wide < hand / 2 + HAND:
        found.append(say("A hand {0} round wants a mouth of {1u}: this one is {2}.", hand, hand / 2 + HAND, wide))
    if wide < PHONE[0] + 1 or high < PHONE[1] * 0.6:
        found.append(say("A telephone of {0} by {1} does not stay in it.", *PHONE))
    return tuple(found)


def _corner(job: Job, found: Found, wide: float) -> tuple[Point, float]:
    """Where the mouth begins, and which way it runs, 1 or -1."""
    piece, edge = found.piece, found.piece.edge(found.spot.edge)
    if job.choice("place") == "edge":
        direction = edge.place(found.spot.along).direction
        inwards = 1.0 if piece.outward(direction).x < 0 else -1.0
        return found.point + Point(inwards * job.length("inwards"), 0.0), inwards
    y = found.point.y + job.length("below")
    spots = sorted(
        path.segments[i].at(t).x for path in piece.sewn_ring for i, t in path.crossings(Point(0.0, y), Point(1.0, 0.0))
    )
    if len(spots) < 2:
        raise CannotStyle(say("The piece does not reach {0} below the place: less would fit.", job.length("below")), ("below",))
    left, right = spots[0], spots[-1]
    middle_left = abs(left) <= abs(right)
    share = job.length("across") / 100
    centre = left + (right - left) * (share if middle_left else 1 - share)
    if not left + wide / 2 < centre < right - wide / 2:
        raise CannotStyle(
            say("The piece is {0} wide there: a pocket {1u} wide would fit.", right - left, max(right - left - 2.0, 2.0)),
            ("wide",),
        )
    return Point(centre - wide / 2, y), 1.0


def _grain(corner: Point, inwards: float, wide: float, high: float) -> tuple[Point, Point]:
    middle = corner + Point(inwards * wide * 0.5, high * 0.2)
    return middle, middle + Point(0.0, high * 0.6)


def _outline(
    corner: Point, inwards: float, wide: float, high: float, narrow: float, tip: float, radius: float
) -> tuple[Path, Path]:
    """The mouth, and the three other sides: narrower below, pointed or with rounded corners."""
    way, down = Point(inwards, 0.0), Point(0.0, 1.0)
    far = corner + way * wide
    low_far, low = far - way * (narrow / 2) + down * high, corner + way * (narrow / 2) + down * high
    mouth = Path.through(corner, far)
    if tip > 0.05:
        return mouth, Path.through(far, low_far, low_far.toward(low, 0.5) + down * tip, low, corner)
    if radius < 0.01:
        return mouth, Path.through(far, low_far, low, corner)
    up_far, up = (far - low_far).unit(), (corner - low).unit()
    a, b = low_far + up_far * radius, low_far - way * radius
    c, d = low + way * radius, low + up * radius
    first = Cubic(a, a - up_far * (radius * ROUND), b + way * (radius * ROUND), b)
    second = Cubic(c, c - way * (radius * ROUND), d - up * (radius * ROUND), d)
    return mouth, Path.through(far, a) + Path((first,)) + Path.through(b, c) + Path((second,)) + Path.through(d, corner)


def _corners(path: Path) -> tuple[Point, ...]:
    """Where an outline turns on purpose."""
    return tuple(a.end for a, b in pairwise(path.segments) if angle_between(a.direction(1.0), b.direction(0.0)) > 2.0)


def _with_fold(pocket: Piece, turned: float) -> Piece:
    """The pocket with what is folded in at its mouth: cut as the sides lie when the fold is closed."""
    mouth, sides = pocket.edges
    a, b = mouth.start, mouth.end
    way_a, way_b = -sides.arriving, sides.leaving  # down both sides
    deep = turned + CATCH
    up = [Point(w.x, -w.y) * (deep / max(abs(w.y), 0.2)) for w in (way_a, way_b)]
    top = Path.through(a + up[0], b + up[1])
    body = Path.through(b + up[1], b) + sides.parts[0] + Path.through(a, a + up[0])
    lines = (
        InnerLine("fold_mouth", "Fold: the mouth", Path.through(a, b)),
        InnerLine("fold_in", "Fold first", Path.through(a + up[0] * (turned / deep), b + up[1] * (turned / deep))),
    )
    edges = (replace(mouth, parts=(top,), kind="seam"), replace(sides, parts=(body,), corners=_corners(body)))
    return replace(pocket, edges=edges, lines=lines)


MOUTH = Option("mouth", "Opening", "length", 16.0, "along the seam", 10.0, 30.0, 0.5)
DEEP = Option("deep", "Bag", "length", 28.0, "how long the bag is", 14.0, 45.0, 0.5)
BAG = Option("bag", "Bag, how wide", "length", 16.0, "from the seam inwards", 10.0, 30.0, 0.5)


@operation(
    "pocket.seam", "pockets", "Pocket in a seam", "a bag let into a seam: its opening is notched on both sides",
    options=(MOUTH, DEEP, BAG), wheres={"from": "where on the seam the opening begins"}, names={"piece": "the bag"}, phase="derive",
)  # fmt: skip
def seam_pocket(job: Job) -> Change:
    """The bag, and the ends of its opening notched on the seam."""
    found, mouth = job.at["from"], job.length("mouth")
    edge = found.piece.edge(found.spot.edge)
    down = edge.place(min(found.spot.along + 1.0, edge.length)).point.y >= found.point.y
    ends = (found.spot.along, found.spot.along + (mouth if down else -mouth))
    if not 0.0 <= min(ends) <= max(ends) <= edge.length:
        room = edge.length - found.spot.along if down else found.spot.along
        raise CannotStyle(
            say("Only {0} of the seam is left from there: an opening of {1u} would fit.", room, max(room - 1.0, 0.0)), ("from",)
        )
    garment = notched(
        job.garment, SeamEdge(found.piece.name, edge.name), [Notch(f"pocket {n}", at) for n, at in enumerate(sorted(ends), 1)]
    )
    name = job.free_piece("pocket_bag")
    bag = replace(_bag(name, "Pocket bag", mouth, job.length("deep"), job.length("bag")), serves=found.piece.name)
    return Change((*garment.pieces, bag), made=(name,))


def _bag(name: str, title: str, mouth: float, deep: float, wide: float) -> Piece:
    """A pocket bag, straight along its mouth, round below; four are cut, two for each side."""
    a, b = Point(0.0, 0.0), Point(0.0, max(mouth + 4.0, deep * 0.72))
    top = Point(wide * 0.55, -1.5)
    spots = [b, Point(wide * 0.6, deep), Point(wide, deep * 0.55), top, a]
    outer = Path(spline(spots, Point(0.1, 1.0).unit(), Point(-1.0, 0.05).unit()))
    edges = (Edge("bag_mouth", (Path.through(a, b),), role="pocket"), Edge("bag_edge", (outer,), role="pocket"))
    grain = Point(wide * 0.45, deep * 0.2), Point(wide * 0.45, deep * 0.75)
    return Piece(name, title, edges, layer="inside", stands="pair", grain=grain, cloths=(Cloth("pocketing", "4, two pairs"),))


SLANT_IN = Option("in_", "In along the upper edge", "length", 5.0, "from the side", 1.5, 14.0, 0.5)
SLANT_DOWN = Option("down", "Down the side", "length", 17.0, "from the upper edge", 12.0, 26.0, 0.5)


@operation(
    "pocket.slant", "pockets", "Slant pocket", "the front is cut away between waist and side; a side part and two bags lie behind",
    options=(SLANT_IN, SLANT_DOWN, BAG), wheres={"side": "any place on the side seam of the piece"},
    names={"piece": "the side part"},
)  # fmt: skip
def slant_pocket(job: Job) -> Change:
    """Cut the corner off, and cut it again with cloth beyond the opening: it is sewn in waist and side, the opening is faced."""
    found = job.at["side"]
    piece, side = found.piece, found.piece.edge(found.spot.edge)
    before, after = piece.beside(side.name)
    top = next((e for e in (before, after) if e.role in ("waist", "cut", "waist_seam")), None)
    if top is None:
        raise CannotStyle(say("The side does not come up to a waist there."), ("side",))
    room = (top.parts[-1] if top is before else top.parts[0]).length - 1.0
    if job.length("in_") > room:
        raise CannotStyle(say("A dart lies {0} from the side: begin the opening {1u} in at most.", room + 1.0, room), ("in_",))
    at_top = top.length - job.length("in_") if top is before else job.length("in_")
    at_side = job.length("down") if top is before else side.length - job.length("down")
    if not 2.0 < at_side < side.length - 2.0:
        raise CannotStyle(
            say("The side is {0} long: the opening ends {1u} down it at most.", side.length, side.length - 3.0), ("down",)
        )
    start, end = Spot(top.name, at_top), Spot(side.name, at_side)
    line = Path.through(top.place(at_top).point, side.place(at_side).point)
    opening = Edge(free_name((e.name for e in piece.edges), "pocket_opening"), (line,), kind="faced", role="pocket")
    name = job.free_piece("pocket_side")
    front, corner, renamed = _parted(piece, start, end, line, opening, name)
    corner = _with_lap(piece, corner, opening.name, top, at_top)
    pieces: list[Piece] = []
    for old in job.garment.pieces:
        pieces += [front, corner] if old.name == piece.name else [old]
    bag = _bag(job.free_piece("pocket_bag", "bag"), "Pocket bag", line.length, job.length("bag") * 1.5, job.length("bag"))
    bag = replace(bag, serves=piece.name)
    said = say("The opening is {0} long; the side part goes {1} on behind it.", line.length, LAP)
    return Change((*pieces, bag), renamed=renamed, made=(name, bag.name), said=(said,))


LAP = 4.0  # cm that a side part goes on behind the opening


def _parted(
    piece: Piece, start: Spot, end: Spot, line: Path, edge: Edge, name: str
) -> tuple[Piece, Piece, dict[EdgeRef, Chain]]:
    """The piece without its corner, the corner under a new name, and what the edges have become."""
    parted = part_piece(piece, start, end, (line, line), edge, name, end.edge, f"{piece.title}, side part of the pocket")
    if parted.new.area <= parted.kept.area:
        return parted.kept, parted.new, dict(parted.renamed)
    swap = {piece.name: name, name: piece.name}
    renamed = {ref: tuple(replace(e, piece=swap[e.piece]) for e in chain) for ref, chain in parted.renamed.items()}
    for old in piece.edges:  # those that kept their name went with the corner
        ref = EdgeRef(piece.name, old.name)
        renamed.setdefault(ref, (SeamEdge(swap[parted.kept.name if parted.kept.has(old.name) else name], old.name),))
    front = parted.new.with_on_it(name=piece.name, title=piece.title, stands=piece.stands)
    return front, parted.kept.with_on_it(name=name, title=parted.new.title, stands="pair"), renamed


def _with_lap(piece: Piece, corner: Piece, opening: str, top: Edge, at_top: float) -> Piece:
    """The corner carried on behind the opening: along the upper edge, and down beside the opening."""
    cut = corner.edge(opening)
    from_side = cut.start.to(top.place(at_top).point) > cut.end.to(top.place(at_top).point)
    high, low = (cut.end, cut.start) if from_side else (cut.start, cut.end)
    inwards = corner.outward(cut.end - cut.start)
    other = top.place(
        at_top - LAP if top.place(at_top - 1.0).point.to(low) > top.place(at_top + 1.0).point.to(low) else at_top + LAP
    ).point
    foot = low + inwards * LAP
    edge = Path.through(low, foot, other) if from_side else Path.through(other, foot, low)
    lap = Path.through(other, high) if from_side else Path.through(high, other)
    rim = Edge("part_edge", (edge,), role="pocket", corners=(foot,))
    over = Edge("part_lap", (lap,), role="pocket")
    ring: list[Edge] = []
    for old in corner.edges:
        ring += ([rim, over] if from_side else [over, rim]) if old.name == opening else [old]
    line = InnerLine(opening, "Opening of the pocket", cut.parts[0])
    ends = []
    for level in corner.balance:
        stretches = corner.stretches(level.level)
        near = [_off(cut.parts[0], spot) for spot in (stretches[0][0], stretches[-1][1])] if stretches else [9.0, 9.0]
        ends.append(replace(level, between=(opening, level.between[1]) if near[0] < near[1] else (level.between[0], opening)))
    return replace(corner, edges=tuple(ring), lines=(*corner.lines, line), balance=tuple(ends))


def _off(path: Path, spot: Point) -> float:
    way = (path.end - path.start).unit()
    return abs(way.cross(spot - path.start))


WELT = Option("welt", "Welt, how high", "length", 2.0, "finished", 0.5, 6.0, 0.1)
FLAP = Option("flap", "Flap, how high", "length", 5.0, "finished; 0 is none", 0.0, 12.0, 0.5)


@operation(
    "pocket.welt", "pockets", "Welt pocket, with or without a flap", "a slit between two pieces of cloth, a bag behind it",
    options=(PLACE, Option("wide", "Width", "length", 14.0, "of the opening", 6.0, 24.0, 0.5), WELT, FLAP, DEEP, INWARDS, BELOW, ACROSS),
    wheres={"beside": "the place beside which, or below which, it lies"}, names={"piece": "the welt"}, phase="derive",
)  # fmt: skip
def welt_pocket(job: Job) -> Change:
    """The slit drawn on its piece; the welt, the flap and the bag cut by it."""
    found, wide = job.at["beside"], job.length("wide")
    corner, inwards = _corner(job, found, wide)
    line = Path.through(corner, corner + Point(inwards * wide, 0.0))
    piece = found.piece
    slit = InnerLine(free_name((ln.name for ln in piece.lines), "pocket_slit"), "Pocket: slit", line)
    garment = job.garment.with_piece(piece.with_on_it(lines=(*piece.lines, slit)))
    name = job.free_piece("welt")
    welt = strip(name, "Welt", wide + 3.0, job.length("welt") * 2 + 2.0, of=name, layer="inside", stands="pair")
    welt = replace(welt, serves=piece.name)
    bag = strip(
        job.free_piece("welt_bag"), "Pocket bag", wide + 3.0, job.length("deep"), of="welt_bag", layer="inside", stands="pair"
    )
    bag = replace(
        bag,
        cloths=(Cloth("pocketing", "4, two pairs"),),
        grain=(Point(wide / 2, 2.0), Point(wide / 2, job.length("deep") - 2.0)),
        serves=piece.name,
    )
    pieces = [*garment.pieces, welt, bag]
    made = [name, bag.name]
    high = job.length("flap")
    if high > 0.4:
        shape = _outline(Point(0.0, 0.0), 1.0, wide, high, 0.0, 0.0, min(1.5, high / 2))
        edges = (
            Edge("flap_top", (shape[0],), role="pocket"),
            Edge("flap_edge", (shape[1],), role="pocket", corners=_corners(shape[1])),
        )
        flap = Piece(job.free_piece("flap"), "Pocket flap", edges, layer="inside", stands="pair", grain=(Point(wide / 2, high * 0.2),
            Point(wide / 2, high * 0.8)), cloths=(Cloth(OUTER, "4, two pairs"),), serves=piece.name)  # fmt: skip
        pieces.append(flap)
        made.append(flap.name)
    return Change(tuple(pieces), made=tuple(made), said=_tried(job, wide, job.length("deep")))
