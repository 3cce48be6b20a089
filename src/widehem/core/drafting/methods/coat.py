"""The straight coat: boxy, tailored, from own measures; with overlap and turning lapel, facing, collar and shoulder pad."""

from __future__ import annotations

from widehem.core.drafting.bodice import front_to_back, middle_seams, pitch_notch, sewn, upper_demands
from widehem.core.drafting.finished import show_edges, show_inside, show_levels, show_lightly
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods import coat_lapel as lapels
from widehem.core.drafting.methods import coat_shape as shapes
from widehem.core.drafting.methods.coat_lapel import Lapel
from widehem.core.drafting.methods.coat_options import EASE, MENDS, OPTIONS, earlier_overlap
from widehem.core.drafting.methods.coat_shape import Frame, Half, Side
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.upper import OUT, neck_meets
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.body import Girth, Length
from widehem.core.pattern.checks.fold import Faced, RollsBetween
from widehem.core.pattern.checks.held import NotchAt
from widehem.core.pattern.checks.shapes import HemRises
from widehem.core.pattern.checks.upper import ArmholeOn, FrontInside, FrontOver, NeckOn
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import EdgeRef, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine, Cloth, Diamond, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import dart_between
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import replace

APART = 7.0
# edges of back and front by the step that draws them
PENCIL = {2: ("neck", "shoulder", "armhole"), 3: ("gorge", "front_edge"), 4: ("side", "vent", "centre_back", "hem")}
SHORT, STRAIGHT = 2.5, 12.0  # bust point to the point of the side dart; bust over waist from which a figure is not straight
LONG_ENOUGH = 25.0  # cm below the waist from which a wedge or vent is of use
ROOM, FRONT_OVER = (8.0, 16.0), 1.0
SLACK, BUST_NEAR = 0.1, 0.02
HEMS = (("front", "hem"), ("facing", "facing_hem"))  # with a notch at the centre front
MIDDLE = "centre_front"  # the line on the front from which its levels are measured


def draw(sheet: Sheet) -> None:
    """Every piece, step by step."""
    if sheet.rules < 4 and isinstance(sheet.options["overlap"], Quantity):
        sheet.options["overlap"] = earlier_overlap(sheet.choice("breast"))
    at = shapes.frame(sheet)
    if sheet.rules > 3:
        at = _with_its_bust(sheet, at)
    front, back, lapel, pieces = _drawn(sheet, at)
    _finish(sheet, at, front, back, lapel, pieces)


def _with_its_bust(sheet: Sheet, at: Frame) -> Frame:
    """The frame a little wider or narrower, so that the coat comes out as planned once its darts are shut."""
    for _ in range(2):
        pieces = _drawn(sheet.scratch(), at)[3]
        off = 2 * sum(piece.across("bust") for piece in pieces if piece.name in ("back", "front")) - at.asked
        if abs(off) < BUST_NEAR:
            break
        at = replace(at, quarter=at.quarter - off / 4)
    return at


def _drawn(sheet: Sheet, at: Frame) -> tuple[Half, Half, Lapel, list[Piece]]:
    """Front and back above, the lapel, and every piece in its own frame."""
    with sheet.step(
        "Necks, shoulders and armholes",
        say("Front and back shoulder tips lie level; the back shoulder is {0u} longer, eased.", shapes.BACK_EASED),
    ):
        back, front = (shapes.half(sheet, name, at) for name in ("back", "front"))
        if sheet.choice("shoulder_seam") == "forward":
            front, back = shapes.seam_forward(front, back, neck_meets(sheet.rules, 3))
        elif sheet.choice("shoulder_seam") == "strip":
            front, back = shapes.strip_forward(front, back)
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
        say("The lapel begins to turn at the first button; the roll line runs to the point {0u} beyond the side neck point, "
            "and what lies outside it is the lapel.", lapels.ROLL_BEYOND),
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
    return front, back, lapel, _pieces(sheet, at, front, back, lapel, room)


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
        "Straight down to the waist, out to the hip; the centre back goes in at the waist and runs straight again from the "
        "hip.",
    ):
        made = [
            _back(sheet, shapes.behind(at), back, shapes.side_of(shapes.behind(at), back.under, room)),
            _front(sheet, at, front, lapel, shapes.side_of(at, Point(at.quarter, front.under.y), room)),
        ]
        sheet.sum("waist, whole round", shapes.waist_of(sheet, at, _front_dart(sheet)))
    with sheet.step("Facing, collar and pad", "The facing follows front edge, lapel and neck; the collar is as long as half "
        "the neckline; the pad follows both armholes at the shoulder."):  # fmt: skip
        facing, inner = lapels.facing_of(front, lapel, at, overlap, sheet.measure("shoulder").value)
        length = front.neck.length + back.neck.length
        collar, pad = lapels.collar_of(length, back.neck.length, falls=sheet.rules > 3), lapels.pad_of(front, back)
        sheet.sum("half the neckline", drawn(length, "half the neckline"))
    lines = (lapel.roll, *made[1].lines, InnerLine("facing_line", "Facing line", inner))
    made[1] = replace(made[1], lines=lines, holes=lapels.buttons(at, lapel.turns.y, overlap, double))
    return [*made, facing, collar, pad]


