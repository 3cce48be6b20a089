"""The one-piece suit: a darted bodice and trousers of the same wearer joined, without a waist seam."""

from __future__ import annotations

from dataclasses import dataclass, replace

from widehem.core.drafting.finished import show_edges, show_inside
from widehem.core.drafting.method import METHODS, Draft, Method, Need, draft, register
from widehem.core.drafting.methods import suit_join as joins
from widehem.core.drafting.methods.bodice_options import DART_PLACE, NECK_SHAPE
from widehem.core.drafting.methods.suit_join import Laid
from widehem.core.drafting.methods.trousers_options import CROTCH, LEG, LEGS, SEAT, length_of_leg
from widehem.core.drafting.option import Choice, Mend, Option, Value
from widehem.core.drafting.quantity import Quantity, drawn
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.block import Block, EdgeName, Level, Opening, PitchNotch, Seam
from widehem.core.pattern.piece import Edge, Piece
from widehem.core.units import say

APART, UP = 14.0, 8.0  # cm between both halves, and that the nape lies below the top of the sheet
CORNER_SAID = 4.0
NOTCH_PART = 2 / 3  # of the crotch depth: where the crotch notch lies, and the opening ends
SLACK = 0.3

BODICE = Option(
    "bodice", "Bodice", "choice", "measured", "any darted one of the same wearer",
    choices=(Choice("measured", "Darted, measured", "drawn for the high bust"), Choice("proportional", "Darted, proportional", "by the figure table"), Choice("cup_wedge", "Cup wedge", "with a side dart")),
)  # fmt: skip
TROUSERS = Option(
    "trousers", "Trousers", "choice", "crease", "either school",
    choices=(Choice("crease", "Crease line", "balanced on the crease"), Choice("frame", "Frame", "roomy in the seat")),
)  # fmt: skip
GAP = Option("gap", "Gap at the side and in front", "length", 2.0, "between both waists; 2 is the least to sit and to reach", 1.0, 6.0, 0.5)  # fmt: skip
GAP_BACK = Option("gap_back", "Gap at the centre back", "length", 3.0, "between both waists; 3 is the least to sit and to reach", 1.0, 8.0, 0.5)  # fmt: skip
SECOND = Option(
    "second_dart", "Second back dart", "choice", "sewn", "where there are two",
    choices=(Choice("sewn", "Sewn", "close at the waist"), Choice("unsewn", "Left as ease", "the waist moves when the wearer does")),
)  # fmt: skip
OPENING = Option(
    "opening_at", "Opening", "choice", "centre_front", "from the neck to the crotch notch, or the wearer cannot get in",
    choices=(Choice("centre_front", "Centre front", "the wearer closes it alone"), Choice("centre_back", "Centre back", "hidden; somebody must help"), Choice("none", "None", "only to look at")),
)  # fmt: skip
OPTIONS = (BODICE, TROUSERS, GAP, GAP_BACK, DART_PLACE, NECK_SHAPE, LEG, LEGS, length_of_leg(), SEAT, CROTCH, SECOND, OPENING)
EASE = (
    Option("bust", "Bust ease", "length", 6.0, "whole round; to breathe and to move", 0.0, 20.0, 0.5, least=4.0),
    Option("waist", "Waist ease", "length", 3.0, "whole round, of both parts before they are joined", 0.0, 6.0, 0.5, least=1.5),
    Option("hip", "Hip ease", "length", 6.0, "whole round; to sit down and to climb a stair", 2.0, 20.0, 0.5, least=3.0),
    Option("across_back", "Across back ease", "length", 1.0, "whole width; to bring the arms forward", 0.0, 8.0, 0.25),
    Option("depth", "Armhole depth ease", "length", 2.0, "the armhole lies this far below the arm", 0.0, 6.0, 0.25),
)  # fmt: skip


@dataclass(frozen=True)
class Joined:
    """A half of the suit. wide: at the waist with its darts sewn, cm."""

    piece: Piece
    laid: Laid
    wide: float


