"""The bare-shoulder contour bodice: close above and below the bust, shaped by a panel line over the bust point."""

from __future__ import annotations

from widehem.core.drafting.bodice import middle_seams, sewn
from widehem.core.drafting.finished import show_edges, show_inside, show_levels, show_lightly
from widehem.core.drafting.knit import CLOSEST, is_close
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.bodice_contour_back import LAP, LAP_IN, arc_of, back_piece, bust_level
from widehem.core.drafting.methods.bodice_contour_shape import (
    CLEAR,
    CLOSE_FIRST,
    CLOSE_TO_WAIST,
    HEM_RISE,
    LEFT_AT_HIP,
    RISES_AT,
    Heights,
    above_intake,
    between,
    cut_at_hem,
    longer_at_end,
    longer_at_start,
    onto_way,
    panel_edge,
    rise,
    rubbed_round,
    shared,
    under_intake,
)
from widehem.core.drafting.methods.bodice_contour_side import Front, natural_side, side_of
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.upper import DOWN
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.checks.shapes import HemRises
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import OPENING_WORDS, Seam
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Choice, Option
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import replace

APART = 6.0
# edges by the step that draws them
PENCIL: dict[str, dict[int, tuple[str, ...]]] = {
    "back": {4: ("centre_back", "hem", "side", "top")},
    "side_front": {3: ("side",), 5: ("panel",), 6: ("armhole", "top", "hem")},
    "front": {3: ("centre_front",), 5: ("panel",), 6: ("top", "hem")},
}
UNDER_BELOW, TOP_ABOVE = 3.0, 4.0
LOWERED_MOST = 3.0  # cm that the back may begin lower to be as long as the front
DART_FROM = 1.0  # cm of difference between front and back length from which the side has a dart
SIDE_OFF = 1.0  # cm that the side may leave the line from bust to hip
HEART = 4.5
SLACK = 0.3
BUST_NEAR, BUST_FAR = 0.05, 12.0  # cm
UNDER_ARM = 0.1  # cm below a front underarm that lies lower than the bust: there the girth is measured

OPTIONS = (
    Option("top", "Top edge below the side neck point", "length", 12.0, "where the front begins", 10.0, 16.0, 0.5),
    Option("neckline", "Neckline", "choice", "straight", "of the front",
        choices=(Choice("straight", "Straight", "level across"), Choice("heart", "Heart", "{4.5} lower at the centre"))),
    Option("back_top", "Back top below the underarm", "length", 2.0, "how low the back lies at its centre", 0.0, 12.0, 0.5),
    Option("length", "Length below the waist", "length", None, "at the centre; to the hip unless another is set", 3.0, 40.0,
        0.5, worked=lambda on: on["waist_hip"], uses=("waist_hip",)),
    Option("back", "Back", "choice", "shaped", "how much the centre back goes in",
        choices=(Choice("shaped", "Hollow", "a third of what is to be lost, at most {2.5}"),
            Choice("flat", "Flat", "straight down"))),
    Option("opening_at", "Opening", "choice", "centre_back", "along its whole length",
        choices=(Choice("centre_back", "Centre back", "laced, hooked or with a zip"),
            Choice("centre_front", "Centre front", "with a busk or hooks"))),
    Option("lap", "Lap at the centre back", "choice", "none", "for hooks or buttons, where the opening is there",
        choices=(Choice("none", "None", "edge to edge: laced, or with a zip"),
            Choice("lap", "A lap", "{3.8} on both sides, of which {1.3} is turned in"))),
)  # fmt: skip
EASE = (
    Option("bust", "Bust ease", "length", 0.0, "whole round, given to the sides; none in what is boned or gives", CLOSEST, 12.0,
        0.5),
    Option("waist", "Waist ease", "length", 0.0, "whole round; tight lacing takes some away", CLOSEST, 12.0, 0.5),
    Option("hip", "Hip ease", "length", 0.0, "whole round", CLOSEST, 20.0, 0.5),
)  # fmt: skip


