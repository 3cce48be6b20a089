"""Skirts drawn for the waist of a garment: parts of a circle, peplums; a bodice and its skirt as one dress."""

from __future__ import annotations

import math

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import NoSolutionError, solve
from widehem.core.pattern.checks.shapes import HemRises
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Chain, EdgeRef, Garment, Opening, Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.rims import ends_of
from widehem.core.pattern.roles import BACK, FRONT, plain
from widehem.core.pattern.shaping import blended, edge_blended, faired, smooth_over_darts, with_edges
from widehem.core.setting.option import Choice, Option
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.asks import also
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.sectors import sector
from widehem.core.style.sewing_on import chain_of, joint_notches_on, rim_at
from widehem.core.units import Saying, say
from widehem.core.values import replace

PARTS = {"full": 1.0, "three": 0.75, "half": 0.5, "quarter": 0.25}
PART = Option(
    "part", "Circle", "choice", "full", "how much of one",
    choices=(Choice("full", "Whole"), Choice("three", "Three quarters"), Choice("half", "Half"), Choice("quarter", "A quarter")),
)  # fmt: skip
LONG = Option("long", "Length", "length", 60.0, "from the waist", 8.0, 140.0, 1.0)
TIMES = Option("times", "Gathered", "number", 1.0, "how many times the waist its upper edge is cut", 1.0, 4.0, 0.25)


@operation(
    "skirt.circle", "skirts", "Circle skirt", "a whole circle or a part of one, its radius worked out from the waist",
    options=(PART, LONG, TIMES), wheres={"waist": "any place on the waist it hangs from"},
    fitted=True,
    halves=True,
)  # fmt: skip
def circle(job: Job) -> Change:
    """Front and back of a circle for the waist: of a garment that ends there it is sewn on, a skirt it takes the place of."""
    garment, chain = job.garment, rim_at(job, "waist", "waist")
    part, long, times = PARTS[job.choice("part")], job.length("long"), job.length("times")
    halves = {of: tuple(e for e in chain if garment.piece(e.piece).of == of) for of in (BACK, FRONT)}
    if not all(halves.values()):
        raise CannotStyle(say("This waist does not go round front and back."), ("waist",))
    lengths = {of: garment.length_of(half) * times for of, half in halves.items()}
    radius = sum(lengths.values()) / (part * math.pi)
    instead = _is_skirt(garment, halves)
    pieces: list[Piece] = [] if instead else list(garment.pieces)
    seams: list[Seam] = [] if instead else list(garment.seams)
    ends = dict(zip((BACK, FRONT), ends_of(garment, chain), strict=True))
    opens = {o.at for o in garment.openings} | {e.role for p in garment.shell for e in p.edges if e.kind == "opening"}
    made = []
    for of, half in halves.items():
        name = of if instead else job.free_piece(f"skirt_{of}")
        middle = f"centre_{of}"
        fold = (
            ends[of] == middle
            and middle not in opens
            and not garment.piece(half[0 if of == BACK else -1].piece).edges_of("front_edge")
        )
        kinds = ("seam", "seam", "hem", "fold" if fold else "opening" if middle in opens else "seam")
        turned = of == FRONT  # the front's row runs from the side to the middle
        notches = joint_notches_on(garment, half, f"{name} seam", turned=turned) if times == 1.0 else ()
        outer = lengths[of] * (radius + long) / radius
        piece = sector(
            name, f"Skirt, {of}", lengths[of], outer, long, of=of, names=("waist", "side", "hem", middle),
            roles=("waist", "side", "hem", middle), kinds=kinds, stands="fold" if fold else "pair", middle=middle, notches=notches,
            level="waist" if instead else "",
        )  # fmt: skip
        pieces.append(piece)
        made.append(name)
        if not fold:
            seams.append(Seam.to_its_mirror(_free(seams, f"{name}_{middle}"), f"{middle.replace('_', ' ').capitalize()}, skirt", (name, middle)))  # fmt: skip
        if not instead:
            over = lengths[of] * (1 - 1 / times)
            seams.append(
                Seam(
                    _free(seams, f"waist_{of}"),
                    f"Waist seam, {of}",
                    (SeamEdge(name, "waist", back=turned),),
                    half,
                    (over, over),
                )
            )
    seams.append(Seam(_free(seams, "skirt_side"), "Side seam, skirt", chain_of(made[0], "side"), chain_of(made[1], "side")))
    words = (say(f"The radius is {{0}} for a waist of {{1}}, {part:g} of a circle. Let it hang before its hem is levelled.", radius,
        2 * sum(lengths.values())),)  # fmt: skip
    if instead:
        gone = tuple(EdgeRef(p.name, e.name) for p in garment.pieces for e in p.edges)
        kept = {(p.name, e.name) for p in pieces for e in p.edges}
        return Change(tuple(pieces), tuple(seams), dropped=tuple(r for r in gone if (r.piece, r.edge) not in kept), said=words,
            asks=also(HemRises(0.0, free=True)))  # fmt: skip
    pieces = [_waist_seam(p, chain) for p in pieces]
    return Change(tuple(pieces), tuple(seams), said=words, made=tuple(made), asks=also(HemRises(0.0, free=True)))


