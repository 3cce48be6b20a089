"""Raglan sleeves: the upper part of front and back goes to the sleeve, as far as the neck."""

from __future__ import annotations

import math

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, mirror_in, turn
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.checks.sleeve import CapFits, CapHalves, CapLies
from widehem.core.pattern.checks.through import ArmPasses, ElbowBends, HandPasses
from widehem.core.pattern.checks.upper import ArmholeOn, FrontInside
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import EdgeRef, Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, plain
from widehem.core.setting.option import Option
from widehem.core.style.asks import all_of, notches_left, places_left, without
from widehem.core.style.grown_sleeves import with_armhole
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import record, replace

CAPS = {BACK: "cap_back", FRONT: "cap_front"}
BENDS = 9.0  # cm below the shoulder over which the seam over the arm runs into the sleeve
FROM_NECK = Option("neck", "Begins at the neck", "length", 3.0, "so far from the shoulder seam", 1.0, 8.0, 0.1)
MEETS = Option("pitch", "Meets the armhole", "number", 40.0, "per cent of it up from the underarm", 20.0, 70.0, 5.0)


@operation(
    "sleeve.raglan", "sleeves", "Raglan sleeve", "the upper part of the armhole goes to the sleeve, as far as the neck",
    options=(FROM_NECK, MEETS), wheres={"sleeve": "any place on a sleeve that is set in"}, names={"back": "the back sleeve"},
    halves=True,
)  # fmt: skip
def raglan(job: Job) -> Change:
    """Cut front and back from neck to armhole and the sleeve along its middle; each upper part is laid on its half of the cap."""
    garment, sleeve = job.garment, job.at["sleeve"].piece
    names = {FRONT: sleeve.name, BACK: job.free_piece(f"{sleeve.name}_back", "back")}
    pieces = {p.name: p for p in garment.pieces if p.name != sleeve.name}
    seams, made, over = [], {}, 0.0
    bodies = {part: with_armhole(job, part) for part in (BACK, FRONT)}
    for part, body in bodies.items():
        cut = _cut(job, body)
        half = _half(sleeve, part)
        arm, long = _laid(cut, half, names[part], f"{sleeve.title}, {part}", part, over)
        over = over or long
        pieces[body.name], made[part] = cut.rest, arm
        seams += [
            Seam(
                job.free_seam(f"raglan_{part}"),
                f"Raglan seam, {part}",
                (SeamEdge(body.name, "raglan"),),
                (SeamEdge(arm.name, "raglan"),),
            ),
            Seam(
                job.free_seam(f"lower_{part}"),
                f"Lower armhole, {part}",
                (SeamEdge(body.name, cut.hole),),
                (SeamEdge(arm.name, "cap"),),
            ),
        ]
    pieces |= {arm.name: arm for arm in made.values()}
    ease = made[BACK].edge("over_arm").length - made[FRONT].edge("over_arm").length
    for name, title, by in (("over_arm", "Seam over the arm", ease), ("underarm", "Underarm seam", 0.0)):
        first, second = (SeamEdge(names[BACK], name),), (SeamEdge(names[FRONT], name),)
        seams.append(Seam(job.free_seam(f"raglan_{name}"), title, first, second, (by, by) if abs(by) > 0.05 else (0.0, 0.0)))
    gone = {EdgeRef(sleeve.name, e.name) for e in sleeve.edges} | {
        EdgeRef(b.name, b.edges_of("shoulder")[0].name) for b in bodies.values()
    }
    kept = tuple(s for s in garment.seams if not any(e.ref in gone for e in (*s.first, *s.second)))
    known = {(p.name, e.name) for p in pieces.values() for e in p.edges}
    dropped = tuple(ref for ref in gone if (ref.piece, ref.edge) not in known)
    asks = all_of(
        notches_left(*(EdgeRef(b.name, b.edges_of("armhole")[0].name) for b in bodies.values())),
        without(CapFits, CapLies, CapHalves, ArmPasses, ElbowBends, HandPasses, ArmholeOn, FrontInside),
        places_left("tip", "snp"),
    )
    said = say(
        "The seam runs {0} from the shoulder at the neck; over the arm both sleeves are {1} long.", job.length("neck"), over
    )
    return Change(tuple(pieces.values()), (*kept, *seams), dropped=dropped, made=(names[BACK],), asks=asks, said=(said,))


@record(frozen=True)
class Cut:
    """A body piece without its upper part. hole: its armhole's name; along: how much of it is left, cm. The upper part, all from the
    armhole: the raglan line up to the neck, the neck to the shoulder, the shoulder to its tip; and where the armhole was."""

    rest: Piece
    hole: str
    along: float
    raglan: Path
    neck: Path
    shoulder: Path
    tip: Point
    notches: tuple[Notch, ...]


