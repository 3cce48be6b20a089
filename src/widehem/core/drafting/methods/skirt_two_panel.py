"""The two-panel skirt block: four measures, a back and a front, darts by one of two schools.

Fixed darts take the same from every figure and leave the rest to the side; shared-out darts divide what there is to
lose between darts and side. The first suits figures whose hip is 14 to 28 over the waist, the second all others.
"""

from __future__ import annotations

from widehem.core.drafting.belly import arc_demands, arcs_of
from widehem.core.drafting.bodice import front_to_back, middle_seams
from widehem.core.drafting.knit import is_close
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.skirt_options import EASE, OPTIONS
from widehem.core.drafting.methods.skirt_shape import Laid, draw_sides, draw_waist, lay_sides
from widehem.core.drafting.methods.skirt_shares import front_at_hip, share_out
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.waist import Waist
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.body import BodyPasses, Girth, Strides
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Opening
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say

HIP_DEPTH_LEAST, BELOW_HIP_LEAST = 12.0, 8.0
GIRTH_SLACK = 0.1
STRIDE = 1.2 * 0.55
CENTRE = {"back": "centre_back", "front": "centre_front"}


def draw(sheet: Sheet) -> None:
    """The whole block, step by step."""
    hip_depth, length, half, back_hip = _frame(sheet)
    school, back, front = share_out(sheet, half, back_hip)
    laid = lay_sides(sheet, school, back, front, half, hip_depth)
    sides = draw_sides(sheet, laid, length)
    waists = [draw_waist(sheet, panel, hip_depth) for panel in laid]
    _finish(sheet, laid, sides, waists, hip_depth, length)


def _frame(sheet: Sheet) -> tuple[Quantity, Quantity, Quantity, Quantity]:
    hip, hip_depth, length = sheet.measure("hip"), sheet.measure("waist_hip"), sheet.length("length")
    if hip_depth < HIP_DEPTH_LEAST:
        raise CannotDraft(
            ("waist_hip",),
            say(
                "Waist to hip {0} is under {1u}: the darts have no room. Read waist to hip again.",
                hip_depth.value,
                HIP_DEPTH_LEAST,
            ),
        )
    if length < hip_depth + BELOW_HIP_LEAST:
        blame = length.measures() or ("waist_hip",)
        raise CannotDraft(
            tuple(dict.fromkeys((*blame, "waist_hip"))),
            say(
                "Length {0} ends less than {1} below the hip line at {2u}: make the skirt longer, or read waist to hip and "
                "waist to knee again.",
                length.value, BELOW_HIP_LEAST, hip_depth.value,
            ),
        )  # fmt: skip
    x, y, bottom = 0.0, hip_depth.value, length.value
    with sheet.step("Centre back", "Draw the centre back straight down, as long as the skirt."):
        a = sheet.point("cb_waist", "Centre back at the waist", Point(x, 0.0), "A", piece="back")
        b = sheet.point("cb_hem", "Centre back at the hem", Point(x, bottom), "B", piece="back")
        sheet.line("cb_guide", "Centre back", Path.through(a, b), figure=length, piece="back")
        sheet.sum("length", length)
    with sheet.step("Hip line", "Measure the hip depth down from the waist and square across."):
        c = sheet.point("cb_hip", "Centre back at the hip", Point(x, y), "C", piece="back")
        sheet.dimension("hip_depth", "Waist to hip", a, c, hip_depth, side=-1, piece="back")
        sheet.sum("hip depth", hip_depth)
    ease = sheet.ease("hip")
    half = ((hip + ease) / 2).called("half width")
    with sheet.step("Frame", "Half the hip with its ease wide. Square waist, hip and hem to the centre front."):
        f = sheet.point("cf_hem", "Centre front at the hem", Point(half.value, bottom), "F", piece="front")
        g = sheet.point("cf_waist", "Centre front at the waist", Point(half.value, 0.0), "G", piece="front")
        e = sheet.point("cf_hip", "Centre front at the hip", Point(half.value, y), "E", piece="front")
        sheet.line("waist_level", "Waist line", Path.through(a, g), figure=half)
        sheet.line("hip_level", "Hip line", Path.through(c, e), role="balance", figure=half, kind="level", edge="hip")
        sheet.line("hem_guide", "Hem line", Path.through(b, f), figure=half)
        sheet.line("cf_guide", "Centre front", Path.through(g, f), figure=length, piece="front")
        sheet.sum("half width", half)
    if sheet.choice("ease_place") == "back":
        back_hip = (hip / 4 + ease / 2).called("back at the hip")
        words = "The back takes a quarter of the hip and all the ease; the front keeps the rest. Square down."
    else:
        back_hip = (hip / 4 + ease / 4).called("back at the hip")
        words = "Back and front take a quarter of the hip and half the ease each. Square down."
    arcs = arcs_of(sheet)
    if arcs.hip is not None:
        back_hip = (half - front_at_hip(sheet, arcs, half - back_hip)).called("back at the hip")
        words = "The front is as wide as the front of the hip, the back takes the rest with its ease. Square down."
    with sheet.step("Back and front on the hip", words):
        d = sheet.point("side_hip", "Side at the hip", Point(back_hip.value, y), "D", figure=back_hip)
        s = sheet.point("side_hem", "Side at the hem", Point(back_hip.value, bottom), "S")
        sheet.line("side_guide", "Side line", Path.through(d, s), figure=length - hip_depth)
        sheet.dimension("back_hip", "Back at the hip", c, d, back_hip, piece="back")
        front_hip = (half - back_hip).called("front at the hip")
        sheet.dimension("front_hip", "Front at the hip", d, e, front_hip, piece="front")
        sheet.sum("back", back_hip)
        sheet.sum("front", front_hip)
    return hip_depth, length, half, back_hip