def draw(sheet: Sheet) -> None:
    """Both halves, step by step."""
    bodice, trousers = _parts(sheet)
    table = _apart(bodice, trousers)
    lower = {name: trousers.block.piece(name).moved(table.of(name)) for name in ("front", "back")}
    gap, behind = sheet.length("gap"), sheet.length("gap_back")
    with sheet.step(
        "Front",
        "The centre front of the trousers is carried straight up and the bodice set on it, apart by the gap at the side.",
    ):
        front = joins.above_front(bodice.block.piece("front"), lower["front"], gap.value)
        sheet.sum("gap at the side", gap)
        sheet.sum("gap at the centre front", drawn(front.gap, "gap at the centre front"))
        _show_parts(sheet, "front", front.bodice, lower["front"])
    with sheet.step("Back", "The centre back is carried on upwards; the bodice is turned about its waist point on that line until the sides are as far apart as in front."):  # fmt: skip
        side = joins.waist_of(front, lower["front"], joins.LOWERED).side.length
        back = joins.back_with_side(
            bodice.block.piece("back"), lower["back"], gap.value, behind.value, side, unsewn=_unsewn(sheet)
        )
        sheet.sum("gap at the centre back", behind)
        sheet.sum("corner at the centre back, degrees", Quantity(round(back.corner, 1), plain=True, source="constant"))
        _show_parts(sheet, "back", back.bodice, lower["back"])
        if back.corner > CORNER_SAID:
            sheet.note(say(f"At the centre back bodice and trousers meet at {back.corner:.1f} degrees, more than {CORNER_SAID:g}: it is rubbed round over {{0}} each way; look at it in the toile.", joins.BLEND))  # fmt: skip
    with sheet.step("Waist and darts", "Darts above and below become one long diamond, widest midway between both waists; the side runs over the point between both side waists."):  # fmt: skip
        halves = [_join(sheet, laid, lower[name], name) for name, laid in (("back", back), ("front", front))]
        waist = 2 * sum(half.wide for half in halves)
        sheet.sum("waist as joined, whole round", drawn(waist, "waist as joined, whole round"))
    _finish(sheet, bodice, trousers, halves, waist)


def _parts(sheet: Sheet) -> tuple[Draft, Draft]:
    """Bodice and trousers, drafted with these settings."""
    chart = sheet.chart
    with sheet.step("Bodice and trousers", "Both are drafted first, for the same wearer and with the same ease at the waist."):
        upper: dict[str, Value] = {code: sheet.choice(code) for code in ("dart_place", "neck_shape")}
        method = METHODS[f"bodice.{sheet.choice('bodice')}"]
        known = {option.code for option in method.options}
        ease = {option.code: sheet.ease(option.code).value for option in method.ease if option.code in sheet.ease_plan}
        bodice = draft(method, chart, {code: value for code, value in upper.items() if code in known}, ease)
        legs: dict[str, Value] = {code: sheet.choice(code) for code in ("leg", "legs", "seat", "crotch")}
        length = sheet.options["length"]
        if not isinstance(length, Quantity | str):
            legs["length"] = length
        method = METHODS[f"trousers.{sheet.choice('trousers')}"]
        known = {option.code for option in method.options}
        eased = {code: sheet.ease(code).value for code in ("waist", "hip")}
        trousers = draft(method, chart, {code: value for code, value in legs.items() if code in known}, eased)
        for made in (bodice, trousers):
            for level in made.block.levels[:2]:
                name = f"{made.method.name.lower()}, {level.title.lower()}"
                sheet.sum(name, drawn(level.body + level.planned, name))
            for note in made.notes:
                sheet.note(note)
    return bodice, trousers


