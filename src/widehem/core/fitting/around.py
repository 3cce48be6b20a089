"""Room round the body: the finished girth of a garment against the body, from its top to its hem, before cloth is cut."""

from __future__ import annotations

import math
from itertools import pairwise

from widehem.core.body.chart import Chart, chart_of
from widehem.core.body.estimates import estimate
from widehem.core.design.make import Made
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, plain
from widehem.core.units import Saying, say
from widehem.core.values import record, replace

STEP = 1.5  # cm between the places at which the garment is measured
FINE, NEAR, EDGE = 0.05, 0.6, 1e-3
TIED = ("bust", "thigh")  # levels that a garment has lower or higher than the body, and is planned at
TOPS = ("armhole", "neck", "shoulder")
ACROSS = (*TOPS, "waist", "waist_seam", "hem", "cut")  # edges that bound a piece above or below
PLUMB = ("waist", "hip", "bust", "high_hip")  # levels from which heights are counted, the first that all pieces have
# how far below the waist a girth of the body lies, by measures of the chart: from, less
HEIGHTS: dict[str, tuple[tuple[str, float], ...]] = {
    "bust": (("nape_waist", -1.0), ("armscye_depth", 1.0)),
    "under_bust": (("waist_under_bust", -1.0),),
    "waist": (),
    "high_hip": (("waist_high_hip", 1.0),),
    "hip": (("waist_hip", 1.0),),
}
LEG_HEIGHTS: dict[str, tuple[tuple[str, float], ...]] = {
    "thigh": (("crotch_depth", 1.0),),
    "knee": (("waist_knee", 1.0),),
    "ankle": (("waist_ankle", 1.0),),
}
ARCS = {"bust": "bust_front", "waist": "waist_front", "hip": "hip_front"}


@record(frozen=True)
class Level:
    """One height: so far below the waist, cm, less than nothing above it. name: of the body's girth there, '' between. body: round the
    body with what is worn under; None where that is not known. garment: finished. front, front_body: the front alone, where its arc was
    read."""

    down: float
    garment: float
    body: float | None = None
    name: str = ""
    front: float | None = None
    front_body: float | None = None

    @property
    def room(self) -> float | None:
        return None if self.body is None else self.garment - self.body

    @property
    def back_room(self) -> float | None:
        """Behind alone, where the front arc was read."""
        if self.body is None or self.front is None or self.front_body is None:
            return None
        return (self.garment - self.front) - (self.body - self.front_body)

    @property
    def front_room(self) -> float | None:
        return None if self.front is None or self.front_body is None else self.front - self.front_body


@record(frozen=True)
class Around:
    """The curves of a garment and of the body. under: what is worn under it takes so much, cm. limb: round one leg."""

    levels: tuple[Level, ...]
    under: float
    limb: bool = False

    @property
    def tightest(self) -> Level | None:
        """Where there is least room; None where the body is not known at any height of the garment."""
        known = [level for level in self.levels if level.room is not None]
        return min(known, key=lambda level: level.room or 0.0, default=None)

    @property
    def named(self) -> tuple[Level, ...]:
        return tuple(level for level in self.levels if level.name)

    @property
    def saying(self) -> Saying:
        """Where it is tight, or where the room lies, in words."""
        tight = self.tightest
        if tight is None or tight.room is None:
            return say("The body is not known at any height of this garment: read bust, waist and hip with their heights.")
        where = self._where(tight)
        if tight.room < 0:
            return say(f"{{0u}} less than the body {where}: it does not close there.", -tight.room)
        return say(f"The least room, {{0u}}, is {where}.", tight.room)

    def _where(self, level: Level) -> str:
        """At a level that was read, or between which two."""
        if level.name:
            return f"at the {plain(level.name)}"
        above = max((one for one in self.named if one.down < level.down), key=lambda one: one.down, default=None)
        below = min((one for one in self.named if one.down > level.down), key=lambda one: one.down, default=None)
        if above is None or below is None:
            return (
                f"below the {plain(above.name)}"
                if above is not None
                else f"above the {plain(below.name)}"
                if below is not None
                else "there"
            )
        return f"between {plain(above.name)} and {plain(below.name)}"