def _waist_seam(piece: Piece, chain: Chain) -> Piece:
    """The waist of a skirt that is sewn to a bodice is counted once: the skirt's is a seam of its own there."""
    if piece.name in {entry.piece for entry in chain} or not piece.has("waist") or not piece.name.startswith("skirt_"):
        return piece
    return piece.with_edge(replace(piece.edge("waist"), role="waist_seam"))


def _is_skirt(garment: Garment, halves: dict[str, Chain]) -> bool:
    """Whether the waist is the upper edge of what hangs from it: a skirt."""
    pieces = [garment.piece(entry.piece) for half in halves.values() for entry in half]
    return all(piece.edges_of("hem") and not piece.edges_of("armhole", "neck", "crotch", "shoulder") for piece in pieces)


def _free(seams: list[Seam], wanted: str) -> str:
    names, name, number = {seam.name for seam in seams}, wanted, 2
    while name in names:
        name, number = f"{wanted}_{number}", number + 1
    return name


PEPLUM = (
    Option("long", "Length", "length", 16.5, "along each seam", 4.0, 40.0, 0.5),
    Option("angle", "Front opens by", "length", 3.0, "at the hem, each side of the centre front", 0.0, 15.0, 0.5),
    Option("flare", "Flare", "length", 0.6, "at each side of each seam, over the hips", 0.0, 10.0, 0.1),
    Option("dip", "Longer at the centre back", "length", 1.3, "than along the seams", 0.0, 10.0, 0.1),
    Option("slit", "Slit at the centre back", "length", 8.0, "from the hem up; 0 is none", 0.0, 30.0, 0.5),
)


