"""The two schools of trousers: frame and crease line."""

from __future__ import annotations

from collections.abc import Sequence

from widehem.core.drafting.belly import arcs_of
from widehem.core.drafting.knit import is_close
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.trousers import MENDS, School, draw
from widehem.core.drafting.methods.trousers_legs import cut_at, full_length
from widehem.core.drafting.methods.trousers_options import SEAT, SEAT_LEAN, ease, options
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.trousers import Places, Rise
from widehem.core.geometry.points import Point
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say

HIP_USUAL = 20.5
WAIST_MORE = {"quarters": 0.0, "front": 0.25, "back": -0.25}  # cm that a front panel is wider at the waist than a quarter
BAND_FRAME, BAND_CREASE = 0.6, 0.5  # cm of each panel that is eased into the band
BETWEEN = 3.2  # cm between two front darts of the frame
INSIDE = 0.6  # cm inside the frame's side from which the crease is halved


def _rise(sheet: Sheet, knee: Quantity | None) -> Rise:
    """Levels below the waist. knee: where it is measured; None puts it between crotch and hem."""
    hip, crotch = sheet.measure("waist_hip"), (sheet.measure("crotch_depth") + sheet.length("rise")).called("crotch line")
    length, full = sheet.length("length"), full_length(sheet)
    with sheet.step("Levels", "Waist, hip, crotch, knee and hem across the crease of both legs."):
        if hip >= crotch:
            raise CannotDraft(
                ("waist_hip", "crotch_depth"),
                say(
                    "The hip line at {0} would lie under the crotch at {1u}: read waist to hip and crotch depth again.",
                    hip.value,
                    crotch.value,
                ),
            )
        middle = knee or (full - ((full - crotch) / 2 + 6)).called("knee line")
        wide = sheet.choice("leg") == "wide"
        if not wide and not crotch.value + 4 < middle.value < full.value - 4:
            raise CannotDraft(
                ("waist_knee", "crotch_depth") if knee else ("crotch_depth",),
                say(
                    "The knee at {0} does not lie between crotch {1} and hem {2u}: make the trousers longer, or take a wide "
                    "leg.",
                    middle.value,
                    crotch.value,
                    full.value,
                ),
            )
        if length.value < crotch.value + 5:
            raise CannotDraft(
                ("crotch_depth",),
                say(
                    "Length {0} ends less than {1} below the crotch at {2u}: make the trousers longer.",
                    length.value,
                    5.0,
                    crotch.value,
                ),
            )
        sheet.sum("hip line", hip)
        sheet.sum("crotch line", crotch)
        if not wide:
            sheet.sum("knee line", middle)
        sheet.sum("length", length)
    cut = cut_at(sheet, crotch.value, middle.value)
    return Rise(hip.value, crotch.value, middle.value, length.value if cut is None else full.value, hip.value, cut)


def _dart_length(sheet: Sheet, usual: float) -> float:
    return usual * sheet.measure("waist_hip").value / HIP_USUAL


def _finished(sheet: Sheet, band: float, *, behind: bool = False) -> Quantity:
    """The waist of a panel: a quarter, or what the arc of the front gives it, with what is eased into the band."""
    arc, waist, ease = arcs_of(sheet).waist, sheet.measure("waist"), sheet.ease("waist")
    if arc is None:
        more = WAIST_MORE[sheet.choice("waist_shares")]
        shared = ((waist + ease) / 4 + band).called("waist, to sew")
        return (shared + (-more if behind else more)).called("waist, to sew") if more else shared
    half = (waist / 2 - arc).called("half the back waist") if behind else arc
    return (half + ease / 4 + band).called("waist, to sew")


def _around(sheet: Sheet) -> Quantity:
    """The hip the forks go by: of the body, or of a close knit that is smaller."""
    hip = sheet.measure("hip")
    return (hip + sheet.ease("hip")).called("hip, close") if is_close(sheet) else hip


def _width(sheet: Sheet, less: float, title: str) -> Quantity:
    """The front at the hip: a quarter less so much, or by its arc."""
    arc, ease = arcs_of(sheet).hip, sheet.ease("hip")
    found = sheet.measure("hip") / 4 + ease / 4 if arc is None else arc + ease / 4
    return (found - less if less and arc is None else found).called(title)


