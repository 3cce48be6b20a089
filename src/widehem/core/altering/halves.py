"""The sides of the pieces of a garment, found by what their edges are; and their places moved together."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import field
from typing import Literal

from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import EdgeRef, Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT
from widehem.core.pattern.shaping import corners_kept
from widehem.core.setting.option import Choice, Option
from widehem.core.shifting.demands import notches_laid
from widehem.core.shifting.follow import followed
from widehem.core.shifting.shift import ruled, shifted
from widehem.core.shifting.spots import Target
from widehem.core.style.asks import Asks
from widehem.core.style.operation import CannotStyle, Change, Job
from widehem.core.units import Saying, say
from widehem.core.values import record

Shifts = dict[str, dict[Target, Point]]  # by piece
OneHand = Literal["both", "left", "right"]
MOST = 8.0  # cm that a pin may ask for
TURNED = 3.0  # cm of an edge that are turned so that it meets its neighbour as before
ORIGIN = Point(0.0, 0.0)
PART = Option("part", "Where", "choice", "both", "which part of the garment it is done to",
    choices=(Choice("both", "back and front"), Choice(BACK, "back only"), Choice(FRONT, "front only")))  # fmt: skip
HAND = Option("hand", "Side", "choice", "both", "one side only makes a left and a right piece",
    choices=(Choice("both", "both sides"), Choice("left", "left of the wearer"), Choice("right", "right of the wearer")))  # fmt: skip


def by(name: str, why: str, default: float = 0.5, most: float = MOST) -> Option:
    """How far an alteration goes, cm; less than nothing is the other way."""
    return Option("by", name, "length", default, why, -most, most, 0.1)


@record(frozen=True)
class Half:
    """What a piece covers of one side of the body: the whole of a piece of a pair, one side of a piece opened out."""

    piece: Piece
    hand: str = ""

    def has(self, edge: Edge) -> bool:
        """Whether an edge lies on this side."""
        return not self.hand or edge.hand in ("", self.hand)

    def edge(self, *roles: str) -> Edge | None:
        """Its first edge of these roles."""
        return next((edge for edge in self.piece.edges if edge.role in roles and self.has(edge)), None)

    def corner(self, one: str, two: str) -> Target | None:
        """The corner where an edge of one role meets one of another."""
        for before, after in self.piece.corners():
            if {before.role, after.role} == {one, two} and self.has(before) and self.has(after):
                return Target("corner", after.name)
        return None

    def at(self, target: Target) -> Point:
        """Where a corner or a place along an edge lies."""
        edge = self.piece.edge(target.name)
        return edge.start if target.kind == "corner" else edge.place(target.along).point

    @property
    def out(self) -> Point:
        """Away from the middle of the body, towards the side seam or the armhole."""
        edge = self.edge("side", "armhole")
        assert edge is not None
        left, _, right, _ = self.piece.bounds
        own = [e for e in self.piece.edges if self.has(e)]
        middle = sum(e.start.x + e.end.x for e in own) / (2 * len(own)) if self.hand else (left + right) / 2
        return Point(1.0 if edge.start.x + edge.end.x > 2 * middle else -1.0, 0.0)

    def along(self, edge: Edge, height: float) -> Target | None:
        """The place of an edge at a height."""
        found = edge.at_level(height)
        return None if found is None else self.on(edge, found)

    def on(self, edge: Edge, along: float) -> Target:
        """The place so far along an edge; its corner where it is the very end."""
        if along < 0.02 or along > edge.length - 0.02:
            return Target("corner", edge.name if along < 0.02 else self.piece.beside(edge.name)[1].name)
        return Target("edge", edge.name, along)


def halves(garment: Garment, *roles: str, part: str = "both", hand: str = "both") -> list[Half]:
    """The sides of the pieces round the body that have edges of all these roles, of one part or of both, on one side or on both."""
    found = []
    for piece in garment.shell:
        if part != "both" and piece.of != part:
            continue
        hands = sorted({edge.hand for edge in piece.edges if edge.hand})
        if not hands and piece.stands in ("left", "right"):
            mine = [Half(piece)] if hand in ("both", piece.stands) else []
        else:
            mine = [Half(piece, one) for one in hands if hand in ("both", one)] if hands else [Half(piece)]
        found += [half for half in mine if all(half.edge(role) is not None for role in roles)]
    return found


def wanted(garment: Garment, words: str, *roles: str, part: str = "both", hand: str = "both") -> list[Half]:
    """As halves. Raises CannotStyle where there are none; words: what is missing then."""
    found = halves(garment, *roles, part=part, hand=hand)
    if not found:
        raise CannotStyle(say(f"There is no {words} in this garment: it is an alteration of another kind of pattern."))
    return found


def parted(job: Job) -> Garment:
    """The garment as it is altered: with left and right apart where one side is meant only. Raises CannotStyle."""
    whole = any(piece.stands in ("pair", "fold") for piece in job.garment.shell if piece.balance)
    if job.settings.get("hand", "both") == "both" or not whole:
        return job.garment
    return job.then("sides.apart", job.garment)


@record(frozen=True)
class Gathered:
    """What moves how far, by piece. shut: said for pieces with their bust darts shut."""

    garment: Garment
    shut: bool = False
    shifts: Shifts = field(default_factory=dict)

    def put(self, half: Half, target: Target | None, move: Point) -> None:
        """A place that moves so; nothing where there is none."""
        if target is not None:
            self.shifts.setdefault(half.piece.name, {})[target] = move

    def hold(self, half: Half, *targets: Target | None) -> None:
        """Places that stay where they are, if nothing was said of them before."""
        for target in targets:
            if target is not None:
                self.shifts.setdefault(half.piece.name, {}).setdefault(target, ORIGIN)

    def all_of(self, half: Half, move: Callable[[Point], Point]) -> None:
        """Every corner and joint of a piece by what a function of its place says."""
        for target, at in outline(half):
            self.put(half, target, move(at))

    def done(self) -> Garment:
        """The garment with all of it done, what lies edge on edge with it following; corners of which nothing was said stay. Raises
        PatternError."""
        pieces = {}
        for name, moves in self.shifts.items():
            piece = self.garment.piece(name)
            found = {**{Target("corner", edge.name): ORIGIN for edge in piece.edges}, **moves}
            pieces[name] = shifted(ruled(piece, found, shut=self.shut), found)
        still = {piece.name for piece in self.garment.shell if piece.balance}  # what goes round the body is moved or stays
        now, _ = followed(self.garment, self.garment.with_pieces(pieces), set(pieces) | still)
        return now


def outline(half: Half) -> Iterator[tuple[Target, Point]]:
    """The corners and joints of the outline of one side."""
    for edge in half.piece.edges:
        if not half.has(edge):
            continue
        yield Target("corner", edge.name), edge.start
        gone = 0.0
        for number, part in enumerate(edge.parts):
            for segment in part.segments[:-1]:
                gone += segment.length
                yield Target("edge", edge.name, gone), segment.end
            gone += part.segments[-1].length
            if number < len(edge.gaps):
                gap = edge.gaps[number]
                yield Target("dart", gap.name, part="inner"), gap.inner
                yield Target("dart", gap.name, part="outer"), gap.outer


def cornered(before: Garment, now: Garment, *roles: str) -> Garment:
    """The garment with edges of these roles meeting their neighbours at the angles at which they met them before the alteration."""
    for piece in now.shell:
        old = before.piece(piece.name) if before.has(EdgeRef(piece.name, piece.edges[0].name)) else None
        names = [edge.name for edge in piece.edges if edge.role in roles]
        if old is not None and old is not piece and names:
            now = now.with_piece(corners_kept(old, piece, *names, reach=TURNED))
    return now


def told(what: str, value: float, more: str, less: str) -> Saying:
    """How much more or less something is now: 'The shoulder is 0.5 cm longer.'"""
    return say(f"{what} {{0u}} {more if value >= 0 else less}.", abs(value))


def changed(
    job: Job, garment: Garment, *, said: tuple[Saying, ...] = (), asks: Asks | None = None, stale: tuple[str, ...] = ()
) -> Change:
    """What an alteration comes to: the garment with its notches where they were set."""
    laid = notches_laid(garment, job.context.demands)
    return Change(laid.pieces, said=said, asks=asks, stale=stale, whole=laid)
