"""Shapes of a sleeve that is there: puffed at its cap, gathered at its hem, belled, cut in two, with a cuff."""

from __future__ import annotations

import math
from collections.abc import Callable

from widehem.core.geometry.curves import Cubic, Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.sleeve import CapFits, CapHalves, CapLies
from widehem.core.pattern.checks.through import ArmPasses, HandPasses
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import Chain, EdgeRef, Garment, Seam, SeamEdge
from widehem.core.pattern.inside import InnerLine
from widehem.core.pattern.meeting import PITCH
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.shaping import bent, edge_blended, joined_smoothly, strip, trimmed, with_edges
from widehem.core.setting.option import Option
from widehem.core.style.asks import all_of, hangs_free, without
from widehem.core.style.bands import folding, with_lap
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.where import Where
from widehem.core.units import Saying, say
from widehem.core.values import replace


def sleeve_at(job: Job, code: str = "sleeve") -> Piece:
    """The sleeve at a place: a piece with a cap and a hem. Raises CannotStyle."""
    piece = job.at[code].piece
    if not piece.edges_of("cap") or not piece.edges_of("wrist"):
        raise CannotStyle(say("That is no sleeve with a cap and a hem: set one in first, or choose a place on it."), (code,))
    return piece


HIGHER = Option("higher", "Cap higher", "length", 3.0, "at its top, for the puff to stand", 0.0, 12.0, 0.5)
WIDER = Option(
    "wider", "Cap wider", "length", 6.0, "spread over its upper part; with the height it is gathered in", 0.0, 30.0, 0.5
)


@operation(
    "sleeve.puff", "sleeves", "Puffed cap", "the cap is higher and wider, and gathered into the same armhole",
    options=(HIGHER, WIDER), wheres={"sleeve": "any place on the sleeve"},
)  # fmt: skip
def puff(job: Job) -> Change:
    """Raise and widen the cap above its pitches; the armhole stays, the seam gathers what is more."""
    piece = sleeve_at(job)
    higher, wider = job.length("higher"), job.length("wider")
    caps = piece.edges_of("cap")
    left = min(min(e.start.x, e.end.x) for e in caps)
    right = max(max(e.start.x, e.end.x) for e in caps)
    base = max(max(e.start.y, e.end.y) for e in caps)
    top = min(spot.y for e in caps for p in e.parts for spot in p.flat(0.1))
    middle, half = (left + right) / 2, (right - left) / 2
    low = min([base, *(e.place(n.along).point.y for e in caps for n in e.notches if n.name == PITCH)])

    def lifted(spot: Point) -> Point:
        up = min(max((low - spot.y) / (low - top), 0.0), 1.0)  # nothing up to the pitches, all at the top
        share = up**1.6
        side = (spot.x - middle) / half
        return Point(spot.x + side * wider / 2 * share * 0.9, spot.y - higher * share)

    edges = []
    for edge in piece.edges:
        if edge.role != "cap":
            edges.append(edge)
            continue
        parts = tuple(_mapped(part, lifted) for part in edge.parts)
        more = sum(part.length for part in parts) - edge.length
        notches = tuple(replace(n, along=n.along if _below(edge, n) else n.along + more) for n in edge.notches)
        edges.append(replace(edge, parts=parts, notches=notches))
    made_piece = replace(piece, edges=tuple(edges))
    garment = job.garment.with_piece(made_piece)
    seams = tuple(_gathered(garment, seam, piece.name) for seam in job.garment.seams)
    more = sum(e.length for e in made_piece.edges_of("cap")) - sum(e.length for e in caps)
    asks = without(CapFits, CapLies, CapHalves)
    said = say("The cap is {0} longer: gathered between its pitches.", more)
    return Change(garment.pieces, seams, said=(said,), asks=asks)


def _below(edge: Edge, notch: Notch) -> bool:
    """Whether a notch of a cap lies between where the edge begins and its top."""
    spots = [edge.place(edge.length * n / 24).point.y for n in range(25)]
    return notch.along <= edge.length * spots.index(min(spots)) / 24


