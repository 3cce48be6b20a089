"""The one-piece suit: a darted bodice and trousers of the same wearer joined, without a waist seam."""

from __future__ import annotations

from widehem.core.drafting.bodice import front_to_back, middle_seams
from widehem.core.drafting.common_options import KNIT, STRETCH
from widehem.core.drafting.finished import show_edges, show_inside
from widehem.core.drafting.knit import CLOSEST
from widehem.core.drafting.method import METHODS, Draft, Method, Need, register
from widehem.core.drafting.methods.bodice_options import DART_PLACE, NECK_SHAPE
from widehem.core.drafting.methods.suit_parts import GUSSET_SIDE, gusset, parts_of
from widehem.core.drafting.methods.trousers_options import CROTCH, LEG, LEGS, SEAT, length_of_leg
from widehem.core.drafting.methods.trousers_sewn import ELASTIC_LESS
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.body import Girth, asked_girths
from widehem.core.pattern.checks.held import NotchAt, OnTheBody
from widehem.core.pattern.checks.lower import CrotchSeam, KneeBends
from widehem.core.pattern.checks.through import FootPasses
from widehem.core.pattern.checks.upper import ArmholeOn, FrontInside, HeadPasses, NeckOn
from widehem.core.pattern.checks.whole import OpensTo, SitsAndReaches
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import EdgeRef, Garment, Opening, Seam
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Choice, Mend, Option
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.style import bodice_trousers as joins
from widehem.core.style.bodice_trousers import Even, Laid, Low
from widehem.core.style.joining import GAP, GAP_BACK, SECOND, TROUSERS
from widehem.core.units import Saying, say
from widehem.core.values import record, replace

APART, UP = 14.0, 8.0  # cm between both halves, and that the nape lies below the top of the sheet
CORNER_SAID = 4.0
NOTCH_PART = 2 / 3  # of the crotch depth: where the crotch notch lies, and the opening ends
SLACK = 0.3
CENTRE_MORE = 0.3  # cm that the gap at the centre front is more than at the side at least

BODICE = Option(
    "bodice", "Bodice", "choice", "measured", "any darted one of the same wearer",
    choices=(Choice("measured", "Darted, measured", "drawn for the high bust"),
        Choice("proportional", "Darted, proportional", "by the figure table"),
            Choice("cup_wedge", "Cup wedge", "with a side dart"), Choice("jersey", "Jersey top", "a knit without darts")),
)  # fmt: skip
OPENING = Option(
    "opening_at", "Opening", "choice", "centre_front", "from the neck to the crotch notch, or the wearer cannot get in",
    choices=(Choice("centre_front", "Centre front", "the wearer closes it alone"),
        Choice("centre_back", "Centre back", "hidden; somebody must help"), Choice("none", "None", "only to look at")),
)  # fmt: skip
WAIST = Option(
    "waist_seam", "Waist", "choice", "none", "whether the suit is cut there",
    choices=(
        Choice("none", "Without a seam", "long darts run over it; it hangs looser"),
        Choice("seam", "With a seam", "cut there, the darts sewn above and below; as much room in the length"),
        Choice("band", "With a band", "{3} high, out of the same room in the length"),
        Choice("elastic", "Elastic", "no darts; a casing inside draws it in"),
    ),
)  # fmt: skip
GUSSET = Option(
    "gusset", "Underarm gusset", "choice", "none", "to lift the arm without lifting the suit",
    choices=(Choice("none", "None", ""), Choice("diamond", "A diamond", "{9} on each side, set into side and underarm seams")),
)  # fmt: skip
OF_FRAME = (("trousers", ("frame",)),)
OPTIONS = (
    BODICE,
    TROUSERS,
    GAP,
    GAP_BACK,
    replace(DART_PLACE, before=((3, "shoulder"),)),
    NECK_SHAPE,
    LEG,
    LEGS,
    length_of_leg(),
    replace(SEAT, when=OF_FRAME),
    CROTCH,
    replace(SECOND, when=OF_FRAME),
    WAIST,
    GUSSET,
    OPENING,
    replace(STRETCH, group="cloth", when=(*KNIT, ("bodice", ("jersey",)))),
)
EASE = (
    Option("bust", "Bust ease", "length", 6.0, "whole round; to breathe and to move; less than 0 only in a knit", CLOSEST, 20.0, 0.5, least=4.0),
    Option("waist", "Waist ease", "length", 3.0, "whole round, of both parts before they are joined; less than 0 only in a knit", CLOSEST, 6.0, 0.5, least=1.5),
    Option("hip", "Hip ease", "length", 6.0, "whole round; to sit down and to climb a stair; less than 0 only in a knit", CLOSEST, 20.0, 0.5, least=3.0),
    Option("across_back", "Across back ease", "length", 1.0, "whole width; to bring the arms forward", 0.0, 8.0, 0.25),
    Option("depth", "Armhole depth ease", "length", 2.0, "the armhole lies this far below the arm", 0.0, 6.0, 0.25),
)  # fmt: skip