def draw(sheet: Sheet) -> None:
    """Back, front and side front, step by step."""
    heights, dart = _heights(sheet)
    front = _front(sheet, heights)
    with sheet.step(
        "Back",
        "What the front does not hold. The centre goes in by a third of what is to be lost at the waist, then a dart; the "
        "rest goes to the side.",
    ):
        back, side, sums = back_piece(sheet, heights)
        short = side.length - natural_side(front, heights, dart)
        if short > 0.05:  # the front is never raised, it would cut: the back begins lower
            heights = replace(heights, back_under=heights.back_under + min(short, LOWERED_MOST))
            back, side, sums = back_piece(sheet, heights)
        for name, quantity in sums:
            sheet.sum(name, quantity)
    front = _with_its_bust(sheet, front, heights, dart, back, side.length)
    pieces = _front_pieces(sheet, front, heights, dart, side.length)
    right = max(front.bust, front.hip)
    wide = back.bounds[2]
    middle = wide + APART + right - front.line
    # the centre panel lies at the right, its centre line outermost
    table = Table(
        {
            "back": as_drawn(),
            "side_front": turned_over(middle + APART / 2 + front.line),
            "front": turned_over(middle + APART + 2 + front.line),
        }
    )
    _finish(sheet, [back, *pieces], table, heights)


def _with_its_bust(sheet: Sheet, front: Front, heights: Heights, dart: float, back: Piece, side: float) -> Front:
    """The front a little wider or narrower at the bust, so that the whole comes out as planned once panel and dart are
    rubbed round."""
    if sheet.rules < 3:
        return front
    wanted = sheet.measure("bust").value + sheet.ease("bust").value
    for _ in range(2):
        pieces = _front_pieces(sheet.scratch(), front, heights, dart, side)
        off = 2 * sum(piece.across("bust") for piece in (back, *pieces)) - wanted
        if abs(off) < BUST_NEAR or (sheet.rules > 3 and abs(off) > BUST_FAR):  # so far out it is not a matter of width
            break
        front = replace(front, bust=front.bust - off / 2)
    return front


def _heights(sheet: Sheet) -> tuple[Heights, float]:
    """The levels, and what the side dart takes."""
    nape = sheet.measure("nape_waist")
    with sheet.step(
        "Levels",
        "Down from the nape; the front is longer than the back by what the bust needs, and that becomes the side dart.",
    ):
        snp = (nape - sheet.measure("snp_waist_front")).called("front side neck point")
        bust, under = (
            (snp + sheet.measure("bust_depth")).called("bust level"),
            (snp + sheet.measure("snp_under_bust")).called("under the bust"),
        )
        top = (snp + sheet.length("top")).called("top edge")
        hip = (nape + sheet.measure("waist_hip")).called("hip level")
        if sheet.chart.get("armscye_depth") is not None:
            back_under = sheet.measure("armscye_depth").called("back underarm")
        else:
            back_under = (sheet.measure("bust") / 6 + 6.3 - 1.5).called("back underarm")
        dart = (sheet.measure("snp_waist_front") - sheet.measure("snp_waist_back")).called("side dart")
        taken = dart.value if dart.value >= DART_FROM else 0.0
        front_under = (back_under - taken).called("front underarm")
        for figure in (top, bust, under, back_under, dart, front_under, hip):
            sheet.sum(figure.name, figure)
        if under.value < bust.value + UNDER_BELOW:
            raise CannotDraft(
                ("snp_under_bust", "bust_depth"),
                say("Under the bust lies {0} below the bust level; {1u} is the least: read side neck to under bust and bust "
                    "depth again.", under.value - bust.value, UNDER_BELOW),
            )  # fmt: skip
        if under.value > nape.value - 1:
            raise CannotDraft(
                ("snp_under_bust", "snp_waist_front"),
                say("Under the bust at {0} does not lie above the waist at {1u}: read side neck to under bust and to the "
                    "waist again.", under.value, nape.value),
            )  # fmt: skip
        if top.value > front_under.value - TOP_ABOVE:
            raise CannotDraft(
                ("armscye_depth", "snp_waist_front"),
                say("The top edge lies {0} above the front underarm; {1u} is the least, or it cuts: begin it higher, or read "
                    "armscye depth and side neck to waist again.", front_under.value - top.value, TOP_ABOVE),
            )  # fmt: skip
    hem = nape.value + sheet.length("length").value
    close = CLOSE_TO_WAIST if sheet.rules > 2 else CLOSE_FIRST
    return Heights(
        top.value,
        bust.value,
        under.value,
        nape.value,
        hip.value,
        hem,
        back_under.value,
        front_under.value,
        close,
        sheet.rules > 3,
        HEM_RISE * min(1.0, sheet.measure("hip").value / RISES_AT) if sheet.rules > 3 else HEM_RISE,
    ), taken


