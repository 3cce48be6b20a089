"""One piece ready for paper: its cutting line and everything that is marked on it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from fontTools.misc.transform import Identity, Transform
from shapely import Polygon, union_all

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, mirror_in
from widehem.core.marking.allowance import Finish, cutting_line
from widehem.core.marking.marks import (
    Button,
    Notch,
    buttons,
    drill_holes,
    grain_line,
    grain_words,
    notches,
    out_to_cut,
    stretch_line,
)
from widehem.core.marking.wanted import Wanted
from widehem.core.marking.words import Lettered, Name, lettered
from widehem.core.marking.zones import Zone, folded, zones
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, centre
from widehem.core.units import Display
from widehem.core.values import kept, record, replace

Label = tuple[tuple[str, ...], tuple[str, ...]]  # all of it, and what of it there must be
FLAT = 0.1  # cm: how far a flattened line may stand off the true one where words have to keep off it
TURNED = 0.1  # sine by which a corner turns at the least that its lines are run out at
CROSS, DRILL = 0.45, 0.3  # cm: half the cross of a drill hole, and the circle round it


@record(frozen=True)
class MarkedPiece:
    """cut: the ring to cut along. tails: stitching lines run out to it at the corners. spare: of the allowances, to let out, by
    edge. label: its words. mirror: what lays the other half of it over the fold, where it is shown whole. borders: where the sheets
    end that it is printed on. factor: how many times as large its letters are, for paper that is scaled down."""

    piece: Piece
    amounts: Mapping[str, float]
    spare: Mapping[str, float]
    cut: tuple[Point, ...]
    tails: tuple[Path, ...]
    notches: tuple[Notch, ...]
    drills: tuple[Point, ...]
    buttons: tuple[Button, ...]
    zones: tuple[Zone, ...]
    grain: tuple[Point, Point]
    grain_words: str
    stretch: tuple[Point, Point] | None
    label: Label
    mirror: Transform | None = None
    nap: bool = False
    borders: tuple[tuple[Point, Point], ...] = ()
    factor: float = 1.0

    @property
    def inward(self) -> Point:
        """Which way the piece lies from its centre line, one long."""
        if not self.piece.middle:
            return Point(1.0, 0.0)
        edge = self.piece.edge(self.piece.middle)
        return -self.piece.outward(edge.end - edge.start)

    @property
    def on_fold(self) -> bool:
        """Whether its grain is the fold it is laid on."""
        return self.piece.stands == "fold" and self.mirror is None and self.piece.grain is None and bool(self.piece.middle)

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, top, right, bottom of the cutting line, cm."""
        xs, ys = [p.x for p in self.cut], [p.y for p in self.cut]
        return min(xs), min(ys), max(xs), max(ys)

    def moved(self, by: Transform) -> MarkedPiece:
        """The piece lying elsewhere on the paper; it may be turned, not turned over."""
        if by == Identity:
            return self
        return replace(
            self, piece=self.piece.moved(by), cut=_spots(self.cut, by), tails=tuple(tail.moved(by) for tail in self.tails),
            notches=tuple(replace(n, at=n.at.moved(by), inner=n.inner.moved(by)) for n in self.notches), drills=_spots(self.drills, by),
            buttons=tuple(Button(b.at.moved(by), (b.hole[0].moved(by), b.hole[1].moved(by))) for b in self.buttons),
            zones=tuple(
                replace(z, line=z.line.moved(by), ticks=(z.ticks[0].moved(by), z.ticks[1].moved(by))) for z in self.zones
            ),
            grain=(self.grain[0].moved(by), self.grain[1].moved(by)),
            stretch=(self.stretch[0].moved(by), self.stretch[1].moved(by)) if self.stretch else None,
            mirror=_carried(self.mirror, by),
        )  # fmt: skip

    @kept
    def written(self) -> Lettered:
        """All words on it, where they lie."""
        full, short = self.label
        body = self.piece.outline(FLAT)
        if self.mirror is not None:
            body = list(_both(body, self.mirror))
        return lettered(body, self._obstacles(), full, short, self._names(), self.borders, self.factor)

    def inner_paths(self) -> Iterator[tuple[str, tuple[Path, ...]]]:
        """What is drawn inside the stitching line, by kind of line; half of it where it is shown whole."""
        for dart in self.piece.darts:
            yield "stitch", (Path.through(dart.inner, dart.point, dart.outer),)
        for diamond in self.piece.diamonds:
            yield "stitch", (diamond.path,)
        for line in self.piece.lines:
            yield "balance", (line.path,)
        for _, path in self.levels():
            yield "balance", (path,)
        for zone in self.zones:
            for path in (zone.line, *zone.ticks):
                yield "zone", (path,)
        for arrow in self.folds():
            yield "zone", arrow
        for button in self.buttons:
            yield "drill", (Path.through(*button.hole),)

    def folds(self) -> Iterator[tuple[Path, ...]]:
        """An arrow over each pleat: the way it is folded."""
        for edge in self.piece.edges:
            for gap in folded(edge):
                into = -self.piece.outward(gap.outer - gap.inner) * 1.2
                a, b = gap.inner + into, gap.outer + into
                if getattr(gap, "pressed", "inner") == "inner":
                    a, b = b, a
                way = (b - a).unit()
                side = way.square() * 0.25
                yield (Path.through(a, b, b - way * 0.5 + side), Path.through(b, b - way * 0.5 - side))

    def levels(self) -> Iterator[tuple[str, Path]]:
        """The levels of the body across it."""
        for line in self.piece.balance:
            for a, b in self.piece.stretches(line.level):
                if a.to(b) > 1.0 and line.notched:
                    yield line.level, Path.through(a, b)

    def crosses(self) -> Iterator[tuple[Point, float]]:
        """Middles of what is drilled, with the size of the circle."""
        marked = {(round(b.at.x, 3), round(b.at.y, 3)) for b in self.buttons}
        for hole in self.drills:
            yield hole, DRILL
        for hole in self.piece.holes:
            yield hole, DRILL if (round(hole.x, 3), round(hole.y, 3)) in marked else 0.25

    def _obstacles(self) -> Iterator[Sequence[Point]]:
        halves = [Identity] if self.mirror is None else [Identity, self.mirror]
        for by in halves:
            for _, paths in self.inner_paths():
                for path in paths:
                    yield path.moved(by).flat(FLAT)
            for spot, size in self.crosses():
                at = spot.moved(by)
                for way in (Point(max(size, CROSS), 0.0), Point(0.0, max(size, CROSS))):
                    yield [at - way, at + way]
            for notch in self.notches:
                yield [notch.at.moved(by), notch.inner.moved(by)]
        for path in self.grain_paths():
            yield path.flat(FLAT)

    def grain_paths(self) -> list[Path]:
        """The grain line with its heads, or the bracket that points at the fold; the line of most stretch."""
        top, bottom = self.grain
        if self.on_fold:
            into = self.inward
            down = (bottom - top).unit()
            found = [Path.through(top, top + into * 1.6, bottom + into * 1.6, bottom)]
            for tip in (top, bottom):
                found.append(Path.through(tip + into * 0.6 + down * 0.35, tip, tip + into * 0.6 - down * 0.35))
            return found
        found = [Path.through(top, bottom), *(_head(a, b) for a, b in ((bottom, top), (top, bottom))[: 1 if self.nap else 2])]
        if self.stretch is not None:
            a, b = self.stretch
            found += [Path.through(a, b), _head(a, b), _head(b, a)]
        return found

    def _names(self) -> Iterator[Name]:
        top, bottom = self.grain
        if self.on_fold:
            bar = self.inward * 1.6
            yield Name("FOLD", Path.through(top + bar, bottom + bar), strong=True, size=0.5)
        else:
            yield Name(self.grain_words, Path.through(top, bottom))
        if self.stretch is not None:
            yield Name("most stretch", Path.through(*self.stretch))
        for edge in self.piece.edges:
            if centre(edge.role):
                yield Name(ROLES[edge.role].words, edge.parts[0])
            if edge.name in self.spare and self.spare[edge.name] > 0:
                yield Name("to let out", edge.parts[0])
        for name, path in self._longest_levels():
            yield Name(name.replace("_", " "), path)
        for line in self.piece.lines:
            yield Name(line.title.lower(), line.path)
        for zone in self.zones:
            yield Name(zone.words, zone.line)

    def _longest_levels(self) -> list[tuple[str, Path]]:
        """The levels, of a line that is bent the longest part of each run."""
        runs: list[list[tuple[str, Path]]] = []
        for level in self.levels():
            if runs and runs[-1][-1][0] == level[0] and runs[-1][-1][1].end.to(level[1].start) < FLAT:
                runs[-1].append(level)
            else:
                runs.append([level])
        return [max(run, key=lambda level: level[1].length) for run in runs]


