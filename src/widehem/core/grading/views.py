"""Views of a nest as data: how its sizes lie over each other, and where every spot is dotted, size by size."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from itertools import groupby, pairwise

from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point, turn
from widehem.core.grading.nest import Grading, Nest
from widehem.core.grading.propose import at_of, spots_of
from widehem.core.grading.tables import Frame, frame_of, rules_for
from widehem.core.pattern.piece import Piece
from widehem.core.shifting.net import Net, net_of
from widehem.core.shifting.spots import Place, place_of, targets
from widehem.core.units import Saying, say
from widehem.core.values import kept, record

SAME = 0.015  # cm: shifts that differ by less are one
SOURCES: Mapping[str, str] = {
    "table": "the table", "maker": "a rule of yours", "solved": "solved, for what it is sewn to", "inherited": "no rule: it goes with its neighbour",
    "shared": "no rule: its share of the edge", "steps": "the steps of the design, done to the shifted block", "redraft": "drawn anew in each size",
    "proposed": "proposed by drawing each size anew", "own": "as it came",
}  # fmt: skip


@record(frozen=True)
class Anchor:
    """What the sizes are laid on each other by: a spot moves them, a second one turns them. '' lays them by their own frames."""

    at: str = ""
    along: str = ""

    def lays(self, base: Piece, other: Piece) -> Transform | None:
        """How a piece of another size is laid on that of the base; None where it has no such spot."""
        if not self.at:
            return Transform().translate(frame_of(base).x - frame_of(other).x, 0.0)
        one, two = _spot(base, self.at), _spot(other, self.at)
        if one is None or two is None:
            return None
        by = Transform().translate(one.x - two.x, one.y - two.y)
        if not self.along:
            return by
        first, second = _spot(base, self.along), _spot(other, self.along)
        if first is None or second is None or first.to(one) < 0.5:
            return None
        a, b = second - two, first - one
        return turn(one, math.atan2(a.cross(b), a.dot(b))).transform(by)


def _spot(piece: Piece, text: str) -> Point | None:
    """Where an address lies on a piece; None where it is not there, or means several places. Raises SpotError."""
    found = targets(piece, text)
    return place_of(piece, found[0]) if len(found) == 1 else None


def anchors(nest: Nest) -> tuple[str, ...]:
    """Spots that sizes can be laid by: those that every size of at least one piece has."""
    base = nest.sizes[nest.base].garment
    found: dict[str, str] = {}
    for piece in base.shell:
        for place in Spots.of(nest, piece.name).places:
            if place.target.kind == "corner" and place.text not in found:
                found[place.text] = place.title
    return tuple(found)


@record(frozen=True)
class Spots:
    """The spots of a piece over all sizes that have its shape. at: by place and size."""

    piece: Piece
    places: tuple[Place, ...]
    nets: Mapping[int, Net]
    nodes: Mapping[str, int | None]

    @staticmethod
    def of(nest: Nest, name: str) -> Spots:
        if name not in nest.looked_up:
            net = net_of(nest.sizes[nest.base].garment.piece(name))
            nets = {size: net_of(nest.sizes[size].garment.piece(name)) for size in sorted(nest.shaped)}
            known = spots_of(net)
            nest.looked_up[name] = Spots(
                net.piece, tuple(place for place, _ in known), nets, {place.text: node for place, node in known}
            )
        found: Spots = nest.looked_up[name]
        return found

    @kept
    def base(self) -> Net:
        return net_of(self.piece)

    @kept
    def _aside(self) -> dict[int, float]:
        """How far the middle of each size lies from that of the base, cm."""
        middle = frame_of(self.piece).x
        return {size: frame_of(net.piece).x - middle for size, net in self.nets.items()}

    def lies(self, place: Place, size: int) -> Point | None:
        """Where a spot lies in the frame of the piece of its own size; None where that size is another shape."""
        net = self.nets.get(size)
        if net is None:
            return None
        if place.target.kind == "edge" and not _as_many(self.base.piece, net.piece, place.target.name):
            return None
        return at_of(self.base, net, place, self.nodes.get(place.text))

    def at(self, place: Place, size: int) -> Point | None:
        """The same from the middle of its piece as in the base."""
        found = self.lies(place, size)
        return None if found is None else found - Point(self._aside[size], 0.0)


def _as_many(one: Piece, other: Piece, edge: str) -> bool:
    return [len(part.segments) for part in one.edge(edge).parts] == [len(part.segments) for part in other.edge(edge).parts]


@record(frozen=True)
class Dotting:
    """One spot as a maker dots it: where it lies in each size, in the frame of the base, and how it got there. source: see SOURCES;
    steps: out and up between each size and the next larger, None where one is not known."""

    piece: str
    place: Place
    dots: Mapping[int, Point]
    steps: tuple[tuple[float, float] | None, ...]
    source: str
    frame: Frame

    @property
    def moves(self) -> bool:
        return any(step is not None and abs(step[0]) + abs(step[1]) > SAME for step in self.steps)

    def sentence(self, names: Sequence[str]) -> Saying:
        """How it is dotted, in words: 'Shoulder tip: 0.5 out, 0.4 up, each size.'"""
        known = [(number, step) for number, step in enumerate(self.steps) if step is not None]
        if not known:
            return say(f"{self.place.title}: this size is another shape.")
        runs: list[tuple[int, tuple[float, float]]] = []
        for number, step in known:
            if not runs or max(abs(a - b) for a, b in zip(step, runs[-1][1], strict=True)) > SAME:
                runs.append((number, step))
        if all(abs(out) + abs(up) < SAME for _, (out, up) in runs):
            return say(f"{self.place.title}: it stays where it is.")
        words, lengths = list[str](), list[float]()
        for count, (number, step) in enumerate(runs):
            part = _words(step, len(lengths))
            lengths += [abs(value) for value in step if abs(value) > SAME]
            since = f" from size {names[number]} on" if count else ", each size" if len(runs) == 1 else " a size"
            words.append(part + since)
        return say(f"{self.place.title}: {'; '.join(words)}.", *lengths)


def _words(step: tuple[float, float], first: int) -> str:
    """A shift as the template of a saying; its lengths are numbered from the first."""
    parts: list[str] = []
    for value, ways in zip(step, (("out", "inward"), ("up", "down")), strict=True):
        if abs(value) > SAME:
            parts.append(f"{{{first + len(parts)}f}} {ways[value < 0]}")
    return ", ".join(parts) or "nothing"


def dottings(nest: Nest, grading: Grading, piece: str) -> tuple[Dotting, ...]:
    """Every spot of a piece with its dots; those that stay where they are come last."""
    spots = Spots.of(nest, piece)
    order = sorted(nest.sizes)
    frame = frame_of(spots.piece)
    found = []
    for place in spots.places:
        dots = {size: at for size in order if (at := spots.at(place, size)) is not None}
        steps = []
        for low, high in pairwise(order):
            one, two = dots.get(low), dots.get(high)
            steps.append(None if one is None or two is None else frame.rule(dots.get(nest.base, one), two - one))
        found.append(Dotting(piece, place, dots, tuple(steps), _source(nest, grading, spots.piece, place), frame))
    return tuple(sorted(found, key=lambda one: not one.moves))


def _source(nest: Nest, grading: Grading, piece: Piece, place: Place) -> str:
    if any(rule.piece == piece.name and place.target in targets(piece, rule.text) for rule in grading.own):
        return "maker"
    if nest.way != "rules":
        return {"redraft": "redraft", "proposed": "proposed", "own": "own"}[nest.way]
    sized = next((one for size, one in sorted(nest.sizes.items()) if size != nest.base and one.shifted is not None), None)
    if sized is None or sized.shifted is None:
        return "table"
    drawn = sized.shifted.garment
    if not any(other.name == piece.name for other in drawn.pieces) or _changed(
        sized.garment.piece(piece.name), drawn.piece(piece.name)
    ):
        return "steps"
    moves = sized.shifted.moves.get(piece.name, {})
    if place.target in moves:
        ruled = any(place.target in rules_for(grading.table, piece, since) for since in (0, *grading.table.bands))
        return "table" if ruled else "solved"
    if place.target.kind == "corner" and place.target.name in sized.shifted.inherited.get(piece.name, {}):
        return "inherited"
    return "shared"


def _changed(now: Piece, drawn: Piece) -> bool:
    """Whether the steps of a design have changed the outline of a piece."""
    return [edge.name for edge in now.edges] != [edge.name for edge in drawn.edges] or abs(now.area - drawn.area) > 0.05


def inherited(nest: Nest) -> Iterator[tuple[str, str]]:
    """Corners that no rule named, by piece and in words: they go with their neighbours."""
    seen = set()
    for sized in nest.sizes.values():
        if sized.shifted is None:
            continue
        for name, edges in sized.shifted.inherited.items():
            for piece in (p for p in sized.shifted.garment.pieces if p.name == name):
                titles = {
                    place.target.name: place.title for place, _ in spots_of(net_of(piece)) if place.target.kind == "corner"
                }
                for edge in edges:
                    if edge in titles and (name, titles[edge]) not in seen:
                        seen.add((name, titles[edge]))
                        yield name, titles[edge]


def grouped(rows: Sequence[Dotting]) -> dict[str, list[Dotting]]:
    """Dottings by where they come from."""
    ordered = sorted(rows, key=lambda one: list(SOURCES).index(one.source))
    return {source: list(found) for source, found in groupby(ordered, key=lambda one: one.source)}
