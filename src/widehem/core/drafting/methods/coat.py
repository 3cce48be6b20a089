"""The straight coat: boxy, tailored, from own measures; with overlap and turning lapel, facing, collar and shoulder pad."""

from __future__ import annotations

from dataclasses import replace

from widehem.core.drafting.finished import show_edges, show_inside, show_levels, show_lightly
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods import coat_lapel as lapels
from widehem.core.drafting.methods import coat_shape as shapes
from widehem.core.drafting.methods.coat_lapel import Lapel
from widehem.core.drafting.methods.coat_options import EASE, MENDS, OPTIONS
from widehem.core.drafting.methods.coat_shape import Frame, Half, Side
from widehem.core.drafting.quantity import drawn
from widehem.core.drafting.refusal import CannotDraft
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.upper import OUT
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.block import Block, EdgeName, Level, PitchNotch, Seam
from widehem.core.pattern.dart_cap import dart_cap
from widehem.core.pattern.piece import Cloth, Dart, Diamond, Edge, InnerLine, Piece
from widehem.core.units import say

APART = 7.0
# edges of back and front by the step that draws them
PENCIL = {2: ("neck", "shoulder", "armhole"), 3: ("gorge", "front_edge"), 4: ("side", "vent", "centre_back", "hem")}
SHORT, STRAIGHT = 2.5, 12.0  # bust point to the point of the side dart; bust over waist from which a figure is not straight
LONG_ENOUGH = 25.0  # cm below the waist from which a wedge or vent is of use
ROOM, FRONT_OVER = (8.0, 16.0), 1.0
SLACK = 0.1


def draw(sheet: Sheet) -> None:
    """Every piece, step by step."""
    at = shapes.frame(sheet)
    with sheet.step(
        "Necks, shoulders and armholes",
        "Front and back shoulder tips lie level; the back shoulder is half a centimetre longer, eased.",
    ):
        back, front = (shapes.half(sheet, name, at) for name in ("back", "front"))
        if sheet.choice("shoulder_seam") == "forward":
            front, back = shapes.seam_forward(front, back)
        if at.over:
            sheet.note(
                say(
                    "The front shoulder would fall {0}: {1u} of it goes into a dart in the side instead.",
                    at.over + shapes.DROP_MOST,
                    at.over,
                )
            )
        sheet.sum("neck width", sheet.length("neck_width"))
        for half in (back, front):
            sheet.sum(f"{half.name} armhole stands in to", drawn(half.chest.x, f"{half.name} armhole stands in to"))
        sheet.sum("front falls", drawn(front.tip.y - front.snp.y, "front falls"))
        sheet.sum("armhole", drawn(front.hole.length + back.hole.length, "armhole, front and back"))
    room = at.hem - at.waist > LONG_ENOUGH
    if not room and sheet.choice("side") != "plain":
        sheet.note(
            say(
                "The coat ends {0} below the waist, too short for a wedge or a vent: its sides are straight.", at.hem - at.waist
            )
        )
    overlap, double = sheet.length("overlap").value, sheet.choice("breast") == "double"
    with sheet.step(
        "Overlap and lapel",
        say("The lapel begins to turn at the first button; the roll line runs to the point {0u} beyond the side neck point, and what lies outside it is the lapel.", lapels.ROLL_BEYOND),
    ):  # fmt: skip
        turns = at.waist - sheet.length("break_above").value
        if not front.top.y + 6 < turns < at.hem - 6:
            raise CannotDraft(
                (),
                say(
                    "The first button at {0} below the nape lies too near the neck at {1u} or the hem: set it elsewhere.",
                    turns,
                    front.top.y,
                ),
            )
        lapel = lapels.lapel_of(front, at, overlap, turns, double)
        sheet.sum("overlap", sheet.length("overlap"))
        sheet.sum("lapel, at its widest", drawn(_widest(lapel), "lapel, at its widest"))
    pieces = _pieces(sheet, at, front, back, lapel, room)
    _finish(sheet, at, front, back, lapel, pieces)


def _widest(lapel: Lapel) -> float:
    start, end = lapel.roll.path.start, lapel.roll.path.end
    return abs((end - start).unit().cross(lapel.corner - start))


def _front_dart(sheet: Sheet) -> float:
    choice = sheet.choice("front_dart")
    difference = sheet.measure("bust").value - sheet.measure("waist").value
    wanted = choice == "one" or (choice == "auto" and difference >= STRAIGHT)
    return shapes.FRONT_DART if wanted else 0.0