@record(frozen=True)
class Joined:
    """A half of the suit. wide: at the waist with its darts sewn, cm."""

    piece: Piece
    laid: Laid
    wide: float


def draw(sheet: Sheet) -> None:
    """Both halves, step by step."""
    bodice, trousers = parts_of(sheet, METHOD.rules)
    table = _apart(bodice, trousers)
    upper = {piece.name: piece for piece in bodice.laid}
    lower = {
        piece.name: piece.moved(table.of(piece.name).transform(trousers.table.of(piece.name)))
        for piece in trousers.garment.pieces
    }
    gap, behind = sheet.length("gap"), sheet.length("gap_back")
    with sheet.step(
        "Front",
        "The centre front of the trousers is carried straight up and the bodice set on it, apart by the gap at the side.",
    ):
        front = joins.above_front(upper["front"], lower["front"], gap.value)
        if sheet.rules > 3 and front.gap < gap.value + CENTRE_MORE:  # a dart in its waist lets the side hang low
            front = joins.above_front(upper["front"], lower["front"], 2 * gap.value + CENTRE_MORE - front.gap)
        sheet.sum("gap at the side", gap)
        sheet.sum("gap at the centre front", drawn(front.gap, "gap at the centre front"))
        _show_parts(sheet, "front", front.bodice, lower["front"])
    with sheet.step("Back", "The centre back is carried on upwards; the bodice is turned about its waist point on that line "
        "until the sides are as far apart as in front."):  # fmt: skip
        even = _even(sheet)
        side = joins.waist_of(front, lower["front"], joins.LOWERED, even=even).side.length
        back = joins.back_with_side(
            upper["back"], lower["back"], gap.value, behind.value, side, unsewn=_unsewn(sheet), even=even
        )
        sheet.sum("gap at the centre back", behind)
        sheet.sum("corner at the centre back, degrees", Quantity(round(back.corner, 1), plain=True, source="constant"))
        _show_parts(sheet, "back", back.bodice, lower["back"])
        if back.corner > CORNER_SAID:
            sheet.note(say(f"At the centre back bodice and trousers meet at {back.corner:.1f} degrees, more than "
                f"{CORNER_SAID:g}: it is rubbed round over {{0}} each way; look at it in the toile.", joins.BLEND))  # fmt: skip
    with sheet.step("Waist and darts", "Darts above and below become one long diamond, widest midway between both waists; "
        "the side runs over the point between both side waists."):  # fmt: skip
        halves = [_join(sheet, laid, lower[name], name) for name, laid in (("back", back), ("front", front))]
        waist = 2 * sum(half.wide for half in halves)
        sheet.sum("waist as joined, whole round", drawn(waist, "waist as joined, whole round"))
    _finish(sheet, bodice, trousers, halves, waist)


def _apart(bodice: Draft, trousers: Draft) -> Table:
    """Front and back laid apart: with the bodice above they may overlap on paper."""
    corners = {
        (part, piece.name): [made.table.spot(piece.name, end) for edge in piece.edges for end in (edge.start, edge.end)]
        for part, made in (("bodice", bodice), ("trousers", trousers))
        for piece in made.garment.pieces
    }
    at = {piece.name: trousers.table.spot(piece.name, piece.edge("waist").start).x for piece in trousers.garment.pieces}
    back, front = at["back"], at["front"]
    wide = max(_wide(corners["bodice", "back"]), max(end.x for end in corners["trousers", "back"]) - back)
    before = max(_wide(corners["bodice", "front"]), front - min(end.x for end in corners["trousers", "front"]))
    top = max(end.y for end in corners["bodice", "back"]) + UP
    return Table({"back": as_drawn(0.0, top), "front": as_drawn(back + wide + APART + before - front, top)})


def _wide(ends: list[Point]) -> float:
    return max(end.x for end in ends) - min(end.x for end in ends)


