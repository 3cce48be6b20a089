"""Alterations that darts take up: an edge that gapes, more or less room for the bust."""

from __future__ import annotations

from widehem.core.altering.asked import lengths_anew, planned_anew, planned_more
from widehem.core.altering.halves import HAND, Half, by, changed, cornered, parted, told, wanted
from widehem.core.altering.panels import fuller
from widehem.core.altering.upper import chest_of
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.garment import EdgeRef
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Spot, closed, cut_at, dart_between, opened
from widehem.core.pattern.roles import BACK, FRONT, plain
from widehem.core.pattern.shaping import blended, faired
from widehem.core.setting.option import Choice, Option
from widehem.core.style.asks import all_of, notches_left
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.swing import Share, swing
from widehem.core.style.where import Where
from widehem.core.units import say
from widehem.core.values import replace

POINTS = {FRONT: "bust_point", BACK: "blade"}
ANGLE_MOST = 6.0  # degrees that an edge can be folded out by: beyond that it kinks
NEAR_POINT = 3.0  # cm: a dart turned about a place so near the point takes what is folded out
BLADE_SHORT, BUST_SHORT = 1.0, 2.5  # cm before the point that a new dart is sewn to
FAIRED = 3.0  # cm on either side of where an edge was folded out
WAIST_DART, SIDE_LEAST = 0.3, 3.0  # cm: mouth of a waist dart that can take width; room at the ends of the side
WEDGE = "folded_out"
EDGE = Option("edge", "Where", "choice", "neck", "the edge that stands off",
    choices=(Choice("neck", "neckline"), Choice("armhole", "armhole")))  # fmt: skip
PART = Option("part", "Of", "choice", FRONT, "front or back", choices=(Choice(FRONT, "the front"), Choice(BACK, "the back")))
PLACE = Option("place", "Where along it", "number", 55.0, "per cent of the edge, from the shoulder", 10.0, 90.0, 5.0)


@operation(
    "alter.gape", "alterations", "Fold out where it gapes", "a wedge is folded out of neckline or armhole, and a dart takes it up",
    options=(Option("by", "Folded out", "length", 0.8, "at the edge, on each side of the body", 0.2, 2.0, 0.1), EDGE, PART, PLACE, HAND),
    phase="block",
)  # fmt: skip
def gape(job: Job) -> Change:
    """A wedge to the bust point, or to the blade, is shut at the edge and opened in the dart that turns there; where there is none, in a
    new one at the shoulder."""
    garment, part, role, out = parted(job), job.choice("part"), job.choice("edge"), job.length("by")
    said, edges = [], []
    for half in wanted(garment, f"{role} in the {part}", role, "shoulder", part=part, hand=job.choice("hand")):
        edge = half.edge(role)
        point = half.piece.marks.get(POINTS[part])
        if edge is None or point is None:
            raise CannotStyle(say(f"The {part} has no {plain(POINTS[part])}: the fold has nowhere to run to."))
        if any(True for _ in garment.seams_at(EdgeRef(half.piece.name, edge.name))):
            raise CannotStyle(
                say(f"Something is sewn to the {role} of the {plain(half.piece.name)}: it would not fit any more. Alter the block it is made of."),
                ("edge",),
            )  # fmt: skip
        made, into = _folded(half, edge.name, point, out, job.length("place") / 100)
        garment = garment.with_piece(made)
        said.append(say(f"{{0}} is folded out of the {plain(half.piece.name)}; the {plain(into)} takes it up.", out))
        edges.append(EdgeRef(half.piece.name, edge.name))
    return changed(job, garment, said=tuple(said), asks=notches_left(*edges), stale=("facing", "pitch"))


def _folded(half: Half, name: str, point: Point, out: float, share: float) -> tuple[Piece, str]:
    """The piece with the wedge shut, and the name of the dart that is wider for it."""
    piece = half.piece
    edge = piece.edge(name)
    shoulder = half.edge("shoulder")
    assert shoulder is not None
    from_end = min(shoulder.start.to(edge.end), shoulder.end.to(edge.end)) < 0.05
    at = edge.length * (1 - share if from_end else share)
    low, high = at - out / 2, at + out / 2
    if low < 0.5 or high > edge.length - 0.5:
        raise CannotStyle(say("The fold runs over the end of the edge: choose a place nearer its middle."), ("place",))
    if (lever := edge.place(at).point.to(point)) * ANGLE_MOST * 0.01745 < out:
        raise CannotStyle(
            say("The edge lies {0} from the point: more than {1u} folded out there would kink it.", lever, lever * ANGLE_MOST * 0.01745),
            ("by",),
        )  # fmt: skip
    runs, _ = cut_at(opened(piece), Spot(name, low))
    runs, second = cut_at(runs, Spot(name, high))
    first = second - 1
    before, after = runs[first - 1], runs[second]
    reach = before.path.end.to(point) - after.path.start.to(point)
    shift = (after.path.start - point).unit() * reach
    path = blended(after.path, shift, Point(0.0, 0.0))
    short = after.path.length - path.length
    notches = tuple(replace(n, along=max(n.along - short, 0.0)) for n in after.notches)
    after = replace(after, path=path, notches=notches, before=dart_between(WEDGE, before.path, path, point, 0.0))
    wedged = closed(piece, (*runs[:first], after, *runs[second + 1 :]))
    wedge = next(dart for dart in wedged.darts if dart.name == WEDGE)
    own = _taker(wedged, point)
    if own is not None:
        host, dart = own
        share_of = Share(Spot(host, dart=dart.name), 1.0, dart.name, dart.turned_about.to(dart.point), dart.pressed)
        into = dart.name
    else:
        along = shoulder.length / 2
        into = "shoulder_dart"
        share_of = Share(Spot(shoulder.name, along), 1.0, into, BLADE_SHORT if piece.of == BACK else BUST_SHORT)
    turned = swing(replace(wedged, edges=wedged.edges), wedge.name, [share_of])
    folded = turned.edge(name)
    gone = low
    parts = []
    for part in folded.parts:
        if 0.5 < gone < part.length - 0.5:
            part = faired(part, gone, min(FAIRED, gone / 2, (part.length - gone) / 2))
        gone -= part.length
        parts.append(part)
    return turned.with_edge(replace(folded, parts=tuple(parts))), into


