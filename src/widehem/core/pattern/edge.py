"""The sides of a piece: named stretches of outline with the gaps between them that are sewn shut, and the notches on them."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar, Literal

from fontTools.misc.transform import Transform

from widehem.core.geometry.paths import Path, Place
from widehem.core.geometry.points import Point
from widehem.core.pattern.roles import ROLES
from widehem.core.values import elsewhere, kept, record

EdgeKind = Literal["seam", "fold", "hem", "opening", "faced", "slit"]
Hand = Literal["", "left", "right"]
MEETS = 1e-5  # cm: ends that should be one may lie so far apart


class PatternError(ValueError):
    """Pieces that cannot be: one sentence naming piece, edge and figure."""


@record(frozen=True)
class Dart:
    """A dart in an edge.

    point: its end inside the piece. inner, outer: where its legs meet the edge, in the order of the outline. middle: where
    its axis meets the guide. intake, length: as drafted on the guide, cm. cap: the edge across the mouth from inner to
    outer, shaped so that it is smooth when the dart is folded to its pressing side. apex: what the dart was turned about,
    when it is sewn short of it. pressed: the leg it is folded towards. holds: darts it has swallowed, by name with their
    angles, radians. sewn: how far from the edge it is sewn, cm, where it is only folded beyond: a pleat not at all, a tuck
    a way; None to its point.
    """

    name: str
    point: Point
    inner: Point
    outer: Point
    middle: Point
    intake: float
    length: float
    cap: Path
    apex: Point | None = None
    pressed: Literal["inner", "outer"] = "inner"
    holds: tuple[tuple[str, float], ...] = ()
    sewn: float | None = None

    def moved(self, by: Transform) -> Dart:
        spots = {name: getattr(self, name).moved(by) for name in ("point", "inner", "outer", "middle")}
        return elsewhere(self, **spots, cap=self.cap.moved(by), apex=self.apex.moved(by) if self.apex else None)

    @property
    def turned_about(self) -> Point:
        return self.apex or self.point

    @property
    def legs(self) -> tuple[float, float]:
        return self.point.to(self.inner), self.point.to(self.outer)

    @property
    def mouth(self) -> float:
        """How far apart its legs stand at the edge, cm."""
        return self.inner.to(self.outer)

    @property
    def tip(self) -> Point:
        """The peak of the cap, on the axis."""
        return self.cap.segments[len(self.cap.segments) // 2].start

    def taken_along(self, at: Point, way: Point) -> float:
        """How much of an endless line through `at` the open dart takes, cm; nothing where it is only folded. way: its
        direction, one long."""
        if self.sewn is not None:
            return 0.0
        found = []
        for a, b in ((self.point, self.inner), (self.point, self.outer)):
            high, low = way.cross(a - at), way.cross(b - at)
            if (high > 0) == (low > 0):
                continue
            spot = a.toward(b, high / (high - low))
            found.append(way.dot(spot - at))
        return abs(found[0] - found[1]) if len(found) == 2 else 0.0


@record(frozen=True)
class Pleat:
    """A gap that is folded out, not sewn to a point: inner and outer are laid on each other."""

    name: str
    inner: Point
    outer: Point

    @property
    def cap(self) -> Path:
        return Path.through(self.inner, self.outer)

    @property
    def mouth(self) -> float:
        return self.inner.to(self.outer)

    def moved(self, by: Transform) -> Pleat:
        return elsewhere(self, inner=self.inner.moved(by), outer=self.outer.moved(by))

    def taken_along(self, at: Point, way: Point) -> float:
        return 0.0


@record(frozen=True)
class Held:
    """A stretch of an edge that is eased in, not sewn to a point: its ends are held together on a tape. line: as it is cut."""

    name: str
    line: Path

    @property
    def inner(self) -> Point:
        return self.line.start

    @property
    def outer(self) -> Point:
        return self.line.end

    @property
    def cap(self) -> Path:
        return self.line

    @property
    def mouth(self) -> float:
        """How much is eased in, cm."""
        return self.line.length

    def moved(self, by: Transform) -> Held:
        return elsewhere(self, line=self.line.moved(by))

    def taken_along(self, at: Point, way: Point) -> float:
        return 0.0


Gap = Dart | Pleat | Held


@record(frozen=True)
class Notch:
    """A notch that rides on its edge, this far (cm) along the sewn edge from its start; single in front, double behind."""

    name: str
    along: float
    count: int = 1


@record(frozen=True)
class Edge:
    """A named side of a piece.

    parts: its sewn stretches, one more than the gaps between them. role: what it is on the garment; its name, when that is
    a role. pointed: it meets the centre at an angle on purpose. corners: where it turns on purpose. hand: the side of the
    body it lies on, where its piece covers both. Raises PatternError when parts and gaps do not make an edge.
    """

    name: str
    parts: tuple[Path, ...]
    gaps: tuple[Gap, ...] = ()
    kind: EdgeKind = "seam"
    pointed: bool = False
    role: str = ""
    notches: tuple[Notch, ...] = ()
    corners: tuple[Point, ...] = ()
    hand: Hand = ""
    STAYS: ClassVar = (("parts", "gaps"), ("length", "darts"))

    def __post_init__(self) -> None:
        if not self.role:
            object.__setattr__(self, "role", self.name)
        if self.role not in ROLES:
            raise PatternError(f'The edge {self.name} is a "{self.role}", and there is no such role.')
        if len(self.parts) != len(self.gaps) + 1:
            raise PatternError(f"The edge {self.name} has {len(self.parts)} stretches and {len(self.gaps)} gaps between them.")
        for gap, before, after in zip(self.gaps, self.parts, self.parts[1:], strict=False):
            if before.end.to(gap.inner) > MEETS or after.start.to(gap.outer) > MEETS:
                raise PatternError(f"The legs of {gap.name} do not meet the edge {self.name}.")
        if len({gap.name for gap in self.gaps}) != len(self.gaps):
            raise PatternError(f"Two gaps of the edge {self.name} have one name.")

    @kept
    def length(self) -> float:
        """Along the stitching line, darts taken out, cm."""
        return sum(part.length for part in self.parts)

    @property
    def start(self) -> Point:
        return self.parts[0].start

    @property
    def end(self) -> Point:
        return self.parts[-1].end

    @property
    def leaving(self) -> Point:
        """Direction at its start."""
        return self.parts[0].leaving

    @property
    def arriving(self) -> Point:
        """Direction at its end."""
        return self.parts[-1].arriving

    @kept
    def darts(self) -> tuple[Dart, ...]:
        return tuple(gap for gap in self.gaps if isinstance(gap, Dart))

    def moved(self, by: Transform) -> Edge:
        _ = self.length  # a draft needs it here and there: worked out once, it is handed on to what is as long
        return elsewhere(
            self,
            parts=tuple([part.moved(by) for part in self.parts]),
            gaps=tuple([gap.moved(by) for gap in self.gaps]),
            corners=tuple([corner.moved(by) for corner in self.corners]),
        )

    def place(self, along: float) -> Place:
        """The spot this far (cm) along the sewn edge, its darts taken out."""
        for part in self.parts:
            if along <= part.length + 1e-9 or part is self.parts[-1]:
                return part.place(along)
            along -= part.length
        raise AssertionError("an edge has at least one part")

    def at_line(self, at: Point, way: Point) -> float | None:
        """How far along, from its start, an endless line is crossed first, cm."""
        gone = 0.0
        for part in self.parts:
            for index, t in part.crossings(at, way):
                return gone + part.split(index, t)[0].length
            gone += part.length
        return None

    def at_mouth(self, at: Point, way: Point) -> float | None:
        """How far along, from its start, an endless line goes through the mouth of a dart or a pleat, cm; its parts meet there."""
        gone = 0.0
        for part, gap in zip(self.parts, self.gaps, strict=False):
            gone += part.length
            if Path.through(gap.inner, gap.outer).crossings(at, way):
                return gone
        return None

    def at_level(self, y: float) -> float | None:
        """How far along, from its start, a height is crossed, cm."""
        return self.at_line(Point(0.0, y), Point(1.0, 0.0))

    def paths(self) -> Iterator[Path]:
        """The edge as it lies open on paper, dart caps included."""
        yield self.parts[0]
        for gap, part in zip(self.gaps, self.parts[1:], strict=True):
            yield gap.cap
            yield part

    def notch(self, name: str) -> Notch | None:
        return next((notch for notch in self.notches if notch.name == name), None)