def _front(sheet: Sheet, heights: Heights) -> Front:
    bust, hip = sheet.measure("bust"), sheet.measure("hip")
    with sheet.step(
        "Intake",
        "By the difference between bust and under bust, not by the girth: a wide ribcage with a small cup needs a small dart.",
    ):
        difference = (bust - sheet.measure("under_bust")).called("bust over under bust")
        if difference.value < 0:
            raise CannotDraft(
                ("bust", "under_bust"),
                say("Under bust {0} is larger than bust {1u}: read both again.", bust.value - difference.value, bust.value),
            )
        takes = under_intake(difference.value)
        above = above_intake(difference.value)
        clear = min(CLEAR, above, shared(takes)[0])
        sheet.sum("bust over under bust", difference)
        sheet.sum("intake under the bust", Quantity(takes, "intake under the bust"))
        sheet.sum("intake above it, each side", Quantity(above, "intake above it"))
    with sheet.step(
        "Front widths",
        "Half of the front arc at the bust; below, what the body is and what the panel line takes. The side stays near a "
        "straight line.",
    ):
        at_bust = (arc_of(sheet, "bust") / 2 + 2 * clear + sheet.ease("bust") / 4).called("front at the bust")
        at_hip = (hip / 4 + 2 * min(LEFT_AT_HIP, clear) + sheet.ease("hip") / 4).called("front at the hip")
        net_under = sheet.measure("under_bust").value / 4
        net_waist = arc_of(sheet, "waist").value / 2 + sheet.ease("waist").value / 4

        def straight(y: float) -> float:
            return at_bust.value + (at_hip.value - at_bust.value) * (y - heights.bust) / (heights.hip - heights.bust)

        widths = []
        for net, y in ((net_under, heights.under_bust), (net_waist, heights.waist)):
            middle = straight(y)
            widths.append(max(min(net + takes, middle + SIDE_OFF), middle - SIDE_OFF, net))
        under, at_waist = widths[0] - net_under, widths[1] - net_waist
        sheet.sum("front at the bust", at_bust)
        sheet.sum("front at the hip", at_hip)
        sheet.sum("intake under the bust", drawn(under, "intake under the bust"))
        sheet.sum("intake at the waist", drawn(at_waist, "intake at the waist"))
        if abs(under - takes) > 0.3 or abs(at_waist - takes) > 0.3:
            sheet.note(
                say(
                    "The panel line takes {0} under the bust and {1u} at the waist, so that the side stays straight.",
                    under,
                    at_waist,
                )
            )
    line = sheet.measure("bust_span").value / 2
    strap = sheet.measure("strap_to_strap").value / 2 + 2 * above
    if strap > at_bust.value - 1:
        raise CannotDraft(
            ("strap_to_strap", "bust_front"),
            say("The strap point at {0} lies outside the underarm at {1u}: read strap to strap and the front arc of the bust "
                "again.", strap, at_bust.value),
        )  # fmt: skip
    if strap < line + above + 0.5:
        raise CannotDraft(("strap_to_strap", "bust_span"), say("The strap point at {0} lies inside the panel line at {1u}: "
            "read strap to strap and bust span again.", strap, line))  # fmt: skip
    return Front(line, clear, above, (under, at_waist), at_bust.value, widths[0], widths[1], at_hip.value)


