"""How a design is graded, and how a cast is planned, as they are kept: plain data, read back with care."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from typing import Any

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.grading.cast import Hours, Tolerances
from widehem.core.grading.nest import WAYS, Break, Way
from widehem.core.grading.own import OwnRule
from widehem.core.grading.tables import MOST, NOTHING
from widehem.core.shifting.spots import targets
from widehem.core.values import record

MOST_ROWS, LONGEST = 300, 120
USUAL_WAY: Way = "rules"
USUAL_CHART, USUAL_RULES = "curved", "first"
MOST_TOLERANCE, MOST_HOURS = 30.0, 500.0  # cm, hours


class KeptError(ValueError):
    """What is kept of a grading or a cast cannot be used; one sentence."""


@record(frozen=True)
class HowGraded:
    """chart, rules: by their codes. own: rules for single spots; breaks: settings by size."""

    way: Way = USUAL_WAY
    chart: str = USUAL_CHART
    rules: str = USUAL_RULES
    own: tuple[OwnRule, ...] = ()
    breaks: tuple[Break, ...] = ()

    def as_data(self) -> dict[str, Any]:
        return {
            "way": self.way,
            "chart": self.chart,
            "rules": self.rules,
            "own": [{"piece": rule.piece, "spot": rule.text, "out": rule.out, "up": rule.up} for rule in self.own],
            "breaks": [{"step": b.where, "setting": b.setting, "size": b.size, "value": b.value} for b in self.breaks],
        }

    @staticmethod
    def from_data(data: Mapping[str, Any]) -> HowGraded:
        """Raises KeptError for what cannot be used, SpotError for an address that cannot be read."""
        way = str(data.get("way", USUAL_WAY))
        if way not in WAYS:
            raise KeptError(f'There is no way of grading "{way[:20]}": there are {", ".join(WAYS)}.')
        rows, breaks = data.get("own", []), data.get("breaks", [])
        if not isinstance(rows, list) or not isinstance(breaks, list) or max(len(rows), len(breaks)) > MOST_ROWS:
            raise KeptError(f"Rules and breaks are lists of {MOST_ROWS} at most.")
        try:
            own = tuple(
                OwnRule(_text(row["piece"]), _text(row["spot"]), _figure(row["out"]), _figure(row["up"])) for row in rows
            )
            made = tuple(
                Break(_text(row["step"], empty=True), _text(row["setting"]), _number(row["size"]), _value(row["value"]))
                for row in breaks
            )
        except (KeyError, TypeError) as error:
            raise KeptError(f"A rule or a break lacks {error}.") from None
        for rule in own:
            targets(NOTHING, rule.text)
        return HowGraded(way, _text(data.get("chart", USUAL_CHART)), _text(data.get("rules", USUAL_RULES)), own, made)  # type: ignore[arg-type]


@record(frozen=True)
class HowCast:
    """How a cast is planned. against: 'sizes:CODE', 'design:NUMBER' or 'rail'. most: at most so many sizes, 0 for as many as dress
    the most. way: 'least sizes' or 'least hours'."""

    against: str = "sizes:curved"
    tolerances: Tolerances = field(default_factory=Tolerances)
    hours: Hours = field(default_factory=Hours)
    most: int = 0
    by_hours: bool = False

    def as_data(self) -> dict[str, Any]:
        t, h = self.tolerances, self.hours
        return {
            "against": self.against, "let_out": t.let_out, "take_in": t.take_in, "hem": t.hem, "girths": list(t.girths), "lengths": list(t.lengths),
            "size": h.size, "make": h.make, "own_draft": h.own_draft, "seam": h.seam, "each_cm": h.each_cm, "most": self.most, "by_hours": self.by_hours,
        }  # fmt: skip

    @staticmethod
    def from_data(data: Mapping[str, Any]) -> HowCast:
        """Raises KeptError."""
        usual, rates = Tolerances(), Hours()
        try:
            girths, lengths = (
                tuple(_measure(code) for code in data.get(name, default))
                for name, default in (("girths", usual.girths), ("lengths", usual.lengths))
            )
            tolerances = Tolerances(
                _between(data.get("let_out", usual.let_out), MOST_TOLERANCE), _between(data.get("take_in", usual.take_in), MOST_TOLERANCE),
                _between(data.get("hem", usual.hem), MOST_TOLERANCE), girths, lengths,
            )  # fmt: skip
            hours = Hours(
                *(
                    _between(data.get(name, getattr(rates, name)), MOST_HOURS)
                    for name in ("size", "make", "own_draft", "seam", "each_cm")
                )
            )
        except TypeError as error:
            raise KeptError(f"A figure of the cast cannot be read: {error}.") from None
        return HowCast(
            _text(data.get("against", "sizes:curved")),
            tolerances,
            hours,
            min(max(_number(data.get("most", 0)), 0), 100),
            bool(data.get("by_hours", False)),
        )


def _text(value: Any, *, empty: bool = False) -> str:
    if not isinstance(value, str) or len(value) > LONGEST or (not value and not empty):
        raise KeptError(f"{str(value)[:30]!r} is no name of {LONGEST} signs at most.")
    return value


def _figure(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not -MOST <= value <= MOST:
        raise KeptError(f"{str(value)[:20]} is no shift: −{MOST:g} to {MOST:g} cm a step can be used.")
    return float(value)


def _between(value: Any, most: float) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not 0 <= value <= most:
        raise KeptError(f"{str(value)[:20]} cannot be used: 0 to {most:g} can.")
    return float(value)


def _number(value: Any) -> int:
    if isinstance(value, bool) or not isinstance(value, int) or abs(value) > 1000:
        raise KeptError(f"{str(value)[:20]} is no number of a size.")
    return value


def _value(value: Any) -> float | str | bool:
    if isinstance(value, bool | str) and len(str(value)) <= LONGEST:
        return value
    if isinstance(value, int | float) and abs(value) < 1000:
        return float(value)
    raise KeptError(f"{str(value)[:20]} is no value of a setting.")


def _measure(code: Any) -> str:
    if code not in CATALOGUE:
        raise KeptError(f"{str(code)[:30]} is no measure of the catalogue.")
    return str(code)