def _pieces(sheet: Sheet, at: Frame, front: Half, back: Half, lapel: Lapel, room: bool) -> list[Piece]:
    overlap, double = sheet.length("overlap").value, sheet.choice("breast") == "double"
    with sheet.step(
        "Sides, centre back and darts",
        "Straight down to the waist, out to the hip; the centre back goes in at the waist and runs straight again from the hip.",
    ):
        made = [
            _back(sheet, at, back, shapes.side_of(at, back.under, room)),
            _front(sheet, at, front, lapel, shapes.side_of(at, front.under, room)),
        ]
        sheet.sum("waist, whole round", shapes.waist_of(at, _front_dart(sheet), sheet.choice("back") == "seam"))
    with sheet.step("Facing, collar and pad", "The facing follows front edge, lapel and neck; the collar is as long as half the neckline; the pad follows both armholes at the shoulder."):  # fmt: skip
        facing, inner = lapels.facing_of(front, lapel, at, overlap, sheet.measure("shoulder").value)
        length = front.neck.length + back.neck.length
        collar, pad = lapels.collar_of(length), lapels.pad_of(front, back)
        sheet.sum("half the neckline", drawn(length, "half the neckline"))
    lines = (
        lapel.roll,
        InnerLine("centre_front", "Centre front", Path.through(Point(0.0, front.top.y), Point(0.0, at.hem))),
        InnerLine("facing_line", "Facing line", inner),
    )
    made[1] = replace(made[1], lines=lines, holes=lapels.buttons(at, lapel.turns.y, overlap, double))
    return [*made, facing, collar, pad]


def _levels(at: Frame) -> dict[str, float]:
    found = {"bust": at.under, "waist": at.waist}
    if at.hip < at.hem - 0.5:
        found["hip"] = at.hip
    return found


def _side_edges(side: Side) -> list[Edge]:
    """The side, and its vent before it, from the hem up."""
    vent = [Edge("vent", (side.vent.reverse(),))] if side.vent is not None else []
    return [*vent, Edge("side", (side.path.reverse(),))]


def _hem(start: Point, side: Side) -> Path:
    return Path((curve_between(start, OUT, side.end, side.hem_way),))


def _back(sheet: Sheet, at: Frame, back: Half, side: Side) -> Piece:
    shaped = sheet.choice("back") == "seam"
    centre = shapes.centre_back(at, back.top, shaped)
    edges = (
        Edge("centre_back", (centre,), (), "seam" if shaped else "fold"),
        Edge("hem", (_hem(centre.end, side),), (), "hem"),
        *_side_edges(side),
        Edge("armhole", (back.hole.reverse(),)),
        Edge("shoulder", (Path.through(back.tip, back.snp),)),
        Edge("neck", (back.neck.reverse(),)),
    )
    inset, dart = (shapes.CENTRE_IN, 0.0) if shaped else (0.0, shapes.FOLD_DART)
    middle = at.quarter / 2
    diamonds = _diamond("back_dart", middle, dart, at, at.under + 3.0)
    spans = {
        "bust": ((Point(0.0, at.under), Point(at.quarter, at.under)),),
        "waist": (
            (Point(inset, at.waist), Point(middle - dart / 2, at.waist)),
            (Point(middle + dart / 2, at.waist), Point(at.quarter, at.waist)),
        ),
        "hip": ((Point(0.0, at.hip), Point(at.hip_quarter, at.hip)),),
    }
    levels = _levels(at)
    lining = Cloth(
        "lining", "2, a pair, 2 cm more at the centre for a pleat" if shaped else "1 on the fold, 2 cm more for a pleat"
    )
    cloth = Cloth("cloth", "2, a pair" if shaped else "1 on the fold")
    grain = (Point(at.quarter * 0.4, at.under + 4), Point(at.quarter * 0.4, at.hem - 6)) if shaped else None
    return Piece(
        "back",
        "Coat back",
        edges,
        levels,
        "pair" if shaped else "fold",
        "centre_back",
        {k: spans[k] for k in levels},
        grain,
        diamonds,
        cloths=(cloth, lining),
    )


def _diamond(name: str, x: float, takes: float, at: Frame, top: float) -> tuple[Diamond, ...]:
    if not takes:
        return ()
    low = min(at.hem - shapes.DART_OVER_HEM, at.waist + shapes.DART_BELOW)
    if low < at.waist + 3 or top > at.waist - 3:
        return ()
    half = takes / 2
    return (Diamond(name, Point(x, top), Point(x, low), Point(x - half, at.waist), Point(x + half, at.waist)),)