def _finish(
    sheet: Sheet, laid: tuple[Laid, Laid], sides: list[Path], waists: list[Waist], hip_depth: Quantity, length: Quantity
) -> None:
    """Name the pieces, their edges, seams and levels."""
    at = sheet.choice("opening_at")
    belly = laid[1].panel.lean.tilt > 0
    openings = Opening.named(at, min(sheet.length("opening").value, length.value - 2))
    table = Table({"back": as_drawn(), "front": turned_over(laid[1].centre_x)})
    pieces = []
    with sheet.step(
        "Name the pieces",
        "Half a back and half a front, no allowances. The centre front is a seam, as it leans."
        if belly
        else "Half a back and half a front, no allowances. The centre front lies on the fold.",
    ):
        sheet.rub_out("cb_guide", "cf_guide", "hem_guide")
        for panel, side, waist in zip(laid, sides, waists, strict=True):
            name = panel.panel.name
            on_fold = not belly if name == "front" else at != "centre_back"
            corner, foot = side.end, Point(panel.centre_x, length.value)
            hem, centre = Path.through(corner, foot), panel.centre_line(length.value)
            edges = (
                Edge("waist", waist.parts, waist.darts),
                Edge("side", (side,)),
                Edge("hem", (hem,), kind="hem"),
                Edge(CENTRE[name], (centre,), kind="fold" if on_fold else "seam" if name == "front" else "opening"),
            )
            sheet.line(
                f"{name}_hem",
                f"{name.capitalize()} hem",
                hem,
                role="finished",
                figure=drawn(hem.length, f"{name} hem"),
                piece=name,
                edge="hem",
            )
            words = f"centre {name}, on the fold" if on_fold else f"centre {name}"
            sheet.line(
                f"{name}_centre",
                words.capitalize(),
                centre,
                role="finished",
                figure=drawn(centre.length, f"centre {name}"),
                piece=name,
                edge=CENTRE[name],
            )
            balance = BalanceLine.across("waist", 0.0, notched=False), BalanceLine.across("hip", hip_depth.value)
            piece = Piece(name, f"Skirt {name}", edges, "", balance, "shell", "fold" if on_fold else "pair", CENTRE[name])
            pieces.append(table.home(piece))
            sheet.sum(f"{name} hem", drawn(hem.length, f"{name} hem"))
    hip, waist_measure = sheet.measure("hip").value, sheet.measure("waist").value
    least = _stride(sheet, hip, hip_depth.value, length.value)
    sheet.hand_over(
        pieces,
        table,
        seams=(front_to_back("side", "Side seam"), *middle_seams(pieces)),
        openings=openings,
        demands=(
            Girth("waist", "Waist", waist_measure, _waist_planned(sheet, laid), 1.5, GIRTH_SLACK, "waist"),
            Girth("hip", "Hip", hip, sheet.ease("hip").value, 3.0, GIRTH_SLACK),
            BodyPasses("hip", hip),
            *arc_demands(
                sheet,
                "front",
                laid[1].panel.lean,
                sheet.ease("waist").value / 2,
                sheet.ease("hip").value / 2 if sheet.choice("ease_place") == "even" else 0.0,
            ),
            Strides(least) if least is not None else None,
        ),
    )


def _waist_planned(sheet: Sheet, laid: tuple[Laid, Laid]) -> float | None:
    """The ease that was asked for at the waist, cm; None where a close knit is drawn in by elastic."""
    asked = sheet.ease("waist").value
    wide = 2 * sum(panel.panel.waist.value - panel.panel.darts.value for panel in laid)
    return None if is_close(sheet) and wide > sheet.measure("waist").value + asked + GIRTH_SLACK else asked


def _stride(sheet: Sheet, hip: float, hip_depth: float, length: float) -> float | None:
    """The girth a hem of this length should have to walk in, cm: the hip at hip level, growing evenly to the floor."""
    height, floor = sheet.chart.get("height"), sheet.chart.get("waist_floor")
    if height is None:
        return None
    floor = floor or 0.635 * height
    at_floor = max(STRIDE * height, hip)
    return hip + (at_floor - hip) * min(1.0, max(0.0, (length - hip_depth) / (floor - hip_depth)))


METHOD = register(
    Method(
        "skirt.two_panel",
        "Two-panel skirt block",
        "Skirts",
        "A back and a front from four measures; forgiving, and the start of a dozen designs.",
        (
            Need("waist", "the width at the top"),
            Need("hip", "the width of the whole block"),
            Need("waist_hip", "the height of the hip line and the depth of the darts"),
            Need("waist_knee", "the length, unless another is set", "length"),
        ),
        OPTIONS,
        EASE,
        draw,
        rules=3,
        earlier=(1, 2),
    )
)
