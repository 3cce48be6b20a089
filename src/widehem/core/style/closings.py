"""Where a garment closes: button stand, overlap, underlap, placket, modesty panel, zip with its shield; and where it opens and
how far."""

from __future__ import annotations

from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Chain, EdgeRef, Opening, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import mirrored
from widehem.core.pattern.roles import centre, plain
from widehem.core.pattern.shaping import strip
from widehem.core.setting.option import Choice, Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.units import Saying, say
from widehem.core.values import replace

LAPPED = ("hem", "wrist")
WIDE = Option("wide", "Width", "length", 2.0, "beyond the middle: about the width of a button", 0.5, 12.0, 0.1)
BUTTONS = Option("buttons", "Buttons", "number", 6.0, "one of them at the level of the bust; 0 is none", 0.0, 24.0, 1.0)


@operation(
    "closing.stand", "closing", "Button stand", "the piece goes on beyond the middle; its neck is the mirror of the neck",
    options=(WIDE, BUTTONS), wheres={"middle": "any place on the centre front, or centre back"},
)  # fmt: skip
def button_stand(job: Job) -> Change:
    """Carry a piece on over its middle: neck and hem run on as their mirrors would, the middle is a line on it."""
    piece, middle = _middle(job, "middle")
    wide = job.length("wide")
    before, after = piece.beside(middle.name)
    a, b = middle.start, middle.end
    ends = []
    for edge, at_end in ((before, True), (after, False)):
        turned = mirrored(edge, a, b)
        path = turned.parts[0] if at_end else turned.parts[-1].reverse()
        ends.append(_beyond(path, a, b, wide, edge))
    top, low = ends
    name = free_name((edge.name for edge in piece.edges), f"{middle.name}_edge")
    outer = Edge(name, (Path.through(top.end, low.end),), role="front_edge", kind="seam")
    ring: list[Edge] = []
    for edge in piece.edges:
        if edge.name == before.name:
            ring += _with_lap(piece, edge, top, at_end=True)
        elif edge.name == after.name:
            ring += _with_lap(piece, edge, low.reverse(), at_end=False)
        else:
            ring.append(outer if edge.name == middle.name else edge)
    line = InnerLine(
        free_name((ln.name for ln in piece.lines), middle.name), plain(middle.role).capitalize(), Path.through(a, b)
    )
    holes = _buttons(piece, a, b, round(job.length("buttons")))
    stands = "pair" if piece.stands == "fold" else piece.stands
    between = tuple(replace(level, between=_inwards(level, piece, line.name)) for level in piece.balance)
    cloths = tuple(replace(c, cut=c.cut.replace("1 on the fold", "2, a pair")) for c in piece.cloths)
    made = replace(
        piece, edges=tuple(ring), middle="", stands=stands, lines=(*piece.lines, line), holes=(*piece.holes, *holes), balance=between,
        grain=piece.grain or _along(a, b), cloths=cloths,
    )  # fmt: skip
    seams = tuple(seam for seam in job.garment.seams if not any(e.ref == EdgeRef(piece.name, middle.name) for e in seam.first))
    renamed: dict[EdgeRef, Chain] = {EdgeRef(piece.name, middle.name): (SeamEdge(piece.name, name),)}
    openings = (*(o for o in job.garment.openings if o.at != middle.role), Opening(middle.role, a.to(b), "buttons"))
    count = len(holes)
    said = [say("The piece goes {0} beyond its middle; both sides lie {1} over each other when it is closed.", wide, 2 * wide)]
    notions: tuple[Saying, ...] = ()
    if count:
        gap = a.to(b) / max(count, 1)
        notions = (say(f"{count} buttons of {{0}}, about {{1}} apart.", min(wide, 2.5), gap),)
    return Change(
        tuple(made if p.name == piece.name else p for p in job.garment.pieces), seams, openings, renamed=renamed, said=tuple(said),
        notions=notions,
    )  # fmt: skip


def _with_lap(piece: Piece, edge: Edge, lap: Path, *, at_end: bool) -> list[Edge]:
    """An edge and its part beyond the middle: of a hem one edge with it, else one of its own, so that what is sewn to the edge ends
    at the middle."""
    if edge.role in LAPPED or edge.kind == "hem":
        if at_end:
            return [replace(edge, parts=(*edge.parts[:-1], edge.parts[-1] + lap))]
        notches = tuple(replace(n, along=n.along + lap.length) for n in edge.notches)
        return [replace(edge, parts=(lap + edge.parts[0], *edge.parts[1:]), notches=notches)]
    role = "neck_lap" if edge.role == "neck" else "lap"
    own = Edge(free_name((e.name for e in piece.edges), f"{edge.name}_lap"), (lap,), role=role, kind=edge.kind)
    return [edge, own] if at_end else [own, edge]


