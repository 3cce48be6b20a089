"""Rules done to a garment: every piece that has rules is shifted, what is sewn to it follows, solved instead of ruled."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.grading.size_chart import SizeChart
from widehem.core.grading.tables import RuleTable, Ruling, frame_of, kind_of
from widehem.core.pattern.garment import Garment, Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.shifting.follow import followed
from widehem.core.shifting.shift import Ruled, ruled, shifted
from widehem.core.shifting.spots import Target, place_of
from widehem.core.units import Saying, say
from widehem.core.values import record

Moves = Mapping[str, Mapping[Target, Point]]  # by piece
INSEAM, CAP, NECK = "inseam", "cap", "neck_seam"
LOOK, FLAT = 0.05, 1e-4  # how far is looked ahead for what a figure does; less than that does nothing
EVEN = 1e-4  # cm


@record(frozen=True)
class Shifted:
    """A garment whose pieces were shifted. moves: by piece, how each ruled spot moved, cm, as it was solved. inherited: by piece,
    edges whose first corner no rule named, with the spot it went with. solved: what was found by a search, in words."""

    garment: Garment
    moves: Moves
    inherited: Mapping[str, Mapping[str, Target]]
    solved: tuple[Saying, ...] = ()


class Grader:
    """A garment made ready to be shifted by a table over a chart: what does not change from size to size is worked out once."""

    def __init__(self, garment: Garment, table: RuleTable, chart: SizeChart) -> None:
        self.garment, self.table, self.chart = garment, table, chart
        self._ready: dict[str, Ruled] = {}
        self._rulings: dict[str, Ruling] = {}
        for piece in garment.pieces:
            ruling = Ruling(table, piece)
            if ruling.targets:
                self._ready[piece.name], self._rulings[piece.name] = ruled(piece, ruling.targets), ruling

    def at(self, size: int, armhole: tuple[float, float] | None = None) -> Shifted:
        """The garment in a size. armhole: of a sleeve, back and front, of the base and of that size, cm. Raises PatternError."""
        moves: dict[str, dict[Target, Point]] = {}
        pieces: dict[str, Piece] = {}
        for name, ready in self._ready.items():
            moves[name] = self._rulings[name].vectors(self.chart, size)
            pieces[name] = shifted(ready, moves[name])
        solved: list[Saying] = []
        self._forks(moves, pieces, solved)
        if armhole is not None:
            self._caps(moves, pieces, solved, armhole)
        garment = self.garment.with_pieces(pieces)
        garment, along = followed(self.garment, garment, set(pieces))
        for name, found in along.items():
            moves.setdefault(name, {}).update(found)
        garment = self._collars(garment, moves, solved)
        inherited = {name: ready.inherited for name, ready in self._ready.items() if ready.inherited}
        return Shifted(garment, moves, inherited, tuple(solved))

    def _settled(
        self, name: str, spots: list[Target], moved: Callable[[Point, float], Point], off: Callable[[Piece], float], start: float,
        moves: dict[str, dict[Target, Point]], pieces: dict[str, Piece],
    ) -> float | None:  # fmt: skip
        """One piece with some of its moves changed by a figure until nothing is off; None where that is not found."""
        ready, before = self._ready[name], moves[name]

        def tried(figure: float) -> float:
            now = {**before, **{spot: moved(before[spot], figure) for spot in spots}}
            moves[name], pieces[name] = now, shifted(ready, now)
            return off(pieces[name])

        try:
            slope = (tried(start + LOOK) - tried(start)) / LOOK
            if abs(slope) > FLAT:
                return settle(tried, start, slope=slope, near=EVEN)
        except NoSolutionError:
            pass
        moves[name], pieces[name] = before, shifted(ready, before)
        return None

    def _forks(self, moves: dict[str, dict[Target, Point]], pieces: dict[str, Piece], solved: list[Saying]) -> None:
        """The drop of the back fork, so that the inseams differ by as much as before."""
        for seam in self.garment.seams:
            found = _two_sides(self.garment, seam, INSEAM)
            if found is None or found[0].piece not in pieces or found[1].piece not in pieces:
                continue
            back, front = found if self.garment.piece(found[0].piece).of == "back" else found[::-1]
            was = self.garment.edge(back).length - self.garment.edge(front).length
            want = was + pieces[front.piece].edge(front.edge).length
            spots = [
                t
                for t in moves[back.piece]
                if t.kind == "corner" and _meets(self.garment.piece(back.piece), t.name, ("crotch", "inseam"))
            ]
            if not spots:
                continue
            drop = self._settled(
                back.piece, spots, _lower, _longer(back.edge, want, -1.0),
                0.0, moves, pieces,
            )  # fmt: skip
            if drop is not None:
                solved.append(say("Back fork: its drop is solved, so that the inseams differ by {0s} as before.", was))

    def _caps(
        self,
        moves: dict[str, dict[Target, Point]],
        pieces: dict[str, Piece],
        solved: list[Saying],
        armhole: tuple[float, float],
    ) -> None:
        """The heights of a cap times one factor, so that it keeps its ease in the armhole."""
        for name in list(pieces):
            before = self.garment.piece(name)
            caps = [edge for edge in before.edges if edge.role == CAP]
            if len(caps) != 1:
                continue
            edge = caps[0].name
            want = caps[0].length - armhole[0] + armhole[1]
            spots = [t for t in moves[name] if t.kind == "edge" and t.name == edge]
            if abs(want - caps[0].length) < EVEN and all(move.size < EVEN for move in moves[name].values()):
                continue
            factor = self._settled(
                name, spots, _higher, _longer(edge, want), 1.0, moves, pieces,
            )  # fmt: skip
            if factor is not None:
                words = f"Cap: its heights times {factor:.2f}, so that it keeps its ease of {{0s}}."
                solved.append(say(words, caps[0].length - armhole[0]))

    def _collars(self, garment: Garment, moves: dict[str, dict[Target, Point]], solved: list[Saying]) -> Garment:
        """The front end of a collar, so that it is longer by what the neckline grew."""
        for seam in self.garment.seams:
            for mine, other in ((seam.first, seam.second), (seam.second, seam.first)):
                name = mine[0].piece
                if len(mine) != 1 or name not in self._ready or self.garment.edge(mine[0]).role != NECK:
                    continue
                want = garment.length_of(other) + self.garment.length_of(mine) - self.garment.length_of(other)
                pieces = {name: garment.piece(name)}
                factor = self._settled(
                    name, list(moves[name]), _further,
                    _longer(mine[0].edge, want), 1.0, moves, pieces,
                )  # fmt: skip
                if factor is not None:
                    garment = garment.with_piece(pieces[name])
                    grew = garment.length_of(other) - self.garment.length_of(other)
                    solved.append(say(f"{self.garment.piece(name).title}: longer by {{0s}}, as the neckline is.", grew))
        return garment


def _lower(move: Point, by: float) -> Point:
    return Point(move.x, move.y + by)


def _higher(move: Point, factor: float) -> Point:
    return Point(move.x, move.y * factor)


def _further(move: Point, factor: float) -> Point:
    return move * factor


def _longer(edge: str, want: float, way: float = 1.0) -> Callable[[Piece], float]:
    """How much longer an edge of a piece is than it should be, cm; or shorter."""
    return lambda piece: way * (piece.edge(edge).length - want)


def _two_sides(garment: Garment, seam: Seam, role: str) -> tuple[SeamEdge, SeamEdge] | None:
    """The two edges of a seam of single edges of a role."""
    if seam.twin or len(seam.first) != 1 or len(seam.second) != 1 or garment.edge(seam.first[0]).role != role:
        return None
    return seam.first[0], seam.second[0]


def _meets(piece: Piece, begins: str, roles: tuple[str, str]) -> bool:
    """Whether these roles meet where an edge begins."""
    before, _ = piece.beside(begins)
    return {before.role, piece.edge(begins).role} == set(roles)


def unruled(garment: Garment) -> tuple[str, ...]:
    """Pieces that no table has rules for, in words."""
    return tuple(plain(piece.name) for piece in garment.pieces if not kind_of(piece))


def by_rule(piece: Piece, moves: Mapping[Target, Point]) -> dict[Target, tuple[float, float]]:
    """Moves of a piece as a ruler says them: out and up, cm."""
    frame = frame_of(piece)
    return {t: frame.rule(place_of(piece, t) or Point(frame.x, 0.0), move) for t, move in moves.items()}