def _rest(sheet: Sheet, front: Quantity, title: str) -> Quantity:
    """The back at the hip, by the arc: what the front leaves of it."""
    return ((sheet.measure("hip") + sheet.ease("hip")) / 2 - front).called(title)


def _darts(sheet: Sheet, usual: float, width: Quantity, finished: Quantity, quarter: float) -> float:
    """What the darts of a panel take by default, cm: the school's figure, and what it has to lose more or less than its quarter
    had. quarter: width less waist of the school's own."""
    return max(usual + width.value - finished.value - quarter, 0.0) if arcs_of(sheet).read else usual


def _frame_places_front(sheet: Sheet) -> Places:
    span = sheet.chart.get("bust_span")

    def places(guide: float, number: int, each: float) -> Sequence[tuple[float, float]]:
        at = min(span / 2, guide / 2) if span is not None else guide / 2
        if number < 2:
            return [(at, 9.0)][:number]
        apart = each + BETWEEN
        first = max(min(at, guide - 2.0 - each / 2 - apart * (number - 1)), 2.0 + each / 2)
        return [(first + apart * n, 9.0) for n in range(number)]

    return places


def frame_front(sheet: Sheet, rise: Rise) -> School:
    width, fork = _width(sheet, 0.0, "frame"), _front_fork(sheet, "hip")
    crease = ((width + fork + INSIDE) / 2).called("side to crease")
    finished = _finished(sheet, BAND_FRAME)
    darts = _darts(sheet, 2.5, width, finished, _quarter(sheet, 0.0, BAND_FRAME))
    for name, figure in (("frame", width), ("front fork", fork), ("side to crease", crease)):
        sheet.sum(name, figure)
    centre = width.value - crease.value
    return School(
        width, (width + fork - crease).called("crease to fork"), -crease.value, centre, Point(centre, 0.0), finished, darts, 1,
        _frame_places_front(sheet), 0.6,
    )  # fmt: skip


def frame_back(sheet: Sheet, rise: Rise) -> School:
    hip, waist = sheet.measure("hip"), sheet.measure("waist")
    width, fork = _width(sheet, 0.0, "frame"), _back_fork(sheet, "hip")
    width = _rest(sheet, width, "frame") if arcs_of(sheet).hip is not None else width
    finished = _finished(sheet, BAND_FRAME, behind=True)
    darts = _darts(sheet, 4.0, width, finished, _quarter(sheet, 0.0, BAND_FRAME))
    crease = ((width + fork + INSIDE) / 2).called("side to crease")
    lean = max(min(SEAT_LEAN[sheet.choice("seat")], (hip.value - waist.value) / 10 + 1.2), 1.0)
    for name, figure in (("frame", width), ("back fork", fork), ("side to crease", crease)):
        sheet.sum(name, figure)
    sheet.sum("centre back leans in and up", Quantity(lean, "lean"))
    centre = width.value - crease.value
    long, short = _dart_length(sheet, 12.0), _dart_length(sheet, 11.0)

    def places(guide: float, number: int, each: float) -> Sequence[tuple[float, float]]:
        return [(guide * (n + 1) / (number + 1), long if n == 0 else short) for n in range(number)]

    return School(
        width, (width + fork - crease).called("crease to fork"), -crease.value, centre, Point(centre - lean, -lean),
            finished, darts, 2, places,
    )  # fmt: skip


def _front_fork(sheet: Sheet, own: str) -> Quantity:
    """How far the front fork lies beyond the centre, by a school. own: the one of the method."""
    school = sheet.choice("fork")
    if (own if school == "own" else school) == "hip":
        return (_around(sheet) / 16).called("front fork")
    return (_crease_width(sheet) / 6).called("front fork")


def _back_fork(sheet: Sheet, own: str) -> Quantity:
    """How far the back fork lies beyond the centre."""
    school = sheet.choice("fork")
    if (own if school == "own" else school) == "hip":
        return (_around(sheet) / 8).called("back fork")
    return (_crease_width(sheet) / 6 + _around(sheet) / 20 + 2).called("back fork")


def _quarter(sheet: Sheet, more: float, band: float) -> float:
    """What a panel of the school's own width would have to lose, cm. more: than a quarter of the hip."""
    eased = (sheet.ease("hip").value - sheet.ease("waist").value) / 4
    return (sheet.measure("hip").value - sheet.measure("waist").value) / 4 + eased + more - band