def _levels(at: Frame, begins: str = "") -> tuple[BalanceLine, ...]:
    """The levels of a half. begins: the line at which they begin, where that is not the outline."""
    found = {"bust": at.under, "waist": at.waist}
    if at.hip < at.hem - 0.5:
        found["hip"] = at.hip
    return tuple(BalanceLine.across(level, y, between=(begins, ""), notched=level != "bust") for level, y in found.items())


def _marks(half: Half) -> dict[str, Point]:
    return {"snp": half.snp, "tip": half.tip, "chest" if half.name == "front" else "blade": half.chest, "underarm": half.under}


def _side_edges(side: Side) -> list[Edge]:
    """The side, and its vent before it, from the hem up."""
    vent = []
    if side.vent is not None:  # it has a corner on purpose
        vent = [Edge("vent", (side.vent.reverse(),), corners=tuple(part.end for part in side.vent.segments[:-1]))]
    return [*vent, Edge("side", (side.path.reverse(),))]


def _hem(start: Point, side: Side) -> Path:
    return Path((curve_between(start, OUT, side.end, side.hem_way),))


def _back(sheet: Sheet, at: Frame, back: Half, side: Side) -> Piece:
    shaped = shapes.shaped(sheet)
    centre = shapes.centre_back(at, back.top, shaped)
    edges = (
        Edge("centre_back", (centre,), (), "seam" if shaped else "fold"),
        Edge("hem", (_hem(centre.end, side),), (), "hem"),
        *_side_edges(side),
        Edge("armhole", (back.hole.reverse(),), notches=(pitch_notch(back.hole.length, "back"),)),
        Edge("shoulder", (Path.through(back.tip, back.snp),)),
        Edge("neck", (back.neck.reverse(),)),
    )
    darts = shapes.back_darts(sheet)
    diamonds = tuple(
        diamond
        for number, takes in enumerate(darts, 1)
        for diamond in _diamond(
            f"back_dart_{number}" if len(darts) > 1 else "back_dart", at.quarter * number / (len(darts) + 1), takes, at,
            at.under + 3.0,
        )
    )  # fmt: skip
    lining = Cloth(
        "lining", "2, a pair, {2} more at the centre for a pleat" if shaped else "1 on the fold, {2} more for a pleat"
    )
    cloth = Cloth("cloth", "2, a pair" if shaped else "1 on the fold")
    grain = (Point(at.quarter * 0.4, at.under + 4), Point(at.quarter * 0.4, at.hem - 6)) if shaped else None
    return Piece(
        "back",
        "Coat back",
        edges,
        balance=_levels(at),
        stands="pair" if shaped else "fold",
        middle="centre_back",
        marks=_marks(back),
        grain=grain,
        diamonds=diamonds,
        cloths=(cloth, lining),
    )


def _diamond(name: str, x: float, takes: float, at: Frame, top: float) -> tuple[Diamond, ...]:
    if not takes:
        return ()
    low = min(at.hem - shapes.DART_OVER_HEM, at.waist + shapes.DART_BELOW, at.dart_end)
    if low < at.waist + 3 or top > at.waist - 3:
        return ()
    half = takes / 2
    return (Diamond(name, Point(x, top), Point(x, low), Point(x - half, at.waist), Point(x + half, at.waist)),)


def _front(sheet: Sheet, at: Frame, front: Half, lapel: Lapel, side: Side) -> Piece:
    x, takes = sheet.measure("bust_span").value / 2, _front_dart(sheet)
    diamonds = _diamond("front_dart", x, takes, at, at.bust)
    lower = _side_edges(side)
    if at.over:
        lower[-1] = _with_dart(lower[-1], at, front, Point(x, at.bust), straight=sheet.rules > 4)
    edges = (
        Edge("front_edge", (lapel.edge,)),
        Edge("hem", (_hem(lapel.edge.end, side),), (), "hem", notches=(Notch("centre front", sheet.length("overlap").value),)),
        *lower,
        Edge("armhole", (front.hole.reverse(),), notches=(pitch_notch(front.hole.length, "front"),)),
        Edge("shoulder", (Path.through(front.tip, front.snp),)),
        Edge("neck", (front.neck.reverse(),)),
        Edge("gorge", (lapel.gorge,)),
    )
    cloths = (
        Cloth("cloth", "2, a pair"),
        Cloth("lining", "2, a pair, to {1.5} past the facing line"),
        Cloth("interfacing", "2, a pair, to the facing line"),
    )
    grain = Point(at.quarter * 0.62, at.waist + 2), Point(at.quarter * 0.62, at.hem - 6)
    middle = InnerLine(MIDDLE, "Centre front", Path.through(Point(0.0, front.top.y), Point(0.0, at.hem)))
    marks = {**_marks(front), "bust_point": Point(x, at.bust)}
    return Piece(
        "front", "Coat front", edges, balance=_levels(at, MIDDLE), marks=marks, grain=grain, diamonds=diamonds, lines=(middle,),
        cloths=cloths,
    )  # fmt: skip


