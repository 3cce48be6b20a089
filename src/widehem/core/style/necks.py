"""Necklines: lower, wide, V, square, heart, boat; and a stand collar grown on. Front and back shoulder stay equal, and the neck
runs on over them."""

from __future__ import annotations

from widehem.core.geometry.curves import Cubic, Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.upper import NeckOn
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT
from widehem.core.pattern.shaping import trimmed, with_edges
from widehem.core.setting.option import Choice, Option
from widehem.core.style.asks import all_of, places_left
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

STRAP, WIDE, ABOVE_BLADE = (
    4.0,
    9.0,
    4.0,
)  # cm: least width of a strap, a wide neck's half, how far a back ends above the blade level
SHAPE = Option(
    "shape", "Front", "choice", "round", "how the front neckline runs",
    choices=(Choice("round", "Round", "one curve"), Choice("v", "V", "straight to a point"), Choice("square", "Square", "down and across"),
        Choice("heart", "Heart", "over the bust to a dip in the middle"), Choice("boat", "Boat", "flat from shoulder to shoulder")),
)  # fmt: skip
WIDER = Option("wider", "Wider at the shoulder", "length", 2.0, "along both shoulders, which end further out", 0.0, 12.0, 0.5)
LOWER = Option("lower", "Front lower", "length", 4.0, "at the centre front; less than nothing is higher", -2.0, 30.0, 0.5)
LOWER_BACK = Option("lower_back", "Back lower", "length", 1.0, "at the centre back", -1.0, 30.0, 0.5)
HELD = Option(
    "held", "A low back", "choice", "no", "below the blades it slides off unless something holds it",
    choices=(Choice("no", "Not held", "it ends {4} above the blades at least"), Choice("yes", "Held", "by a tie, a strap or stays")),
)  # fmt: skip


@operation(
    "neck.shape", "neck", "Shape the neckline", "lower, wider, round, V, square, heart or boat; front and back meet at the shoulder",
    options=(SHAPE, WIDER, LOWER, LOWER_BACK, HELD),
    halves=True,
)  # fmt: skip
def shape_neck(job: Job) -> Change:
    """Draw the neckline of front and back again; both shoulders are shortened alike from the neck."""
    shape, wider = job.choice("shape"), job.length("wider")
    made: dict[str, Piece] = {}
    for part, lower in ((FRONT, job.length("lower")), (BACK, job.length("lower_back"))):
        piece, neck, shoulder = _neck_of(job, part)
        middle = piece.edge(piece.middle)
        down = -middle.leaving if neck.end == middle.start or neck.end.to(middle.start) < 1e-4 else middle.leaving
        down = down if down.y > 0 else -down
        near = shoulder.parts[-1 if shoulder.end.to(neck.start) < 1e-4 else 0].length
        left = shoulder.length - wider
        if near - wider < 1.0:
            raise CannotStyle(
                say("A dart ends {0} from the neck in this shoulder: widen by {1u} at most, or swing the dart away first.", near, near - 1.0),
                ("wider",),
            )  # fmt: skip
        if left < STRAP:
            raise CannotStyle(
                say("The shoulder would be {0} wide, a strap of {1u} is the least: widen the neck by {2u} at most.", left, STRAP,
                    wider + left - STRAP), ("wider",),
            )  # fmt: skip
        if part == BACK and job.choice("held") == "no":
            _not_too_low(job, piece, middle, lower)
        made[piece.name] = _drawn(piece, neck, shoulder, middle, wider, lower, shape if part == FRONT else "round")
    pieces = tuple(made.get(piece.name, piece) for piece in job.garment.pieces)
    half = sum(rim_width(made[name]) for name in made) / 2
    said = [say("The neck is {0} wide at each side; both shoulders end {1} further out.", half, wider)]
    return Change(pieces, asks=all_of(_open, places_left("snp", "nape")), said=tuple(said))