def _apart(bodice: Draft, trousers: Draft) -> Table:
    """Front and back laid apart: with the bodice above they may overlap on paper."""
    corners = {
        (part, piece.name): [end for edge in piece.edges for end in (edge.start, edge.end)]
        for part, made in (("bodice", bodice), ("trousers", trousers))
        for piece in made.block.pieces
    }
    back, front = (trousers.block.piece(name).edge("waist").start.x for name in ("back", "front"))
    wide = max(_wide(corners["bodice", "back"]), max(end.x for end in corners["trousers", "back"]) - back)
    before = max(_wide(corners["bodice", "front"]), front - min(end.x for end in corners["trousers", "front"]))
    top = max(end.y for end in corners["bodice", "back"]) + UP
    return Table({"back": as_drawn(0.0, top), "front": as_drawn(back + wide + APART + before - front, top)})


def _wide(ends: list[Point]) -> float:
    return max(end.x for end in ends) - min(end.x for end in ends)


def _show_parts(sheet: Sheet, name: str, bodice: Piece, trousers: Piece) -> None:
    """Both parts as they are laid."""
    for part, piece in (("bodice", bodice), ("trousers", trousers)):
        for edge in piece.edges:
            for number, path in enumerate(edge.parts, 1):
                sheet.line(
                    f"{name}_{part}_{edge.name}_{number}",
                    f"{part.capitalize()} {name}, {edge.name.replace('_', ' ')}",
                    path,
                    piece=name,
                    step=1 if part == "trousers" else 0,
                )


def _unsewn(sheet: Sheet) -> bool:
    return sheet.choice("second_dart") == "unsewn"


def _join(sheet: Sheet, laid: Laid, trousers: Piece, name: str) -> Joined:
    behind = name == "back"
    waist = joins.waist_of(laid, trousers, 0.0 if behind else joins.LOWERED, unsewn=behind and _unsewn(sheet))
    middle, diamonds = waist.middle, waist.diamonds
    for diamond in diamonds:
        axis = Path.through(diamond.top, diamond.bottom)
        sheet.line(f"{name}_{diamond.name}_axis", f"{name.capitalize()} dart, from point to point", axis, figure=drawn(diamond.intake, f"{name} dart takes"), piece=name)  # fmt: skip
        sheet.line(
            f"{name}_{diamond.name}_width",
            f"{name.capitalize()} dart, widest",
            Path.through(diamond.inner, diamond.outer),
            piece=name,
        )
    sheet.point(
        f"{name}_side_middle",
        f"{name.capitalize()} side, between both waists",
        middle,
        "M" if name == "back" else "N",
        piece=name,
    )
    centre, crotch = joins.centre_and_crotch(laid, trousers, f"centre_{name}")
    opened = sheet.choice("opening_at") == f"centre_{name}"
    bodice = laid.bodice
    edges = (
        Edge(f"centre_{name}", (centre,), (), "opening" if opened else "seam"),
        Edge("crotch", (crotch,), (), "seam", True),
        Edge("inseam", (trousers.edge("inseam").parts[0].reverse(),)),
        Edge("hem", (trousers.edge("hem").parts[0].reverse(),), (), "hem"),
        waist.side,
        *(bodice.edge(edge) for edge in ("armhole", "shoulder", "neck")),
    )
    at_centre = centre.place(centre.length - laid.gap / 2).point
    stops = [at_centre.x, *(spot.x for diamond in diamonds for spot in (diamond.inner, diamond.outer)), middle.x]
    stretches = tuple((Point(a, middle.y), Point(b, middle.y)) for a, b in zip(stops[::2], stops[1::2], strict=True))
    levels = {
        "bust": bodice.edge("armhole").start.y,
        "waist": middle.y,
        **{k: y for k, y in trousers.levels.items() if k != "waist"},
    }
    spans = {**trousers.spans, "bust": bodice.spans["bust"], "waist": stretches}
    piece = Piece(name, f"Suit {name}", edges, levels, "pair", f"centre_{name}", spans, trousers.grain, diamonds)
    return Joined(piece, laid, piece.span("waist"))


