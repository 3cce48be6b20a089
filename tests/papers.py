"""Judging marked patterns by geometry of its own, and any design on any body to judge (`make paper` judges five hundred)."""

from __future__ import annotations

import argparse
import pickle
import random
from collections import Counter
from dataclasses import replace

import numpy as np
from shapely import LineString, MultiLineString, Polygon
from shapely import Point as Dot

import widehem.core.drafting.methods  # noqa: F401 - registers them
from tests.wide import body
from widehem.core.design.design import method_design
from widehem.core.design.make import Made, make
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.geometry.points import Point, angle_between, mirror_in
from widehem.core.marking.made import Pattern, mark_up
from widehem.core.marking.piece import MarkedPiece
from widehem.core.marking.plans import PLANS
from widehem.core.marking.wanted import CLOTH, Wanted
from widehem.core.output.sheets import PAPERS, Sheets, sheets_for
from widehem.core.pattern.edge import Edge
from widehem.core.setting.refusal import CannotDraft

OFF, INSIDE = 0.02, 0.01  # cm: of a distance; by which a piece may stand out of its cutting line
FOLDED = 0.1  # cm that a hem may stand out beyond what it lies on when it is folded
TURNS = 6.0  # degrees: spots nearer a sharper turn than the allowance is wide are corners, not edges


def faults(pattern: Pattern, sheets: Sheets | None = None) -> list[str]:
    """What is wrong with a pattern on paper, a line each."""
    found = [fault for marked in pattern.pieces for fault in (*_cut(marked), *_hems(marked), *_words(marked))]
    if sheets is not None:
        found += [fault for laid in sheets.layout.pieces for fault in (*_words(laid.marked), *_borders(laid.marked, sheets))]
        found += _on_each_other(sheets)
    return found


def _cut(marked: MarkedPiece) -> list[str]:
    """The piece lies inside its cutting line, and that is as far from every edge as was asked for."""
    piece, cut = marked.piece, Polygon(marked.cut)
    if not cut.is_valid:
        return [f"{piece.name}: the cutting line crosses itself"]
    found = []
    over = Polygon(piece.outline(0.005)).buffer(0).difference(cut.buffer(INSIDE)).area
    if over > 0.02:
        found.append(f"{piece.name}: {over:.3f} cm² stand outside the cutting line")
    ring = cut.exterior
    for edge in piece.edges:
        want = marked.amounts[edge.name]
        if edge.kind == "fold" and marked.mirror is not None:  # it lies in the middle now
            continue
        for spot in _calm(edge, want):
            got = ring.distance(Dot(*spot))
            if got > want + OFF or (got < want - OFF and not _narrow(marked, edge, spot, want)):
                found.append(f"{piece.name}.{edge.name}: {got:.3f} cm in place of {want:.3f}")
                break
    return found


def _calm(edge: Edge, want: float) -> list[Point]:
    """Spots along an edge that are farther from a corner than its allowance is wide."""
    found = []
    for path in edge.parts:
        flat = path.flat(0.01)
        corners = [flat[0], flat[-1]]
        corners += [b for a, b, c in zip(flat, flat[1:], flat[2:], strict=False) if angle_between(b - a, c - b) > TURNS]
        for share in np.linspace(0.05, 0.95, 19):
            spot = path.place(path.length * float(share)).point
            if all(spot.to(corner) > max(want * 2.5, 0.5) for corner in corners):
                found.append(spot)
    return found


def _narrow(marked: MarkedPiece, edge: Edge, spot: Point, want: float) -> bool:
    """Whether another edge with less comes so near that its cutting line is what is measured."""
    others = [(o, marked.amounts[o.name]) for o in marked.piece.edges if o is not edge]
    return any(
        LineString([p for path in o.paths() for p in path.flat(0.05)]).distance(Dot(*spot)) + amount < want + 0.3
        for o, amount in others
    )


def _hems(marked: MarkedPiece) -> list[str]:
    """A hem folded along its line lies on the piece all over; what is longer than where it lies is not counted, it is eased."""
    found = []
    cut, piece = Polygon(marked.cut), marked.piece
    whole = cut
    for fold in piece.edges:
        if fold.kind == "fold" and marked.mirror is None:  # the other half of the cloth lies there
            whole = whole.union(Polygon([p.moved(mirror_in(fold.start, fold.end)) for p in marked.cut]).buffer(0.01))
    for edge in piece.edges:
        depth = marked.amounts[edge.name]
        beside = any(other.kind == "hem" for other in piece.beside(edge.name))
        if edge.kind != "hem" or depth <= 0 or edge.gaps or beside or marked.mirror is not None:
            continue
        rim = LineString(
            [
                edge.start - edge.leaving * 30,
                *(p for path in edge.paths() for p in path.flat(0.005)),
                edge.end + edge.arriving * 30,
            ]
        )
        sign = 1.0 if piece.outward(edge.leaving).dot(edge.leaving.square()) > 0 else -1.0
        deep = min(depth, _height(marked, edge))
        for x, y in cut.exterior.segmentize(0.2).coords:
            at = rim.project(Dot(x, y))
            foot, ahead = rim.interpolate(at), rim.interpolate(min(at + 1e-4, rim.length))
            way = Point(ahead.x - foot.x, ahead.y - foot.y)
            off = Point(x - foot.x, y - foot.y)
            outside = off.dot(way.square()) * sign
            if not 0.05 < off.size < deep - 0.05 or outside <= 0 or abs(off.dot(way)) > 0.2 * off.size * way.size:
                continue
            folded = Dot(2 * foot.x - x, 2 * foot.y - y)
            if whole.distance(folded) > FOLDED:
                found.append(f"{piece.name}.{edge.name}: folded, it stands out by {cut.distance(folded):.2f} cm")
                break
    return found