def _mapped(path: Path, by: Callable[[Point], Point]) -> Path:
    """A path with every place of it moved: cut short first, so that it keeps its line."""
    found: list[Segment] = []
    rest, count = path, max(int(path.length / 2.0), 2)
    for number in range(count):
        piece, rest = rest.cut(rest.length / (count - number)) if number < count - 1 else (rest, rest)
        for segment in piece.segments:
            if isinstance(segment, Line):
                third = (segment.end - segment.start) * (1 / 3)
                segment = Cubic(segment.start, segment.start + third, segment.end - third, segment.end)
            found.append(Cubic(*(by(spot) for spot in (segment.start, segment.out, segment.into, segment.end))))
    return Path(tuple(joined_smoothly(found)))


def _gathered(garment: Garment, seam: Seam, name: str) -> Seam:
    """The seam of a cap with what it is gathered by now."""
    mine = [
        chain for chain in (seam.first, seam.second) if any(e.piece == name and garment.edge(e).role == "cap" for e in chain)
    ]
    if not mine or seam.twin:
        return seam
    over = garment.length_of(seam.first) - garment.length_of(seam.second)
    return replace(seam, ease=(over, over))


AT = Option("wider", "Wider", "length", 12.0, "at the hem, in all", 1.0, 60.0, 1.0)
LONGER = Option("longer", "Longer", "length", 3.0, "so that it blouses over a cuff; 0 for a bell", 0.0, 12.0, 0.5)


@operation(
    "sleeve.full", "sleeves", "Full at the hem", "slashed from hem to cap and spread: a bell, or gathered into a cuff",
    options=(AT, LONGER), wheres={"sleeve": "any place on the sleeve"},
)  # fmt: skip
def full(job: Job) -> Change:
    """Turn both underarm seams outwards about the underarm, and let the hem down behind, where the elbow is."""
    piece = sleeve_at(job)
    wider, longer = job.length("wider"), job.length("longer")
    hem = piece.edges_of("wrist")[0]
    if hem.gaps:
        raise CannotStyle(say("A dart ends in this hem: let it go, or swing it away first."), ("sleeve",))
    before, after = piece.beside(hem.name)
    sides = [edge for edge in (before, after) if edge.role == "underarm"]
    if len(sides) != 2:
        raise CannotStyle(say("The hem does not run from seam to seam: make it full before it is cut in two."), ("sleeve",))
    made = []
    for edge, at_end in ((before, True), (after, False)):
        path = edge.parts[-1] if at_end else edge.parts[0].reverse()
        out = piece.outward(edge.end - edge.start)
        way = path.end - path.start
        hand = 1.0 if way.cross(out) > 0 else -1.0
        angle = hand * math.asin(min(wider / 2 / way.size, 0.9))
        turned = bent(path, angle, path.length * 0.7)  # it leaves the underarm as it did
        parts = (*edge.parts[:-1], turned) if at_end else (turned.reverse(), *edge.parts[1:])
        made.append(
            trimmed(replace(edge, parts=parts), at_end=-longer)
            if at_end
            else trimmed(replace(edge, parts=parts), at_start=-longer)
        )
    start, end = made[0].end, made[1].start
    low = -made[0].arriving.square(), made[1].leaving.square()
    ways = [w if w.dot(end - start) > 0 else -w for w in low]
    path = Path((curve_between(start, ways[0], end, ways[1]),))
    ratio = path.length / hem.length
    new = replace(hem, parts=(path,), notches=tuple(replace(n, along=n.along * ratio) for n in hem.notches))
    whole = with_edges(piece, *made, new)
    asks = all_of(hangs_free("elbow", "wrist"), without(HandPasses) if longer else None)
    said = say("The hem is {0} round, {1} more than it was.", path.length, path.length - hem.length)
    return Change(job.garment.with_piece(whole).pieces, said=(said,), asks=asks)


CUFF = Option("high", "Height", "length", 5.0, "of the finished cuff", 1.5, 20.0, 0.5)
ROUND = Option("ease", "Over the wrist", "length", 4.0, "how much wider the closed cuff is than the wrist", 1.0, 14.0, 0.5)
OVER = Option("lap", "Overlap", "length", 2.0, "for the button", 0.0, 6.0, 0.5)
PLACKET = Option(
    "placket",
    "Placket",
    "length",
    9.0,
    "slit in the sleeve behind, from the hem up; 0 where the hand passes the cuff",
    0.0,
    25.0,
    0.5,
)