def _show_parts(sheet: Sheet, name: str, bodice: Piece | Low, trousers: Piece) -> None:
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


def _even(sheet: Sheet) -> Even:
    return "calm" if sheet.rules > 3 else "even" if sheet.rules > 2 else "first"


def _unsewn(sheet: Sheet) -> bool:
    return sheet.choice("second_dart") == "unsewn"


def _join(sheet: Sheet, laid: Laid, trousers: Piece, name: str) -> Joined:
    behind = name == "back"
    waist = joins.waist_of(
        laid, trousers, 0.0 if behind else joins.LOWERED, unsewn=behind and _unsewn(sheet), even=_even(sheet)
    )
    if sheet.choice("waist_seam") == "elastic":
        waist = replace(waist, diamonds=())
    diamonds = waist.diamonds
    along = waist.side.at_level(waist.middle.y)  # the side may run past the point between the waists, near by
    middle = waist.side.place(along).point if along is not None else waist.middle
    for diamond in diamonds:
        axis = Path.through(diamond.top, diamond.bottom)
        sheet.line(f"{name}_{diamond.name}_axis", f"{name.capitalize()} dart, from point to point", axis,
            figure=drawn(diamond.intake, f"{name} dart takes"), piece=name)  # fmt: skip
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
    opened = sheet.choice("opening_at") == f"centre_{name}"
    piece = joins.half(laid, trousers, waist, "opening" if opened else "seam")
    if opened:
        piece = piece.with_edge(_opened(piece.edge("crotch"), sheet.measure("crotch_depth").value * NOTCH_PART))
    return Joined(piece, laid, piece.across("waist"))


def _opened(crotch: Edge, reach: float) -> Edge:
    """The crotch seam with a notch where the opening ends that comes down from the neck."""
    notches = (*crotch.notches, Notch("opening end", reach))
    return replace(crotch, notches=tuple(sorted(notches, key=lambda notch: notch.along)))


def _finish(sheet: Sheet, bodice: Draft, trousers: Draft, halves: list[Joined], waist: float) -> None:
    pieces = [half.piece for half in halves]
    with sheet.step("Pieces", "Sides and centre back rubbed round where the parts meet; everything else as it was."):
        for piece in pieces:
            show_edges(sheet, piece, [edge.name for edge in piece.edges], {"side": "side seam", "crotch": "crotch seam"})
            show_inside(sheet, piece)
        sheet.rub_out(*(mark.name for mark in sheet.marks if mark.role == "construction" and mark.kind == "line"))
        letters = iter("ABCDEF")
        for piece in pieces:
            for title, edge in (("Neck at the centre", piece.middle), ("Underarm", "armhole"), ("Fork", "inseam")):
                sheet.point(f"{piece.name}_{title.lower().replace(' ', '_')}", f"{piece.name.capitalize()} {title.lower()}",
                    piece.edge(edge).start, next(letters), piece=piece.name)  # fmt: skip
        for piece in pieces:
            sheet.sum(f"{piece.name} side seam", drawn(piece.edge("side").length, f"{piece.name} side seam"))
    body = sheet.measure("waist").value
    if sheet.choice("waist_seam") == "elastic":
        sheet.note(say("The waist comes out at {0} and is drawn in by elastic, in a casing inside at its level.", waist))
    elif sheet.choice("waist_seam") == "none":
        sheet.note(_without_a_seam(waist, body))
    _hand_over(sheet, bodice, trousers, pieces, waist)


def _without_a_seam(waist: float, body: float) -> Saying:
    return say(
        "Without a waist seam the waist comes out at {0}, {1u} more than the body: it hangs looser than a bodice with a seam.",
        waist,
        waist - body,
    )


def _own_frames(pieces: list[Piece]) -> Table:
    """Each half in a frame of its own, x outwards from its centre at the neck: the back lies as it is drawn, the front turned
    over."""
    lay = {}
    for piece in pieces:
        neck = piece.edge(piece.middle).start
        outwards = piece.edge("side").start.x > neck.x
        lay[piece.name] = as_drawn(neck.x, neck.y) if outwards else turned_over(neck.x, neck.y)
    return Table(lay)


def _gusseted(side: Edge) -> Edge:
    """The side with a notch where the gusset ends."""
    notches = (*side.notches, Notch("gusset", side.length - GUSSET_SIDE))
    return replace(side, notches=tuple(sorted(notches, key=lambda notch: notch.along)))


def _around(garment: Garment, *edges: tuple[str, str]) -> float:
    return garment.length_of(EdgeRef(piece, edge) for piece, edge in edges)


