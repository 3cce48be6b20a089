"""A nest on paper and in files: every size marked, laid over each other, told apart by dash and by name, a layer for each."""

from __future__ import annotations

import json
import math
from collections.abc import Callable, Mapping, Sequence
from typing import Any

from fontTools.misc.transform import Transform
from shapely import Polygon, intersection_all, union_all

from widehem.core.design.make import Made
from widehem.core.geometry.points import Point
from widehem.core.grading.nest import Nest
from widehem.core.grading.views import Anchor
from widehem.core.marking.labels import Heading
from widehem.core.marking.made import Pattern, mark_up
from widehem.core.marking.piece import MarkedPiece
from widehem.core.marking.wanted import Wanted
from widehem.core.output.ink import Ink, Words, ink_of
from widehem.core.output.json_draft import draft_as_json
from widehem.core.output.laid import QUARTERS, Laid
from widehem.core.output.sheets import Paper, Sheets, sheets_for
from widehem.core.units import METRIC, Display
from widehem.core.values import record, replace

ONE_FOR_ALL = ("words", "grain")  # kinds of line that are drawn once
OF_EVERY_SIZE = ("cut", "notch", "drill")  # the rest is that of the base: within so many lines nobody finds their own
LETTER, READABLE = 0.45, 0.21  # cm: the name of a size, and on paper at least
CLEAR = 1.1  # heights of it that two names are apart
# dashes of the cutting lines, points: the base solid, then as on the screen
DASHES: tuple[tuple[float, ...], ...] = ((12, 4), (12, 4, 2, 4), (5, 4), (2, 3), (12, 4, 2, 4, 2, 4), (18, 4, 5, 4))


@record(frozen=True)
class OneSize:
    """A size of a nest: its name, its garment, and how each piece is laid on that of the base, in the frames of the pieces."""

    name: str
    made: Made
    lays: Mapping[str, Transform]
    away: int  # steps from the base


@record(frozen=True)
class NestOrder:
    """A nest that is to be written. base: the number of the size it is laid on, among these. what: what all of it is called."""

    sizes: tuple[OneSize, ...]
    base: int
    heading: Heading
    wanted: Wanted
    paper: Paper
    scale: float = 1.0
    show: Display = METRIC


@record(frozen=True)
class Nested:
    """A nest where it lies on the paper. ink: by the name of the size; words: once for all. sheets: of the outermost lines."""

    sheets: Sheets
    pattern: Pattern
    ink: Mapping[str, tuple[Ink, ...]]
    words: tuple[Ink, ...]
    dashes: Mapping[str, tuple[float, ...]]
    pieces: Mapping[str, tuple[Laid, ...]]


def nested(order: NestOrder) -> Nested:
    """All sizes marked, laid over each other and arranged on the paper."""
    patterns = [mark_up(one.made, order.wanted, _headed(order.heading, one.name), order.show) for one in order.sizes]
    base = patterns[order.base]
    lying = [[_on_base(order, number, marked) for marked in pattern.pieces] for number, pattern in enumerate(patterns)]
    by_name = [{marked.piece.name: marked for marked in row} for row in lying]
    hulls = tuple(
        replace(marked, cut=_outermost([row[marked.piece.name].cut for row in by_name if marked.piece.name in row]))
        for marked in base.pieces
    )
    names = " ".join(one.name for one in order.sizes)
    pattern = replace(base, pieces=hulls, heading=replace(base.heading, version=f"sizes {names}"))
    sheets = sheets_for(pattern, order.paper, order.scale)
    ink: dict[str, list[Ink]] = {one.name: [] for one in order.sizes}
    pieces: dict[str, list[Laid]] = {one.name: [] for one in order.sizes}
    words: list[Ink] = []
    for hull, laid in zip(hulls, sheets.layout.pieces, strict=True):
        by = _put(hull, laid)
        rings: list[tuple[str, Sequence[Point]]] = []
        for one, row in zip(order.sizes, by_name, strict=True):
            if hull.piece.name not in row:
                continue
            marked = row[hull.piece.name].moved(by)
            pieces[one.name].append(Laid(marked, laid.turned))
            rings.append((one.name, marked.cut))
            ink[one.name] += [
                mark for mark in ink_of(marked) if (mark.kind in OF_EVERY_SIZE if one.away else mark.kind not in ONE_FOR_ALL)
            ]
        told = replace(laid.marked, cut=_innermost([ring for _, ring in rings]))
        words += [mark for mark in ink_of(told) if mark.kind in ONE_FOR_ALL]
        words += _named(rings, order.sizes[order.base].name, max(LETTER, READABLE / order.scale))
    dashes = {one.name: () if not one.away else DASHES[(abs(one.away) - 1) % len(DASHES)] for one in order.sizes}
    return Nested(
        sheets,
        pattern,
        {name: tuple(found) for name, found in ink.items()},
        tuple(words),
        dashes,
        {name: tuple(row) for name, row in pieces.items()},
    )


def _headed(heading: Heading, size: str) -> Heading:
    return replace(heading, version=f"size {size}")


def _on_base(order: NestOrder, number: int, marked: MarkedPiece) -> MarkedPiece:
    """A piece of a size laid on that of the base, as that lies on its sheet."""
    one, base = order.sizes[number], order.sizes[order.base]
    name = marked.piece.name
    there, here = base.made.table.lay.get(name), one.made.table.lay.get(name)
    lays = one.lays.get(name)
    if there is None or here is None or lays is None:
        return marked
    return marked.moved(there.transform(lays).transform(here.inverse()))