def _middle(job: Job, code: str) -> tuple[Piece, Edge]:
    found = job.at[code]
    edge = found.piece.edge(found.spot.edge)
    if not centre(edge.role) or len(edge.parts) != 1:
        raise CannotStyle(say("That is no middle: choose the centre front or the centre back."), (code,))
    return found.piece, edge


def _beyond(path: Path, a: Point, b: Point, wide: float, edge: Edge) -> Path:
    """The mirror of an edge beyond the middle, as far as it is wide there."""
    way = (b - a).unit()
    far = path.start + (way.square() if way.square().dot(path.end - path.start) > 0 else -way.square()) * wide
    crossed = path.crossings(far, way)
    if not crossed:
        if path.start.to(path.end) > wide:
            return Path.through(path.start, far)
        raise CannotStyle(
            say(
                f"The {plain(edge.name)} is too short for that: take less.",
            ),
            ("wide",),
        )
    return path.split(*crossed[0])[0]


def _inwards(level: BalanceLine, piece: Piece, name: str) -> tuple[str, str]:
    """A level now ends at the line of the middle on that side."""
    stretches = piece.stretches(level.level)
    if not stretches:
        return level.between
    middle = piece.edge(piece.middle) if piece.middle else None
    if middle is None:
        return level.between
    way = (middle.end - middle.start).unit()
    near = [abs(way.cross(spot - middle.start)) for spot in (stretches[0][0], stretches[-1][1])]
    return (name, level.between[1]) if near[0] < near[1] else (level.between[0], name)


def _along(a: Point, b: Point) -> tuple[Point, Point]:
    ends = a.toward(b, 0.25), a.toward(b, 0.75)
    return ends if ends[0].y <= ends[1].y else (ends[1], ends[0])


def _buttons(piece: Piece, a: Point, b: Point, count: int) -> tuple[Point, ...]:
    """Button places along the middle, evenly, one of them at the bust level where there is one."""
    if count < 1:
        return ()
    top, low = (a, b) if a.y < b.y else (b, a)
    whole = top.to(low)
    first, last = 1.8, max(whole - 2.5, 2.0)
    if count == 1:
        return (top.toward(low, 0.5),)
    places = [first + (last - first) * n / (count - 1) for n in range(count)]
    bust = piece.levels.get("bust")
    if bust is not None and first < bust - top.y < last:
        at = bust - top.y
        near = min(range(count), key=lambda n: abs(places[n] - at))
        near = min(max(near, 1), count - 1)
        places = [first + (at - first) * n / near for n in range(near + 1)] + [
            at + (last - at) * n / max(count - 1 - near, 1) for n in range(1, count - near)
        ]
    return tuple(top.toward(low, place / whole) for place in places)


AT = Option(
    "at", "Opens at", "choice", "centre_back", "where it is put on",
    choices=(Choice("centre_back", "Centre back"), Choice("centre_front", "Centre front"), Choice("side", "Left side")),
)  # fmt: skip
DOWN = Option(
    "down", "Opens how far", "length", 20.0, "from the upper edge down; 0 is as far as it opens already", 0.0, 160.0, 0.5
)
WITH = Option(
    "by", "Closed by", "choice", "zip", "what holds it",
    choices=(
        Choice("zip", "Zip with a shield", "a strip behind it keeps it off the skin"),
        Choice("hooks", "Hooks, with a modesty panel", "a panel behind them"),
        Choice("sham", "Sham buttons over hooks", "buttons sewn on for show, hooks below for a quick change"),
        Choice("lacing", "Lacing with a placket", "the placket lies under the gap"),
        Choice("bones", "Underlap with bone channels", "hooks between two bones; it does not buckle"),
        Choice("placket", "Placket of two strips", "one over, one under"),
    ),
)  # fmt: skip
SHIELD = {"zip": 6.0, "hooks": 8.0, "sham": 5.0, "lacing": 12.0, "bones": 7.0, "placket": 6.0}
TITLES = {"zip": "Zip shield", "hooks": "Modesty panel", "sham": "Underlap", "lacing": "Placket under the lacing",
    "bones": "Underlap with bone channels", "placket": "Placket"}  # fmt: skip
CLOSED_BY = {
    "zip": "a zip", "hooks": "hooks and bars", "sham": "hooks under buttons for show", "lacing": "lacing", "bones": "hooks between bones",
    "placket": "hooks on a placket",
}  # fmt: skip
SPACING = {"hooks": 2.5, "sham": 3.0, "lacing": 2.5, "bones": 2.0}