@operation(
    "sleeve.cuff", "sleeves", "Cuff", "the sleeve is gathered into it; a placket lets the hand through",
    options=(CUFF, ROUND, OVER, PLACKET), wheres={"sleeve": "any place on the sleeve"}, names={"piece": "the cuff"},
    fitted=True,
)  # fmt: skip
def cuff(job: Job) -> Change:
    """A cuff for the wrist; the sleeve is shorter by its height, its hem gathered into it; the placket is marked and cut."""
    piece = sleeve_at(job)
    high, lap, slit = job.length("high"), job.length("lap"), job.length("placket")
    round_ = job.measure("wrist", "wrist") + job.length("ease")
    hem = piece.edges_of("wrist")[0]
    if hem.length < round_ - 0.05:
        raise CannotStyle(
            say("The hem is {0} round and the cuff {1}: make the sleeve full first, or the cuff {2u} narrower.", hem.length, round_, round_ - hem.length),
            ("ease",),
        )  # fmt: skip
    hand = job.context.chart.get("hand")
    if slit < 0.5 and hand is not None and round_ < hand:
        raise CannotStyle(
            say("The hand is {0} and does not pass a cuff of {1}: give it a placket.", hand, round_), ("placket",)
        )
    before, after = piece.beside(hem.name)
    one, two = trimmed(before, at_end=high), trimmed(after, at_start=high)
    moved = edge_blended(hem, one.end - hem.start, two.start - hem.end)
    long = moved.length
    at = long * (0.25 if _back_first(piece, before) else 0.75)
    moved = replace(moved, role="cut", kind="seam", notches=(Notch("placket", at),) if slit >= 0.5 else ())
    sleeve = with_edges(piece, one, moved, two)
    if slit >= 0.5:
        place = moved.place(at)
        up = -sleeve.outward(place.direction)
        line = InnerLine("placket", "Slit for the placket", Path.through(place.point, place.point + up * slit))
        sleeve = replace(sleeve, lines=(*sleeve.lines, line))
    name = job.free_piece("cuff")
    notches = (Notch("placket", round_ * at / long),) if slit >= 0.5 else ()
    made = strip(name, "Cuff", round_, high * 2, of=name, stands="pair", notches=notches)
    made = with_lap(made, name, round_, high * 2, lap) if lap > 0.05 and slit >= 0.5 else made
    made = folding(made, round_ + lap, high, double=True)
    over = long - round_
    first = SeamEdge(piece.name, hem.name)
    seams = [
        *job.garment.seams,
        Seam(
            job.free_seam("cuff"),
            "Cuff, gathered on" if over > 1 else "Cuff",
            (first,),
            (SeamEdge(name, f"{name}_edge"),),
            (over, over),
        ),
    ]
    pieces = [*job.garment.with_piece(sleeve).pieces, made]
    made_names = [name]
    notions: tuple[Saying, ...] = ()
    if slit >= 0.5:
        behind = strip(
            job.free_piece("placket"), "Sleeve placket", slit + 3.0, 6.0, of="placket", layer="inside", stands="pair"
        )
        pieces.append(replace(behind, serves=piece.name))
        made_names.append(behind.name)
        notions = (say("2 buttons for the cuffs."),)
    else:
        seams.append(
            Seam(
                job.free_seam("cuff_ring"), "Cuff, closed", (SeamEdge(name, f"{name}_start"),), (SeamEdge(name, f"{name}_end"),)
            )
        )
    said = say(
        "The cuff is {0} round on a wrist of {1}; {2} of the sleeve is gathered into it.",
        round_,
        job.measure("wrist", "wrist"),
        over,
    )
    asks = without(HandPasses, ArmPasses) if slit >= 0.5 else None
    return Change(tuple(pieces), tuple(seams), said=(said,), made=tuple(made_names), notions=notions, asks=asks)


