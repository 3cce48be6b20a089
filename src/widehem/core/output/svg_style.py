"""The table of the style station: pieces whose edges and darts can be pointed at, before and after laid over each other."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from html import escape

from fontTools.misc.transform import Transform

from widehem.core.geometry.paths import Path, svg_d
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.setting.option import Option
from widehem.core.style.handles import Handle
from widehem.core.style.suggest import Pointed
from widehem.core.style.suggest_inside import MARKS
from widehem.core.units import Display
from widehem.core.values import record

EDGE, SAME, APART, CROSS, ASPECT = 2.0, 1e-6, 5.0, 0.7, 1.35  # cm; of the table
LAYERS = ("shell", "facing", "lining", "interfacing", "inside")
Address = Callable[[Pointed], str]


@record(frozen=True)
class Room:
    """What lies in one place of the table: a piece, or all that came of one."""

    name: str
    layer: str
    bounds: tuple[float, float, float, float]

    def with_(self, piece: Piece) -> Room:
        """The same with room for another piece on it."""
        (a, b, c, d), (e, f, g, h) = self.bounds, piece.bounds
        return Room(self.name, self.layer, (min(a, e), min(b, f), max(c, g), max(d, h)))


def spread_out(pieces: Sequence[Piece | Room], aspect: float = ASPECT) -> dict[str, Transform]:
    """Where pieces lie on the table, by their names: in rows, those of the outside first, so that all of them fill it."""
    order = sorted(pieces, key=lambda piece: LAYERS.index(piece.layer))
    area = sum((p.bounds[2] - p.bounds[0] + APART) * (p.bounds[3] - p.bounds[1] + APART) for p in order)
    best: tuple[float, dict[str, Transform]] | None = None
    for share in (0.7, 0.85, 1.0, 1.15, 1.3, 1.5, 1.8, 2.2, 3.0):
        lay, wide, high = _rows(order, math.sqrt(area * aspect) * share)
        scale = max(wide / aspect, high)
        if best is None or scale < best[0] - 1e-6:
            best = scale, lay
    assert best is not None
    return best[1]


def over_each_other(before: Garment, after: Garment) -> dict[str, Transform]:
    """Where pieces lie so that what was lies over what is: of one name on each other, what was cut off a piece where it was cut."""
    old = {piece.name for piece in before.pieces}
    new = [piece for piece in after.pieces if piece.name not in old]
    parents = {piece.name: _cut_from(piece, before, after) for piece in new}
    rooms = {piece.name: Room(piece.name, piece.layer, piece.bounds) for piece in before.pieces}
    for piece in after.pieces:
        at = piece.name if piece.name in old else parents[piece.name]
        if at:
            rooms[at] = rooms[at].with_(piece)
    lay = spread_out([*rooms.values(), *(piece for piece in new if not parents[piece.name])])
    return lay | {name: lay[parent] for name, parent in parents.items() if parent}


def _cut_from(piece: Piece, before: Garment, after: Garment) -> str:
    """The piece before to which an edge belonged that has come to lie on this one; '' where it was drawn anew."""
    if piece.layer != "shell":
        return ""
    for ref, chain in after.now.items():
        if any(entry.piece == piece.name for entry in chain):
            for was in before.now.get(ref, (ref,)):
                if before.has(was):
                    return was.piece
    return ""


def _rows(order: Sequence[Piece | Room], most: float) -> tuple[dict[str, Transform], float, float]:
    """Pieces in rows no wider than that; and how wide and high they are together."""
    found: dict[str, Transform] = {}
    x = y = deep = wide = 0.0
    for piece in order:
        left, top, right, bottom = piece.bounds
        if x and x + right - left > most:
            x, y, deep = 0.0, y + deep + APART, 0.0
        found[piece.name] = Transform().translate(x - left, y - top)
        x, deep, wide = x + right - left + APART, max(deep, bottom - top), max(wide, x + right - left)
    return found, wide, y + deep


def frame_of(pieces: Sequence[Piece]) -> str:
    """The view box round some pieces, cm."""
    lefts, tops, rights, bottoms = zip(*(piece.bounds for piece in pieces), strict=True)
    left, top = min(lefts) - EDGE, min(tops) - EDGE
    return f"{left:.2f} {top:.2f} {max(rights) - left + EDGE:.2f} {max(bottoms) - top + EDGE:.2f}"


def table_svg(pieces: Sequence[Piece], to: Address, show: Display, at: Pointed | None = None) -> str:
    """The inside of the drawing: every edge and every dart leads to what can be done there. at: what is pointed at now."""
    rows = []
    for piece in pieces:
        rows.append(f'<path class="cloth layer-{piece.layer}" d="{svg_d(piece.ring, closed=True)}"/>')
        rows += [f'<path class="inside" d="{svg_d([line])}"/>' for line in piece.inside]
        rows += _inside_picks(piece, to, at)
    for piece in pieces:
        for edge in piece.edges:
            here = at is not None and (at.piece, at.edge, at.dart) == (piece.name, edge.name, "")
            words = f"{plain(piece.name)}, {ROLES[edge.role].words} {plain(edge.name)}, {show.full(edge.length)}"
            href = escape(to(Pointed(piece.name, edge.name, edge.length / 2)))
            line = svg_d(edge.parts)
            rows.append(
                f'<a href="{href}" class="pick{" is-at" if here else ""}" data-long="{edge.length:.3f}" aria-label="{escape(words)}">'
                f'<path class="reach" d="{line}"/><path class="edge" d="{line}"/></a>'
            )
            for dart in edge.darts:
                here = at is not None and (at.piece, at.dart) == (piece.name, dart.name)
                words = f"{plain(piece.name)}, {plain(dart.name)}, {show.full(dart.mouth)} at its mouth"
                href = escape(to(Pointed(piece.name, edge.name, 0.0, dart.name)))
                line = svg_d([Path.through(dart.inner, dart.point, dart.outer)])
                rows.append(
                    f'<a href="{href}" class="pick{" is-at" if here else ""}" aria-label="{escape(words)}">'
                    f'<path class="reach" d="{line}"/><path class="edge dart" d="{line}"/></a>'
                )
    return "".join(rows)


def _inside_picks(piece: Piece, to: Address, at: Pointed | None) -> Iterator[str]:
    """The levels and the landmarks of a piece, each leading to what can be done there."""
    for line in piece.balance:
        path = "".join(svg_d([Path.through(a, b)]) for a, b in piece.stretches(line.level))
        shapes = f'<path class="reach" d="{path}"/><path class="edge level" d="{path}"/>'
        if path:
            yield _inside_pick(piece, line.level, "level", shapes, to, at)
    for name in MARKS:
        if piece.layer == "shell" and (spot := piece.marks.get(name)) is not None:
            x, y = spot
            cross = f"M{x - CROSS:.2f} {y:.2f}h{2 * CROSS:.2f}M{x:.2f} {y - CROSS:.2f}v{2 * CROSS:.2f}"
            yield _inside_pick(piece, name, "", f'<path class="reach" d="{cross}"/><path class="edge" d="{cross}"/>', to, at)


def _inside_pick(piece: Piece, name: str, kind: str, shapes: str, to: Address, at: Pointed | None) -> str:
    here = at is not None and (at.piece, at.inside) == (piece.name, name)
    words = f"{plain(piece.name)}, {plain(name)} {kind}".strip()
    href = escape(to(Pointed(piece.name, "", inside=name)))
    return f'<a href="{href}" class="pick{" is-at" if here else ""}" aria-label="{escape(words)}">{shapes}</a>'


def pieces_svg(pieces: Sequence[Piece], aspect: float = 1.2) -> tuple[str, str]:
    """A small picture of a whole garment, its pieces in rows: the inside of the drawing, and its view box, cm."""
    lay = spread_out(pieces, aspect)
    placed = [piece.moved(lay[piece.name]) for piece in pieces]
    rows = []
    for piece in placed:
        rows.append(f'<path class="piece" d="{svg_d(piece.ring, closed=True)}"/>')
        inner = [Path.through(dart.inner, dart.point, dart.outer) for dart in piece.darts]
        rows += [f'<path class="thin" d="{svg_d([line])}"/>' for line in (*inner, *piece.inside)]
    return "".join(rows), frame_of(placed)


def over_svg(before: Sequence[Piece], after: Sequence[Piece]) -> str:
    """Before, dashed, and after, solid: the pieces that differ strong, the others faint."""
    old, new = ({piece.name: piece for piece in pieces} for pieces in (before, after))
    changed = {piece.name for piece in after if piece.name not in old or not _alike(old[piece.name], piece)}
    rows = [f'<path class="cloth" d="{svg_d(piece.ring, closed=True)}"/>' for piece in after if piece.name in changed]
    for name, piece in old.items():
        if name not in new or name in changed:
            still = {(dart.inner, dart.point, dart.outer) for dart in new[name].darts} if name in new else set()
            rows.append(f'<path class="before" d="{svg_d(piece.ring, closed=True)}"/>')
            rows += [
                f'<path class="before" d="{svg_d([Path.through(d.inner, d.point, d.outer)])}"/>'
                for d in piece.darts if (d.inner, d.point, d.outer) not in still
            ]  # fmt: skip
    for piece in after:
        rows.append(f'<path class="{"after" if piece.name in changed else "kept"}" d="{svg_d(piece.ring, closed=True)}"/>')
        rows += [f'<path class="inside" d="{svg_d([Path.through(d.inner, d.point, d.outer)])}"/>' for d in piece.darts]
        rows += [f'<path class="inside" d="{svg_d([line])}"/>' for line in piece.inside]
    return "".join(rows)


def handles_svg(found: Sequence[tuple[Handle, Option]], lay: Mapping[str, Transform], size: float, show: Display) -> str:
    """The places that can be pulled, each a slider with the option of its amount. lay: where the pieces lie; size: how big
    they are, cm."""
    rows = []
    for handle, option in found:
        if handle.piece not in lay:
            continue
        at, tip = handle.at.moved(lay[handle.piece]), handle.way.unit() * size * 2.2
        rows.append(
            f'<g class="pull" tabindex="0" role="slider" aria-label="{escape(option.name)}" '
            f'aria-valuenow="{handle.value:.2f}" aria-valuemin="{option.low:g}" aria-valuemax="{option.high:g}" '
            f'aria-valuetext="{show.full(handle.value)}" data-step="{option.step:g}" data-unit="{show.unit}" '
            f'data-field="s.{handle.code}" data-x="{handle.way.x:.5f}" data-y="{handle.way.y:.5f}" transform="translate({at.x:.3f} {at.y:.3f})">'
            f'<path class="pull-way" d="M{-tip.x:.2f} {-tip.y:.2f}L{tip.x:.2f} {tip.y:.2f}"/><circle class="pull-reach" r="{size * 1.6:.2f}"/>'
            f'<circle class="pull-dot" r="{size * 0.62:.2f}"/></g>'
        )
    return "".join(rows)


def _alike(one: Piece, two: Piece) -> bool:
    return len(one.edges) == len(two.edges) and all(
        a.name == b.name and abs(a.length - b.length) < SAME and a.start.to(b.start) < SAME and len(a.gaps) == len(b.gaps)
        for a, b in zip(one.edges, two.edges, strict=True)
    )


def change_svg(before: Sequence[Piece], after: Sequence[Piece], most: int = 3) -> tuple[str, str] | None:
    """A small picture of what an operation does: the pieces that differ, at most so many, before dashed; None where none does."""
    old = {piece.name: piece for piece in before}
    changed = [piece for piece in after if piece.name not in old or not _alike(old[piece.name], piece)]
    if not changed:
        return None
    shown = changed[:most]
    rows: list[str] = []
    right = bottom = 0.0
    for piece in shown:
        boxes = [piece.bounds] + ([old[piece.name].bounds] if piece.name in old else [])
        left, high = min(b[0] for b in boxes), min(b[1] for b in boxes)
        wide, low = max(b[2] for b in boxes) - left, max(b[3] for b in boxes)
        x, y = right - left + (4.0 if rows else 0.0), -high
        place = f'transform="translate({x:.2f} {y:.2f})"'
        inside = "".join(f'<path class="thin" d="{svg_d([Path.through(d.inner, d.point, d.outer)])}"/>' for d in piece.darts)
        was = f'<path class="was" d="{svg_d(old[piece.name].ring, closed=True)}"/>' if piece.name in old else ""
        rows.append(f'<g {place}>{was}<path class="piece" d="{svg_d(piece.ring, closed=True)}"/>{inside}</g>')
        right, bottom = x + left + wide, max(bottom, low - high)
    return "".join(rows), f"-1 -1 {right + 2:.2f} {bottom + 2:.2f}"
