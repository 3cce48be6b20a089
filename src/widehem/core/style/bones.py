"""What stiffens and closes trousers and bodices: bones in channels, a fly with its shield; the undercollar of a collar."""

from __future__ import annotations

from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Opening
from widehem.core.pattern.inside import OUTER, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import FRONT
from widehem.core.pattern.shaping import strip
from widehem.core.setting.option import Choice, Option
from widehem.core.style.collars import undercollar
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.units import Saying, say
from widehem.core.values import replace

SHORT = Option(
    "short", "Shorter than the seam", "length", 1.5, "so that no bone pushes through: at both ends together", 0.5, 6.0, 0.1
)
ALSO = Option(
    "also", "Between the seams", "choice", "no", "more bones on the pieces themselves",
    choices=(Choice("no", "Seams only"), Choice("middle", "One down the middle of each panel")),
)  # fmt: skip


@operation(
    "bones.set", "closing", "Bones in channels", "along panel seams, sides and the closing: their lengths from the seams",
    options=(SHORT, ALSO), names={"piece": "the channel"}, phase="derive",
)  # fmt: skip
def bones(job: Job) -> Change:
    """A bone for each panel and side seam and for the middle that opens; channels drawn where they lie inside a panel."""
    garment, short = job.garment, job.length("short")
    rows: list[tuple[str, float]] = []
    for seam in garment.seams:
        edges = [(garment.piece(e.piece), garment.edge(e)) for e in seam.first]
        upright = all(p.layer == "shell" and edge.role in ("panel", "side", "centre_back", "centre_front") for p, edge in edges)
        if upright and not seam.faced:
            rows.append((seam.title, garment.length_of(seam.first) - short))
    if not rows:
        raise CannotStyle(say("There is no panel seam, side or middle seam to lay a bone along."))
    pieces = list(garment.pieces)
    if job.choice("also") == "middle":
        pieces = [_boned(piece) if piece.layer == "shell" and piece.edges_of("panel", "side") else piece for piece in pieces]
    long = max(length for _, length in rows)
    name = job.free_piece("bone_channel")
    channel = strip(name, "Bone channel", long + short + 1.0, 3.0, of=name, layer="inside", bias=False)
    notions: list[Saying] = []
    for title, length in rows:
        if length > 3.0:
            notions.append(say(f"2 bones of {{0}}: {title.lower()}.", length))
    return Change((*pieces, channel), made=(name,), notions=tuple(notions))


def _boned(piece: Piece) -> Piece:
    """A panel with the channel of a bone drawn down its middle."""
    left, _, right, _ = piece.bounds
    x = (left + right) / 2
    spots = sorted(
        path.segments[i].at(t).y for path in piece.sewn_ring for i, t in path.crossings(Point(x, 0.0), Point(0.0, 1.0))
    )
    if len(spots) < 2 or spots[-1] - spots[0] < 8.0:
        return piece
    line = InnerLine(
        free_name((ln.name for ln in piece.lines), "bone"),
        "Bone",
        Path.through(Point(x, spots[0] + 1.0), Point(x, spots[-1] - 1.0)),
    )
    return piece.with_on_it(lines=(*piece.lines, line))


DOWN = Option("down", "Opens how far", "length", 18.0, "from the upper edge down", 10.0, 30.0, 0.5)
WIDE = Option("wide", "Fly, how wide", "length", 4.0, "beside the middle", 3.0, 7.0, 0.5)
BY = Option("by", "Closed by", "choice", "zip", "what holds it", choices=(Choice("zip", "Zip"), Choice("buttons", "Buttons")))


@operation(
    "closing.fly", "closing", "Fly with its shield", "the front opens at the crotch seam: a fly over it, a shield behind", options=(DOWN, WIDE, BY),
    names={"piece": "the fly"}, phase="derive",
)  # fmt: skip
def fly(job: Job) -> Change:
    """The fly and the shield by the length of the opening, rounded below."""
    down, wide = job.length("down"), job.length("wide")
    fronts = [(p, e) for p, e in job.garment.edges_of("crotch", part=FRONT)]
    if not fronts:
        raise CannotStyle(say("There is no crotch seam in front to open."))
    if down > fronts[0][1].length - 6.0:
        raise CannotStyle(
            say("The front crotch seam is {0} long: open {1u} at most.", fronts[0][1].length, fronts[0][1].length - 6.0),
            ("down",),
        )
    a, b = Point(0.0, 0.0), Point(0.0, down + 1.0)
    turn = Path((Cubic(b, b + Point(wide * 0.5, 0.0), Point(wide, down * 0.92), Point(wide, down * 0.75)),))
    outline = turn + Path.through(Point(wide, down * 0.75), Point(wide, 0.0))
    edges = (
        Edge("fly_middle", (Path.through(a, b),), role="pocket"), Edge("fly_edge", (outline,), role="pocket"),
        Edge("fly_top", (Path.through(Point(wide, 0.0), a),), role="band"),
    )  # fmt: skip
    name = job.free_piece("fly")
    piece = Piece(
        name,
        "Fly",
        edges,
        layer="inside",
        stands="once",
        grain=(Point(wide / 2, down * 0.2), Point(wide / 2, down * 0.7)),
        serves=fronts[0][0].name,
    )
    shield = strip(job.free_piece("fly_shield"), "Fly shield", down + 2.0, wide * 2 + 2.0, of="fly_shield", layer="inside")
    shield = replace(shield, serves=fronts[0][0].name)
    openings = (
        *(o for o in job.garment.openings if o.at != "centre_front"),
        Opening("centre_front", down, "a zip" if job.choice("by") == "zip" else "buttons"),
    )
    count = max(round(down / 4.5), 3)
    what = (
        say("A zip of {0}, and a hook at the waist.", down)
        if job.choice("by") == "zip"
        else say(f"{count} buttons of {{0}}, for the fly.", 1.5)
    )
    return Change((*job.garment.pieces, piece, shield), openings=openings, made=(name, shield.name), notions=(what,))


ONCE = ("2 on the fold", "1 on the fold")  # the under one of both is another piece


@operation(
    "collar.under", "collars", "Undercollar", "smaller than the collar, on the bias, with a seam at the centre back",
    wheres={"collar": "any place on the collar"}, phase="derive",
)  # fmt: skip
def under(job: Job) -> Change:
    """The collar that is there, once more, smaller."""
    piece = job.at["collar"].piece
    if not all(piece.has(name) for name in ("collar_neck", "collar_front", "collar_outer", "centre_back")):
        raise CannotStyle(
            say("That is no collar with a neck edge, a front and an outer edge: choose a place on one."), ("collar",)
        )
    made = undercollar(job, piece)
    cloths = tuple(replace(row, cut=row.cut.replace(*ONCE)) if row.cloth == OUTER else row for row in piece.cloths)
    garment = job.garment.with_piece(piece.with_on_it(cloths=cloths))
    return Change((*garment.pieces, replace(made, of=piece.of)), made=(made.name,))
