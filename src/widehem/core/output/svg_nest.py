"""A nest drawn: all sizes of each piece over each other, one ink, told apart by dash and weight, named at a corner."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from html import escape

from fontTools.misc.transform import Identity, Transform
from shapely import Polygon
from shapely.affinity import affine_transform

from widehem.core.geometry.paths import Path, svg_d
from widehem.core.geometry.points import Point
from widehem.core.grading.nest import Nest
from widehem.core.grading.views import Anchor, Dotting, Spots
from widehem.core.output.room import named
from widehem.core.output.svg_style import APART, LAYERS
from widehem.core.pattern.piece import Piece
from widehem.core.values import record

EDGE = 3.0  # cm round the drawing
DASHES = 6  # ways a line is dashed
NEAR = 1.15  # heights of a letter that two names are apart at least
Box = tuple[float, float, float, float]


@record(frozen=True)
class Lying:
    """One piece in all sizes as they lie over each other: how each is laid, the piece itself, the box round all, and the cloth of each as it
    is laid."""

    name: str
    title: str
    by: Mapping[int, Transform]
    pieces: Mapping[int, Piece]
    box: Box
    cloth: Mapping[int, Polygon]


def lying(nest: Nest, anchor: Anchor, only: str = "") -> list[Lying]:
    """Every piece with how its sizes lie over each other, in its own frame; sizes without the anchor's spots are left out."""
    base = nest.sizes[nest.base].garment
    found = []
    for piece in sorted(base.pieces, key=lambda piece: LAYERS.index(piece.layer)):
        if only and piece.name != only:
            continue
        pieces = {
            size: one.garment.piece(piece.name)
            for size, one in nest.sizes.items()
            if any(p.name == piece.name for p in one.garment.pieces)
        }
        by = {size: way for size, other in pieces.items() if (way := anchor.lays(piece, other)) is not None}
        if not by:
            by = {size: Transform() for size in pieces}
        cloth = {size: _lain(pieces[size], way) for size, way in by.items()}
        lefts, tops, rights, bottoms = zip(*(one.bounds for one in cloth.values()), strict=True)
        box = min(lefts), min(tops), max(rights), max(bottoms)
        found.append(Lying(piece.name, piece.title, by, pieces, box, cloth))
    return found


def _lain(piece: Piece, way: Transform) -> Polygon:
    """The cloth of a piece, to half a millimetre, lying elsewhere."""
    if way == Identity:
        return piece.surface
    xx, xy, yx, yy, dx, dy = way
    return affine_transform(piece.surface, (xx, yx, xy, yy, dx, dy))


def rows_of(all_: Sequence[Lying], aspect: float = 1.35) -> tuple[dict[str, Transform], Box]:
    """Where the pieces lie: in rows that fill a sheet of this shape; and the box round all."""
    area = sum((one.box[2] - one.box[0] + APART) * (one.box[3] - one.box[1] + APART) for one in all_)
    best: tuple[float, dict[str, Transform], float, float] | None = None
    for share in (0.7, 0.85, 1.0, 1.15, 1.3, 1.5, 1.8, 2.2, 3.0):
        lay, wide, high = _rows(all_, (area * aspect) ** 0.5 * share)
        scale = max(wide / aspect, high)
        if best is None or scale < best[0] - 1e-6:
            best = scale, lay, wide, high
    assert best is not None
    aside, over = (max(EDGE, max(best[2], best[3]) / share) for share in (22, 30))  # the names of sizes and pieces stand there
    return best[1], (-aside, -over, best[2] + aside, best[3] + over)


def _rows(all_: Sequence[Lying], most: float) -> tuple[dict[str, Transform], float, float]:
    found: dict[str, Transform] = {}
    x = y = deep = wide = 0.0
    for one in all_:
        left, top, right, bottom = one.box
        if x and x + right - left > most:
            x, y, deep = 0.0, y + deep + APART, 0.0
        found[one.name] = Transform().translate(x - left, y - top)
        x, deep, wide = x + right - left + APART, max(deep, bottom - top), max(wide, x + right - left)
    return found, wide, y + deep


def dash_of(size: int, base: int) -> str:
    """How the line of a size looks: the base solid and strong, every other by the number of steps from it, thin below it."""
    if size == base:
        return "n-base"
    return f"n-{(abs(size - base) - 1) % DASHES + 1} {'n-up' if size > base else 'n-down'}"