def _front(sheet: Sheet, at: Frame, front: Half, lapel: Lapel, side: Side) -> Piece:
    x, takes = sheet.measure("bust_span").value / 2, _front_dart(sheet)
    diamonds = _diamond("front_dart", x, takes, at, at.bust)
    takes = diamonds[0].intake if diamonds else 0.0
    lower = _side_edges(side)
    if at.over:
        lower[-1] = _with_dart(lower[-1], at, front, Point(x, at.bust))
    edges = (
        Edge("front_edge", (lapel.edge,)),
        Edge("hem", (_hem(lapel.edge.end, side),), (), "hem"),
        *lower,
        Edge("armhole", (front.hole.reverse(),)),
        Edge("shoulder", (Path.through(front.tip, front.snp),)),
        Edge("neck", (front.neck.reverse(),)),
        Edge("gorge", (lapel.gorge,)),
    )
    spans = {
        "bust": ((Point(0.0, at.under), Point(at.quarter, at.under)),),
        "waist": (
            (Point(0.0, at.waist), Point(x - takes / 2, at.waist)),
            (Point(x + takes / 2, at.waist), Point(at.quarter, at.waist)),
        ),
        "hip": ((Point(0.0, at.hip), Point(at.hip_quarter, at.hip)),),
    }
    levels = _levels(at)
    cloths = (
        Cloth("cloth", "2, a pair"),
        Cloth("lining", "2, a pair, to 1.5 cm past the facing line"),
        Cloth("interfacing", "2, a pair, to the facing line"),
    )
    grain = Point(at.quarter * 0.62, at.waist + 2), Point(at.quarter * 0.62, at.hem - 6)
    return Piece(
        "front", "Coat front", edges, levels, "pair", "", {k: spans[k] for k in levels}, grain, diamonds, cloths=cloths
    )


def _with_dart(side: Edge, at: Frame, front: Half, apex: Point) -> Edge:
    """The front side with a dart for what its shoulder would fall too much."""
    whole = side.parts[0]
    middle = max(min(at.bust, at.waist - 6.0), front.under.y + at.over / 2 + 2.0)
    low, rest = whole.cut(side.at_level(middle + at.over / 2) or whole.length / 2)
    high = rest.cut(at.over)[1]
    inner, outer = low.end, high.start
    centre = inner.toward(outer, 0.5)
    apex = Point(apex.x, centre.y)
    point = apex + (centre - apex).unit() * SHORT
    cap = dart_cap(low, point, inner, outer) or Path.through(inner, centre + (centre - point).unit() * 0.3, outer)
    dart = Dart("side_dart", "side", point, inner, outer, centre, inner.to(outer), point.to(centre), cap, apex)
    return Edge("side", (low, high), (dart,))


def _finish(sheet: Sheet, at: Frame, front: Half, back: Half, lapel: Lapel, pieces: list[Piece]) -> None:
    table = _table(pieces)
    laid = [piece.moved(table.of(piece.name)) for piece in pieces]
    with sheet.step(
        "Pieces", "Body, facing, collar and pad, without allowances; the roll line, the facing line and the buttons are marked."
    ):
        for piece in laid:
            show_levels(sheet, piece, dict.fromkeys(piece.levels, 1))
            for step, names in PENCIL.items() if piece.name in ("back", "front") else ((5, [e.name for e in piece.edges]),):
                show_lightly(sheet, piece, names, step)
            show_edges(
                sheet,
                piece,
                [edge.name for edge in piece.edges],
                {"side": "side seam", "front_edge": "front edge"},
                {"side": "Y"},
            )
            show_inside(sheet, piece, {"centre_front": 1, "roll_line": 3, "facing_line": 5})
        for half, letters in ((back, "ABCD"), (front, "EFGH")):
            for (title, point), letter in zip((("Neck at the centre", half.top), ("Side neck point", half.snp), ("Shoulder tip", half.tip), ("Underarm", half.under)), letters, strict=True):  # fmt: skip
                sheet.point(f"{half.name}_{title.lower().replace(' ', '_')}", f"{half.name.capitalize()} {title.lower()}", table.spot(half.name, point), letter, piece=half.name, step=2)  # fmt: skip
        sheet.point(
            "break_point",
            "First button: the lapel begins to turn",
            table.spot("front", lapel.turns),
            "K",
            piece="front",
            step=3,
        )
    sheet.block = _block(sheet, laid, at)
    sheet.note(
        say(
            "Its sleeve: the guide-box sleeve with an elbow dart, for this armhole. Its cloth, lining and interfacing stand in the list of what to cut."
        )
    )
    sheet.note(say("Checks and stripes: match them at the centre front, at the sides, and at the pitch of the sleeve."))