def _spots(points: Sequence[Point], by: Transform) -> tuple[Point, ...]:
    return tuple(point.moved(by) for point in points)


def _carried(mirror: Transform | None, by: Transform) -> Transform | None:
    """A reflection as it is for what was moved."""
    return None if mirror is None else by.transform(mirror).transform(by.inverse())


def _head(start: Point, tip: Point) -> Path:
    way = (tip - start).unit()
    back, side = tip - way * 0.8, way.square() * 0.4
    return Path.through(back + side, tip, back - side)


def marked(
    garment: Garment, piece: Piece, wanted: Wanted, corners: Mapping[str, Finish], drill: str, label: Label, show: Display, *,
    knit: bool,
) -> MarkedPiece:  # fmt: skip
    """A piece, as it lies where it is marked, with all that belongs on it."""
    amounts = wanted.amounts(piece)
    cut = tuple(cutting_line(piece, amounts, corners))
    grain = grain_line(piece)
    words = grain_words(piece, knit=knit)
    mirror = _over_the_fold(piece) if wanted.whole else None
    found = MarkedPiece(
        piece, amounts, {e.name: wanted.spare(piece, e) for e in piece.edges}, cut, _tails(piece, amounts, cut),
        notches(garment, piece, amounts, cut), drill_holes(piece, drill), buttons(piece), zones(garment, piece, show), grain, words,
        stretch_line(piece, grain) if knit and piece.stands != "fold" else None, label, mirror, wanted.nap,
    )  # fmt: skip
    return found if mirror is None else replace(found, cut=_both(cut, mirror))