def _taker(piece: Piece, point: Point) -> tuple[str, Dart] | None:
    """The dart that turns about a point, with its edge."""
    found = [
        (dart.turned_about.to(point), edge.name, dart) for edge in piece.edges for dart in edge.darts if dart.name != WEDGE
    ]
    near = [entry for entry in found if entry[0] < NEAR_POINT and entry[2].apex is not None]
    return min(near, key=lambda entry: entry[0])[1:] if near else None


@operation(
    "alter.bust", "alterations", "More or less cup", "the front is slashed from the bust point and spread: drags from bust to armhole, a front that rides up",
    options=(by("Wider by", "for each half of the front, at the bust point; half of what was pinched or opened", 1.0, 4.0),), phase="block",
)  # fmt: skip
def bust(job: Job) -> Change:
    """Done at the bust point of the front, between its waist, the chest point and its side."""
    fronts = [
        half
        for half in wanted(job.garment, "front with an armhole", "armhole", "side", part=FRONT)
        if "bust_point" in half.piece.marks
    ]
    if not fronts:
        raise CannotStyle(say("There is no bust point in the front of this garment: it is done to a front that has one."))
    piece = fronts[0].piece
    waist, hole, side = fronts[0].edge("waist"), fronts[0].edge("armhole"), fronts[0].edge("side")
    by_ = job.length("by")
    if waist is None or hole is None or side is None:
        return _in_panels(job, fronts, by_)
    bust_dart = next((dart for dart in piece.darts if dart.apex is not None), None)
    home = next((edge for edge in piece.edges if bust_dart in edge.darts), None)
    if bust_dart is None or home is None:
        raise CannotStyle(say("This front has no bust dart: draw it with one, or let it out along its seams."))
    garment, there = job.garment, Share(_beside(piece, side), 1.0, bust_dart.name, bust_dart.turned_about.to(bust_dart.point))
    joint = sum(part.length for part in home.parts[: home.gaps.index(bust_dart) + 1])
    if home is not side:  # it is moved to the side for it, and back again
        piece = swing(piece, bust_dart.name, [there])
        garment = garment.with_piece(piece)
    waist = piece.edge(waist.name)
    in_waist = next((d for d in waist.darts if d.mouth > WAIST_DART), None)
    under = Where(piece.name, waist.name, "under", "bust_point")
    wheres = {
        "waist": under if in_waist is None else Where(piece.name, waist.name, "dart", in_waist.name),
        "hinge": Where(piece.name, hole.name, "cm", _chest_along(Half(piece), hole.name)),
        "side": Where(piece.name, side.name, "dart", bust_dart.name),
    }
    garment = job.then("bust.fuller", garment, {"by": by_}, wheres)
    if home is not side:
        back = Share(Spot(home.name, joint), 1.0, bust_dart.name, there.short, bust_dart.pressed)
        garment = garment.with_piece(swing(garment.piece(piece.name), bust_dart.name, [back]))
    now = cornered(job.garment, garment, "neck")
    said = told("Each half of the front is", by_, "wider at the bust point", "narrower at the bust point")
    levels = ("bust",) if in_waist is not None else ("bust", "waist")
    return changed(job, now, said=(said,), asks=planned_anew(job.garment, now, *levels), stale=("facing",))


def _in_panels(job: Job, fronts: list[Half], by_: float) -> Change:
    """A front without a waist: done at its seam over the bust."""
    garment, longer = job.garment, 0.0
    for half in fronts:
        garment, longer = fuller(garment, Half(garment.piece(half.piece.name), half.hand), by_)
    said = told("Each half of the front is", by_, "wider at the bust point", "narrower at the bust point")
    length = told("The middle of the front is", longer, "longer for it", "shorter for it")
    asks = all_of(
        planned_more({"bust": 2 * by_}, 1.0),
        lengths_anew(job.garment, garment),
        planned_anew(job.garment, garment, "waist", "hip"),
    )
    return changed(job, garment, said=(said, length), asks=asks, stale=("facing", "lining"))


def _chest_along(half: Half, name: str) -> float:
    """How far along the armhole the chest point lies, cm."""
    target = chest_of(half)
    return target.along if target.kind == "edge" and target.name == name else half.piece.edge(name).length / 2


def _beside(piece: Piece, side: Edge) -> Spot:
    """A place on the side level with the bust point; where that lies too high, a hand below the underarm."""
    down = side.start.y < side.end.y
    along = side.at_level(piece.marks["bust_point"].y)
    if along is not None and min(along, side.length - along) > SIDE_LEAST:
        return Spot(side.name, along)
    return Spot(side.name, side.length * (0.25 if down else 0.75))
