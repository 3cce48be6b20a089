"""Trousers by two schools: the frame, a box a quarter of the hip wide with the fork added, and the crease line, both legs
balanced on it.

What differs between them stands in a School; legs, crotch, waist, and how the back is made to agree with the front, are the
same.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from widehem.core.drafting.bodice import front_to_back
from widehem.core.drafting.finished import show_edges, show_lightly
from widehem.core.drafting.methods.trousers_options import FOOT
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.trousers import (
    NEAR,
    OUT_MOST,
    OUT_SAID,
    Panel,
    Places,
    Rise,
    Shares,
    Top,
    lay_top,
    level_with,
    share_waist,
    side_as_long,
)  # fmt: skip
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_length
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import BodyPasses, Girth
from widehem.core.pattern.checks.held import NotchAt, OnTheBody
from widehem.core.pattern.checks.lower import CrotchSeam, KneeBends
from widehem.core.pattern.checks.through import FootPasses
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import EdgeRef, Opening, Seam
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Mend
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say

APART = 6.0
FRAME_AT = {"front": 2, "back": 4}  # the step at which a panel is framed; its waist follows
DROP_LEAST, DROP_MOST = -2.0, 6.0
INSEAM_SHORT = 0.5  # cm: the back is stretched onto the front
CROTCH_LEAST, CROTCH_MOST, CROTCH_MEND = 1.0, 3.0, 2.0
BELOW_FORK = 5.0  # cm: where the thigh is held against the body
THIGH_LEAST, KNEE_LEAST, HIP_LEAST, WAIST_LEAST = 4.0, 6.0, 3.0, 1.5
SECOND_NOTCH = 1.0
ELASTIC = Shares()
ELASTIC_LESS = 5.0  # cm that an elastic is shorter than the waist
TITLES = {"side": "side seam", "crotch": "crotch seam"}
LETTERS = {"back": "LMN", "front": "PQR"}


@dataclass(frozen=True)
class School:
    """What a school gives a panel, cm. width: at the hip. fork: x of the fork tip; side, centre: x of side and centre at the
    hip.

    top: the waist point on the centre line; up: how far the front's side waist point lies above the waist line. darts,
    number: what they take by default. places: where they lie on the guide and how long they are.
    """

    width: Quantity
    fork: Quantity
    side: float
    centre: float
    top: Point
    finished: Quantity
    darts: float
    number: int
    places: Places
    up: float = 0.0


Lay = Callable[[Sheet, Rise], School]


def draw(sheet: Sheet, front_by: Lay, back_by: Lay, rise: Rise) -> None:
    """Both panels, step by step. rise: as far as it is known; where the crotch curve starts follows from the front."""
    with sheet.step(
        "Front frame", "A quarter of the hip with its ease; the fork lies beyond the centre front. The crease is the middle."
    ):
        school = front_by(sheet, rise)
        rise = replace(rise, start=max(rise.crotch - (school.fork.value - school.centre) - 2, rise.hip))
    front = _panel(sheet, "front", rise, school)
    with sheet.step(
        "Front waist",
        "Laid from the centre to the side point; darts take their share of what is to be lost, the side the rest.",
    ):
        front_top = _front_top(sheet, front, school)
        _waist_sums(sheet, front, school, front_top)
    with sheet.step(
        "Back frame", "Laid like the front, with a longer fork; the centre back leans, so that the seat has room when it bends."
    ):
        behind = back_by(sheet, rise)
    change = _crotch_change(sheet, rise, behind, front, front_top)
    back, back_top = _back(sheet, rise, behind, front, front_top, change)
    _finish(sheet, rise, (front, front_top), (back, back_top), 2 * (school.finished.value + behind.finished.value))


def _panel(sheet: Sheet, name: str, rise: Rise, school: School, fork_down: float = 0.0, change: float = 0.0) -> Panel:
    """The panel of a school. fork_down: how far the fork is dropped; change: how much longer centre and fork are made, cm."""
    part = (-0.5 if name == "front" else 0.5) * sheet.length("spread").value
    centre, top = Point(school.centre, rise.hip), school.top
    if change:
        top = top + (top - centre).unit() * change
    return Panel(
        name, rise, Point(school.side, rise.hip), centre, top, Point(school.fork.value + change, rise.crotch + fork_down),
        sheet.length("knee_girth").value / 4 + part, sheet.length("hem_girth").value / 4 + part, sheet.choice("leg") == "wide",
        rise.crotch + BELOW_FORK if _short(sheet) else None,
    )  # fmt: skip


def _refuse_leg(sheet: Sheet, panel: Panel) -> None:
    if not panel.wide and panel.knee > panel.fork.x:
        raise CannotDraft(
            ("knee", "hip"),
            say(
                f"The {panel.name} knee is {{0}} wide to each side of the crease, wider than the thigh with {{1u}}: give "
                f"less knee girth, or a wide leg.",
                panel.knee, panel.fork.x,
            ),
        )  # fmt: skip


def _front_top(sheet: Sheet, front: Panel, school: School) -> Top:
    _refuse_leg(sheet, front)
    if sheet.choice("waistline") == "elastic":
        return lay_top(front, _drawn_in(school), ELASTIC, school.places, level_with(front, 0.0))
    loss = school.width.value - school.finished.value
    shares = share_waist(loss, school.darts, school.number, sheet.choice("waist_darts"))
    _say_leaning(sheet, "front", loss)
    return lay_top(front, school.finished.value, shares, school.places, level_with(front, school.up))


def _drawn_in(school: School) -> float:
    """The waist of a panel that is drawn in by elastic: as wide as the hip, and never tighter than a band."""
    return max(school.width.value, school.finished.value)


def _say_leaning(sheet: Sheet, name: str, loss: float) -> None:
    waist, hip = (sheet.measure(code).value for code in ("waist", "hip"))
    if loss < -OUT_MOST:
        raise CannotDraft(
            ("waist", "hip"),
            say(f"The {name} side would lean out by {{0}}, over {{1u}}: waist {{2}} is much larger than hip {{3u}}. Read the "
                f"hip over the belly.", -loss, OUT_MOST, waist, hip),
        )  # fmt: skip
    if loss < -OUT_SAID:
        sheet.note(say("Waist {0} is larger than hip {1u}: read the hip over the belly.", waist, hip))


def _back(sheet: Sheet, rise: Rise, school: School, front: Panel, front_top: Top, change: float) -> tuple[Panel, Top]:
    """The back: its fork dropped until the inseam is right, its side point moved until the side seam is, its darts until
    nothing moves."""
    short = front.inseam.length - _stretched(sheet)

    def inseam(up: float) -> float:
        return _panel(sheet, "back", rise, school, -up, change).inseam.length

    lowest = BELOW_FORK - 0.5 if _short(sheet) else DROP_MOST + 2
    up = solve_length(inseam, short, -lowest, -DROP_LEAST + 2, near=NEAR)
    if up is None or not DROP_LEAST <= -up <= DROP_MOST:
        raise CannotDraft(
            ("hip", "knee", "inside_leg"),
            say(
                "The back fork would have to drop by more than {0} or rise by more than {1u} to make the inseams agree: read "
                "hip and knee again, or give another knee girth.",
                DROP_MOST, -DROP_LEAST,
            ),
        )  # fmt: skip
    back = _panel(sheet, "back", rise, school, -up, change)
    _refuse_leg(sheet, back)
    side = front_top.side.length
    if sheet.choice("waistline") == "elastic":
        return back, lay_top(back, _drawn_in(school), ELASTIC, school.places, side_as_long(back, side))
    shares = share_waist(school.width.value - school.finished.value - (back.centre_hip.x - back.centre_top.x), school.darts,
        school.number, sheet.choice("waist_darts"))  # fmt: skip
    for _ in range(20):
        top = lay_top(back, school.finished.value, shares, school.places, side_as_long(back, side))
        loss = shares.total + top.side_waist.x - back.side_hip.x
        again = share_waist(loss, school.darts, school.number, sheet.choice("waist_darts"))
        if abs(again.total - shares.total) < 0.01 and again.number == shares.number:
            break
        shares = again
    _say_leaning(sheet, "back", loss)
    return back, top


def _short(sheet: Sheet) -> bool:
    return sheet.choice("legs") == "short"


def _stretched(sheet: Sheet) -> float:
    """How much shorter the back inseam is, cm; a short leg has no length to stretch it over."""
    return 0.0 if _short(sheet) else INSEAM_SHORT


def _crotch(panel: Panel) -> Path:
    found = panel.crotch
    if found is None:
        raise CannotDraft(
            ("crotch_depth", "hip", "waist_hip"),
            say(f"The {panel.name} crotch curve cannot be drawn: its centre line does not meet the fork. Read crotch depth, "
                f"hip and waist to hip again."),
        )  # fmt: skip
    return found


def crotch_wanted(sheet: Sheet) -> tuple[float, bool]:
    """The length of the crotch on the body, cm, and whether it was read."""
    read = sheet.chart.get("crotch_length")
    if read is not None:
        return read, True
    return 2 * sheet.measure("crotch_depth").value + 0.17 * sheet.measure("hip").value, False


def _crotch_change(sheet: Sheet, rise: Rise, school: School, front: Panel, front_top: Top) -> float:
    """How much centre back and back fork are to be longer each, so that the crotch seam is as measured, cm."""
    body, read = crotch_wanted(sheet)
    if sheet.choice("crotch") != "measured" or not read:
        return 0.0
    back, _ = _back(sheet, rise, school, front, front_top, 0.0)
    lacking = body + (CROTCH_LEAST + CROTCH_MOST) / 2 - _crotch(front).length - _crotch(back).length
    change = max(-CROTCH_MEND, min(CROTCH_MEND, lacking / 2))
    sheet.note(say("By the measured crotch length the centre back and the back fork are {0s} each.", change))
    return change


def _waist_sums(sheet: Sheet, panel: Panel, school: School, top: Top) -> None:
    sheet.sum("waist, to sew", school.finished)
    if top.shares.number:
        sheet.sum("darts take", drawn(top.shares.total, "darts take"))
    sheet.sum("side takes", drawn(top.side_waist.x - panel.side_hip.x, "side takes"))
    sheet.sum("waist, sewn", drawn(top.sewn, f"{panel.name} waist, sewn"))


def _table(front: Panel, back: Panel) -> Table:
    """The back turned over at the left, the front beside it."""
    at = back.fork.x
    return Table({"back": turned_over(at), "front": as_drawn(at + _left(back) + APART + _left(front))})


def _left(panel: Panel) -> float:
    return -min(panel.side_hip.x, -panel.knee, -panel.hem)


def _finish(sheet: Sheet, rise: Rise, front: tuple[Panel, Top], back: tuple[Panel, Top], waist: float) -> None:
    table = _table(front[0], back[0])
    with sheet.step(
        "Back fork and waist",
        "The fork drops until the inseam is half a centimetre shorter than the front; the side point moves until both sides "
        "are equal.",
    ):
        sheet.sum("fork dropped", drawn(back[0].fork.y - rise.crotch, "fork dropped"))
        sheet.sum("back inseam", drawn(back[0].inseam.length, "back inseam"))
        if back[1].shares.number:
            sheet.sum("darts take", drawn(back[1].shares.total, "darts take"))
        sheet.sum("waist, sewn", drawn(back[1].sewn, "back waist, sewn"))
        for panel, _ in (back, front):
            _guides(sheet, panel, table)
    pieces = []
    with sheet.step(
        "Crotch and legs",
        "Straight down the centre, then round to the fork, square to the inseam, so that both forks join without a peak.",
    ):
        for panel, top in (back, front):
            edges = (
                Edge("waist", top.waist.parts, top.waist.darts, "hem" if sheet.choice("waistline") == "elastic" else "seam"),
                Edge("side", (top.side,)),
                Edge("hem", (_hem(panel, top),), (), "hem"),
                Edge("inseam", (panel.inseam.reverse(),)),
                Edge("crotch", (_crotch(panel).reverse(),)),
            )
            levels = {"waist": 0.0, "hip": rise.hip, "thigh": rise.crotch + BELOW_FORK, "knee": rise.knee}
            if panel.wide or panel.cut is not None:
                del levels["knee"]
            if panel.cut is not None:
                del levels["thigh"]
            low = panel.cut if panel.cut is not None else rise.crotch + (rise.hem - rise.crotch) * 0.6
            grain = Point(0.0, rise.crotch * (0.4 if panel.cut else 0.6)), Point(0.0, low - (3.0 if panel.cut else 0.0))
            # the notches at the hip and between the legs are set by the front: the back's own levels lie elsewhere on its seams
            balance = tuple(BalanceLine.across(level, y, notched=level == "knee") for level, y in levels.items())
            own = Piece(panel.name, f"Trousers {panel.name}", edges, balance=balance, marks=_marks(panel), grain=grain)
            pieces.append(own)
            piece = own.moved(table.of(panel.name))
            show_lightly(sheet, piece, ("waist", "side"), FRAME_AT[panel.name] + 1)
            show_edges(sheet, piece, [edge.name for edge in edges], TITLES, {"waist": LETTERS[panel.name]})
            sheet.sum(f"{panel.name} crotch", drawn(edges[4].length, f"{panel.name} crotch seam"))
        sheet.sum("crotch seam", drawn(sum(piece.edge("crotch").length for piece in pieces), "crotch seam"))
        for panel, _ in (back, front):
            sheet.rub_out(f"{panel.name}_centre_guide", f"{panel.name}_waist_guide", f"{panel.name}_frame")
    _hand_over(sheet, pieces, table, front[0], waist)
    if sheet.choice("waistline") == "elastic":
        sheet.note(
            say("The waist is as wide as the hip and drawn in by elastic: the amount of a hem is turned down for the casing.")
        )


def _hem(panel: Panel, top: Top) -> Path:
    """Square to both seams, so that the joined hem has no corner."""
    side, inseam = top.side.arriving, panel.inseam.arriving
    leaving, arriving = Point(side.y, -side.x), Point(inseam.y, -inseam.x)
    return Path((curve_between(top.side.end, leaving, panel.inseam.end, arriving),))


def _guides(sheet: Sheet, panel: Panel, table: Table) -> None:
    """Crease, levels and named points of a panel."""
    rise, name = panel.rise, panel.name
    frame, top = FRAME_AT[name], FRAME_AT[name] + 1
    letters = dict(zip(("centre_top", "side_hip", "fork", "centre_hip"), "ACFH" if name == "back" else "BDGJ", strict=True))
    sheet.line(
        f"{name}_crease",
        "Crease line",
        table.path(name, Path.through(Point(0.0, 0.0), Point(0.0, panel.cut or rise.hem))),
        role="balance",
        piece=name,
        step=1,
    )
    for level, y in (
        ("hip", rise.hip),
        ("crotch", rise.crotch),
        *((("knee", rise.knee),) if not panel.wide and panel.cut is None else ()),
    ):
        left = panel.side_hip.x if level != "knee" else -panel.knee
        right = panel.centre_hip.x if level == "hip" else panel.fork.x if level == "crotch" else panel.knee
        sheet.line(
            f"{name}_{level}", f"{level.capitalize()} line", table.path(name, Path.through(Point(left, y), Point(right, y))),
            role="balance", kind="level", edge=level, piece=name, figure=drawn(right - left, f"{name} at the {level}"),
                step=frame,
        )  # fmt: skip
    sheet.line(
        f"{name}_centre_guide",
        f"Centre {name}",
        table.path(name, Path.through(panel.centre_top, panel.centre_hip)),
        piece=name,
        step=frame,
    )
    for what, title in (
        ("centre_top", f"Centre {name} at the waist"),
        ("side_hip", "Side at the hip"),
        ("fork", f"{name.capitalize()} fork"),
    ):
        sheet.point(
            f"{name}_{what}",
            title,
            table.spot(name, getattr(panel, what)),
            letters[what],
            piece=name,
            step=top if what == "centre_top" else frame,
        )


def _marks(panel: Panel) -> dict[str, Point]:
    """Places of the body on a panel."""
    found = {"crotch": panel.fork, "centre_hip": panel.centre_hip}
    if not panel.wide and panel.cut is None:
        found["knee"] = Point(0.0, panel.rise.knee)
    return found


def _notched(sheet: Sheet, pieces: list[Piece], rise: Rise, length: float) -> list[Piece]:
    """The pieces with their notches: along the crotch from the waist; along the side where the front has hip and fork. length:
    open, cm."""
    front = next(piece for piece in pieces if piece.name == "front").edge("side")
    up = {what: front.length - (front.at_level(y) or 0.0) for what, y in (("hip", rise.hip), ("crotch", rise.crotch))}
    opened = length and sheet.choice("opening_at") == "centre_front"
    found = []
    for piece in pieces:
        behind = piece.name == "back"
        side, crotch = piece.edge("side"), piece.edge("crotch")
        along = crotch.length - sheet.measure("crotch_depth").value * 2 / 3
        below = [Notch("crotch", along - more) for more in (0.0, SECOND_NOTCH)[: 2 if behind else 1]]
        if opened and not behind:
            below.append(Notch("opening end", crotch.length - length))
        marked = replace(side, notches=tuple(Notch(what, side.length - by, 2 if behind else 1) for what, by in up.items()))
        found.append(piece.with_edge(marked).with_edge(replace(crotch, notches=tuple(below))))
    return found


def _places(sheet: Sheet, pieces: list[Piece], length: float) -> list[Demand]:
    """Where forks and notches of the crotch belong. length: open, cm."""
    found: list[Demand] = [OnTheBody(tuple((piece.name, "crotch", "crotch.start") for piece in pieces))]
    down = sheet.measure("crotch_depth").value * 2 / 3
    for piece in pieces:
        ref = EdgeRef(piece.name, "crotch")
        found += [
            NotchAt(ref, "crotch", 1, down + more, end="end")
            for more in (0.0, SECOND_NOTCH)[: 2 if piece.name == "back" else 1]
        ]
    if length and sheet.choice("opening_at") == "centre_front":
        found.append(NotchAt(EdgeRef("front", "crotch"), "opening end", 1, length, end="end"))
    return found


def _girths(sheet: Sheet, pieces: list[Piece], sewn: float | None) -> list[Girth]:
    waist, hip = sheet.measure("waist").value, sheet.measure("hip").value
    found = [
        Girth("waist", "Waist", waist, None if sewn is None else sewn - waist, WAIST_LEAST, 0.3, "waist"),
        Girth("hip", "Hip", hip, sheet.ease("hip").value, HIP_LEAST, 0.3),
    ]
    for name, least in (("thigh", THIGH_LEAST), ("knee", KNEE_LEAST)):
        measure = sheet.chart.get(name)
        if measure is not None and pieces[0].level(name) is not None:
            found.append(Girth(name, name.capitalize(), measure, None, least, 0.1, limb=True))
    return found


def _hand_over(sheet: Sheet, pieces: list[Piece], table: Table, front: Panel, sewn: float) -> None:
    """Both pieces with what holds them together and what they are held against. sewn: what the waist should come to, cm."""
    body, read = crotch_wanted(sheet)
    ankle, knee = sheet.chart.get("ankle"), sheet.chart.get("knee")
    at, elastic = sheet.choice("opening_at"), sheet.choice("waistline") == "elastic"
    length = 0.0 if elastic or at == "none" else sheet.length("opening").value
    pieces = _notched(sheet, pieces, front.rise, length)
    less = -_stretched(sheet)
    foot = 0.0 if _short(sheet) else (ankle or 0.0) * FOOT
    sheet.hand_over(
        pieces,
        table,
        seams=(
            front_to_back("side", "Side seam"),
            front_to_back("inseam", "Inseam", less),
            *(Seam.to_its_mirror(f"crotch_{piece.name}", f"Crotch, {piece.name}", (piece.name, "crotch")) for piece in pieces),
        ),
        openings=Opening.named("none" if elastic else at, length),
        demands=(
            *_girths(sheet, pieces, None if elastic else sewn),
            BodyPasses("hip", sheet.measure("hip").value),
            *_places(sheet, pieces, length),
            CrotchSeam(body + CROTCH_LEAST, body + CROTCH_MOST, read),
            KneeBends(knee) if knee is not None else None,
            FootPasses(foot) if foot else None,
        ),
        notions=(say("Elastic for the waist, about {0u}", sheet.measure("waist").value - ELASTIC_LESS),) if elastic else (),
    )


MENDS = {
    "stride.knee": (Mend("Take a wide leg", "leg", "wide"),),
    "foot.passes": (
        Mend("A straight leg, the hem as wide as the knee", "leg", "straight"),
        Mend("Take a wide leg", "leg", "wide"),
    ),
    "crotch.seam": (Mend("Make the crotch seam by the measure", "crotch", "measured"),),
    "opening": (Mend("Open the left side", "opening_at", "side"),),
    "darts.intake": (Mend("Two waist darts in each piece", "waist_darts", "two"),),
}