def _put(hull: MarkedPiece, laid: Laid) -> Transform:
    """How a piece came to lie where it was put."""
    turned = hull.moved(QUARTERS[laid.turned]) if laid.turned else hull
    dx, dy = laid.marked.bounds[0] - turned.bounds[0], laid.marked.bounds[1] - turned.bounds[1]
    return Transform().translate(dx, dy).transform(QUARTERS[laid.turned])


def _outermost(rings: Sequence[Sequence[Point]]) -> tuple[Point, ...]:
    return _ring(union_all([Polygon([tuple(at) for at in ring]).buffer(0) for ring in rings]), rings[0])


def _innermost(rings: Sequence[Sequence[Point]]) -> tuple[Point, ...]:
    return _ring(intersection_all([Polygon([tuple(at) for at in ring]).buffer(0) for ring in rings]), rings[0])


def _ring(shape: Any, otherwise: Sequence[Point]) -> tuple[Point, ...]:
    """The outline of a shape; of its largest part where it came apart."""
    parts = [
        part for part in getattr(shape, "geoms", [shape]) if getattr(part, "exterior", None) is not None and not part.is_empty
    ]
    if not parts:
        return tuple(otherwise)
    largest = max(parts, key=lambda part: part.area)
    return tuple(Point(x, y) for x, y in list(largest.exterior.coords)[:-1])


def _named(rings: Sequence[tuple[str, Sequence[Point]]], base: str, letter: float) -> list[Words]:
    """The names of the sizes at their lines, where those spread the most and names stand clear of each other."""
    ways = [Point(math.cos(n * math.pi / 8), math.sin(n * math.pi / 8)) for n in range(16)]
    reach = {name: [max(way.dot(at) for at in ring) for way in ways] for name, ring in rings}
    spread = [max(row[n] for row in reach.values()) - min(row[n] for row in reach.values()) for n in range(len(ways))]
    order = sorted(range(len(ways)), key=lambda n: -spread[n])
    taken: list[Point] = []
    found: list[Words] = []
    for name, ring in sorted(rings, key=lambda entry: entry[0] != base):
        for number in order:
            at = max(ring, key=ways[number].dot) - ways[number] * (letter * 0.9)
            if all(at.to(other) > letter * CLEAR for other in taken):
                break
        taken.append(at)
        found.append(Words(name, at, letter, strong=name == base))
    return found


def order_of_nest(
    nest: Nest, anchor: Anchor, heading: Heading, wanted: Wanted, paper: Paper, scale: float, show: Display
) -> NestOrder:
    """A nest ready to be written, laid over each other by an anchor."""
    base = nest.sizes[nest.base].garment
    sizes = []
    for size in sorted(nest.sizes):
        made = nest.sizes[size].made
        lays = {
            piece.name: way
            for piece in made.garment.pieces
            if any(other.name == piece.name for other in base.pieces)
            and (way := anchor.lays(base.piece(piece.name), piece) or Transform()) is not None
        }
        sizes.append(OneSize(nest.names[size], made, lays, size - nest.base))
    return NestOrder(tuple(sizes), next(n for n, one in enumerate(sizes) if not one.away), heading, wanted, paper, scale, show)


def nest_pdf(order: NestOrder) -> bytes:
    """All sizes over each other on sheets; a layer for each size and kind of line."""
    from widehem.core.output.pdf_sheets import sheets_pdf

    found = nested(order)
    layers = [(f"Size {name}", ink, found.dashes[name]) for name, ink in found.ink.items()]
    return sheets_pdf(found.pattern, order.paper, order.scale, found.sheets, [*layers, ("", found.words, ())])


def nest_dxf(order: NestOrder) -> bytes:
    """All sizes over each other: a block for each piece in each size, a layer for each size and kind of line."""
    from widehem.core.output.dxf import blocks_dxf

    found = nested(order)
    return blocks_dxf([(name, laid) for name, row in found.pieces.items() for laid in row], order.scale, found.pattern.heading)


def nest_svg_file(order: NestOrder) -> bytes:
    """All sizes over each other as a drawing in true millimetres, a group for each size."""
    from widehem.core.output.svg_pattern import layers_svg

    found = nested(order)
    groups = [(f"size-{name}", f"Size {name}", ink, found.dashes[name]) for name, ink in found.ink.items()]
    title = " · ".join(part for part in (order.heading.costume, found.pattern.heading.version) if part)
    return (layers_svg([*groups, ("words", "Words", found.words, ())], found.sheets.layout, title, order.scale) + "\n").encode()


def nest_json(order: NestOrder) -> bytes:
    """Points, lengths, seams and checks of every size."""
    data = {
        "format": "widehem-nest",
        "version": 1,
        "base": order.sizes[order.base].name,
        "sizes": {one.name: draft_as_json(one.made) for one in order.sizes},
    }
    return (json.dumps(data, indent=1, ensure_ascii=False) + "\n").encode()


@record(frozen=True)
class NestWriter:
    """A kind of file of a nest."""

    code: str
    ending: str
    mimetype: str
    write: Callable[[NestOrder], bytes]


NEST_WRITERS: Mapping[str, NestWriter] = {
    entry.code: entry
    for entry in (
        NestWriter("pdf", "pdf", "application/pdf", nest_pdf),
        NestWriter("dxf", "dxf", "image/vnd.dxf", nest_dxf),
        NestWriter("svg", "svg", "image/svg+xml", nest_svg_file),
        NestWriter("json", "json", "application/json", nest_json),
    )
}