def _with_dart(side: Edge, at: Frame, front: Half, apex: Point, *, straight: bool) -> Edge:
    """The front side with a dart for what its shoulder would fall too much. straight: above it the side leans in, so that it is
    one straight line once the dart is shut."""
    whole = side.parts[0]
    middle = shapes.dart_middle(at, front.under)
    low, rest = whole.cut(side.at_level(middle + at.over / 2) or whole.length / 2)
    high = rest.cut(at.over)[1]
    if straight:
        high = Path.through(high.start, front.under)
    inner, outer = low.end, high.start
    apex = Point(apex.x, inner.toward(outer, 0.5).y)
    return Edge("side", (low, high), (dart_between("side_dart", low, high, apex, SHORT),))


def _finish(sheet: Sheet, at: Frame, front: Half, back: Half, lapel: Lapel, pieces: list[Piece]) -> None:
    table = _table(pieces)
    laid = [table.laid(piece) for piece in pieces]
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
            for (title, point), letter in zip((("Neck at the centre", half.top), ("Side neck point", half.snp),
                ("Shoulder tip", half.tip), ("Underarm", half.under)), letters, strict=True):  # fmt: skip
                sheet.point(f"{half.name}_{title.lower().replace(' ', '_')}", f"{half.name.capitalize()} {title.lower()}",
                    table.spot(half.name, point), letter, piece=half.name, step=2)  # fmt: skip
        sheet.point(
            "break_point",
            "First button: the lapel begins to turn",
            table.spot("front", lapel.turns),
            "K",
            piece="front",
            step=3,
        )
    _hand_over(sheet, pieces, table, at)
    sheet.note(
        say(
            "Its sleeve: the guide-box sleeve with an elbow dart, for this armhole. Its cloth, lining and interfacing stand "
            "in the list of what to cut."
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


def _seams(by: dict[str, Piece]) -> list[Seam]:
    neck = SeamEdge("back", "neck", back=True), SeamEdge("front", "neck")
    return [
        front_to_back("side", "Side seam"),
        front_to_back("shoulder", "Shoulder", shapes.BACK_EASED),
        Seam("front_edge", "Front edge", sewn("front", "front_edge"), sewn("facing", "front_edge"), faced=True),
        Seam("gorge", "Top of the lapel", sewn("front", "gorge"), sewn("facing", "gorge"), faced=True),
        Seam("facing_neck", "Neck of the facing", sewn("front", "neck"), sewn("facing", "facing_neck"), faced=True),
        Seam("collar", "Collar", sewn("collar", "collar_neck"), neck),
        *middle_seams([by["back"]]),
    ]


WIDEST = {
    "bust": "the waist with its ease asks for more, and the coat is as wide as the widest asks",
    "hip": "the bust with its ease asks for more, and the side does not come in again below it",
}


def _hand_over(sheet: Sheet, pieces: list[Piece], table: Table, at: Frame) -> None:
    by = {piece.name: piece for piece in pieces}
    asked = {"bust": at.asked, "waist": None, "hip": 2 * (at.hip_quarter + shapes.behind(at).hip_quarter)}
    girths = []
    for name, least in (("bust", 8.0), ("waist", 6.0), ("hip", 6.0)):
        if by["back"].level(name) is not None:
            body, wide = sheet.measure(name).value, asked[name]
            planned = None if wide is None else wide - body
            wish = sheet.ease(name).value if planned is not None else None
            girths.append(
                Girth(
                    name,
                    name.capitalize(),
                    body,
                    planned,
                    least,
                    SLACK,
                    wish=wish,
                    because=WIDEST[name] if wish is not None else "",
                )
            )
    hems = [edge.end.y for piece in pieces for edge in piece.edges if edge.role == "hem"]
    armscye = sheet.chart.get("armscye")
    sheet.hand_over(
        pieces,
        table,
        seams=_seams(by),
        demands=(
            *girths,
            *upper_demands(by["back"], by["front"], more=[("facing", "snp", "facing_shoulder.end")]),
            *(NotchAt(EdgeRef(piece, edge), "centre front", 1, sheet.length("overlap").value) for piece, edge in HEMS),
            Length("collar", "Collar at the centre back", lapels.COLLAR_HIGH, along=(EdgeRef("collar", "centre_back"),)),
            NeckOn(sheet.measure("neck").value, None),
            ArmholeOn(armscye, *ROOM) if armscye is not None else None,
            FrontOver(FRONT_OVER),
            FrontInside() if sheet.choice("shoulder_seam") == "usual" else None,
            RollsBetween("front", "roll_line", "front_edge", ("gorge", "neck")),
            Faced("front", "roll_line", "facing_line"),
            HemRises(at.hem - min(hems)) if at.side == "wedge" else None,
        ),
        notions=(say(f"{len(by['front'].holes)} buttons"), say("Wadding for two shoulder pads")),
    )


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
        OPTIONS, EASE, draw, rules=5, arm_ease=9.0, earlier=(1, 2, 3, 4), mends=MENDS, has_armhole=True,
    )
)  # fmt: skip
