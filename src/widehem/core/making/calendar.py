"""The days of a production: back from the dress rehearsal, what of each garment must be done by when, what is late, what waits for whom."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from datetime import date, timedelta
from typing import Any, Literal

from widehem.core.values import record

Phase = Literal["measure", "paper", "toile", "toile_fitting", "cut", "sew", "fitting", "alter", "rehearsal"]
PHASES: Mapping[Phase, str] = {
    "measure": "Measured", "paper": "Paper", "toile": "Toile cut and sewn", "toile_fitting": "Fitting of the toile", "cut": "Cut in the cloth",
    "sew": "Made up", "fitting": "Fitting in the cloth", "alter": "Altered", "rehearsal": "Dress rehearsal",
}  # fmt: skip
TOILE_SHARE, CUT_SHARE = 0.35, 0.12  # of the hours of making that a toile takes, and cutting
PAPER_DAYS, ALTER_DAYS, FITTING_DAYS, ROUND_DAYS = 1, 1, 1, 1  # working days; between two rounds of a toile
MOST_ROUNDS, MOST_DAYS, MOST_HANDS = 6, 366, 60
DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


class CalendarError(ValueError):
    """Days that cannot be, in one sentence naming the field."""


@record(frozen=True)
class Plan:
    """How a production is planned. rehearsal: the day everything is worn, None where it is not known; rounds: fittings of a toile; hours:
    that one pair of hands sews in a day; hands: how many pairs there are; week: working days a week, from Monday; bought: what was ticked
    on the shopping list."""

    rehearsal: date | None = None
    opening: date | None = None
    rounds: int = 1
    hours: float = 6.0
    hands: int = 2
    week: int = 5
    bought: tuple[str, ...] = ()

    @staticmethod
    def from_data(data: Mapping[str, Any]) -> Plan:
        """Read back. Raises CalendarError for what cannot be."""
        try:
            days = [date.fromisoformat(str(data[name])) if data.get(name) else None for name in ("rehearsal", "opening")]
            found = Plan(
                days[0],
                days[1],
                int(data.get("rounds", 1)),
                float(data.get("hours", 6.0)),
                int(data.get("hands", 2)),
                int(data.get("week", 5)),
                tuple(str(name)[:200] for name in data.get("bought", ())),
            )
        except (TypeError, ValueError, OverflowError):
            raise CalendarError("The days of a production cannot be read.") from None
        return checked(found)

    def as_data(self) -> dict[str, Any]:
        """As plain data, without what is as usual."""
        data: dict[str, Any] = {
            name: day.isoformat() for name, day in (("rehearsal", self.rehearsal), ("opening", self.opening)) if day
        }
        usual = Plan()
        data |= {
            name: getattr(self, name)
            for name in ("rounds", "hours", "hands", "week")
            if getattr(self, name) != getattr(usual, name)
        }
        return {**data, **({"bought": list(self.bought)} if self.bought else {})}


def checked(plan: Plan) -> Plan:
    """A plan that can be. Raises CalendarError naming the field and the figure."""
    if not 0 <= plan.rounds <= MOST_ROUNDS:
        raise CalendarError(f"Fittings of a toile: {plan.rounds} cannot be: 0 to {MOST_ROUNDS}.")
    if not 0.5 <= plan.hours <= 16:
        raise CalendarError(f"Hours a day: {plan.hours:g} cannot be sewn: write 0.5 to 16.")
    if not 1 <= plan.hands <= MOST_HANDS:
        raise CalendarError(f"Pairs of hands: {plan.hands} cannot be: 1 to {MOST_HANDS}.")
    if not 1 <= plan.week <= 7:
        raise CalendarError(f"Working days a week: {plan.week} cannot be: 1 to 7.")
    if plan.opening and plan.rehearsal and plan.opening < plan.rehearsal:
        raise CalendarError(
            f"Opening: {plan.opening.isoformat()} is before the dress rehearsal on {plan.rehearsal.isoformat()}: change one of them."
        )
    if len(plan.bought) > 500:
        raise CalendarError("More is ticked as bought than can be.")
    return plan


@record(frozen=True)
class Garment:
    """A garment as the calendar sees it. due: its own day, None where it goes with the production; hours: of making, all of it; left: of
    them still to do; toile: whether one is made; done: phases that are done; waits: what it waits for, '' for nothing; missing: what is
    not there yet, with who has it: 'bust of Nell Askew'."""

    id: int
    name: str
    wearer: str
    due: date | None
    hours: float
    left: float
    toile: bool = False
    done: frozenset[Phase] = frozenset()
    waits: str = ""
    missing: str = ""


@record(frozen=True)
class Stretch:
    """A phase of a garment: the first and the last day of it; late: days it is over its end."""

    garment: int
    phase: Phase
    begin: date
    end: date
    done: bool
    late: int = 0

    @property
    def words(self) -> str:
        return PHASES[self.phase]


def is_work(day: date, week: int) -> bool:
    """Whether anybody works on a day."""
    return day.weekday() < week


def back(day: date, count: int, week: int) -> date:
    """So many working days before a day; the working day before it for 0 where it is none itself."""
    while not is_work(day, week):
        day -= timedelta(days=1)
    while count > 0:
        day -= timedelta(days=1)
        count -= is_work(day, week)
    return day


def working_days(begin: date, end: date, week: int) -> int:
    """How many working days lie after one day up to another; less than nothing when it is behind."""
    if end < begin:
        return -working_days(end, begin, week)
    whole, rest = divmod((end - begin).days, 7)
    return whole * week + sum(is_work(begin + timedelta(days=n + 1), week) for n in range(rest))


def phases_of(garment: Garment, plan: Plan) -> list[tuple[Phase, int]]:
    """The phases of a garment from the last back, each with the working days it takes."""
    sewing = max(math.ceil(garment.hours / plan.hours), 1)
    found: list[tuple[Phase, int]] = [("rehearsal", 1), ("alter", ALTER_DAYS), ("fitting", FITTING_DAYS), ("sew", sewing)]
    found.append(("cut", max(math.ceil(garment.hours * CUT_SHARE / plan.hours), 1)))
    if garment.toile:
        rounds = max(plan.rounds, 1)
        found.append(("toile_fitting", FITTING_DAYS * rounds + ROUND_DAYS * (rounds - 1)))
        found.append(("toile", max(math.ceil(garment.hours * TOILE_SHARE / plan.hours), 1)))
    return [*found, ("paper", PAPER_DAYS), ("measure", 1)]


def stretches(garment: Garment, plan: Plan, today: date) -> list[Stretch]:
    """The phases of a garment on their days, the first first; none where no day is known. What is not done by its end is late."""
    due = garment.due or plan.rehearsal
    if due is None:
        return []
    end, found = due, list[Stretch]()
    for phase, days in phases_of(garment, plan):
        last = end if phase == "rehearsal" else back(end, 0, plan.week)
        begin = last if days <= 1 else back(last, days - 1, plan.week)
        done = phase in garment.done
        late = 0 if done or today <= last else max(working_days(last, today, plan.week), 1)
        found.append(Stretch(garment.id, phase, begin, last, done, late))
        end = back(begin, 1, plan.week)
    return found[::-1]


@record(frozen=True)
class Late:
    """Something that is late or waits: the garment, the phase, by how many working days, and what it waits for, in words."""

    garment: Garment
    stretch: Stretch
    waits: str


def late(garments: Sequence[Garment], plan: Plan, today: date) -> list[Late]:
    """What is late, the latest first: of each garment its first phase that is not done and over its end."""
    found = []
    for garment in garments:
        first = next((row for row in stretches(garment, plan, today) if not row.done), None)
        if first is not None and first.late:
            found.append(
                Late(
                    garment,
                    first,
                    garment.missing if first.phase in ("measure", "paper") and garment.missing else garment.waits,
                )
            )
    return sorted(found, key=lambda row: -row.stretch.late)


@record(frozen=True)
class Load:
    """The work of a week: its Monday, the hours of sewing that fall into it, and those there are hands for."""

    monday: date
    hours: float
    room: float

    @property
    def too_much(self) -> bool:
        return self.hours > self.room + 0.05


def loads(garments: Sequence[Garment], plan: Plan, today: date) -> list[Load]:
    """The hours of each week from the first phase to the last: what is still to sew, spread over the days it has; what is late falls on the
    week of today."""
    hours: dict[date, float] = {}
    for garment in garments:
        for day, amount in _spread(garment, plan, today):
            monday = day - timedelta(days=day.weekday())
            hours[monday] = hours.get(monday, 0.0) + amount
    if not hours:
        return []
    first, last = min(hours), max(hours)
    weeks = [first + timedelta(days=7 * n) for n in range(min((last - first).days // 7 + 1, MOST_DAYS // 7))]
    room = plan.hours * plan.hands * plan.week
    return [Load(monday, hours.get(monday, 0.0), room) for monday in weeks]


def _spread(garment: Garment, plan: Plan, today: date) -> Iterator[tuple[date, float]]:
    """The hours of a garment that are still to do, day by day."""
    shares = {"toile": TOILE_SHARE * garment.hours, "cut": CUT_SHARE * garment.hours, "sew": garment.left}
    for row in stretches(garment, plan, today):
        amount = shares.get(row.phase, 0.0)
        if row.done or not amount:
            continue
        begin, end = max(row.begin, today), max(row.end, today)
        days = [begin + timedelta(days=n) for n in range((end - begin).days + 1)]
        working = [day for day in days if is_work(day, plan.week)] or [end]
        for day in working:
            yield day, amount / len(working)