def _over_the_fold(piece: Piece) -> Transform | None:
    """What lays the other half of a piece over its fold; None where it has none."""
    fold = next((edge for edge in piece.edges if edge.kind == "fold"), None)
    return None if fold is None else mirror_in(fold.start, fold.end)


TOUCH = 1e-4  # cm that both halves of a piece go over the fold, so that they are one


def opened_cut(marked: MarkedPiece) -> tuple[Point, ...]:
    """The cutting line of the whole piece, where half of it is drawn to a fold; as it is, where all of it is drawn."""
    mirror = None if marked.mirror is not None else _over_the_fold(marked.piece)
    return marked.cut if mirror is None else _both(marked.cut, mirror)


def _both(points: Sequence[Point], mirror: Transform) -> tuple[Point, ...]:
    """A ring with its mirror as one."""
    halves = [Polygon(points), Polygon([p.moved(mirror) for p in points])]
    both = union_all([half.buffer(0).buffer(TOUCH, join_style="mitre") for half in halves])
    outer = both if both.geom_type == "Polygon" else max(both.geoms, key=lambda g: g.area)
    return tuple(Point(x, y) for x, y in outer.exterior.coords[:-1])


def _tails(piece: Piece, amounts: Mapping[str, float], cut: tuple[Point, ...]) -> tuple[Path, ...]:
    """Both stitching lines carried straight on over every corner to the cutting line."""
    tails = []
    ring = piece.edges
    for before, after in zip(ring, [*ring[1:], ring[0]], strict=True):
        corner = before.end
        if "fold" in (before.kind, after.kind) or "hem" in (before.kind, after.kind):
            continue
        turned = piece.outward(before.parts[-1].arriving).dot(after.parts[0].leaving)
        if turned > -TURNED:  # one line, or a corner inside: the lines would run over the piece
            continue
        if amounts[after.name] > 0:
            tails.append(Path.through(corner, out_to_cut(cut, corner, before.parts[-1].arriving)))
        if amounts[before.name] > 0:
            tails.append(Path.through(corner, out_to_cut(cut, corner, -after.parts[0].leaving)))
    return tuple(tails)