def _hand_over(sheet: Sheet, bodice: Draft, trousers: Draft, laid: list[Piece], waist: float) -> None:
    table = _own_frames(laid)
    pieces = [table.home(piece) for piece in laid]
    extra: tuple[Piece, ...] = ()
    if sheet.choice("gusset") == "diamond":
        pieces = [piece.with_edge(_gusseted(piece.edge("side"))) for piece in pieces]
        extra = (gusset(),)
        right = max(piece.bounds[2] for piece in laid)
        table = table.with_piece("gusset", as_drawn(right + APART, laid[0].edge("armhole").start.y))
        show_edges(sheet, table.laid(extra[0]), [edge.name for edge in extra[0].edges], {})
        sheet.note(
            say("The upper {0} of the side seam and of the sleeve's underarm seam stay open for the gusset; stay the corners.",
                GUSSET_SIDE)
        )  # fmt: skip
    at, body = sheet.choice("opening_at"), sheet.measure("waist").value
    opened = next(piece for piece in pieces if piece.name == ("back" if at == "centre_back" else "front"))
    reach = opened.edge(opened.middle).length + sheet.measure("crotch_depth").value * NOTCH_PART
    head = sheet.chart.get("head")
    names = ("front", "back")
    round_body = _around(bodice.garment, *((name, f"centre_{name}") for name in names)) + _around(
        trousers.garment, *((name, "crotch") for name in names)
    )
    kept = [demand for demand in bodice.demands if isinstance(demand, NeckOn | ArmholeOn | FrontInside)]
    upper, lower = asked_girths(bodice.demands), asked_girths(trousers.demands)
    elastic = sheet.choice("waist_seam") == "elastic"
    sheet.hand_over(
        (*pieces, *extra),
        table,
        notions=(say("Elastic for the waist, about {0u}", body - ELASTIC_LESS),) if elastic else (),
        seams=(
            front_to_back("side", "Side seam"),
            *(
                seam
                for made, name in ((bodice, "shoulder"), (trousers, "inseam"))
                for seam in made.garment.seams
                if seam.name == name
            ),
            *middle_seams(pieces),
            *(Seam.to_its_mirror(f"crotch_{piece.name}", f"Crotch, {piece.name}", (piece.name, "crotch")) for piece in pieces),
        ),
        openings=Opening.named(at, reach),
        demands=(
            *(girth for girth in upper if girth.name == "bust"),
            Girth("waist", "Waist", body, None, 1.5, SLACK),
            *(girth for girth in lower if girth.name != "waist"),
            *kept,
            *(demand for demand in trousers.demands if isinstance(demand, CrotchSeam | KneeBends | FootPasses)),
            HeadPasses(head) if head is not None else None,
            OnTheBody.upper(*pieces, more=[(name, "crotch", "crotch.end") for name in names]),
            *(replace(d, end="start") for d in trousers.demands if isinstance(d, NotchAt) and d.name == "crotch"),
            *(d for d in bodice.demands if isinstance(d, NotchAt)),
            NotchAt(EdgeRef(opened.name, "crotch"), "opening end", 1, reach - opened.edge(opened.middle).length),
            OpensTo(reach),
            SitsAndReaches(round_body, tuple(EdgeRef(name, edge) for name in names for edge in (f"centre_{name}", "crotch"))),
        ),
    )


def _needs() -> tuple[Need, ...]:
    """What both parts need."""
    found = {need.measure: need for code in ("bodice.measured", "trousers.crease") for need in METHODS[code].needs}
    return tuple(need for need in found.values() if need.unless in ("", "length"))


METHOD = register(
    Method(
        "suit.one_piece", "One-piece suit", "Whole garments",
        "A darted bodice and trousers joined without a waist seam, with room in the length to sit and reach.",
        (*_needs(), Need("knee", "the width at the knee"), Need("ankle", "what the foot passes")), OPTIONS, EASE, draw,
        rules=4, earlier=(1, 2, 3), mends={
            "crotch.seam": (Mend("Make the crotch seam by the measure", "crotch", "measured"),),
            "opening.reach": (Mend("Open the centre front", "opening_at", "centre_front"),),
            "seat.length": (Mend("Gap of 3 cm in front and at the side", "gap", "3 cm"),
                Mend("Gap of 4 cm behind", "gap_back", "4 cm")),
        },
        has_armhole=True,
    )
)  # fmt: skip