@operation(
    "skirt.peplum", "waist pieces", "Peplum", "a short skirt over the hips, drawn for the waist of the garment", options=PEPLUM,
    wheres={"waist": "any place on the waist it is sewn to"},
    fitted=True,
    halves=True,
)  # fmt: skip
def peplum(job: Job) -> Change:
    """Front and back peplum: as long as the waist above, wide enough for the body so far below it, and flared."""
    garment, chain = job.garment, rim_at(job, "waist", "waist")
    long, flare = job.length("long"), job.length("flare")
    halves = {of: tuple(e for e in chain if garment.piece(e.piece).of == of) for of in (BACK, FRONT)}
    if not all(halves.values()):
        raise CannotStyle(say("This waist does not go round front and back."), ("waist",))
    lengths = {of: garment.length_of(half) for of, half in halves.items()}
    waist, ease = job.measure("waist", "waist"), 2 * sum(lengths.values()) - job.measure("waist", "waist")
    hip, deep = job.measure("hip", "hip"), job.measure("waist_hip", "height of the hip below the waist")
    body = waist + (hip - waist) * min(long / deep, 1.0)
    whole = max(body + ease, 2 * sum(lengths.values()))
    pieces, seams, made = list(garment.pieces), list(garment.seams), []
    ends = dict(zip((BACK, FRONT), ends_of(garment, chain), strict=True))
    for of, half in halves.items():
        name, middle = job.free_piece(f"peplum_{of}"), f"centre_{of}"
        share = lengths[of] / sum(lengths.values())
        outer = whole / 2 * share + flare * (2 if of == BACK else 1)
        opens = of == FRONT and (job.length("angle") > 0.05 or ends[of] != middle)
        back_opens = of == BACK and job.length("slit") > 0.05
        fold = not opens and not back_opens and garment.piece(half[0 if of == BACK else -1].piece).stands == "fold"
        role = "front_edge" if opens else middle
        turned = of == FRONT
        piece = sector(
            name, f"Peplum, {of}", lengths[of], outer, long, of=of, names=("waist", "side", "hem", middle if not opens else "front_edge"),
            roles=("waist_seam", "side", "hem", role), kinds=("seam", "seam", "hem", "fold" if fold else "seam"), stands="fold" if fold else "pair",
            middle="" if opens else middle, notches=joint_notches_on(garment, half, f"{name} seam", turned=turned),
        )  # fmt: skip
        if opens:
            piece = _cut_away(piece, job.length("angle"))
        elif of == BACK:
            piece = _dipped(piece, job.length("dip"))
        slit = min(job.length("slit"), long - 3.0)
        if back_opens and slit > 0.5:
            piece = _slit(piece, slit)
        pieces.append(piece)
        made.append(name)
        if not opens and not fold:
            seams.append(Seam.to_its_mirror(_free(seams, f"{name}_{middle}"), f"Centre {of}, peplum", (name, middle)))
        seams.append(Seam(_free(seams, f"peplum_{of}"), f"Peplum, {of}", (SeamEdge(name, "waist", back=turned),), half))
    seams.append(Seam(_free(seams, "peplum_side"), "Side seam, peplum", chain_of(made[0], "side"), chain_of(made[1], "side")))
    said = say("{0} below the waist the body is {1} round, the peplum {2}.", long, body, whole + 6 * flare)
    return Change(tuple(pieces), tuple(seams), said=(said,), made=tuple(made), asks=also(HemRises(0.0, free=True)))


def _cut_away(piece: Piece, by: float) -> Piece:
    """The front edge runs from the waist to so far beside the middle at the hem."""
    edge, hem = piece.edge("front_edge"), piece.edge("hem")
    if by > hem.length - 3.0:
        raise CannotStyle(say("The hem is {0} long: open it by {1u} at most.", hem.length, hem.length - 3.0), ("angle",))
    low = hem.place(hem.length - by).point
    cut = replace(hem, parts=(hem.parts[0].cut(hem.length - by)[0],))
    return replace(with_edges(piece, cut, replace(edge, parts=(Path.through(low, edge.end),))), grain=(Point(low.x + 3.0, 3.0), Point(low.x + 3.0, edge.length * 0.8)))  # fmt: skip


def _dipped(piece: Piece, by: float) -> Piece:
    """The hem lower at the middle, square to it."""
    if by < 0.05:
        return piece
    middle, hem = piece.edge(piece.middle), piece.edge("hem")
    low = middle.start + Point(0.0, by)
    curve = curve_between(hem.start, hem.leaving, low, Point(-1.0, 0.0), hem.length * 0.35, hem.length * 0.35)
    return with_edges(piece, replace(middle, parts=(Path.through(low, middle.end),)), replace(hem, parts=(Path((curve,)),)))


def _slit(piece: Piece, high: float) -> Piece:
    """The lower part of the middle left open: an edge of its own."""
    middle = piece.edge(piece.middle)
    low, up = middle.parts[0].cut(high)
    ring: list[Edge] = []
    for edge in piece.edges:
        if edge.name == middle.name:
            ring += [Edge("slit", (low,), kind="slit", role="slit"), replace(middle, parts=(up,))]
        else:
            ring.append(edge)
    return replace(piece, edges=tuple(ring))


SCHOOL = Option("long", "Length", "length", 60.0, "of the skirt, from the waist", 25.0, 140.0, 1.0)


OPENS_TOO = ("centre_back", "side")  # openings that go on into the skirt block