def around(made: Made) -> tuple[Around, ...]:
    """The curve round the body, and for trousers that round one leg. Nothing for what does not go round the body."""
    garment, chart = made.garment, _whole(made.chart)
    found = []
    body = [piece for piece in garment.shell if _line(piece) is not None]
    if not body:
        return ()
    under = made.wear.under()
    forks = _forks(body, _start(chart))
    split = min(forks, default=math.inf)
    levels = _levels(made, body, chart, under, top=-math.inf, low=split)
    if levels:
        found.append(Around(levels, under))
    if forks:
        leg = _levels(made, body, chart, made.wear.under(limb=True), top=max(forks), low=math.inf, limb=True)
        if leg:
            found.append(Around(leg, made.wear.under(limb=True), limb=True))
    return tuple(found)


def _forks(pieces: list[Piece], start: dict[str, float]) -> list[float]:
    """How far below the waist the legs part, on each piece."""
    found = list[float]()
    for piece in pieces:
        line, at = _line(piece) or ("waist", 0.0)
        corners = [after.start.y for before, after in piece.corners() if {before.role, after.role} == {"crotch", "inseam"}]
        found += [y - at + start.get(line, 0.0) for y in corners]
    return found


def _whole(chart: Chart) -> Chart:
    """The chart with the heights that were not read as the figure table has them."""
    found = estimate(chart, chart.table).found
    more = chart_of({code: max(1.0, round(e.cm, 1)) for code, e in found.items() if code not in chart})
    return replace(chart, readings={**more.readings, **chart.readings})


def _line(piece: Piece) -> tuple[str, float] | None:
    """The level from which the heights of a piece are counted, and how far down its frame that is."""
    levels = piece.levels
    return next(((name, levels[name]) for name in PLUMB if name in levels), None)


def _height(chart: Chart, sums: tuple[tuple[str, float], ...]) -> float | None:
    """So far below the waist; None where a measure is not known."""
    if any(code not in chart for code, _ in sums):
        return None
    return sum(sign * chart.values[code] for code, sign in sums)


def _levels(
    made: Made, pieces: list[Piece], chart: Chart, under: float, *, top: float, low: float, limb: bool = False
) -> tuple[Level, ...]:
    start = _start(chart)
    sides = [_Sided.of(piece, start) for piece in pieces]
    names = LEG_HEIGHTS if limb else HEIGHTS
    known: list[tuple[float, float, str]] = []
    for name, sums in names.items():
        height = _height(chart, sums)
        if name in TIED:  # it is measured where the garment has it
            drawn = [one.piece.levels[name] - one.zero for one in sides if name in one.piece.levels]
            height = max(drawn) if drawn and height is not None else height
        if height is not None and name in chart and top - FINE <= height <= low + FINE:
            known.append((height, chart.values[name] + under, name))
    known.sort()
    first, last = max(min(one.top for one in sides), top), min(max(one.bottom for one in sides), low)
    count = max(int((last - first) / STEP), 2)
    heights = sorted(
        {first + (last - first) * n / count for n in range(count + 1)} | {h for h, _, _ in known if first <= h <= last}
    )
    found = []
    for down in heights:
        name = next((name for height, _, name in known if abs(height - down) < 1e-9), "")
        if not _all_there(sides, down):
            continue
        wide = [(one, one.wide(down, name) * one.piece.weight(limb=limb)) for one in _at(sides, down)]
        girth, front = sum(w for _, w in wide), sum(w for one, w in wide if one.piece.of == FRONT)
        if girth < 1.0:
            continue
        arc = ARCS.get(name, "")
        found.append(
            Level(
                down, girth, _between(known, down), name, front if arc in chart else None,
                chart.values[arc] + under / 2 if arc in chart else None,
            )
        )  # fmt: skip
    return tuple(found)


def _start(chart: Chart) -> dict[str, float]:
    """How far below the waist the levels lie from which pieces are measured."""
    return {name: height for name in PLUMB if (height := _height(chart, HEIGHTS[name])) is not None}


