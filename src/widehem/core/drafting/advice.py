"""What a school of drafting means for this very body, in plain words."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from widehem.core.body.chart import Chart
from widehem.core.units import Saying, say

Rule = Callable[[Chart], Iterator[Saying]]
_RULES: dict[str, list[Rule]] = {}

CUP_MARKED, CUP_FULL = 6.0, 10.0  # cm, bust over high bust
WAIST_MARKED = 24.0  # cm, bust over waist


def about(*methods: str) -> Callable[[Rule], Rule]:
    """Register a rule for these methods."""

    def keep(rule: Rule) -> Rule:
        for method in methods:
            _RULES.setdefault(method, []).append(rule)
        return rule

    return keep


def advice(method: str, chart: Chart) -> tuple[Saying, ...]:
    """Everything that is to be said about a method on this body; nothing where the measures are not read."""
    return tuple(saying for rule in _RULES.get(method, ()) for saying in rule(chart))


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