def _front_pieces(sheet: Sheet, front: Front, heights: Heights, dart: float, side_length: float) -> list[Piece]:
    """Side front with its dart shut, and the centre panel."""
    left = min(LEFT_AT_HIP, front.clear)
    under, waist = shared(front.takes[0]), shared(front.takes[1])
    edges = {}
    for hand, index in ((-1.0, 0), (1.0, 1)):
        edges[hand] = panel_edge(front.line, hand, (front.above, front.clear, under[index], waist[index], left), heights,
            even=sheet.rules > 1)  # fmt: skip
    hem_panel = heights.hem - rise(front.line / front.hip, heights.hem_rise)
    with sheet.step(
        "Panel edges",
        "Plumb past the bust point, clear of it, and plumb again under the bust; then both edges are made equally long above "
        "and below.",
    ):
        upper = {hand: path for hand, (path, _) in edges.items()}
        lower = {hand: cut_at_hem(path, hem_panel) for hand, (_, path) in edges.items()}
        for parts, lengthen, words in ((upper, longer_at_start, "above the bust"), (lower, longer_at_end, "below the bust")):
            longest = max(path.length for path in parts.values())
            sheet.sum(
                f"edges {words} differed by", drawn(longest - min(path.length for path in parts.values()), f"differed {words}")
            )
            for hand, path in parts.items():
                parts[hand] = lengthen(path, longest - path.length)
    strap = Point(sheet.measure("strap_to_strap").value / 2 + 2 * front.above, heights.top)
    armpit, shut, side = side_of(front, heights, dart, upper[1.0].end, side_length)
    drop, wide = armpit.y - strap.y, armpit.x - strap.x
    hole = Path((curve_between(strap, DOWN, armpit, Point(1.0, 0.0), drop / 2, wide / 2),))
    with sheet.step(
        "Side dart, armhole and neckline",
        "The side dart is shut by turning what lies above it about the bust point; so the front side becomes as long as the "
        "back.",
    ):
        sheet.sum("side dart", drawn(dart, "side dart"))
        heart = HEART if sheet.choice("neckline") == "heart" else 0.0
        top = Point(0.0, heights.top + heart)
        line = None
        if sheet.rules > 1:  # as the side front runs to it once the panel is sewn
            begins = upper[1.0].moved(shut)
            line = onto_way(begins.start - strap.moved(shut), begins.leaving, upper[-1.0].leaving)
        neck = _neckline(top, upper[-1.0], heart, line)
    opened = sheet.choice("opening_at") == "centre_front"
    centre_hem = Point(0.0, heights.hem)
    inner = lower[-1.0]
    inner_panel = upper[-1.0] + inner
    at_bust = upper[1.0].length
    inner_at = inner_panel.length - at_bust
    centre = (
        Edge("centre_front", (Path.through(top, centre_hem),), (), "opening" if opened else "fold"),
        Edge("hem", (between(centre_hem, DOWN, inner.end, inner.arriving),), (), "hem"),
        Edge("panel", (inner_panel.reverse(),), notches=(Notch("bust point", inner_at),)),
        Edge("top", (neck,), (), "seam", bool(heart), "neck"),
    )
    outer = lower[1.0]
    begin = upper[1.0].moved(shut)
    outer_panel = begin + outer
    if sheet.rules > 1:
        outer_panel, at_bust = rubbed_round(begin, outer, again=sheet.rules > 2)
    aside = (
        Edge("panel", (outer_panel,), notches=(Notch("bust point", at_bust),)),
        Edge("hem", (between(outer_panel.end, outer_panel.arriving, side.end, side.arriving),), (), "hem"),
        Edge("side", (side.reverse(),)),
        Edge("armhole", (hole.reverse().moved(shut),)),
        Edge("top", (Path.through(strap.moved(shut), begin.start),), role="neck"),
    )
    rows = [("waist", heights.waist)]
    if bust_level(sheet, heights) is not None:
        low = armpit.moved(shut).y + UNDER_ARM if sheet.rules > 3 else heights.bust
        rows.insert(0, ("bust", max(heights.bust, low)))
    if heights.hem > heights.hip + heights.hem_rise + 0.5:
        rows.append(("hip", heights.hip))
    balance = tuple(BalanceLine.across(level, y, notched=False) for level, y in rows)
    grain = Point(front.line + 3, heights.bust + 1), Point(front.line + 3, heights.waist + 2)
    marks = {
        "underarm": armpit.moved(shut),
        "bust_point": Point(front.line, heights.bust),
        "under_bust": Point(front.line, heights.under_bust),
    }
    return [
        Piece("side_front", "Bodice side front", aside, "front", balance, marks=marks, grain=grain),
        Piece("front", "Bodice front", centre, "", balance, stands="pair" if opened else "fold", middle="centre_front"),
    ]


