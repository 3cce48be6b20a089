"""What a school of drafting means for this very body, in plain words."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from widehem.core.body.chart import Chart
from widehem.core.setting.registry import Registry
from widehem.core.units import Saying, say

Rule = Callable[[Chart], Iterator[Saying]]
ADVICE: Registry[tuple[str, Rule]] = Registry("advice")

CUP_MARKED, CUP_FULL = 6.0, 10.0  # cm, bust over high bust
HIP_MARKED, JERSEY_NECK, SLIGHT, SMALL_CUP, FULL_SEAT = 8.0, 4.5, 4.0, 10.0, 28.0  # cm
WAIST_MARKED = 24.0  # cm, bust over waist


def about(*methods: str) -> Callable[[Rule], Rule]:
    """Register a rule for these methods."""

    def keep(rule: Rule) -> Rule:
        for method in methods:
            ADVICE.add(f"{method}: {rule.__name__}", (method, rule))
        return rule

    return keep


def advice(method: str, chart: Chart) -> tuple[Saying, ...]:
    """Everything that is to be said about a method on this body; nothing where the measures are not read."""
    return tuple(saying for code, rule in ADVICE.values() if code == method for saying in rule(chart))


def _cup(chart: Chart) -> float | None:
    bust, high = chart.get("bust"), chart.get("high_bust")
    return None if bust is None or high is None else bust - high


@about("bodice.proportional")
def from_the_full_bust(chart: Chart) -> Iterator[Saying]:
    cup = _cup(chart)
    usual = chart.table.bust_difference
    if cup is not None and cup > usual + 2:
        yield say(
            "Bust is {0} over high bust: a block drawn from the full bust alone will be wide in the neck and shoulder.", cup
        )
    elif cup is not None and cup < usual - 2:
        yield say(
            "Bust is only {0} over high bust, where the table thinks of {1u}: the bust dart will be too large.", cup, usual
        )
    elif cup is not None:
        yield say("Bust is {0} over high bust, near what the table thinks of.", cup)


@about("bodice.plain")
def without_a_dart(chart: Chart) -> Iterator[Saying]:
    cup = _cup(chart)
    front, back = chart.get("snp_waist_front"), chart.get("snp_waist_back")
    if cup is not None and cup > CUP_MARKED:
        yield say(
            "Bust is {0} over high bust: without a dart it stays as a fold at the armhole, and the hem rises in front.", cup
        )
    elif cup is not None:
        yield say("Bust is {0} over high bust: little fullness to lose, a plain bodice hangs well.", cup)
    if front is not None and back is not None and front - back > 2:
        yield say("The front is {0} longer than the back; a plain bodice can keep only {1u} of that.", front - back, 2.0)


@about("bodice.measured", "bodice.cup_wedge")
def for_the_cup(chart: Chart) -> Iterator[Saying]:
    cup = _cup(chart)
    if cup is not None and cup <= 1:
        yield say("Bust is {0} over high bust: there will hardly be a bust dart.", cup)
    elif cup is not None:
        yield say(
            "Bust is {0} over high bust: neck and shoulder are drawn for the high bust, the dart is computed from the rest.",
            cup,
        )


@about("bodice.measured")
def one_dart_or_two(chart: Chart) -> Iterator[Saying]:
    cup = _cup(chart)
    if cup is not None and cup > CUP_FULL:
        yield say("That is much for one dart: share it between shoulder and waist.")


@about("bodice.cup_wedge")
def side_dart(chart: Chart) -> Iterator[Saying]:
    bust, waist = chart.get("bust"), chart.get("waist")
    if bust is not None and waist is not None and bust - waist > WAIST_MARKED:
        yield say(
            "Bust is {0} over the waist: the front waist darts get wide here; the measured bodice shares that better.",
            bust - waist,
        )


@about("skirt.two_panel")
def hip_over_waist(chart: Chart) -> Iterator[Saying]:
    hip, waist = chart.get("hip"), chart.get("waist")
    if hip is None or waist is None:
        return
    if waist > hip:
        yield say("Waist is {0} over the hip: no darts, the sides lean out.", waist - hip)
    elif 14 <= hip - waist <= 28:
        yield say("Hip is {0} over the waist: fixed darts suit.", hip - waist)
    else:
        yield say("Hip is {0} over the waist: the darts are shared out.", hip - waist)


@about("top.jersey")
def pulled_on(chart: Chart) -> Iterator[Saying]:
    bust, hip = chart.get("bust"), chart.get("hip")
    if bust is not None and hip is not None and hip > bust + HIP_MARKED:
        yield say("Hip is {0} over bust: a straight top would stand tight there, let its side out to the hip.", hip - bust)
    head, neck = chart.get("head"), chart.get("neck")
    if head is not None and neck is not None and head > 1.3 * (neck + JERSEY_NECK):
        yield say("Head {0} over a neckline of about {1u}: widen the neck, or take a knit that gives more than 30 per cent.",
            head, neck + JERSEY_NECK)  # fmt: skip


@about("gown.seam_shaped")
def shaped_in_seams(chart: Chart) -> Iterator[Saying]:
    cup = _cup(chart)
    if cup is not None and cup > CUP_FULL:
        yield say("Bust is {0} over high bust: without a dart the front armhole comes out long and must be eased.", cup)
    elif cup is not None and cup < SLIGHT:
        yield say("Bust is {0} over high bust: the seams may be almost straight.", cup)
    waist, high, hip = chart.get("waist"), chart.get("high_hip"), chart.get("hip")
    if waist is not None and high is not None and hip is not None and high - waist > 0.8 * (hip - waist) > 0:
        yield say("The high hip is {0} over the waist already: it asks for more flare than the hip does.", high - waist)


@about("bodice.contour")
def by_the_difference(chart: Chart) -> Iterator[Saying]:
    bust, under = chart.get("bust"), chart.get("under_bust")
    if bust is None or under is None:
        return
    if bust - under < SMALL_CUP:
        yield say("Bust is {0} over under bust: the panel line takes little, and boning must hold it up.", bust - under)
    else:
        yield say("Bust is {0} over under bust: that decides the panel line, not the girth of {1u}.", bust - under, bust)


@about("coat.straight")
def boxy(chart: Chart) -> Iterator[Saying]:
    bust, waist = chart.get("bust"), chart.get("waist")
    front, back = chart.get("snp_waist_front"), chart.get("snp_waist_back")
    if bust is not None and waist is not None:
        if waist + 10 > bust + 12:
            yield say("Waist {0} asks for more than the bust: the coat is drawn for the waist.", waist)
        elif bust - waist < 12:
            yield say("Bust is only {0} over the waist: no front dart.", bust - waist)
    if front is not None and back is not None and front - back > 4:
        yield say("The front is {0} longer than the back: what the shoulder cannot take goes into a side dart.", front - back)


@about("trousers.frame", "trousers.crease", "suit.one_piece")
def seat(chart: Chart) -> Iterator[Saying]:
    waist, hip = chart.get("waist"), chart.get("hip")
    if waist is None or hip is None:
        return
    if waist > hip:
        yield say("Waist is {0} over the hip: read the hip over the belly; no darts, the sides lean out.", waist - hip)
    elif hip - waist > FULL_SEAT:
        yield say("Hip is {0} over the waist: a full seat, two darts behind.", hip - waist)
    else:
        yield say("Hip is {0} over the waist.", hip - waist)


@about("trousers.frame")
def roomy(chart: Chart) -> Iterator[Saying]:
    yield say("Roomy in the seat, good for work and for wide legs.")


@about("trousers.crease")
def clean(chart: Chart) -> Iterator[Saying]:
    yield say("Hangs clean and presses to a straight crease.")


@about("suit.one_piece")
def closed(chart: Chart) -> Iterator[Saying]:
    yield say("Needs an opening from the neck to the crotch, and room in the length to sit: {0u} is added.", 5.0)


@about("sleeve.pivot", "sleeve.s_head")
def for_its_own(chart: Chart) -> Iterator[Saying]:
    arm = chart.get("upper_arm")
    if arm is not None:
        yield say("Made for its own kind of armhole; the arm is {0u} round.", arm)