def _finish(sheet: Sheet, bodice: Draft, trousers: Draft, halves: list[Joined], waist: float) -> None:
    pieces = [half.piece for half in halves]
    with sheet.step("Pieces", "Sides and centre back rubbed round where the parts meet; everything else as it was."):
        for piece in pieces:
            show_edges(sheet, piece, [edge.name for edge in piece.edges], {"side": "side seam", "crotch": "crotch seam"})
            show_inside(sheet, piece)
        sheet.rub_out(*(mark.name for mark in sheet.marks if mark.role == "construction" and mark.kind == "line"))
        letters = iter("ABCDEF")
        for piece in pieces:
            for title, edge in (("Neck at the centre", piece.centre), ("Underarm", "armhole"), ("Fork", "inseam")):
                sheet.point(f"{piece.name}_{title.lower().replace(' ', '_')}", f"{piece.name.capitalize()} {title.lower()}", piece.edge(edge).start, next(letters), piece=piece.name)  # fmt: skip
        for piece in pieces:
            sheet.sum(f"{piece.name} side seam", drawn(piece.edge("side").length, f"{piece.name} side seam"))
    body = sheet.measure("waist").value
    sheet.note(
        say(
            "Without a waist seam the waist comes out at {0}, {1u} more than the body: it hangs looser than a bodice with a seam.",
            waist,
            waist - body,
        )
    )
    sheet.block = _block(sheet, bodice.block, trousers.block, pieces, waist)


def _block(sheet: Sheet, bodice: Block, trousers: Block, pieces: list[Piece], waist: float) -> Block:
    by = {piece.name: piece for piece in pieces}
    depth = sheet.measure("crotch_depth").value
    down = depth * NOTCH_PART
    pitch = [notch for notch in bodice.pitch if notch.edge == "armhole"]
    for notch in trousers.pitch:
        if notch.edge == "side":
            whole = trousers.piece(notch.piece).edge("side").length
            pitch.append(replace(notch, along=whole - notch.along))
        elif notch.what == "crotch":
            whole = trousers.piece(notch.piece).edge("crotch").length
            pitch.append(replace(notch, along=whole - notch.along))
    at = sheet.choice("opening_at")
    opened = by["back" if at == "centre_back" else "front"]
    reach = opened.edge(opened.centre).length + down
    if at != "none":
        pitch.append(PitchNotch(opened.name, "crotch", down, "opening end"))
    levels = [level for level in bodice.levels if level.name == "bust"]
    levels.append(Level("waist", "Waist", sheet.measure("waist").value, waist - sheet.measure("waist").value, 1.5, SLACK))
    levels += [level for level in trousers.levels if level.name != "waist"]
    shoulder = next(seam for seam in bodice.seams if seam.name == "shoulder")
    inseam = next(seam for seam in trousers.seams if seam.name == "inseam")
    return Block(
        tuple(pieces),
        (Seam("side", "Side seam", (EdgeName("back", "side"),), (EdgeName("front", "side"),)), shoulder, inseam),
        tuple(levels),
        Opening.named(at, reach),
        armhole=bodice.armhole, neck=bodice.neck, armscye=bodice.armscye, pitch=tuple(pitch), fork=trousers.fork,
        head=sheet.chart.get("head"), reach=reach, seat=sheet.length("gap").value + sheet.length("gap_back").value,
    )  # fmt: skip


def _needs() -> tuple[Need, ...]:
    """What both parts need."""
    found = {need.measure: need for code in ("bodice.measured", "trousers.crease") for need in METHODS[code].needs}
    return tuple(need for need in found.values() if need.unless in ("", "length"))


METHOD = register(
    Method(
        "suit.one_piece", "One-piece suit", "Whole garments",
        "A darted bodice and trousers joined without a waist seam, with room in the length to sit and reach.",
        (*_needs(), Need("knee", "the width at the knee"), Need("ankle", "what the foot passes")), OPTIONS, EASE, draw,
        mends={
            "crotch.seam": (Mend("Make the crotch seam by the measure", "crotch", "measured"),),
            "opening.reach": (Mend("Open the centre front", "opening_at", "centre_front"),),
            "seat.length": (Mend("Gap of 3 cm in front and at the side", "gap", "3 cm"), Mend("Gap of 4 cm behind", "gap_back", "4 cm")),
        },
        has_armhole=True,
    )
)  # fmt: skip