def _height(marked: MarkedPiece, edge: Edge) -> float:
    """How far the piece goes up from a hem, at the least of its two ends, cm."""
    before, after = marked.piece.beside(edge.name)
    return min(max(before.start.to(edge.start), 0.0), max(after.end.to(edge.end), 0.0)) * 0.9


def _words(marked: MarkedPiece) -> list[str]:
    """No word lies on a line, stands out of the piece, or lies on another."""
    piece, found = marked.piece, []
    lines = [p.flat(0.02) for edge in piece.edges for p in edge.paths()]
    lines += [p.flat(0.02) for _, paths in marked.inner_paths() for p in paths]
    lines += [p.flat(0.02) for p in marked.grain_paths()] + [[n.at, n.inner] for n in marked.notches]
    if marked.mirror is not None:
        lines = [*lines, *([p.moved(marked.mirror) for p in line] for line in lines)]
    drawn = MultiLineString([line for line in lines if len(line) > 1])
    cut, boxes = Polygon(marked.cut), []
    for row in marked.written.words:
        box = Polygon(row.outline)
        if box.intersects(drawn) and marked.mirror is None:
            found.append(f"{piece.name}: {row.text[:24]!r} lies on a line")
        if not cut.contains(box):
            found.append(f"{piece.name}: {row.text[:24]!r} stands out of the piece")
        boxes.append((row, box.buffer(-0.02)))
    for n, (row, box) in enumerate(boxes):
        if any(box.intersects(other) for _, other in boxes[:n]):
            found.append(f"{piece.name}: {row.text[:24]!r} lies on other words")
    return found


def _borders(marked: MarkedPiece, sheets: Sheets) -> list[str]:
    """No word is parted by the border of two sheets: it stands whole on one of them."""
    found = []
    (step_x, step_y), scale = sheets.step, sheets.scale
    if len(sheets.tiles) < 2:
        return []
    wide, high = sheets.paper.tile
    for row in marked.written.words:
        xs, ys = ([p[i] * scale for p in row.outline] for i in (0, 1))
        columns = range(sheets.columns)
        whole = any(
            c * step_x - 1e-6 <= min(xs) and max(xs) <= c * step_x + wide + 1e-6 and r * step_y - 1e-6 <= min(ys) and max(ys) <= r * step_y + high + 1e-6
            for c in columns for r in range(sheets.rows)
        )  # fmt: skip
        if not whole:
            found.append(f"{marked.piece.name}: {row.text[:24]!r} stands whole on no sheet")
    return found


def _on_each_other(sheets: Sheets) -> list[str]:
    shapes = [(laid.marked.piece.name, Polygon(laid.cut)) for laid in sheets.layout.pieces]
    return [
        f"{a} lies on {b}" for n, (a, one) in enumerate(shapes) for b, two in shapes[:n] if one.intersection(two).area > 0.01
    ]


def any_made(chance: random.Random) -> tuple[str, Made]:
    """A method or a design that ships, on a body of any kind. Raises CannotDraft where these do not go together."""
    chart = body(chance)
    codes = [*(f"method {code}" for code in METHODS), *(f"design {code}" for code in shipped())]
    code = chance.choice(codes)
    kind, _, name = code.partition(" ")
    if kind == "design":
        return code, make(shipped()[name].design, chart)
    method = METHODS[name]
    hole = armhole_of(make(method_design(METHODS[method.made_for]), chart).garment) if method.for_armhole else None
    return code, make(method_design(method), chart, armhole=hole)


def any_wanted(chance: random.Random, made: Made) -> Wanted:
    """A plan any way: with cloth to let out, pieces whole, edges with figures of their own."""
    plan = PLANS[chance.choice([code for code in PLANS if code != "none"])]
    if chance.random() < 0.3:
        plan = plan.with_amounts({"let_out": 2.5})
    own = {}
    for piece in made.garment.pieces:
        for edge in piece.edges:
            if chance.random() < 0.05 and edge.kind != "fold":
                own[f"{piece.name}.{edge.name}"] = round(chance.uniform(0.3, 4.0), 1)
    return replace(Wanted({CLOTH: plan}), edges=own, whole=chance.random() < 0.2, nap=chance.random() < 0.2)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("count", nargs="?", type=int, default=500)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--keep", default="", metavar="FILE", help="where what was judged wrong is kept, to be looked at")
    given = parser.parse_args()
    chance, told, judged, refused = random.Random(given.seed), Counter[str](), 0, 0
    spots = 0
    while judged < given.count:
        try:
            code, made = any_made(chance)
        except CannotDraft:
            refused += 1
            continue
        wanted = any_wanted(chance, made)
        pattern = mark_up(made, wanted)
        paper = PAPERS[chance.choice(list(PAPERS))]
        scale = chance.choice((1.0, 1.0, 0.5, 0.25))
        found = faults(pattern, sheets_for(pattern, paper, scale) if judged % 3 == 0 else None)
        judged += 1
        spots += sum(len(_calm(edge, 1.0)) for marked in pattern.pieces for edge in marked.piece.edges)
        for fault in dict.fromkeys(found):
            told[f"{code}, {wanted.plan.code}: {fault}"] += 1
        if found and given.keep:
            with open(given.keep, "ab") as file:
                pickle.dump((code, made.chart, wanted, found), file)
    print(f"{judged} patterns judged at {spots} spots of their edges, {refused} bodies refused; {sum(told.values())} faults")
    for line, times in told.most_common(60):
        print(f"    {times:3} {line}")


if __name__ == "__main__":
    main()