def _open(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
    """A neckline that is open on purpose."""
    return tuple(replace(d, most=None) if isinstance(d, NeckOn) else d for d in demands)


def rim_width(piece: Piece) -> float:
    """How far the neck ends from the middle of its piece, cm."""
    (neck,) = piece.edges_of("neck")[:1]
    middle = piece.edge(piece.middle)
    way = (middle.end - middle.start).unit()
    far = neck.start if neck.end.to(middle.start) < 1e-3 or neck.end.to(middle.end) < 1e-3 else neck.end
    return abs(way.cross(far - middle.start))


def _neck_of(job: Job, part: str) -> tuple[Piece, Edge, Edge]:
    """The piece of a part whose neck runs from its middle to its shoulder."""
    for piece in job.garment.shell:
        necks = piece.edges_of("neck")
        if piece.of == part and piece.middle and len(necks) == 1:
            before, after = piece.beside(necks[0].name)
            for one, two in ((before, after), (after, before)):
                if one.name == piece.middle and two.role == "shoulder":
                    return piece, necks[0], two
    raise CannotStyle(say(f"The {part} has no neckline from the middle to the shoulder: shape it before a yoke or a panel is cut, or lay those together first."))  # fmt: skip


def _not_too_low(job: Job, piece: Piece, middle: Edge, lower: float) -> None:
    blade = piece.marks.get("blade")
    if blade is None:
        return
    top = min((middle.start, middle.end), key=lambda spot: spot.y)
    room = blade.y - top.y - ABOVE_BLADE
    if lower > room:
        raise CannotStyle(
            say("A back that nothing holds ends {0} above the blades: lower it by {1u} at most, or hold it.", ABOVE_BLADE, max(room, 0.0)),
            ("lower_back",),
        )  # fmt: skip


def _drawn(piece: Piece, neck: Edge, shoulder: Edge, middle: Edge, wider: float, lower: float, shape: str) -> Piece:
    """The piece with its shoulder shortened, its middle begun lower, and the neck between drawn anew."""
    first = shoulder.end.to(neck.start) < 1e-4  # the neck runs from shoulder to middle
    new_shoulder = trimmed(shoulder, at_end=wider) if first else trimmed(shoulder, at_start=wider)
    new_middle = trimmed(middle, at_start=lower) if first else trimmed(middle, at_end=lower)
    tip = new_shoulder.end if first else new_shoulder.start
    low = new_middle.start if first else new_middle.end
    away = -new_shoulder.arriving if first else new_shoulder.leaving  # along the shoulder, outwards
    down = new_middle.leaving if first else -new_middle.arriving
    path, corners, pointed = _line(neck, tip, low, away, down, shape, first=first, old=(neck.start if first else neck.end))
    made = replace(neck, parts=(path if first else path.reverse(),), gaps=(), notches=(), corners=corners, pointed=pointed)
    marks = {name: mark for name, mark in piece.marks.items() if name not in ("snp", "nape")}
    return replace(with_edges(piece, new_shoulder, made, new_middle), marks=marks)


def _line(
    neck: Edge, tip: Point, low: Point, away: Point, down: Point, shape: str, *, first: bool, old: Point
) -> tuple[Path, tuple[Point, ...], bool]:
    """The neckline from the shoulder to the middle; it leaves the shoulder as it did, and the middle squarely."""
    leaving = neck.leaving if first else -neck.arriving
    square = down.square()
    square = square if square.dot(low - tip) > 0 else -square
    deep, wide = abs((low - tip).dot(down)), abs((low - tip).dot(square))
    if shape == "v":
        return (
            Path((curve_between(tip, leaving, low, (low - tip).unit() * 0.7 + down * 0.3, deep * 0.25, tip.to(low) * 0.3),)),
            (),
            True,
        )
    if shape == "square":
        corner = low - square * wide * 0.92
        side = Cubic(tip, tip + leaving * (deep * 0.2), corner - down * (deep * 0.35), corner)
        return Path((side, Line(corner, low))), (corner,), False
    if shape == "heart":
        peak = low - square * (wide * 0.45) - down * (deep * 0.16)
        dip = (down * 0.8 + square).unit()
        segments: list[Segment] = [_rounder(tip, leaving, peak, square), _rounder(peak, square, low, dip)]
        return Path(tuple(segments)), (), True
    if shape == "boat":
        return Path((Cubic(tip, tip + leaving * (deep * 0.5), low - square * (wide * 0.75), low),)), (), False
    return Path((_roundest(tip, leaving, low, square, deep, wide),)), (), False


def _rounder(start: Point, leaving: Point, end: Point, arriving: Point) -> Cubic:
    """The curve between two places and directions whose tightest turn is as wide as it can be."""
    far = start.to(end)
    shares = (0.2, 0.3, 0.4, 0.5, 0.6)
    curves = [curve_between(start, leaving, end, arriving, far * a, far * b) for a in shares for b in shares]
    return min(curves, key=_waving_and_tight)


def _waving_and_tight(curve: Cubic) -> tuple[bool, float]:
    """Whether a curve bends both ways, and how tightly it turns."""
    turns, tight = curve.turns(16)
    return min(turns) < -0.003 and max(turns) > 0.003, tight


def _roundest(tip: Point, leaving: Point, low: Point, square: Point, deep: float, wide: float, least: float = 0.3) -> Cubic:
    """The curve from shoulder to middle whose tightest turn is as wide as it can be. least: part of its width over which it
    runs on from the middle at least, so that it leaves that squarely."""

    def tightest(curve: Cubic) -> float:
        return curve.turns(16)[1]

    shares = (0.3, 0.4, 0.5, 0.6, 0.75, 0.85)
    size = max(deep, wide * 0.4) if least > 0.3 else deep
    curves = [
        Cubic(tip, tip + leaving * (size * a), low - square * (wide * b), low) for a in shares for b in shares if b >= least
    ]
    return min(curves, key=tightest)


HIGH = Option("high", "Height", "length", 3.8, "of the collar over the neck point", 1.5, 8.0, 0.1)
OUT = Option("out", "Leaves the shoulder", "length", 1.3, "so far out from the neck point", 0.5, 4.0, 0.1)
TILT = Option(
    "tilt",
    "Centre back leans",
    "length",
    0.6,
    "away from the piece over {15}, so that the top is longer than the neck",
    0.0,
    2.0,
    0.1,
)
LONGER = Option("longer", "Top longer than the neck", "length", 0.5, "on each half", 0.0, 2.0, 0.1)


@operation(
    "stand.grown", "neck", "Stand collar, grown on", "front and back run on upwards over the neck; the back has a seam then",
    options=(HIGH, OUT, TILT),
    halves=True,
)  # fmt: skip
def grown_stand(job: Job) -> Change:
    """Let the neck of front and back run up into a stand, alike over the shoulder; the centre back leans away and is sewn."""
    high, out, tilt = job.length("high"), job.length("out"), job.length("tilt")
    pieces = {piece.name: piece for piece in job.garment.pieces}
    seams = list(job.garment.seams)
    ends: dict[str, bool] = {}
    for part in (FRONT, BACK):
        piece, neck, shoulder = _neck_of(job, part)
        if part == BACK and piece.stands == "fold":
            raise CannotStyle(say("The centre back leans, so it needs a seam: open the back down its middle first, by a seam at the centre back."))  # fmt: skip
        pieces[piece.name], ends[part] = _grown(piece, neck, shoulder, high, out, tilt if part == BACK else 0.0)
    names = {part: next(p.name for p in pieces.values() if p.of == part and p.has("stand")) for part in (FRONT, BACK)}
    first = SeamEdge(names[BACK], "stand", ends[BACK])
    second = SeamEdge(names[FRONT], "stand", ends[FRONT])
    seams.append(Seam(job.free_seam("stand"), "Stand, over the shoulder", (first,), (second,)))
    asks = all_of(_open, places_left("snp", "nape"))
    said = say("The collar stands {0} over the neck point; its top is {1} round.", high, 2 * sum(
        pieces[names[p]].edges_of("neck")[0].length for p in names))  # fmt: skip
    return Change(tuple(pieces.values()), tuple(seams), asks=asks, said=(said,))


def _grown(piece: Piece, neck: Edge, shoulder: Edge, high: float, out: float, tilt: float) -> tuple[Piece, bool]:
    """A piece with its neck run up into a stand, and whether the stand's edge runs from the top down in the outline.

    The stand's edge leaves the shoulder so far out from the neck point and stands up over it; its shape is one in the frame of
    the shoulder, so that front and back are alike.
    """
    first = shoulder.end.to(neck.start) < 1e-4
    if out > shoulder.length - 3.0:
        raise CannotStyle(
            say("The shoulder is {0} long: leave it {1u} out at most.", shoulder.length, shoulder.length - 3.0), ("out",)
        )
    middle = piece.edge(piece.middle)
    new_shoulder = trimmed(shoulder, at_end=out) if first else trimmed(shoulder, at_start=out)
    foot = new_shoulder.end if first else new_shoulder.start
    old = neck.start if first else neck.end
    along = (old - foot).unit()  # towards the neck, along the shoulder
    up = along.square() if along.square().y < 0 else -along.square()
    top = old + up * high
    # from the shoulder it rises in a curve; over the neck point it stands upright
    edge_path = Path((Cubic(foot, foot + along * (out * 0.7), top - up * (high * 0.55), top),))
    corner = neck.end if first else neck.start
    inner = middle.leaving if first else -middle.arriving
    rise = -inner
    top_middle = corner + rise * high
    if tilt:
        away = inner.square() if inner.square().dot(old - corner) < 0 else -inner.square()
        top_middle = top_middle + away * (tilt / 15.0 * high)
    new_middle_path = Path((Line(top_middle, corner), *middle.parts[0].segments)) if first else Path(
        (*middle.parts[-1].segments, Line(corner, top_middle)))  # fmt: skip
    mid_parts = (new_middle_path, *middle.parts[1:]) if first else (*middle.parts[:-1], new_middle_path)
    new_middle = replace(middle, parts=mid_parts, corners=(*middle.corners, corner) if tilt else middle.corners)
    square = inner.square() if inner.square().dot(top_middle - top) > 0 else -inner.square()
    rim = Path(
        (
            _roundest(
                top, along, top_middle, square, abs((top_middle - top).dot(inner)), abs((top_middle - top).dot(square)), 0.85
            ),
        )
    )
    new_neck = replace(neck, parts=(rim if first else rim.reverse(),), gaps=(), notches=(), corners=(), pointed=False)
    stand = Edge("stand", (edge_path if first else edge_path.reverse(),), role="cut")
    ring = []
    for edge in piece.edges:
        if edge.name == shoulder.name:
            ring += [new_shoulder, stand] if first else [stand, new_shoulder]
        elif edge.name == neck.name:
            ring.append(new_neck)
        else:
            ring.append(new_middle if edge.name == middle.name else edge)
    marks = {name: mark for name, mark in piece.marks.items() if name not in ("snp", "nape")}
    return replace(piece, edges=tuple(ring), marks=marks), not first
