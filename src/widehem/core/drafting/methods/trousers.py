"""Trousers by two schools: the frame, a box a quarter of the hip wide with the fork added, and the crease line, both legs
balanced on it.

What differs between them stands in a School; legs, crotch, waist, and how the back is made to agree with the front, are the
same.
"""

from __future__ import annotations

from collections.abc import Callable

from widehem.core.drafting.belly import Lean, arcs_of, lean_of, say_belly
from widehem.core.drafting.knit import is_close
from widehem.core.drafting.methods.trousers_legs import settle_legs, straight_to_hem
from widehem.core.drafting.methods.trousers_pieces import crotch_of, finish
from widehem.core.drafting.methods.trousers_sewn import CROTCH_LEAST, CROTCH_MOST, crotch_wanted, stretched
from widehem.core.drafting.sheet import Sheet
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
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_length
from widehem.core.pattern.checks.darts import MORE_IN_FRONT
from widehem.core.pattern.roles import BACK_CROTCH_RADIUS, ROLES
from widehem.core.setting.option import Mend
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record, replace

DROP_LEAST, DROP_MOST = -2.0, 6.0
CLOSE_OUT_MOST = 8.0  # cm that the side of a close knit leans out
CROTCH_MEND = 2.0  # cm
FORK_DIPS = 14.0  # degrees that the front crotch still falls at the fork
EARLIER, OVER_HIP = 5.0, 0.2  # cm that the back curve starts above the front's, at most so far above the hip line
CROTCH_RADIUS = {"front": ROLES["crotch"].radius, "back": BACK_CROTCH_RADIUS}
ROUND_HIGH, OVER_HIP_MOST = (
    1.0,
    2.0,
)  # of the front fork, so high its curve starts above it; so far above the hip line at most, cm
HIP_NEAR = 0.01  # cm
PASSES = 0.25  # cm that half an elastic waist is wider than half the hip at least
ELASTIC = Shares()


UPRIGHT_CENTRE = Lean()