def _cut(job: Job, body: Piece) -> Cut:
    hole, shoulder, neck = (body.edges_of(role)[0] for role in ("armhole", "shoulder", "neck"))
    order = [e.name for e in body.edges]
    at = order.index(hole.name)
    if order[(at + 1) % len(order)] != shoulder.name or order[(at + 2) % len(order)] != neck.name or hole.gaps or neck.gaps:
        raise CannotStyle(say(f"The {plain(body.name)} does not run from armhole over a plain shoulder to the neck."))
    off, along = job.length("neck"), hole.length * job.length("pitch") / 100
    if off > neck.length - 2.0:
        raise CannotStyle(
            say("The neck is {0} long: begin {1u} from the shoulder at most.", neck.length, neck.length - 2.0), ("neck",)
        )
    low, _ = hole.parts[0].cut(along)
    bit, rest = neck.parts[0].cut(off)
    p, n = low.end, bit.end
    line = Path((curve_between(p, low.arriving, n, (n - p).unit(), p.to(n) * 0.3, p.to(n) * 0.3),))
    kept = tuple(x for x in hole.notches if x.along <= along - 0.5)
    ring: list[Edge] = []
    for edge in body.edges:
        if edge.name == hole.name:
            ring += [replace(hole, parts=(low,), notches=kept), Edge("raglan", (line,), role="panel")]
        elif edge.name == neck.name:
            ring.append(replace(neck, parts=(rest,), notches=()))
        elif edge.name != shoulder.name:
            ring.append(edge)
    marks = {name: mark for name, mark in body.marks.items() if name not in ("tip", "snp")}
    made = replace(body, edges=tuple(ring), marks=marks)
    return Cut(made, hole.name, along, line, bit.reverse(), shoulder.parts[0].reverse(), hole.end, kept)


@record(frozen=True)
class Half:
    """Half of a sleeve: its cap from the underarm up, its seam from the hem up, half its hem from the middle, where its middle
    line begins."""

    cap: Path
    seam: Path
    hem: Path
    top: Point


def _half(sleeve: Piece, part: str) -> Half:
    name = CAPS[part]
    if not sleeve.has(name) or len(sleeve.edges_of("wrist")) != 1 or len(sleeve.edges_of("underarm")) != 2:
        raise CannotStyle(say("A raglan is made of a sleeve that is set in, with one seam under the arm."), ("sleeve",))
    cap, hem = sleeve.edge(name), sleeve.edges_of("wrist")[0]
    seam = next(e for e in sleeve.edges_of("underarm") if e.name in {x.name for x in sleeve.beside(name)})
    if hem.gaps or seam.gaps or cap.gaps:
        raise CannotStyle(say("A dart lies in this sleeve: make the raglan of one without."), ("sleeve",))
    up = cap.parts[0] if cap.start.to(seam.start) < 0.01 or cap.start.to(seam.end) < 0.01 else cap.parts[0].reverse()
    rising = seam.parts[0] if seam.end.to(up.start) < 0.01 else seam.parts[0].reverse()
    path = hem.parts[0] if hem.end.to(rising.start) < 0.01 else hem.parts[0].reverse()
    return Half(up, rising, path.cut(path.length / 2)[1], up.end)


def _laid(cut: Cut, half: Half, name: str, title: str, part: str, want: float) -> tuple[Piece, float]:
    """The half sleeve with the upper part of the body laid on its cap; want: how long its seam over the arm shall be, 0 as it
    comes."""
    low = half.cap.cut(cut.along)[0]
    here = low.end
    p, tip = cut.raglan.start, cut.tip
    axis, there = (tip - p).unit(), (half.top - here).unit()
    way = turn(Point(0.0, 0.0), math.atan2(axis.cross(there), axis.dot(there)))
    flip = Transform()
    inside = half.hem.start
    snp = cut.shoulder.start - p
    if there.cross(snp.moved(way)) * there.cross(inside - here) > 0:
        flip = mirror_in(Point(0.0, 0.0), axis)
    onto = Transform().translate(*here).transform(way).transform(flip).translate(-p.x, -p.y)
    raglan, neck, shoulder = (path.moved(onto) for path in (cut.raglan, cut.neck, cut.shoulder))
    raglan = _as_long(raglan, low.arriving, cut.raglan.length)
    end = half.hem.start
    down = (end - half.top).unit()

    def over(reach: float) -> Path:
        foot = half.top + down * reach
        bend = curve_between(shoulder.end, shoulder.arriving, foot, down, reach * 0.45, reach * 0.45)
        return shoulder + Path((bend,)) + Path.through(foot, end)

    line = over(BENDS)
    if want:
        line = over(solve_or_nearest(lambda reach: over(reach).length - want, 4.0, 25.0))
    edges = (
        Edge("cap", (low,), role="armhole", notches=cut.notches), Edge("raglan", (raglan,), role="panel"), Edge("neck", (neck,), role="neck"),
        Edge("over_arm", (line,), role="cut"), Edge("wrist", (half.hem,), kind="hem", role="wrist"), Edge("underarm", (half.seam,), role="underarm"),
    )  # fmt: skip
    grain = half.top.toward(end, 0.3), half.top.toward(end, 0.8)
    return Piece(name, title, edges, part, stands="pair", grain=grain), line.length


def _as_long(path: Path, leaving: Point, want: float) -> Path:
    """The raglan line of the sleeve: it leaves the cap without a corner, and is as long as that of the body."""
    far = path.start.to(path.end)

    def drawn(share: float) -> Path:
        return Path((curve_between(path.start, leaving, path.end, path.arriving, far * share, far * share),))

    return drawn(solve_or_nearest(lambda share: drawn(share).length - want, 0.1, 0.9))