def nest_svg(
    nest: Nest, anchor: Anchor, to: Callable[[str, str], str] | None = None, picked: int | None = None
) -> tuple[str, str]:
    """The inside of the drawing and its view box, cm. picked: a size that is drawn strong. to: the address of the dots of a spot, by
    piece and address of the spot."""
    all_ = lying(nest, anchor)
    places, box = rows_of(all_)
    size_of_text = max(box[2] - box[0], box[3] - box[1]) / 62
    rows = []
    for one in all_:
        by = places[one.name]
        rows.append(f'<g class="nest-piece"><title>{escape(one.title)}</title>')
        for size in sorted(one.by, key=lambda size: (size == picked, size == nest.base)):
            way, piece = by.transform(one.by[size]), one.pieces[size]
            looks = f"n-line {dash_of(size, nest.base)}{' is-picked' if size == picked else ''}"
            rows.append(
                f'<path class="{looks}" data-size="{escape(nest.names[size])}" d="{svg_d(_moved(_open_ring(piece), way), closed=True)}"/>'
            )
            if size in (picked, nest.base):
                inner = _moved(piece.inside, way)
                rows += [f'<path class="n-in {dash_of(size, nest.base)}" d="{svg_d([line])}"/>' for line in inner]
        if to is not None:
            rows += _links(nest, one, by, to, size_of_text)
        rows += _names(nest, one, by, size_of_text, picked)
        rows.append(named(one.title, list(one.cloth.values()), size_of_text * 1.1, Point(by.dx, by.dy)))
        rows.append("</g>")
    return "".join(rows), f"{box[0]:.2f} {box[1]:.2f} {box[2] - box[0]:.2f} {box[3] - box[1]:.2f}"


def _moved(paths: Sequence[Path], way: Transform) -> list[Path]:
    return [path.moved(way) for path in paths]


def _open_ring(piece: Piece) -> list[Path]:
    """The outline with its darts drawn to their points."""
    found: list[Path] = []
    for edge in piece.edges:
        found.append(edge.parts[0])
        for gap, part in zip(edge.gaps, edge.parts[1:], strict=True):
            point = getattr(gap, "point", None)
            found += [
                Path.through(gap.inner, point, gap.outer)
                if point is not None and getattr(gap, "sewn", None) is None
                else gap.cap,
                part,
            ]
    return found


def _links(nest: Nest, one: Lying, by: Transform, to: Callable[[str, str], str], size: float) -> list[str]:
    """The corners of the base, each leading to its dots."""
    way = by.transform(one.by.get(nest.base, Transform()))
    piece = one.pieces[nest.base]
    found = []
    for place in Spots.of(nest, one.name).places:
        if place.target.kind in ("corner", "dart") and (place.target.kind == "corner" or place.target.part == "point"):
            at = place.at.moved(way)
            words = escape(f"{piece.title}, {place.title}: see its dots")
            found.append(
                f'<a class="n-spot" href="{escape(to(one.name, place.text))}" aria-label="{words}"><circle class="n-hit" cx="{at.x:.2f}" cy="{at.y:.2f}" r="{size * 0.9:.2f}"/><circle class="n-dot" cx="{at.x:.2f}" cy="{at.y:.2f}" r="{size * 0.2:.2f}"/></a>'
            )
    return found


