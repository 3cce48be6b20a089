"""What else becomes of a dart: divided, let go into gathers, ease, pleats or tucks, moved along its edge."""

from __future__ import annotations

import math

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.edge import Dart, Edge, Gap, Held, Notch
from widehem.core.pattern.garment import Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import dart_between
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import with_edges
from widehem.core.setting.option import Choice, Option
from widehem.core.style.notching import notched
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.style.swing import Share, swing
from widehem.core.style.where import Found
from widehem.core.units import say
from widehem.core.values import replace

SHORT = Option("short", "Sewn short of the point", "length", 2.5, "how far before the point both end", 0.0, 6.0, 0.5)
PART = Option("part", "Part of the first", "number", 50.0, "per cent of the dart that opens at the first place", 5.0, 95.0, 5.0)
KIND = Option(
    "kind", "Let go into", "choice", "gathers", "what takes up its cloth instead",
    choices=(
        Choice("gathers", "Gathers", "drawn up on a thread between two notches"),
        Choice("ease", "Ease", "held in without a fold; only for little"),
        Choice("pleat", "Pleat", "folded flat at the edge, hanging free"),
        Choice("tuck", "Tuck", "folded and sewn down a way"),
    ),
)  # fmt: skip
ZONE = Option("zone", "Spread over", "length", 6.0, "how much of the edge is gathered or eased, the cloth included", 2.0, 60.0, 0.5,
    when=(("kind", ("gathers", "ease")),))  # fmt: skip
SEWN = Option("sewn", "Sewn down", "length", 5.0, "how far a tuck is sewn", 1.0, 30.0, 0.5, when=(("kind", ("tuck",)),))
BY = Option(
    "by", "Moved by", "length", 1.3, "along its edge, away from the middle; less than nothing towards it", -6.0, 6.0, 0.1
)
LEAST = 2.0  # cm beside what is gathered, to draw it up in
EASE_MOST = 1.5  # cm that cloth is eased in over an edge without a fold


def dart_at(job: Job, code: str = "dart") -> tuple[Found, Dart]:
    """The dart at a place. Raises CannotStyle where there is none."""
    found = job.at[code]
    dart = next((g for g in found.piece.edge(found.spot.edge).darts if g.name == found.spot.dart), None)
    if dart is None:
        raise CannotStyle(say("There is no dart at that place: choose the mouth of one."), (code,))
    return found, dart


@operation(
    "dart.divide", "dart", "Divide a dart", "what one dart takes is opened at two places", options=(PART, SHORT),
    wheres={"dart": "the dart", "first": "where one part opens", "second": "where the other opens"},
    names={"first": "the first new dart", "second": "the second new dart"},
)  # fmt: skip
def divide_dart(job: Job) -> Change:
    """Turn a dart to two places of its piece."""
    found, dart = dart_at(job)
    part = job.length("part") / 100
    names = {p.name for p in found.piece.darts}
    shares = []
    for code, share in (("first", part), ("second", 1 - part)):
        to = job.at[code]
        if to.piece.name != found.piece.name or to.piece.edge(to.spot.edge).kind == "fold":
            raise CannotStyle(say("A dart is opened on its own piece, and not in a fold."), (code,))
        name = free_name(names, job.names.get(code, f"{dart.name}_{code}"))
        names.add(name)
        shares.append(Share(to.spot, share, name, job.length("short")))
    made = swing(found.piece, dart.name, shares)
    return Change(job.garment.with_piece(made).pieces)


@operation(
    "dart.release", "dart", "Let a dart go", "its cloth stays in the edge, as gathers, ease, a pleat or a tuck",
    options=(KIND, ZONE, SEWN), wheres={"dart": "the dart"},
)  # fmt: skip
def release_dart(job: Job) -> Change:
    """What a dart took hangs as fullness from its edge; what is sewn to the edge stays as long."""
    found, dart = dart_at(job)
    piece, edge = found.piece, found.piece.edge(found.spot.edge)
    kind = job.choice("kind")
    if kind == "ease" and dart.mouth > EASE_MOST:
        raise CannotStyle(
            say("{0} cannot be eased in without a fold: {1u} at most. Take gathers, or divide the dart first.", dart.mouth, EASE_MOST),
            ("dart",),
        )  # fmt: skip
    garment = job.garment
    words = {"gathers": "drawn up in gathers", "ease": "eased in", "pleat": "laid in a pleat", "tuck": "folded in a tuck"}[kind]
    if kind in ("gathers", "ease"):
        garment = _held(garment, piece, edge, dart, kind, job.length("zone"))
    else:
        name = free_name((other.name for other in piece.darts), f"{kind}_{dart.name}")
        folded = replace(dart, name=name, sewn=job.length("sewn") if kind == "tuck" else 0.0)
        garment = garment.with_piece(with_edges(piece, _with_gap(edge, dart.name, folded)))
    text = f"The {plain(dart.name)} of the {plain(piece.name)} is let go: {{0}} are {words}."
    return Change(garment.pieces, said=(say(text, dart.mouth),))