def _table(pieces: list[Piece]) -> Table:
    """Back, front turned over, facing as its mirror, and the small ones at the right."""
    boxes = {piece.name: piece.bounds for piece in pieces}
    right = boxes["back"][2]
    front_at = right + APART + boxes["front"][2]
    x = front_at - boxes["front"][0] + APART
    facing_at = x - boxes["facing"][0]
    x = facing_at + boxes["facing"][2] + APART
    top = boxes["front"][1]
    return Table(
        {
            "back": as_drawn(),
            "front": turned_over(front_at),
            "facing": as_drawn(facing_at),
            "collar": as_drawn(x, top - boxes["collar"][1]),
            "pad": as_drawn(x - boxes["pad"][0], top + 14.0 - boxes["pad"][1]),
        }
    )


def _block(sheet: Sheet, pieces: list[Piece], at: Frame) -> Block:
    def chain(*names: tuple[str, str]) -> tuple[EdgeName, ...]:
        return tuple(EdgeName(piece, edge) for piece, edge in names)

    shown = {piece.name: piece for piece in pieces}
    seams = [
        Seam("side", "Side seam", chain(("back", "side")), chain(("front", "side"))),
        Seam(
            "shoulder",
            "Shoulder",
            chain(("back", "shoulder")),
            chain(("front", "shoulder")),
            (shapes.BACK_EASED, shapes.BACK_EASED),
        ),
        Seam("front_edge", "Front edge", chain(("front", "front_edge")), chain(("facing", "front_edge")), faced=True),
        Seam("gorge", "Top of the lapel", chain(("front", "gorge")), chain(("facing", "gorge")), faced=True),
        Seam("collar", "Collar", chain(("collar", "collar_neck")), chain(("back", "neck"), ("front", "neck"))),
    ]
    levels = []
    for name, least in (("bust", 8.0), ("waist", 6.0), ("hip", 6.0)):
        if name in shown["back"].levels:
            body = sheet.measure(name).value
            wide = 2 * sum(shown[half].span(name) for half in ("back", "front"))
            levels.append(Level(name, name.capitalize(), body, wide - body, least, SLACK))
    pitch = [
        PitchNotch(name, "armhole", shown[name].edge("armhole").length / 3, "pitch", 2 if name == "back" else 1)
        for name in ("back", "front")
    ]
    for piece, edge in (("front", "hem"), ("facing", "facing_hem")):
        pitch.append(PitchNotch(piece, edge, sheet.length("overlap").value, "centre front"))
    neck_behind = shown["back"].edge("neck").length
    pitch.append(PitchNotch("collar", "collar_neck", neck_behind, "shoulder seam"))
    rise = (
        at.hem - min(edge.end.y for piece in pieces for edge in piece.edges if edge.name == "hem")
        if at.side == "wedge"
        else 0.0
    )
    return Block(
        tuple(pieces), tuple(seams), tuple(levels), armhole=(EdgeName("front", "armhole"), EdgeName("back", "armhole")),
        neck=sheet.measure("neck").value, armscye=sheet.chart.get("armscye"), pitch=tuple(pitch), room=ROOM, front_over=FRONT_OVER, hem_rise=rise,
        notions=(say(f"{len(shown['front'].holes)} buttons"), say("Wadding for two shoulder pads")),
    )  # fmt: skip


METHOD = register(
    Method(
        "coat.straight", "Straight coat", "Whole garments",
        "A boxy tailored coat for any figure, single- or double-breasted, with lapel, facing, collar and shoulder pad.",
        (
            Need("bust", "the width"),
            Need("waist", "the least width at the waist"),
            Need("hip", "the width below"),
            Need("waist_hip", "the height of the hip"),
            Need("neck", "the width and depth of the neck"),
            Need("nape_waist", "the height of the waist"),
            Need("snp_waist_back", "how high the back shoulder lies"),
            Need("snp_waist_front", "how high the front shoulder lies"),
            Need("shoulder", "the length of the shoulder"),
            Need("armscye_depth", "the height of the underarm", instead="armscye"),
            Need("across_back", "how far the back armhole stands in"),
            Need("across_chest", "how far the front armhole stands in"),
            Need("bust_depth", "where the front dart begins"),
            Need("bust_span", "where the front dart lies"),
            Need("waist_knee", "the length, unless another is set", "length"),
        ),
        OPTIONS, EASE, draw, mends=MENDS, has_armhole=True,
    )
)  # fmt: skip