def _neckline(top: Point, panel: Path, heart: float, way: Point | None) -> Path:
    """From the panel to the centre. way: in which it leaves the panel, where the side front runs on into it."""
    start = panel.start
    if not heart:
        return Path((curve_between(start, way or Point(-1.0, 0.0), top, Point(-1.0, 0.0)),))
    return Path(
        (curve_between(start, way or Point(-1.0, -0.15), top, Point(-0.35, 1.0), start.to(top) * 0.45, start.to(top) * 0.35),)
    )


def _finish(sheet: Sheet, pieces: list[Piece], table: Table, heights: Heights) -> None:
    laid = [table.laid(piece) for piece in pieces]
    with sheet.step("Pieces", "Back, side front and front; the hem rises to the side alike on both."):
        line = sheet.measure("bust_span").value / 2
        panel_line = Path.through(Point(line, heights.top), Point(line, heights.hem))
        sheet.line("panel_line", "Panel line", table.path("front", panel_line), piece="front", step=2)
        for piece in laid:
            show_levels(sheet, piece, dict.fromkeys(piece.levels, 1))
            for step, names in PENCIL[piece.name].items():
                show_lightly(sheet, piece, names, step)
            show_edges(sheet, piece, [edge.name for edge in piece.edges], {"panel": "panel edge", "top": "top edge"})
            show_inside(sheet, piece)
            letters = iter({"back": "AB", "side_front": "CD", "front": "EF"}[piece.name])
            for edge in (piece.edges[0], piece.edges[-1]):
                sheet.point(f"{piece.name}_{edge.name}", f"{piece.title}, start of the {edge.name.replace('_', ' ')}",
                    edge.start, next(letters), piece=piece.name)  # fmt: skip
        sheet.rub_out("panel_line")
        sheet.sum("panel edge", drawn(laid[2].edge("panel").length, "panel edge"))
        sheet.sum("side seam", drawn(laid[0].edge("side").length, "side seam"))
    girths = [
        Girth(name, name.capitalize(), sheet.measure(name).value, sheet.ease(name).value, 0.0, SLACK)
        for name in ("bust", "waist", "hip")
        if pieces[0].level(name) is not None
    ]
    if girths[0].name != "bust":
        sheet.note(say("The back begins below the bust: nothing goes round there, only bones hold the front."))
    if girths[-1].name != "hip" and heights.hem > heights.hip - 0.5:
        sheet.note(
            say(
                "The hem ends at the hip and rises to the sides: it goes nowhere straight round there, look at it in the toile."
            )
        )
    opened = sheet.choice("opening_at")
    sheet.hand_over(
        pieces,
        table,
        seams=(
            Seam("panel", "Panel seam", sewn("side_front", "panel"), sewn("front", "panel", back=True)),
            Seam("side", "Side seam", sewn("back", "side"), sewn("side_front", "side")),
            *middle_seams(pieces),
        ),
        demands=(*girths, HemRises(heights.hem_rise)),
        notions=(
            say(f"Lacing, hooks or an open zip for the {OPENING_WORDS[opened]}, {{0u}}",
                max(e.length for p in laid for e in p.edges if e.name == opened)),
            say("Bones along the panel and side seams and beside the opening, their tips capped"),
        ),
    )  # fmt: skip
    if is_close(sheet, "bust"):
        return
    sheet.note(say("No ease: for a boned bodice, or cloth with some give."))
    if opened == "centre_back" and sheet.choice("lap") == "lap":
        sheet.note(say("The centre back laps {0}; {1u} of it is turned in for the lining.", LAP, LAP_IN))


METHOD = register(
    Method(
        "bodice.contour", "Contour bodice", "Bodices",
        "Bare shoulders, close above and below the bust: shaped by a panel line over the bust point, by the difference of "
        "bust and under bust.",
        (
            Need("bust", "the width at the bust"),
            Need("under_bust", "what the panel line takes"),
            Need("waist", "the width at the waist"),
            Need("hip", "the width at the hem"),
            Need("waist_hip", "the height of the hip"),
            Need("nape_waist", "the height of the waist"),
            Need("bust_depth", "the height of the bust"),
            Need("snp_under_bust", "where the bust ends"),
            Need("snp_waist_front", "the length of the front"),
            Need("snp_waist_back", "the length of the back"),
            Need("bust_span", "where the panel line lies"),
            Need("strap_to_strap", "where the top edge ends"),
        ),
        OPTIONS, EASE, draw, rules=4, earlier=(1, 2, 3),
    )
)  # fmt: skip