@record(frozen=True)
class _Sided:
    """A piece between the heights at which it goes round the body whole. zero: where the waist lies in its frame. off: by height in its
    frame, how much less it measures at its levels than is drawn there: what laps over, what a turned dart opens."""

    piece: Piece
    zero: float
    top: float
    bottom: float
    outer: tuple[float, float]
    off: tuple[tuple[float, float], ...]

    @staticmethod
    def of(piece: Piece, start: dict[str, float]) -> _Sided:
        line, at = _line(piece) or ("waist", 0.0)
        zero = at - start.get(line, 0.0)
        _, high, _, low = piece.bounds
        top, bottom = high, low
        for edge in piece.edges:
            if edge.role not in ACROSS:
                continue
            ys = [end.y for part in edge.parts for end in (part.start, part.end)]
            if (min(ys) + max(ys)) / 2 < (high + low) / 2 or edge.role in TOPS:
                top = max(top, max(ys))
            else:
                bottom = min(bottom, min(ys))
        off = tuple(
            sorted((y, piece.across(name) - piece.wide_at(y)) for name, y in piece.levels.items() if top <= y <= bottom)
        )
        return _Sided(piece, zero, top - zero, bottom - zero, (high - zero, low - zero), off)

    def there(self, down: float) -> bool:
        return self.top - FINE <= down <= self.bottom + FINE

    def wide(self, down: float, name: str) -> float:
        """How wide it is at a height, its darts shut: as it is measured where one of its levels lies."""
        if name in self.piece.levels and abs(self.piece.levels[name] - self.zero - down) < NEAR:
            return self.piece.across(name)
        at = min(max(down, self.top + EDGE), self.bottom - EDGE) + self.zero
        drawn = self.piece.wide_at(at)
        return drawn + self._less(at) if drawn else 0.0

    def _less(self, at: float) -> float:
        if not self.off:
            return 0.0
        for (low, one), (high, two) in pairwise(self.off):
            if low <= at <= high:
                return one + (two - one) * ((at - low) / (high - low) if high > low else 0.0)
        return self.off[0][1] if at < self.off[0][0] else self.off[-1][1]


def _at(sides: list[_Sided], down: float) -> list[_Sided]:
    """What goes round the body at a height; where one piece ends and another of its part begins, the upper one."""
    found = [one for one in sides if one.there(down)]
    ending = {one.piece.of for one in found if abs(one.bottom - down) < NEAR}
    return [one for one in found if abs(one.top - down) >= NEAR or one.piece.of not in ending or abs(one.bottom - down) < NEAR]


def _all_there(sides: list[_Sided], down: float) -> bool:
    """Whether everything that goes round the body at a height does so whole, back and front."""
    partly = [one for one in sides if one.outer[0] - NEAR <= down <= one.outer[1] + NEAR and not one.there(down)]
    parts = {one.piece.of for one in sides if one.there(down)}
    whole = {one.piece.of for one in sides} & {FRONT, BACK}
    return not partly and whole <= parts


def _between(known: list[tuple[float, float, str]], down: float) -> float | None:
    """The body at a height between two that are known: a smooth line through them that is flat where it turns and never overshoots."""
    count = len(known)
    if not count or not known[0][0] - 1e-9 <= down <= known[-1][0] + 1e-9:
        return None
    if count == 1:
        return known[0][1]
    steps = [(b[1] - a[1]) / max(b[0] - a[0], 1e-6) for a, b in pairwise(known)]
    ways = [steps[0], *(2 * a * b / (a + b) if a * b > 0 else 0.0 for a, b in pairwise(steps)), steps[-1]]
    number = next(n for n in range(count - 1) if down <= known[n + 1][0] + 1e-9)
    (at, one, _), (to, two, _) = known[number], known[number + 1]
    long = max(to - at, 1e-6)
    t = (down - at) / long
    return (
        one * (2 * t**3 - 3 * t**2 + 1) + ways[number] * long * (t**3 - 2 * t**2 + t)
        + two * (3 * t**2 - 2 * t**3) + ways[number + 1] * long * (t**3 - t**2)
    )  # fmt: skip
