"""The jersey top: a knit without darts, front and back the same but for the neck."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from widehem.core.drafting.bodice import front_to_back, middle_seams, pitch_notch, upper_demands
from widehem.core.drafting.common_options import CLOTH
from widehem.core.drafting.finished import show_edges
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.upper import DOWN, armhole, back_neck, front_neck, neck_meets
from widehem.core.geometry.curves import Line, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.checks.upper import HeadPasses, NeckOn
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Opening
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Choice, Mend, Option
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record, replace

APART = 7.0
HOLLOW = 0.6
TIP_BEYOND, BLADE_IN, NECK_RISE = 1.5, 2.5, 1.0
LEAST_SHOULDER = 4.0
HEAD_SPARE, OPENED_MOST = 0.5, 6.0  # cm that the stretched neck is over the head, and that it is opened to each side at most
GIRTH_SLACK = 0.1
FITS = {  # cm: bust round, back across, depth, waist round, hip round
    "close": (-4.0, 0.0, 0.0, -4.0, -4.0), "regular": (6.0, 2.0, 1.0, 6.0, 4.0), "easy": (18.0, 7.0, 4.5, 16.0, 12.0),
}  # fmt: skip
TITLES = {"hem": "hem", "side": "side seam"}


def _by_fit(index: int, name: str) -> Any:
    def worked(on: Mapping[str, Any]) -> Quantity:
        return Quantity(FITS[str(on["fit"])][index], name)

    return worked


FIT = Option(
    "fit", "Fit", "choice", "regular", "how close it lies; it sets the ease below",
    choices=(
        Choice("close", "Close", "smaller than the body, held by its stretch"),
        Choice("regular", "Regular", "skims the body"),
        Choice("easy", "Easy", "hangs loose"),
    ),
)  # fmt: skip
LENGTH = Option(
    "length", "Length", "length", None, "from the nape to the hem; {22} below the waist, over the hip, unless another is set",
        25.0, 130.0, 1.0,
    worked=lambda on: on["nape_waist"] + 22, uses=("nape_waist",),
)  # fmt: skip
SIDE = Option(
    "side", "Side", "choice", "hip", "below the waist",
    choices=(Choice("straight", "Straight down", "as wide as above"),
        Choice("hip", "Let out to the hip", "where the hip is wider; as long as it stays on the hip")),
    before=((3, "straight"),),
)  # fmt: skip
NECK_WIDE = Option(
    "neck_wider", "Neck wider", "length", None, "on each side; as far as the head asks, unless it is set", 0.0, 6.0, 0.25,
    worked=lambda on: Quantity(0.0, "neck wider"), before=((1, 0.0),), drawn=True,
)  # fmt: skip
NECK_DEEP = Option(
    "neck_depth", "Front neck depth", "length", None, "below the nape level", 3.0, 20.0, 0.5,
    worked=lambda on: on["neck"] / 5 - 0.5, uses=("neck",), drawn=True,
)  # fmt: skip
OPENING = Option(
    "opening_at", "Opening", "choice", "none", "where the neck does not pass the head",
    choices=(Choice("none", "None", "pulled on over the head"), Choice("centre_back", "Centre back", "the back is cut as a "
        "pair")),
)  # fmt: skip
OPENING_LENGTH = Option(
    "opening", "Opening length", "length", 12.0, "from the neck down", 4.0, 40.0, 1.0, when=(("opening_at", ("centre_back",)),)
)
EASE = (
    Option("bust", "Bust ease", "length", None, "whole round; a knit may be smaller than the body", -12.0, 30.0, 0.5,
        worked=_by_fit(0, "bust ease"), after=("fit",), least=4.0),
    Option("across_back", "Across back ease", "length", None, "whole width", 0.0, 12.0, 0.5,
        worked=_by_fit(1, "across back ease"), after=("fit",)),
    Option("depth", "Armhole depth ease", "length", None, "the armhole lies this far below the arm", 0.0, 8.0, 0.5,
        worked=_by_fit(2, "armhole depth ease"), after=("fit",)),
    Option("waist", "Waist ease", "length", None, "whole round; where the waist with it is wider than the bust, the top is as wide", -12.0, 30.0,
        0.5, worked=_by_fit(3, "waist ease"), after=("fit",)),
    Option("hip", "Hip ease", "length", None, "whole round, where the side is let out to the hip", -12.0, 30.0, 0.5,
        worked=_by_fit(4, "hip ease"), after=("fit",)),
)  # fmt: skip


@record(frozen=True)
class _Half:
    """What front and back share, in a frame with x from the centre outwards and y down from the nape. hip: where the side
    stands there, or None."""

    snp: Point
    tip: Point
    blade: Point
    under: Point
    waist: float
    hem: float
    hip: Point | None


def draw(sheet: Sheet) -> None:
    """Back and front, step by step."""
    waist, depth = sheet.measure("nape_waist"), (sheet.measure("armscye_depth") + sheet.ease("depth")).called("underarm level")
    length = sheet.length("length")
    with sheet.step(
        "Levels", "Down both centres from the nape: the underarm, the blade halfway, the shoulder a quarter of that."
    ):
        blade, shoulder = (depth / 2).called("blade level"), (depth / 8).called("shoulder level")
        for figure in (depth, blade, shoulder):
            sheet.sum(figure.name, figure)
        sheet.sum("length", length)
        if depth.value > waist.value - 4 or length.value < depth.value + 6:
            raise CannotDraft(
                ("armscye_depth", "nape_waist"),
                say("The underarm at {0} does not lie well above waist {1} and hem {2u}: read armscye depth and nape to "
                    "waist again, or make it longer.", depth.value, waist.value, length.value),
            )  # fmt: skip
    _open_neck(sheet, shoulder.value)
    half = _half(sheet, depth, blade, shoulder, waist.value, length.value)
    wide = max(half.under.x, half.hip.x if half.hip else 0.0)
    table = Table({"back": as_drawn(), "front": turned_over(2 * wide + APART)})
    _guides(sheet, half, table)
    pieces = [_piece(sheet, name, half) for name in ("back", "front")]
    with sheet.step("Front and back", "One outline for both, on the fold; only the neck of the front lies deeper."):
        for piece in pieces:
            show_edges(sheet, table.laid(piece), [edge.name for edge in piece.edges], TITLES)
        sheet.rub_out(*(mark.name for mark in sheet.marks if mark.role == "construction" and mark.kind == "line"))
        sheet.sum("armhole", drawn(pieces[0].edge("armhole").length, "back armhole"))
        sheet.sum("neck, whole round", drawn(2 * sum(p.edge("neck").length for p in pieces), "neck, whole round"))
    _hand_over(sheet, half, pieces, table)
    stretch = float(sheet.options["stretch"])
    sheet.note(
        say(
            f"Lay the greatest stretch round the body. The cloth should give {stretch:g} per cent: pull {{0u}} of it gently "
            f"and read.",
            10.0,
        )
    )
    if sheet.choice("opening_at") == "none":
        sheet.note(say("Cut both pieces on the fold; overlock with {0u} and turn up the hem with a stretching stitch.", 0.6))


def _open_neck(sheet: Sheet, shoulder: float) -> None:
    """Widen and deepen the neck, where neither is set, until the head passes what is stretched of it."""
    head, neck = sheet.chart.get("head"), sheet.measure("neck").value / 5 + 1
    wider, deeper = sheet.options["neck_wider"], sheet.options["neck_depth"]
    if head is None or sheet.rules < 2 or sheet.choice("opening_at") != "none":
        return
    if not (isinstance(wider, Quantity) and isinstance(deeper, Quantity)):
        return
    tip = Point(sheet.measure("across_back").value / 2 + sheet.ease("across_back").value / 2 + TIP_BEYOND, shoulder)
    gives = 1 + float(sheet.options["stretch"]) / 100 if sheet.choice("cloth") == "knit" else 1.0

    def lacks(by: float) -> float:
        snp = Point(neck + by, -NECK_RISE)
        way = (tip - snp).unit()
        back, front = back_neck(Point(0.0, 0.0), snp, way), front_neck(Point(0.0, deeper.value + by), snp, way)
        return head + HEAD_SPARE - 2 * (back.length + front.length) * gives

    most = min(OPENED_MOST, tip.x - LEAST_SHOULDER - neck)
    if most <= 0 or lacks(0.0) <= 0:
        return
    by = solve_or_nearest(lacks, 0.0, most, near=1e-3)
    sheet.options["neck_wider"], sheet.options["neck_depth"] = (
        drawn(by, "neck wider"), drawn(deeper.value + by, "front neck depth")
    )  # fmt: skip
    sheet.note(say("The neck is opened by {0u} on each side and in front, so that the head passes.", by))


def _half(sheet: Sheet, depth: Quantity, blade: Quantity, shoulder: Quantity, waist: float, length: float) -> _Half:
    neck = (sheet.measure("neck") / 5 + 1 + sheet.length("neck_wider")).called("neck width")
    across = (sheet.measure("across_back") / 2 + sheet.ease("across_back") / 2).called("half across back")
    quarter = _quarter(sheet)
    with sheet.step(
        "Neck, shoulder and blade",
        say("The shoulder tip lies {0u} beyond the plumb line of the back, on the shoulder level.", TIP_BEYOND),
    ):
        snp, tip = Point(neck.value, -NECK_RISE), Point(across.value + TIP_BEYOND, shoulder.value)
        if snp.x > tip.x - LEAST_SHOULDER:
            raise CannotDraft(
                ("neck", "across_back"),
                say("Neck width {0} leaves no shoulder up to the tip at {1u}: read neck and across back again, or widen the "
                    "neck less.", snp.x, tip.x),
            )  # fmt: skip
        point = across.value
        if point > quarter.value - BLADE_IN:
            point = quarter.value - BLADE_IN
            sheet.note(
                say("At the blade the armhole is moved in by {0} to {1u}, so that it still is an armhole; the shoulder tip "
                    "stays.", across.value - point, point)
            )  # fmt: skip
        if point < snp.x + 1:
            raise CannotDraft(
                ("bust", "neck"),
                say("A quarter of the bust, {0}, leaves no armhole beside a neck of {1u}: read bust and neck again, or give "
                    "more ease.", quarter.value, snp.x),
            )  # fmt: skip
        for figure in (neck, across, quarter):
            sheet.sum(figure.name, figure)
    hip = None
    if sheet.choice("side") == "hip":
        hip = _let_out(sheet, quarter.value, waist, length)
    return _Half(snp, tip, Point(point, blade.value), Point(quarter.value, depth.value), waist, length, hip)


def _quarter(sheet: Sheet) -> Quantity:
    """A quarter of the top above the hip: of the bust, or of a waist that is larger, each with its ease."""
    bust = (sheet.measure("bust") / 4 + sheet.ease("bust") / 4).called("quarter of the bust")
    if sheet.rules < 4 or sheet.chart.get("waist") is None:
        return bust
    waist = (sheet.measure("waist") / 4 + sheet.ease("waist") / 4).called("quarter of the waist")
    if waist <= bust:
        return bust
    sheet.note(
        say("The waist with its ease is larger than the bust with its own: the top is {0} wide on each quarter.", waist.value)
    )
    return waist


def _let_out(sheet: Sheet, quarter: float, waist: float, length: float) -> Point | None:
    """Where the side stands at the hip, when that is wider than the bust and the top reaches it."""
    hip, down = sheet.chart.get("hip"), sheet.chart.get("waist_hip")
    if hip is None or down is None:
        sheet.note(say("The side is left straight: hip and waist to hip are not read."))
        return None
    wide = hip / 4 + sheet.ease("hip" if sheet.rules > 3 else "bust").value / 4
    if wide <= quarter or length <= waist + down / 2:
        return None
    return Point(wide, waist + down)


def _guides(sheet: Sheet, half: _Half, table: Table) -> None:
    letters = {"back": "ABCDE", "front": "FGHJK"}
    with sheet.step("Underarm", "A quarter of the bust with its ease; square down to waist and hem."):
        for name in ("back", "front"):
            sheet.line(
                f"{name}_centre_guide",
                f"Centre {name}",
                table.path(name, Path.through(Point(0, 0), Point(0, half.hem))),
                piece=name,
                step=1,
            )
            for level, y, x in (("bust", half.under.y, half.under.x), ("waist", half.waist, half.under.x)):
                if y < half.hem:
                    sheet.line(
                        f"{name}_{level}", {"bust": "Bust line", "waist": "Waist"}[level],
                            table.path(name, Path.through(Point(0, y), Point(x, y))),
                        role="balance", kind="level", edge=level, piece=name, figure=drawn(x, f"{name} {level}"), step=1,
                    )  # fmt: skip
            plumb = Point(half.tip.x - TIP_BEYOND, half.tip.y)
            sheet.line(
                f"{name}_shoulder_guide",
                "Shoulder guide",
                table.path(name, Path.through(half.snp, half.tip, plumb, half.blade)),
                piece=name,
                step=2,
            )
            sheet.line(f"{name}_guide", "Armhole guide", table.path(name, Path.through(half.blade, half.under)), piece=name)
            spots = (Point(0, 0), half.snp, half.tip, half.blade, half.under)
            titles = ("Nape level at the centre", "Side neck point", "Shoulder tip", "Blade point", "Underarm")
            for letter, spot, title in zip(letters[name], spots, titles, strict=True):
                when = {"Nape level at the centre": 1, "Underarm": 0}.get(title, 2)
                sheet.point(
                    f"{name}_{title.lower().replace(' ', '_')}", title, table.spot(name, spot), letter, piece=name, step=when
                )


def _piece(sheet: Sheet, name: str, half: _Half) -> Piece:
    way = (half.tip - half.snp).unit()
    top = Point(0.0, 0.0) if name == "back" else Point(0.0, sheet.length("neck_depth").value)
    meets = neck_meets(sheet.rules)
    neck = back_neck(top, half.snp, way, meets) if name == "back" else front_neck(top, half.snp, way, meets=meets)
    hole = armhole(half.tip, way, half.blade, DOWN, half.under, DOWN, HOLLOW, rounded=sheet.rules - 1)
    side = _side(half)
    centre = f"centre_{name}"
    opened = sheet.choice("opening_at") == centre
    edges = (
        Edge(centre, (Path.through(top, Point(0.0, half.hem)),), (), "opening" if opened else "fold"),
        Edge("hem", (_hem(half, side),), (), "hem"),
        Edge("side", (side,)),
        Edge("armhole", (hole.reverse(),), notches=(pitch_notch(hole.length, name),)),
        Edge("shoulder", (Path.through(half.tip, half.snp),)),
        Edge("neck", (neck.reverse(),)),
    )
    levels = {"bust": half.under.y, "waist": half.waist}
    down = sheet.chart.get("waist_hip")
    if down is not None and half.waist + down < half.hem - 0.5:
        levels["hip"] = half.waist + down
    if half.waist > half.hem - 1:
        del levels["waist"]
    return Piece(
        name, f"Top {name}", edges, balance=tuple(BalanceLine.across(level, y) for level, y in levels.items()),
        stands="pair" if opened else "fold", middle=centre,
        marks={"snp": half.snp, "tip": half.tip, "underarm": half.under, "blade" if name == "back" else "chest": half.blade},
    )  # fmt: skip


def _side(half: _Half) -> Path:
    """From the hem up to the underarm."""
    waist = Point(half.under.x, half.waist)
    if half.hip is None:
        return Path.through(Point(half.under.x, half.hem), half.under)
    out = Path((curve_between(waist, DOWN, half.hip, DOWN),))
    if half.hem > half.hip.y:
        out = out + Path.through(half.hip, Point(half.hip.x, half.hem))
    else:
        index, t = out.crossings(Point(0.0, half.hem), Point(1.0, 0.0))[0]
        out = out.split(index, t)[0]
    return (Path.through(half.under, waist) + out).reverse()


def _hem(half: _Half, side: Path) -> Path:
    """Level, and square to a side that leans."""
    across = side.leaving.square()
    if abs(across.y) < 1e-6:
        return Path((Line(Point(0.0, half.hem), side.start),))
    return Path((curve_between(Point(0.0, half.hem), Point(1.0, 0.0), side.start, across if across.x > 0 else -across),))


def _hand_over(sheet: Sheet, half: _Half, pieces: list[Piece], table: Table) -> None:
    chart, bust = sheet.chart, sheet.measure("bust").value
    girths = [
        Girth(
            "bust", "Bust", bust, 4 * half.under.x - bust, 4.0, GIRTH_SLACK, wish=sheet.ease("bust").value,
            because="the waist with its ease is larger than the bust with its own",
        )
    ]  # fmt: skip
    for name, least in (("waist", 1.5), ("hip", 3.0)):
        body = chart.get(name)
        if body is not None and name in pieces[0].levels:
            girths.append(Girth(name, name.capitalize(), body, None, least, GIRTH_SLACK))
    opened, head = sheet.choice("opening_at"), chart.get("head")
    sheet.hand_over(
        pieces,
        table,
        seams=(front_to_back("side", "Side seam"), front_to_back("shoulder", "Shoulder"), *middle_seams(pieces)),
        openings=Opening.named(opened, sheet.length("opening").value),
        demands=(
            *girths,
            *upper_demands(*pieces),
            NeckOn(sheet.measure("neck").value, None),
            HeadPasses(head) if head is not None else None,
        ),
    )


METHOD = register(
    Method(
        "top.jersey", "Jersey top", "Whole garments",
        "A knit without darts, front and back the same but for the neck; close, regular or easy.",
        (
            Need("neck", "the width and depth of the neck"),
            Need("bust", "the width of both pieces"),
            Need("nape_waist", "the height of the waist line"),
            Need("armscye_depth", "the height of the underarm"),
            Need("across_back", "where the armhole lies"),
        ),
        (FIT, LENGTH, SIDE, NECK_WIDE, NECK_DEEP, OPENING, OPENING_LENGTH, replace(CLOTH, default="knit", group="cloth")), EASE, draw,
        rules=4, earlier=(1, 2, 3), mends={
            "head.passes": (Mend("Widen the neck by 2 cm on each side", "neck_wider", "2 cm"),
                Mend("Open the centre back", "opening_at", "centre_back")),
            "girth.hip": (Mend("Let the side out to the hip", "side", "hip"),),
        },
        allowances="jersey", has_armhole=True,
    )
)  # fmt: skip