@record(frozen=True)
class School:
    """What a school gives a panel, cm. width: at the hip. fork: x of the fork tip; side, centre: x of side and centre at the
    hip.

    top: the waist point on the centre line; up: how far the front's side waist point lies above the waist line. darts,
    number: what they take by default; lean: how the centre front lies over a belly. places: where they lie on the guide and
    how long they are.
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
    lean: Lean = UPRIGHT_CENTRE


Lay = Callable[[Sheet, Rise], School]


def draw(sheet: Sheet, front_by: Lay, back_by: Lay, rise: Rise) -> None:
    """Both panels, step by step; again with a wider front waist where its darts would be larger than the back's. rise: as far
    as
    it is known; where the crotch curve starts follows from the front."""
    tops = _drawn(sheet, front_by, back_by, rise, 0.0)
    more = tops[0].shares.total - tops[1].shares.total
    usual = sheet.choice("waist_shares") == "quarters" and sheet.choice("waistline") != "elastic"
    if sheet.rules < 4 or more <= MORE_IN_FRONT or arcs_of(sheet).read or not usual:
        return
    sheet.begin_again()
    _drawn(sheet, front_by, back_by, rise, more / 2)
    sheet.note(
        say(
            "The front waist is {0u} wider than a quarter, the back narrower: its darts would be larger than the back's.",
            more / 2,
        )
    )


def _drawn(sheet: Sheet, front_by: Lay, back_by: Lay, rise: Rise, wider: float) -> tuple[Top, Top]:
    """Both panels, step by step. wider: so much of the waist goes from the back to the front, cm."""
    settle_legs(sheet, rise)
    with sheet.step(
        "Front frame", "A quarter of the hip with its ease; the fork lies beyond the centre front. The crease is the middle."
    ):
        school = leaning(sheet, _with_waist(front_by(sheet, rise), wider))
        reach = school.fork.value - school.centre
        highest = rise.hip - (OVER_HIP if sheet.rules > 1 else 0.0)
        if sheet.rules > 3:  # a hip line low down leaves no room for the round
            highest = min(highest, max(rise.crotch - ROUND_HIGH * reach, rise.hip - OVER_HIP_MOST))
        rise = replace(rise, start=max(rise.crotch - reach - 2, highest))
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
        behind = _with_waist(back_by(sheet, rise), -wider)
    change = _crotch_change(sheet, rise, behind, front, front_top)
    back, back_top = _back(sheet, rise, behind, front, front_top, change)
    finish(sheet, rise, (front, front_top), (back, back_top), 2 * (school.finished.value + behind.finished.value), school.lean)
    return front_top, back_top


def _with_waist(school: School, wider: float) -> School:
    return replace(school, finished=(school.finished + wider).called("waist, to sew")) if wider else school


def _darts(sheet: Sheet) -> str:
    """How many waist darts: none in a close knit, unless the maker says so."""
    choice = sheet.choice("waist_darts")
    return "none" if choice == "auto" and is_close(sheet) else choice


def leaning(sheet: Sheet, school: School) -> School:
    """The front with its centre leaning out over a belly, where the arcs say so."""
    lean = Lean()
    if arcs_of(sheet).read and sheet.choice("waistline") != "elastic":
        lean = lean_of(school.finished.value - school.width.value)
    if not lean.tilt:
        return school
    say_belly(sheet, lean)
    return replace(school, top=Point(school.centre + lean.tilt, -lean.raised), lean=lean)


def _panel(sheet: Sheet, name: str, rise: Rise, school: School, fork_down: float = 0.0, change: float = 0.0) -> Panel:
    """The panel of a school. fork_down: how far the fork is dropped; change: how much longer centre and fork are made, cm."""
    part, low = ((-0.5 if name == "front" else 0.5) * sheet.length(code).value for code in ("spread", "hem_spread"))
    centre, top = Point(school.centre, rise.hip), school.top
    dips = None
    if sheet.rules > 1:
        dips = FORK_DIPS if name == "front" else -FORK_DIPS
        if name == "back":
            rise = replace(rise, start=max(rise.start - EARLIER, rise.hip - OVER_HIP))
    if change:
        top = top + (top - centre).unit() * change
    panel = Panel(
        name, rise, Point(school.side, rise.hip), centre, top, Point(school.fork.value + change, rise.crotch + fork_down),
        sheet.length("knee_girth").value / 4 + part, sheet.length("hem_girth").value / 4 + low, straight_to_hem(sheet, rise), dips,
        CROTCH_RADIUS[name] if sheet.rules > 3 else None,
    )  # fmt: skip
    if sheet.rules < 4 or panel.crotch is None or rise.start >= rise.hip:
        return panel
    at_hip = panel.crotch.at_level(rise.hip)  # the round begins above the hip: what it gives there the side takes back
    given = at_hip.x - centre.x if at_hip is not None else 0.0
    return replace(panel, side_hip=panel.side_hip + Point(given, 0.0)) if given > HIP_NEAR else panel


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
    loss = school.width.value - school.finished.value + school.lean.tilt
    shares = share_waist(loss, school.darts, school.number, _darts(sheet))
    _say_leaning(sheet, "front", loss)
    return lay_top(front, school.finished.value, shares, school.places, level_with(front, school.up))


def _drawn_in(school: School) -> float:
    """The waist of a panel that is drawn in by elastic: as wide as the hip, and never tighter than a band."""
    return max(school.width.value, school.finished.value)


def _elastic_back(sheet: Sheet, school: School, front: Panel, back: Panel) -> float:
    """The back waist that is drawn in by elastic, cm: the centre leans, and the side stays plumb, as far as the whole still
    passes
    the hip."""
    whole = _drawn_in(school)
    if sheet.rules < 4:
        return whole
    plumb = back.centre_top.x - back.side_hip.x
    passes = sheet.measure("hip").value / 2 + PASSES - (front.centre_hip.x - front.side_hip.x)
    return max(min(whole, plumb), min(passes, whole), school.finished.value)


def _say_leaning(sheet: Sheet, name: str, loss: float) -> None:
    waist, hip = (sheet.measure(code).value for code in ("waist", "hip"))
    most = CLOSE_OUT_MOST if is_close(sheet) else OUT_MOST
    if loss < -most:
        raise CannotDraft(
            ("waist", "hip"),
            say(f"The {name} side would lean out by {{0}}, over {{1u}}: waist {{2}} is much larger than hip {{3u}}. Read the "
                f"hip over the belly.", -loss, most, waist, hip),
        )  # fmt: skip
    if loss < -OUT_SAID:
        words = say("Waist {0} is larger than hip {1u}: read the hip over the belly.", waist, hip)
        if words not in sheet.notes:  # both sides may lean: it is said once
            sheet.note(words)


def _back(sheet: Sheet, rise: Rise, school: School, front: Panel, front_top: Top, change: float) -> tuple[Panel, Top]:
    """The back: its fork dropped until the inseam is right, its side point moved until the side seam is, its darts until
    nothing moves."""
    short = front.inseam.length - stretched(rise)

    def inseam(up: float) -> float:
        return _panel(sheet, "back", rise, school, -up, change).inseam.length

    lowest = DROP_MOST + 2 if rise.cut is None else min(rise.cut - rise.crotch - 0.5, DROP_MOST + 2)
    up = solve_length(inseam, short, -lowest, -DROP_LEAST + 2, near=NEAR)
    if up is None or not DROP_LEAST <= -up <= DROP_MOST:
        raise CannotDraft(
            ("hip", "knee", "inside_leg"),
            say(
                "The back fork would have to drop by more than {0} or rise by more than {1u} to make the inseams agree: "
                + ("give another hem girth." if front.wide else "read hip and knee again, or give another knee girth."),
                DROP_MOST, -DROP_LEAST,
            ),
        )  # fmt: skip
    back = _panel(sheet, "back", rise, school, -up, change)
    _refuse_leg(sheet, back)
    side = front_top.side.length
    if sheet.choice("waistline") == "elastic":
        return back, lay_top(back, _elastic_back(sheet, school, front, back), ELASTIC, school.places, side_as_long(back, side))
    shares = share_waist(school.width.value - school.finished.value - (back.centre_hip.x - back.centre_top.x), school.darts,
        school.number, _darts(sheet))  # fmt: skip
    for _ in range(20):
        top = lay_top(back, school.finished.value, shares, school.places, side_as_long(back, side))
        loss = shares.total + top.side_waist.x - back.side_hip.x
        again = share_waist(loss, school.darts, school.number, _darts(sheet))
        if abs(again.total - shares.total) < 0.01 and again.number == shares.number:
            break
        shares = again
    _say_leaning(sheet, "back", loss)
    return back, top


def _crotch_change(sheet: Sheet, rise: Rise, school: School, front: Panel, front_top: Top) -> float:
    """How much centre back and back fork are to be longer each, so that the crotch seam is as measured, cm."""
    body, read = crotch_wanted(sheet)
    if sheet.choice("crotch") != "measured" or not read:
        return 0.0
    back, _ = _back(sheet, rise, school, front, front_top, 0.0)
    lacking = body + (CROTCH_LEAST + CROTCH_MOST) / 2 - crotch_of(front).length - crotch_of(back).length
    change = max(-CROTCH_MEND, min(CROTCH_MEND, lacking / 2))
    sheet.note(say("By the measured crotch length the centre back and the back fork are changed by {0s} each.", change))
    return change


def _waist_sums(sheet: Sheet, panel: Panel, school: School, top: Top) -> None:
    sheet.sum("waist, to sew", school.finished)
    if top.shares.number:
        sheet.sum("darts take", drawn(top.shares.total, "darts take"))
    sheet.sum("side takes", drawn(top.side_waist.x - panel.side_hip.x, "side takes"))
    sheet.sum("waist, sewn", drawn(top.sewn, f"{panel.name} waist, sewn"))


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