def _back_first(piece: Piece, before: Edge) -> bool:
    """Whether the hem begins at the back seam."""
    return before.name.endswith("back") or "front" not in before.name


SHIFT = Option("front", "Front seam in", "length", 2.0, "under the arm, so that it is not seen", 0.5, 5.0, 0.1)


@operation(
    "sleeve.two", "sleeves", "Two-part sleeve", "an upper and an under sleeve: the front seam lies in, the back seam over the elbow",
    options=(SHIFT,), wheres={"sleeve": "any place on the sleeve"}, names={"piece": "the under sleeve"},
)  # fmt: skip
def two_part(job: Job) -> Change:
    """Cut the sleeve along its back line, and lay a strip of the under sleeve to the upper one along the seam under the arm."""
    piece = sleeve_at(job)
    hem, shift = piece.edges_of("wrist")[0], job.length("front")
    seams = piece.edges_of("underarm")
    if hem.gaps or len(seams) != 2 or any(hem.name not in {e.name for e in piece.beside(side.name)} for side in seams):
        raise CannotStyle(say("A sleeve with one seam under the arm is cut in two; this one has others."), ("sleeve",))
    pitched = [(cap, notch) for cap in piece.edges_of("cap") for notch in cap.notches if notch.count == 2]
    if not pitched:
        raise CannotStyle(say("The cap has no notch of the back armhole, where the back seam begins."), ("sleeve",))
    cap, pitch = pitched[0]
    back = next(side for side in seams if _nearer(side, cap.place(pitch.along).point, seams))
    front = next(side for side in seams if side is not back)
    quarter = 0.25 if hem.start.to(_low(back, hem)) < 0.01 else 0.75
    under, strip_name = job.free_piece("under_sleeve"), "sleeve_strip"
    garment = job.then(
        "line.cut", job.garment, {},
        {"start": Where(piece.name, cap.name, "cm", pitch.along), "end": Where(piece.name, hem.name, "part", quarter)},
        {"line": "back_seam", "piece": under, "holds": back.name},
    )  # fmt: skip
    lower = garment.piece(under)
    top, low = (next(e for e in lower.beside(back.name) if e.role == role) for role in ("cap", "wrist"))
    corner = {e.name: (shift if _begins(lower, e, back) else e.length - shift) for e in (top, low)}
    garment = job.then(
        "line.cut", _forgotten(garment), {}, {"start": Where(under, top.name, "cm", corner[top.name]), "end": Where(under, low.name, "cm", corner[low.name])},
        {"line": "front_seam", "piece": strip_name, "holds": back.name},
    )  # fmt: skip
    garment = job.then("line.join", _forgotten(garment), {}, {"seam": Where(piece.name, front.name)})
    whole = replace(garment, now=_remembered(job.garment, garment))
    whole = replace(
        whole, pieces=tuple(replace(p, title=f"{piece.title}, under") if p.name == under else p for p in whole.pieces)
    )
    return Change(whole.pieces, whole=whole, made=(under,), asks=without(CapHalves, CapLies))


def _forgotten(garment: Garment) -> Garment:
    """The garment with every edge under the name it has now."""
    return replace(garment, now={})


def _remembered(before: Garment, after: Garment) -> dict[EdgeRef, Chain]:
    """What the draft's edges have become, as far as they have kept their names."""
    found: dict[EdgeRef, Chain] = {}
    for ref, chain in before.now.items():
        found[ref] = tuple(entry for entry in chain if after.has(entry.ref))
    return found


def _low(side: Edge, hem: Edge) -> Point:
    return side.end if min(side.end.to(hem.start), side.end.to(hem.end)) < 0.01 else side.start


def _nearer(side: Edge, spot: Point, sides: tuple[Edge, ...]) -> bool:
    """Whether a seam is the one that comes up nearest to a place of the cap."""
    return side is min(sides, key=lambda e: min(e.start.to(spot), e.end.to(spot)))


def _begins(piece: Piece, edge: Edge, beside: Edge) -> bool:
    """Whether an edge begins at its neighbour."""
    return piece.beside(edge.name)[0].name == beside.name