@operation(
    "skirt.join", "joining", "Skirt joined on", "the two-panel skirt of the same wearer, drawn for this waist and sewn to it",
    options=(SCHOOL,), wheres={"waist": "any place on the waist"},
    fitted=True,
    halves=True,
)  # fmt: skip
def join_skirt(job: Job) -> Change:
    """Draw the skirt block with the ease of this waist and sew it on; what the two waists differ by goes to its side seam."""
    if job.context.draft_of is None:
        raise CannotStyle(say("There is no wearer to draw a skirt for."))
    garment, chain = job.garment, rim_at(job, "waist", "waist")
    halves = {of: tuple(e for e in chain if garment.piece(e.piece).of == of) for of in (BACK, FRONT)}
    if not all(halves.values()):
        raise CannotStyle(say("This waist does not go round front and back."), ("waist",))
    at = garment.opening()
    opening = "centre_back" if at is None else at.at if at.at in OPENS_TOO else "none"
    try:
        skirt = job.context.draft_of("skirt.two_panel", {"length": job.length("long"), "opening_at": opening}, {})
    except CannotDraft as refusal:
        raise CannotStyle(refusal.saying, (), refusal.measures) from None
    names = {piece.name: job.free_piece(f"skirt_{piece.of}") for piece in skirt.pieces}
    made = []
    widened = 0.0
    for piece in skirt.pieces:
        want = garment.length_of(halves[piece.of])
        fitted, by = _to_length(piece, want)
        widened += by * piece.weight()
        title = f"Skirt, {piece.of}"
        edges = tuple(smooth_over_darts(replace(e, role="waist_seam")) if e.role == "waist" else e for e in fitted.edges)
        made.append(replace(fitted, name=names[piece.name], title=title, edges=edges))
    seams = list(garment.seams)
    for seam in skirt.seams:
        chains = [tuple(replace(e, piece=names[e.piece]) for e in c) for c in (seam.first, seam.second)]
        seams.append(
            replace(
                seam, name=_free(seams, f"skirt_{seam.name}"), title=f"{seam.title}, skirt", first=chains[0], second=chains[1]
            )
        )
    for piece in made:
        half = halves[piece.of]
        back = _runs_back(piece)
        seams.append(
            Seam(
                _free(seams, f"waist_{piece.of}"), f"Waist seam, {piece.of}", (SeamEdge(piece.name, "waist", back=back),), half
            )
        )
    openings = garment.openings or skirt.openings
    if garment.openings and at is not None and skirt.openings:
        openings = (Opening(at.at, at.length + skirt.openings[0].length, at.by),)
    said: list[Saying] = [say("The waist of the skirt is {0s} to fit the one above, at its sides.", widened)]
    if opening == "none" and at is not None:
        words = "The skirt has no opening of its own under that at the {}: cut a seam there, or let it go over the head."
        said.append(say(words.format(plain(at.at))))
    return Change((*garment.pieces, *made), tuple(seams), openings, said=tuple(said), made=tuple(p.name for p in made))


def _runs_back(piece: Piece) -> bool:
    """Whether the waist of a skirt piece runs against a row that goes from the back over the side to the front."""
    before, _ = piece.beside("waist")
    from_middle = before.name == piece.middle
    return from_middle != (piece.of == BACK)


def _to_length(piece: Piece, want: float) -> tuple[Piece, float]:
    """A skirt piece with its waist so long: its side begins further out, or in, and runs into its old line at the hip."""
    waist = piece.edge("waist")
    by = want - waist.length
    before, after = piece.beside("waist")
    at_end = before.name == piece.middle
    way = waist.arriving if at_end else -waist.leaving
    none = Point(0.0, 0.0)

    def drawn(off: float) -> Edge:
        shift = way * off
        return edge_blended(waist, none, shift) if at_end else edge_blended(waist, shift, none)

    try:
        off = solve(lambda x: drawn(x).length - want, by - 3.0, by + 3.0)
    except NoSolutionError:
        raise CannotStyle(say("The skirt's waist is {0} and cannot be made {1}.", waist.length, want)) from None
    side = after if at_end else before
    shift = way * off
    moved = _side_led(side, shift, at_start=at_end)
    return with_edges(piece, drawn(off), moved), by


HIP_DOWN = 18.0  # cm over which the side runs back into its old line


def _side_led(side: Edge, shift: Point, *, at_start: bool) -> Edge:
    path = side.parts[0] if at_start else side.parts[-1].reverse()
    reach = min(HIP_DOWN, path.length * 0.6)
    head, tail = path.cut(reach)
    led = blended(head, shift, Point(0.0, 0.0))
    whole = Path((*led.segments, *tail.segments))
    whole = faired(whole, led.length, 5.0)
    return replace(side, parts=(whole,) if at_start else (whole.reverse(),))