def _names(nest: Nest, one: Lying, by: Transform, size: float, picked: int | None) -> list[str]:
    """The names of the sizes at the corner that spreads them the most, as many as stand clear of each other; one that fails is
    boxed."""
    best: list[tuple[int, Point]] = []
    widest = 0.0
    spots = Spots.of(nest, one.name)
    for place in spots.places:
        if place.target.kind != "corner":
            continue
        row = [
            (n, place_at.moved(by.transform(one.by[n])))
            for n in sorted(one.by)
            if (place_at := spots.lies(place, n)) is not None
        ]
        if len(row) > 1 and row[0][1].to(row[-1][1]) > widest + 0.05:
            best, widest = row, row[0][1].to(row[-1][1])
    if not best:
        return []
    middle = Point((one.box[0] + one.box[2]) / 2, (one.box[1] + one.box[3]) / 2).moved(by)
    away = (best[len(best) // 2][1] - middle).unit()
    wanted = sorted(
        best, key=lambda entry: (entry[0] != picked, entry[0] != nest.base, entry[0] not in (best[0][0], best[-1][0]), entry[0])
    )
    taken: list[Point] = []
    rows = []
    for number, at in wanted:
        spot = at + away * size * 1.1
        if any(abs(spot.x - other.x) < size * 1.6 and abs(spot.y - other.y) < size * NEAR for other in taken):
            continue
        taken.append(spot)
        words = escape(nest.names[number])
        fails = nest.sizes[number].fails
        looks = f"t-size{' is-picked' if number in (picked, nest.base) else ''}"
        if fails:
            wide = size * (0.62 * len(words) + 0.5)
            rows.append(
                f'<rect class="n-fails" x="{spot.x - wide / 2:.2f}" y="{spot.y - size * 0.85:.2f}" width="{wide:.2f}" height="{size * 1.15:.2f}"/>'
            )
        rows.append(
            f'<text class="{looks} t-middle halo" x="{spot.x:.2f}" y="{spot.y:.2f}" font-size="{size:.2f}">{words}</text>'
        )
    return rows


def dots_svg(nest: Nest, dotting: Dotting, upto: int | None = None, wide: float = 1.5) -> tuple[str, str]:
    """The dots of one spot looked at closely, with the lines of all sizes round them: inside and view box, cm. upto: the last size
    that is dotted, from the base outwards; None for all."""
    spots = list(dotting.dots.values())
    around = max((max(p.x for p in spots) - min(p.x for p in spots), max(p.y for p in spots) - min(p.y for p in spots), 2.0))
    middle = Point(
        (max(p.x for p in spots) + min(p.x for p in spots)) / 2, (max(p.y for p in spots) + min(p.y for p in spots)) / 2
    )
    half = around * 0.75 + wide
    high = half / 1.35
    if max(p.y for p in spots) - min(p.y for p in spots) > 2 * high - wide:
        high = (max(p.y for p in spots) - min(p.y for p in spots)) / 2 + wide
        half = high * 1.35
    anchor = Anchor()
    one = next(one for one in lying(nest, anchor, dotting.piece))
    text = half / 14
    shown = [size for size in dotting.dots if upto is None or min(nest.base, upto) <= size <= max(nest.base, upto)]
    rows = [
        f'<clipPath id="lens"><rect x="{middle.x - half:.3f}" y="{middle.y - high:.3f}" width="{2 * half:.3f}" height="{2 * high:.3f}"/></clipPath><g clip-path="url(#lens)">'
    ]
    for size in sorted(one.by, key=lambda size: size == nest.base):
        ring = _moved(_open_ring(one.pieces[size]), one.by[size])
        looks = f"n-line {dash_of(size, nest.base)}{'' if size in shown else ' is-later'}"
        rows.append(f'<path class="{looks}" d="{svg_d(ring, closed=True)}"/>')
    base = dotting.dots.get(nest.base)
    if base is not None:
        rows.append(
            f'<path class="n-plumb" d="M{base.x:.3f} {middle.y - high:.3f}V{middle.y + high:.3f}M{middle.x - half:.3f} {base.y:.3f}H{middle.x + half:.3f}"/>'
        )
    order = sorted(shown)
    track = [dotting.dots[size] for size in order]
    if len(track) > 1:
        rows.append(f'<path class="n-track" d="{svg_d([Path.through(*track)])}"/>')
    for size in order:
        at = dotting.dots[size]
        rows.append(
            f'<circle class="n-dotted{" is-base" if size == nest.base else ""}" cx="{at.x:.3f}" cy="{at.y:.3f}" r="{text * 0.22:.3f}"/>'
        )
    taken: list[Point] = []
    for size in sorted(order, key=lambda size: (size != nest.base, size not in (order[0], order[-1]), size)):
        at = dotting.dots[size] + Point(text * 0.45, -text * 0.45)
        if any(abs(at.x - other.x) < text * 1.3 and abs(at.y - other.y) < text for other in taken):
            continue
        taken.append(at)
        rows.append(
            f'<text class="t-size" x="{at.x:.3f}" y="{at.y:.3f}" font-size="{text:.3f}">{escape(nest.names[size])}</text>'
        )
    rows.append("</g>")
    return "".join(rows), f"{middle.x - half:.3f} {middle.y - high:.3f} {2 * half:.3f} {2 * high:.3f}"


def over_svg(first: Sequence[Piece], second: Sequence[Piece]) -> tuple[str, str]:
    """Two garments of the same pieces laid over each other, the first solid, the second dashed: inside and view box, cm."""
    others = {piece.name: piece for piece in second}
    boxes = []
    for piece in first:
        lefts, tops, rights, bottoms = zip(*(one.bounds for one in (piece, others.get(piece.name, piece))), strict=True)
        boxes.append(Lying(piece.name, piece.title, {}, {}, (min(lefts), min(tops), max(rights), max(bottoms)), {}))
    places, box = rows_of(boxes)
    letter = max(box[2] - box[0], box[3] - box[1]) / 56
    rows = []
    for piece in first:
        by = places[piece.name]
        rows.append(
            f'<path class="n-line n-base" d="{svg_d(_moved(_open_ring(piece), by), closed=True)}"><title>{escape(piece.title)}</title></path>'
        )
        if piece.name in others:
            rows.append(f'<path class="n-line n-second" d="{svg_d(_moved(_open_ring(others[piece.name]), by), closed=True)}"/>')
        cloth = [one.surface for one in (piece, others.get(piece.name, piece))]
        rows.append(named(piece.title, cloth, letter, Point(by.dx, by.dy)))
    return "".join(rows), f"{box[0]:.2f} {box[1]:.2f} {box[2] - box[0]:.2f} {box[3] - box[1]:.2f}"