def _with_gap(edge: Edge, name: str, gap: Gap) -> Edge:
    return replace(edge, gaps=tuple(gap if old.name == name else old for old in edge.gaps))


def _held(garment: Garment, piece: Piece, edge: Edge, dart: Dart, kind: str, zone: float) -> Garment:
    """The garment with what a dart took held in its edge, and the ends of the zone notched on both sides of the seam."""
    number = next(n for n, gap in enumerate(edge.gaps) if gap.name == dart.name)
    before, after = edge.parts[number], edge.parts[number + 1]
    line = Path((curve_between(dart.inner, before.arriving, dart.outer, after.leaving),))
    made = garment.with_piece(with_edges(piece, _with_gap(edge, dart.name, Held(f"{kind}_{dart.name}", line))))
    at, spare = sum(part.length for part in edge.parts[: number + 1]), max(zone - dart.mouth, LEAST) / 2
    ends = max(at - spare, 0.4), min(at + spare, edge.length - 0.4)
    return notched(made, SeamEdge(piece.name, edge.name), [Notch(kind, end) for end in ends])


@operation(
    "dart.slide", "dart", "Move a dart along its edge", "so that a line runs straight: intake and length stay, nothing is turned",
    options=(BY,), wheres={"dart": "the dart"},
)  # fmt: skip
def slide_dart(job: Job) -> Change:
    """Lay the legs of a dart again so far along its edge, with its intake, its length and the length of the edge kept."""
    found, dart = dart_at(job)
    piece, edge = found.piece, found.piece.edge(found.spot.edge)
    number = next(n for n, gap in enumerate(edge.gaps) if gap.name == dart.name)
    before, after = edge.parts[number], edge.parts[number + 1]
    outwards = 1.0 if _from_middle(piece, edge) else -1.0
    by = job.length("by") * outwards
    room = (after.length if by > 0 else before.length) - 1.0
    if abs(by) > room:
        raise CannotStyle(
            say("Only {0} is left beside the dart: move it by {1u} at most.", room + 1.0, max(room, 0.0)), ("dart",)
        )
    along = (dart.outer - dart.inner).unit()
    want = before.length + after.length
    reach = abs(by) + 4.0
    head = before.cut(max(before.length - reach, before.length * 0.2))[0]
    tail = after.cut(min(reach, after.length * 0.8))[1]

    def over(out: float) -> float:
        one, two = _laid_again(head, tail, dart, _shift(dart, along, by, out), along)
        return one.length + two.length - want

    out = solve_or_nearest(over, 0.0, 0.3, near=1e-4)
    if out > 0.29:  # the edge runs on so flat that it keeps its length as it is
        out = 0.0
    shift = _shift(dart, along, by, out)
    one, two = _laid_again(head, tail, dart, shift, along)
    moved = _between(one, two, dart, shift)
    parts = (*edge.parts[:number], one, two, *edge.parts[number + 2 :])
    gaps = tuple(moved if n == number else gap for n, gap in enumerate(edge.gaps))
    return Change(job.garment.with_piece(with_edges(piece, replace(edge, parts=parts, gaps=gaps))).pieces)


def _from_middle(piece: Piece, edge: Edge) -> bool:
    """Whether an edge begins at the middle of the body."""
    before, after = piece.beside(edge.name)
    if piece.middle in (before.name, after.name):
        return before.name == piece.middle
    return abs(edge.start.x) <= abs(edge.end.x)


def _shift(dart: Dart, along: Point, by: float, out: float) -> Point:
    """How a dart moves: by `by` along its mouth and `out` across."""
    return along * by + (dart.middle - dart.point).unit() * out


def _laid_again(head: Path, tail: Path, dart: Dart, shift: Point, along: Point) -> tuple[Path, Path]:
    """Both stretches beside a dart that moved, from what stays of them: where it is shut they are one line."""
    inner, outer = dart.inner + shift, dart.outer + shift
    a, b = dart.inner - dart.turned_about, dart.outer - dart.turned_about
    half = math.atan2(a.cross(b), a.dot(b)) / 2  # so far each side turns when the dart is shut
    one_way, two_way = (along.moved(turn(Point(0.0, 0.0), way)) for way in (-half, half))
    one = head + Path((curve_between(head.end, head.arriving, inner, one_way),))
    two = Path((curve_between(outer, two_way, tail.start, tail.leaving),)) + tail
    return one, two


def _between(one: Path, two: Path, dart: Dart, shift: Point) -> Dart:
    """The dart that moved, between its stretches, with its intake and its length."""
    about = dart.turned_about + shift
    point = dart.point + shift
    moved = dart_between(dart.name, one, two, about, about.to(point), dart.pressed, dart.holds)
    middle = (dart.inner + shift).toward(dart.outer + shift, 0.5)
    return replace(moved, point=point, intake=dart.intake, length=dart.length, middle=middle)