@operation(
    "closing.set", "closing", "Set a closing", "where it opens, how far, and what lies behind it", options=(AT, DOWN, WITH),
    names={"piece": "the piece behind the closing"}, phase="derive",
)  # fmt: skip
def set_closing(job: Job) -> Change:
    """Open the garment at a middle or at the side, and cut what lies behind the closing."""
    at, down, kind = job.choice("at"), job.length("down"), job.choice("by")
    rows = [(piece, edge) for piece, edge in job.garment.edges_of(at, "front_edge" if at == "centre_front" else at)]
    if not rows:
        raise CannotStyle(say(f"This garment has no {plain(at)} to open."), ("at",))
    piece, edge = rows[0]
    if edge.kind == "fold":
        raise CannotStyle(say(f"The {plain(at)} is on the fold: give it a seam first, or choose another place."), ("at",))
    if down < 0.5:
        whole = edge.length if edge.kind == "opening" else 0.0
        down = next((o.length for o in job.garment.openings if o.at == at), whole)
        if down < 3.0:
            raise CannotStyle(say(f"The {plain(at)} does not open yet: say how far."), ("down",))
    room = sum(e.length for p, e in rows if p.of == piece.of and e.role == edge.role and p.stands == piece.stands)
    room += sum(e.length for p, e in job.garment.edges_of("crotch", part=piece.of) if at != "side" and p.name == piece.name)
    if down > room + 0.01:
        raise CannotStyle(say(f"The {plain(at)} is {{0}} long: open it {{1u}} at most.", room, room), ("down",))
    wide, ends = SHIELD[kind], 2.0
    name = job.free_piece("closing")
    behind = strip(name, TITLES[kind], down + ends, wide, of=name, layer="inside", stands="once",
        kinds=("seam", "hem", "seam", "hem"))  # fmt: skip
    if kind == "bones":
        third = wide / 3
        lines = tuple(
            InnerLine(f"channel_{n}", "Bone channel", Path((Line(Point(1.0, third * n + off), Point(down + 1.0, third * n + off)),)))
            for n in (1, 2) for off in (-0.6, 0.6)
        )  # fmt: skip
        lines = tuple(replace(line, name=f"channel_{i}") for i, line in enumerate(lines, 1))
        behind = replace(behind, lines=lines)
    behind = replace(behind, serves=piece.name)
    openings = (*(o for o in job.garment.openings if o.at != at), Opening(at, down, CLOSED_BY[kind]))
    pieces = tuple(_open_edge(p, at) if p.layer == "shell" and at != "side" else p for p in job.garment.pieces)
    return Change((*pieces, behind), openings=openings, made=(name,), notions=_needs(kind, down))


def _open_edge(piece: Piece, at: str) -> Piece:
    edges = tuple(replace(e, kind="opening") if e.role == at and e.kind == "seam" else e for e in piece.edges)
    return piece if edges == piece.edges else replace(piece, edges=edges)


def _needs(kind: str, down: float) -> tuple[Saying, ...]:
    if kind == "zip":
        return (say("A zip, {0} long.", down),)
    count = max(round(down / SPACING.get(kind, 3.0)) + 1, 2)
    if kind == "lacing":
        return (say(f"{2 * count} eyelets, {{0}} apart, and a lace of {{1}}.", SPACING[kind], down * 5 + 80),)
    found = [say(f"{count} hooks and bars, {{0}} apart.", SPACING.get(kind, 3.0))]
    if kind == "sham":
        found.append(say(f"{max(round(down / 7) + 1, 2)} buttons for show, {{0}} apart.", 7.0))
    if kind == "bones":
        found.append(say("2 bones of {0}, and tape for their channels.", max(down - 2.0, 3.0)))
    return tuple(found)


SHIFT = Option("over", "Overlap", "length", 6.0, "how far each side goes beyond the middle", 1.0, 20.0, 0.5)


@operation(
    "closing.overlap", "closing", "Overlap", "both fronts go on over the middle, for two rows of buttons or a wrap",
    options=(SHIFT, BUTTONS), wheres={"middle": "any place on the centre front, or centre back"},
)  # fmt: skip
def overlap(job: Job) -> Change:
    """As a button stand, wider: both sides cross the middle."""
    wider = replace(job, settings={**job.settings, "wide": job.settings["over"]})
    return button_stand(wider)


@operation(
    "seam.centre", "closing", "Seam in place of a fold", "a piece on the fold is cut as a pair and sewn down its middle",
    wheres={"middle": "any place on the fold"},
)  # fmt: skip
def centre_seam(job: Job) -> Change:
    """Give a fold a seam: what opens, curves or leans needs one."""
    piece, middle = _middle(job, "middle")
    if middle.kind != "fold":
        raise CannotStyle(say("There is a seam already."), ("middle",))
    cloths = tuple(replace(c, cut=c.cut.replace("1 on the fold", "2, a pair")) for c in piece.cloths)
    made = replace(piece.with_edge(replace(middle, kind="seam")), stands="pair", cloths=cloths)
    twin = Seam.to_its_mirror(job.free_seam(middle.role), plain(middle.role).capitalize(), (piece.name, middle.name))
    return Change(job.garment.with_piece(made).pieces, (*job.garment.seams, twin))
