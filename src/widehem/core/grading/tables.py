"""Tables of shift rules: for each kind of piece, how far each spot moves a step, as on a grading ruler laid on it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import field
from typing import Any

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.grading.size_chart import SizeChart
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, ROLES
from widehem.core.shifting.spots import SpotError, Target, place_of, targets
from widehem.core.values import record, replace

UNIT = 4.0  # cm of girth that a step of a table stands for
MOST = 10.0  # cm that a spot may move a step
KINDS: Mapping[str, str] = {
    "upper_back": "Back above the waist", "upper_front": "Front above the waist", "bare_back": "Back without shoulders",
    "bare_front": "Front without shoulders", "sleeve": "Sleeve",
    "s_head": "Sleeve with an S-shaped head", "collar": "Collar", "lower_back": "Skirt, back", "lower_front": "Skirt, front",
    "leg_back": "Trousers, back", "leg_front": "Trousers, front", "whole_back": "Back in one with a leg",
    "whole_front": "Front in one with a leg",
}  # fmt: skip
BY_GIRTH = {"lower": "hip", "leg": "hip"}  # the measure whose step scales a kind; others go by the bust


class TableError(ValueError):
    """A table of rules that cannot be used: one sentence naming the kind, the spot and the figure."""


@record(frozen=True)
class Rule:
    """How far a spot moves a step: out from the middle of the body and up, cm. pattern: an address of a spot."""

    pattern: str
    out: float
    up: float


@record(frozen=True)
class RuleTable:
    """Shift rules by kind of piece. unit: cm of girth that a step stands for. bands: from a size on, rules that go before
    those of the table: by the number of steps from the base, negative below it. Raises TableError."""

    code: str
    name: str
    unit: float
    kinds: Mapping[str, tuple[Rule, ...]]
    bands: Mapping[int, Mapping[str, tuple[Rule, ...]]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if not 0.5 <= self.unit <= 20:
            raise TableError(f"The step of the table is {self.unit:g}; 0.5 to 20 can be used.")
        for kinds in (self.kinds, *self.bands.values()):
            for kind, rules in kinds.items():
                if kind not in KINDS:
                    raise TableError(f'There is no kind of piece "{kind}": there are {", ".join(KINDS)}.')
                for rule in rules:
                    _judge(kind, rule)

    def rules_of(self, kind: str, since: int = 0) -> tuple[Rule, ...]:
        """The rules of a kind; or those that go before them so many steps from the base on."""
        return (self.bands.get(since, {}) if since else self.kinds).get(kind, ())

    def with_rule(self, kind: str, rule: Rule, since: int = 0) -> RuleTable:
        """The table with this rule in place of the one for the same address, or as the first of its kind. since: so many steps from the
        base on, less than nothing below it; 0 in every size."""
        old = self.rules_of(kind, since)
        there = any(entry.pattern == rule.pattern for entry in old)
        return self._with(
            kind, tuple(rule if entry.pattern == rule.pattern else entry for entry in old) if there else (rule, *old), since
        )

    def without(self, kind: str, pattern: str, since: int = 0) -> RuleTable:
        """The table without the rule for this address, in every size or so many steps from the base on."""
        return self._with(kind, tuple(entry for entry in self.rules_of(kind, since) if entry.pattern != pattern), since)

    def _with(self, kind: str, rules: tuple[Rule, ...], since: int) -> RuleTable:
        if not since:
            return replace(self, kinds={**self.kinds, kind: rules})
        band = {name: kept for name, kept in {**self.bands.get(since, {}), kind: rules}.items() if kept}
        return replace(self, bands={at: kinds for at, kinds in {**self.bands, since: band}.items() if kinds})

    def moved(self, kind: str, pattern: str, steps: int) -> tuple[float, float]:
        """How far out and up a spot with this address has moved so many steps of the table from the base, cm."""
        way, out, up = (1 if steps > 0 else -1), 0.0, 0.0
        for away in range(way, steps + way, way):
            rule = next(
                (entry for entry in (*_banded(self, kind, away), *self.rules_of(kind)) if entry.pattern == pattern), None
            )
            if rule is not None:
                out, up = out + way * rule.out, up + way * rule.up
        return out, up

    def as_data(self) -> dict[str, Any]:
        def rows(kinds: Mapping[str, tuple[Rule, ...]]) -> dict[str, list[list[Any]]]:
            return {kind: [[rule.pattern, rule.out, rule.up] for rule in rules] for kind, rules in kinds.items()}

        bands = {str(at): rows(kinds) for at, kinds in self.bands.items()}
        return {"unit": self.unit, "kinds": rows(self.kinds), **({"bands": bands} if bands else {})}

    @staticmethod
    def from_data(code: str, name: str, data: Mapping[str, Any]) -> RuleTable:
        """Raises TableError for what is no table."""
        try:
            kinds = {str(kind): _rules(rows) for kind, rows in dict(data["kinds"]).items()}
            bands = {
                int(at): {str(kind): _rules(rows) for kind, rows in dict(kinds_).items()}
                for at, kinds_ in dict(data.get("bands", {})).items()
            }
            return RuleTable(code, name, float(data["unit"]), kinds, bands)
        except (KeyError, TypeError, ValueError) as error:
            raise error if isinstance(error, TableError) else TableError(f"This is no table of rules: {error}.") from None


def _rules(rows: Any) -> tuple[Rule, ...]:
    return tuple(Rule(str(pattern), float(out), float(up)) for pattern, out, up in rows)


def _judge(kind: str, rule: Rule) -> None:
    try:
        targets(NOTHING, rule.pattern)
    except SpotError as error:
        raise TableError(f"{KINDS[kind]}: {error}") from None
    for way, value in (("out", rule.out), ("up", rule.up)):
        if not -MOST <= value <= MOST:
            raise TableError(
                f"{KINDS[kind]}, {rule.pattern}: {value:g} {way} is more than a spot moves a step; {MOST:g} is the most."
            )


def kind_of(piece: Piece) -> str:
    """The kind of piece whose rules it goes by; '' for one that has none. It follows from what its edges are."""
    roles = {edge.role for edge in piece.edges}
    part = piece.of if piece.of in (BACK, FRONT) else ""
    if piece.layer != "shell":
        return ""
    if "cap" in roles:
        cap = next(edge for edge in piece.edges if edge.role == "cap")
        low = max(cap.start.y, cap.end.y) + 1.0
        return "s_head" if any(segment.end.y > low for path in cap.parts for segment in path.segments) else "sleeve"
    if "neck_seam" in roles and "collar" in roles:
        return "collar"
    above, legs = bool(roles & {"armhole", "shoulder", "neck"}), "inseam" in roles
    if not part:
        return ""
    bare = "" if "shoulder" in roles else "bare"
    return f"{'whole' if above and legs else (bare or 'upper') if above else 'leg' if legs else 'lower'}_{part}"


@record(frozen=True)
class Frame:
    """The axes of the rules of a piece: out from the line x on one side of it, or on both; up is up."""

    x: float = 0.0
    both: bool = False

    def vector(self, at: Point, out: float, up: float) -> Point:
        """How a spot moves in the frame of its piece, y being down."""
        return Point(-out if self.both and at.x < self.x else out, -up)

    def rule(self, at: Point, move: Point) -> tuple[float, float]:
        """Out and up of a move."""
        return (-move.x if self.both and at.x < self.x else move.x), -move.y


def frame_of(piece: Piece) -> Frame:
    """Sleeves are ruled from the middle of the bicep line, legs from the crease, all else from the middle of the body."""
    kind = kind_of(piece)
    if kind in ("sleeve", "s_head"):
        cap = next(edge for edge in piece.edges if edge.role == "cap")
        return Frame((cap.start.x + cap.end.x) / 2, both=True)
    return Frame(both=kind.startswith("leg"))


def rules_for(table: RuleTable, piece: Piece, step: int = 0) -> dict[Target, Rule]:
    """The rule of every spot of a piece that has one: the first that fits. step: of how many steps from the base, for the bands."""
    kind, found = kind_of(piece), dict[Target, Rule]()
    for rule in (*_banded(table, kind, step), *table.kinds.get(kind, ())):
        for target in targets(piece, rule.pattern):
            found.setdefault(target, rule)
    return found


def _banded(table: RuleTable, kind: str, step: int) -> Iterator[Rule]:
    """Rules of the bands that hold so many steps from the base, the furthest first."""
    for at in sorted(table.bands, key=abs, reverse=True):
        if (at > 0) == (step > 0) and abs(step) >= abs(at) and step:
            yield from table.bands[at].get(kind, ())


def scales(table: RuleTable, chart: SizeChart, kind: str, size: int) -> list[tuple[int, float]]:
    """The steps from the base of a chart to a size: how many steps away each is, and how many steps of the table it is."""
    code = BY_GIRTH.get(kind.partition("_")[0], "bust")
    row = chart.rows.get(code) or chart.rows[chart.key]
    way = 1 if size > chart.base else -1
    found = []
    for number in range(abs(size - chart.base)):
        here = chart.base + way * number
        found.append((way * (number + 1), (row[here + way] - row[here]) / table.unit))
    return found


class Ruling:
    """What a table says of the spots of a piece, looked up once for all sizes."""

    def __init__(self, table: RuleTable, piece: Piece) -> None:
        self._table, self._frame, self._kind = table, frame_of(piece), kind_of(piece)
        self._by_band = {band: rules_for(table, piece, band) for band in (0, *table.bands)}
        self._places = {target: place_of(piece, target) or Point(self._frame.x, 0.0) for target in self.targets}

    @property
    def targets(self) -> tuple[Target, ...]:
        """All spots that have a rule, near the base or far from it."""
        return tuple(dict.fromkeys(target for rules in self._by_band.values() for target in rules))

    def _holding(self, away: int) -> dict[Target, Rule]:
        """The rules that hold so many steps from the base."""
        bands = [band for band in self._by_band if (band > 0) == (away > 0) and abs(band) <= abs(away) and band]
        return self._by_band[max(bands, key=abs, default=0)]

    def vectors(self, chart: SizeChart, size: int) -> dict[Target, Point]:
        """How the ruled spots move from the base of a chart to a size, in the frame of the piece, cm."""
        found = dict.fromkeys(self._by_band[0], Point(0.0, 0.0)) if size == chart.base else dict[Target, Point]()
        for away, share in scales(self._table, chart, self._kind, size):
            for target, rule in self._holding(away).items():
                move = self._frame.vector(self._places[target], rule.out * share, rule.up * share)
                found[target] = found.get(target, Point(0.0, 0.0)) + move
        return found


def edge_words(name: str) -> str:
    return ROLES[name].words if name in ROLES else name.replace("_", " ")


def _nothing() -> Piece:
    spots = Point(0.0, 0.0), Point(0.0, 1.0), Point(1.0, 1.0)
    sides = zip(spots, (*spots[1:], spots[0]), ("side", "hem", "neck"), strict=True)
    return Piece("none", "None", tuple(Edge(name, (Path.through(a, b),)) for a, b, name in sides))


NOTHING = _nothing()