def _crease_width(sheet: Sheet) -> Quantity:
    return _width(sheet, 1.0, "front width")


def crease_front(sheet: Sheet, rise: Rise) -> School:
    width = _crease_width(sheet)
    corner = width.value * 5 / 12
    fork = (width * (5 / 12) + _front_fork(sheet, "width")).called("crease to fork")
    sheet.sum("front width", width)
    sheet.sum("crease to fork", fork)
    deep = _dart_length(sheet, 10.0)

    def places(guide: float, number: int, each: float) -> Sequence[tuple[float, float]]:
        apart = max(3.0, each + 1.5)
        first = max(min(corner, guide - 2.0 - each / 2 - apart * (number - 1)), 2.0 + each / 2)
        return [(first + apart * n, deep) for n in range(number)]

    finished = _finished(sheet, BAND_CREASE)
    darts = _darts(sheet, 2.0, width, finished, _quarter(sheet, -1.0, BAND_CREASE))
    return School(width, fork, -width.value * 7 / 12, corner, Point(corner, 0.0), finished, darts, 1, places, 0.8)


def crease_back(sheet: Sheet, rise: Rise) -> School:
    hip, waist, front = sheet.measure("hip"), sheet.measure("waist"), _crease_width(sheet)
    width = (front + 2).called("back width") if arcs_of(sheet).hip is None else _rest(sheet, front, "back width")
    finished = _finished(sheet, BAND_CREASE, behind=True)
    darts = _darts(sheet, 3.0, width, finished, _quarter(sheet, 1.0, BAND_CREASE))
    corner = front.value * 5 / 12
    lean = max(2.0, min(6.0, (hip.value - waist.value) / 10 + 2.5))
    way = Point(-lean, -rise.crotch).unit()  # up the centre back
    through = Point(corner - lean, 0.0)
    top = through + way * (hip.value / 30)
    centre = corner - lean * (rise.crotch - rise.hip) / rise.crotch
    fork = (front * (5 / 12) + _back_fork(sheet, "width")).called("crease to fork")
    sheet.sum("back width", width)
    sheet.sum("centre back leans in", Quantity(lean, "lean"))
    sheet.sum("crease to fork", fork)
    deep, place = _dart_length(sheet, 14.0), hip.value / 12

    def places(guide: float, number: int, each: float) -> Sequence[tuple[float, float]]:
        if number == 1:
            return [(min(place, guide / 2), deep)]
        return [(guide * (n + 1) / (number + 1), deep - n) for n in range(number)]

    return School(width, fork, centre - width.value, centre, top, finished, darts, 1, places)


def _draw_frame(sheet: Sheet) -> None:
    draw(sheet, frame_front, frame_back, _rise(sheet, sheet.measure("waist_knee")))


def _draw_crease(sheet: Sheet) -> None:
    draw(sheet, crease_front, crease_back, _rise(sheet, None))


NEEDS = (
    Need("waist", "the width at the top"),
    Need("hip", "the width of both panels and the length of the forks"),
    Need("waist_hip", "the height of the hip line"),
    Need("crotch_depth", "the height of the crotch line"),
    Need("knee", "the width at the knee", "knee_girth"),
    Need("ankle", "what the foot passes", "hem_girth"),
    Need("waist_floor", "the length, unless another is set", "length"),
)
FRAME = register(
    Method(
        "trousers.frame", "Frame trousers", "Trousers",
        "A frame a quarter of the hip wide with the fork added; plain to draw, roomy in the seat.",
        (*NEEDS, Need("waist_knee", "the height of the knee line")), options(1.0, SEAT), ease(4.0, 1.3), _draw_frame,
            rules=4, earlier=(1, 2, 3), mends=MENDS,
    )
)  # fmt: skip
CREASE = register(
    Method(
        "trousers.crease", "Crease-line trousers", "Trousers",
        "Both legs balanced on the crease, the back laid over the front: hangs clean and presses to a straight crease.",
        NEEDS, options(1.5), ease(6.0, 2.0), _draw_crease, rules=4, earlier=(1, 2, 3), mends=MENDS,
    )
)  # fmt: skip
