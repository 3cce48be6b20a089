"""Pieces without a method: outlines that were drawn elsewhere, whose edges a maker has named."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache
from typing import Any

from fontTools.misc.transform import Transform

from widehem.core.body.chart import Chart
from widehem.core.drafting.common_options import limits_of, wear_of
from widehem.core.drafting.method import Draft, Method, register, resolved
from widehem.core.drafting.outlined_data import KINDS, LEVELS, Outlined, edge_names, sizes_of
from widehem.core.drafting.outlines import (
    FoundDart,
    Outline,
    OutlineError,
    darts_of,
    matched,
    outline_from_data,
    without_allowance,
)
from widehem.core.drafting.sheet import Mark, Sheet
from widehem.core.drafting.table import Table
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.edge import Dart, Edge, Notch, PatternError
from widehem.core.pattern.garment import Chain, EdgeRef, Garment, Opening, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.setting.option import Option, Value
from widehem.core.setting.quantity import drawn as as_drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.setting.step import Step
from widehem.core.units import Saying, say

CODE = "outline"
APART = 6.0  # cm between pieces on the table
LEAST_EASE, SLACK = 1.0, 999.0  # cm


def _draw(sheet: Sheet) -> None:
    raise CannotDraft((), say("These pieces have no outlines yet: take a file in, or trace a picture, and name its pieces."))


METHOD: Method = register(
    Method(
        CODE, "Outlines from elsewhere", "Whole garments", "Pieces that were drawn elsewhere, with no method behind them.", (),
        (Option("size", "Size", "number", 1.0, "which size of a nest, counted from the first", 1.0, 40.0, 1.0),), (), _draw,
        has_armhole=True,
    ), listed=False,
)  # fmt: skip


# ---- from what was said to a garment ----


def outlined(outlines: Outlined, size: int = 1) -> Garment:
    """The garment of these outlines in a size, counted from 1. Raises OutlineError."""
    return _garment(outlines, size)


@lru_cache(maxsize=32)
def _garment(outlines: Outlined, size: int) -> Garment:
    data = outlines.data
    there = {row["id"]: outline_from_data(row) for row in data.get("outlines", [])}
    names = sizes_of(data)
    wanted = names[min(max(size, 1), len(names)) - 1]
    pieces = [piece_of(row, there, wanted, data) for row in data.get("pieces", []) if row.get("use", True)]
    if not pieces:
        raise OutlineError("No piece is used: tick at least one.")
    try:
        garment = Garment(tuple(pieces))
        seams = tuple(_seam(garment, number, row) for number, row in enumerate(data.get("seams", []), 1))
        openings = tuple(Opening(row["at"], float(row["length"])) for row in data.get("openings", []))
        return Garment(tuple(pieces), tuple(seam for seam in seams if seam is not None), openings)
    except (PatternError, KeyError, TypeError, ValueError) as error:
        raise OutlineError(str(error) or "The pieces do not make a garment.") from None


def piece_of(row: Mapping[str, Any], there: Mapping[str, Outline], size: str, data: Mapping[str, Any]) -> Piece:
    ids = row["outlines"]
    base = there[next(iter(ids.values()))]
    outline = there[ids[size]] if size in ids else base
    corners = tuple(float(c) for c in row["corners"])
    if len(corners) != len(row["edges"]) or not corners:
        raise OutlineError(f"The {row['title']} has {len(row['edges'])} edges and {len(corners)} corners.")
    if outline is not base:
        corners = matched(base, corners, outline)
    start = corners.index(min(corners))
    corners = (*corners[start:], *corners[:start])
    said = (*row["edges"][start:], *row["edges"][:start])
    allowance = data.get("allowance") or {}
    off = float(allowance.get("off", 0.0))
    darts = darts_of(outline)
    if off > 0 or allowance.get("edges"):
        names = edge_names(said)
        own = allowance.get("edges", {})
        amounts = [
            0.0 if e["kind"] == "fold" else float(own.get(f"{row['name']}.{n}", off)) for e, n in zip(said, names, strict=True)
        ]
        outline, corners = without_allowance(outline, corners, amounts)
        darts = darts_of(outline)
    edges = _edges(outline, corners, said, darts)
    return _framed(row, outline, edges, darts)


def _edges(
    outline: Outline, corners: Sequence[float], said: Sequence[Mapping[str, Any]], darts: Sequence[FoundDart]
) -> list[Edge]:
    whole, found = outline.length, list[Edge]()
    for number, (entry, name) in enumerate(zip(said, edge_names(said), strict=True)):
        begin, end = corners[number], corners[(number + 1) % len(corners)]
        long = (end - begin) % whole or whole
        mine = sorted(
            (d for d in darts if 0.05 < (d.start - begin) % whole < long - 0.05), key=lambda d: (d.start - begin) % whole
        )
        parts, gaps, at = [], [], begin
        for count, dart in enumerate(mine, 1):
            parts.append(outline.between(at, dart.start))
            gaps.append(_dart(outline, dart, f"{name}_dart_{count}", parts[-1]))
            at = dart.end
        parts.append(outline.between(at, end))
        for n, gap in enumerate(gaps):
            parts[n + 1] = _begun(parts[n + 1], gap.outer)
        edges_notches = [
            Notch(f"notch {n}", along) for n, along in enumerate(_notches(outline, begin, long, mine), 1)
        ]  # fmt: skip
        length = sum(part.length for part in parts)
        notches = tuple(n for n in edges_notches if 0.2 < n.along < length - 0.2)
        kind = entry.get("kind", "seam")
        if kind not in KINDS or entry["role"] not in ROLES:
            raise OutlineError(f"An edge is a {entry.get('role')} of kind {kind}: choose from those there are.")
        found.append(Edge(name, tuple(parts), tuple(gaps), kind, role=entry["role"], notches=notches))
    return found


def _begun(path: Path, spot: Point) -> Path:
    """A path that begins exactly there."""
    first = path.segments[0]
    return path if first.start == spot else Path((type(first)(spot, *list(_rest(first))), *path.segments[1:]))


def _rest(segment: Any) -> Iterator[Point]:
    yield from (segment.end,) if not hasattr(segment, "out") else (segment.out, segment.into, segment.end)


def _notches(outline: Outline, begin: float, long: float, darts: Sequence[FoundDart]) -> list[float]:
    """Notches on an edge, along it as it is sewn."""
    whole, found = outline.length, []
    for along in outline.notches:
        at = (along - begin) % whole
        if at >= long:
            continue
        gone, inside = at, False
        for dart in darts:
            first, wide = (dart.start - begin) % whole, (dart.end - dart.start) % whole
            if first - 0.1 < at < first + wide + 0.1:
                inside = True
            elif first < at:
                gone -= wide
        if not inside:
            found.append(gone)
    return sorted(found)


def _dart(outline: Outline, dart: FoundDart, name: str, before: Path) -> Dart:
    inner = before.end
    outer = outline.between(dart.start, dart.end).end
    cap = outline.between(dart.start, dart.end)
    if dart.inner < 0:  # cut out: its mouth is drawn straight across
        cap = Path.through(inner, outer)
    middle = inner.toward(outer, 0.5)
    return Dart(name, dart.point, inner, outer, middle, inner.to(outer), dart.point.to(middle), cap)


def _framed(row: Mapping[str, Any], outline: Outline, edges: Sequence[Edge], darts: Sequence[FoundDart]) -> Piece:
    """The piece in a frame of its own: its middle upright at 0 and the rest to the right of it, else as its grain hangs."""
    middle = next(
        (edge for edge in edges if edge.role in ("centre_front", "centre_back") and edge.kind in ("fold", "seam", "opening")),
        None,
    )
    used = {dart.inner for dart in darts}
    lines = tuple(
        InnerLine(f"line_{n}", "Line", path) for n, path in enumerate(outline.inner) if n not in used and str(n) not in row.get("levels", {})
    )  # fmt: skip
    levels = tuple(
        BalanceLine(str(level), ((path.start, path.end),))
        for index, level in row.get("levels", {}).items()
        if str(index).isdecimal()
        and int(index) < len(outline.inner)
        and (path := outline.inner[int(index)]).start.to(path.end) > 1
    )
    piece = Piece(
        row["name"], row["title"], tuple(edges), row["part"] if row["part"] != "other" else "", levels, row["layer"], row["stands"],
        middle.name if middle is not None else "", {}, outline.grain, (), lines, outline.holes,
    )  # fmt: skip
    way = (middle.end - middle.start).unit() if middle is not None and middle.start.to(middle.end) > 0.1 else None
    if way is None and outline.grain is not None:
        way = (outline.grain[1] - outline.grain[0]).unit()
    if way is None:
        return piece.moved(_to_origin(piece))
    if way.y < 0:
        way = -way
    piece = piece.moved(turn(Point(0.0, 0.0), math.pi / 2 - math.atan2(way.y, way.x)))
    piece = piece.moved(_to_origin(piece))
    if middle is not None:
        at = piece.edge(middle.name).start.x
        left, _, right, _ = piece.bounds
        if at - left > right - at:
            piece = piece.moved(Transform(-1.0, 0.0, 0.0, 1.0, at, 0.0))
        else:
            piece = piece.moved(Transform().translate(-at, 0.0))
    return piece


def _to_origin(piece: Piece) -> Transform:
    left, top, _, _ = piece.bounds
    return Transform().translate(-left, -top)


def _seam(garment: Garment, number: int, row: Mapping[str, Any]) -> Seam | None:
    """A seam between two edges, or of one with its mirror; None where one of them is gone."""
    first, second = (_ref(row.get(side, "")) for side in ("first", "second"))
    if not garment.has(first) or not garment.has(second):
        return None
    words = f"{plain(garment.edge(first).role)}".capitalize()
    if first == second:
        return Seam.to_its_mirror(f"seam_{number}", words, (first.piece, first.edge))
    a, b = garment.edge(first), garment.edge(second)
    same = _apart(a.start, b.start) + _apart(a.end, b.end) <= _apart(a.start, b.end) + _apart(a.end, b.start)
    chain: Chain = (SeamEdge(second.piece, second.edge, back=not same),)
    low, high = sorted((0.0, float(row.get("ease", 0.0))))
    return Seam(f"seam_{number}", words, (SeamEdge(first.piece, first.edge),), chain, (low, high))


def _ref(text: str) -> EdgeRef:
    piece, _, edge = str(text).partition(".")
    return EdgeRef(piece, edge)


def _apart(a: Point, b: Point) -> float:
    """How far apart two ends lie on the body: both frames have the middle at 0 and y down."""
    return abs(a.x - b.x) * 0.5 + abs(a.y - b.y)


# ---- as a draft ----


def draft_outlined(
    outlines: Outlined, chart: Chart, options: Mapping[str, Value], ease: Mapping[str, Value], rules: int | None
) -> Draft:
    """The pieces as a finished drawing, so that everything that works on a draft works on them. Raises CannotDraft, OptionError."""
    given = {code: METHOD.option(code).check(value) for code, value in options.items()}
    for code in ease:
        METHOD.ease_at(code)
    settings = resolved(METHOD, chart, given, rules)
    size = round(float(settings["size"])) if not isinstance(settings["size"], str) else 1
    try:
        garment = outlined(outlines, size)
    except OutlineError as error:
        raise CannotDraft((), say(str(error).replace("{", "(").replace("}", ")"))) from None
    table, x = Table({}), 0.0
    for piece in garment.pieces:
        left, top, right, _ = piece.bounds
        table = table.with_piece(piece.name, Transform().translate(x - left, -top))
        x += right - left + APART
    steps = [Step(n, piece.title, _words(piece), ()) for n, piece in enumerate(garment.pieces, 1)]
    names = sizes_of(outlines.data)
    notes: list[Saying] = []
    if len(names) > 1:
        notes.append(say(f"Size {names[min(size, len(names)) - 1]}, one of {len(names)}: {', '.join(names)}."))
    return Draft(
        METHOD, METHOD.rules, chart, settings, {}, tuple(_marks(garment, table)), tuple(steps), tuple(notes), {}, garment, table,
        tuple(_demands(garment, chart)), wear_of(settings), limits_of(settings), (), {},
    )  # fmt: skip


def _words(piece: Piece) -> Saying:
    edges = ", ".join(f"{plain(edge.name)} {{{n}}}" for n, edge in enumerate(piece.edges))
    return say(f"As it was drawn elsewhere: {edges}.", *(edge.length for edge in piece.edges))


def _marks(garment: Garment, table: Table) -> Iterator[Mark]:
    for number, piece in enumerate((table.laid(piece) for piece in garment.pieces), 1):
        for edge in piece.edges:
            title = f"{piece.title}, {plain(edge.name)}"
            figure = as_drawn(edge.length, title.lower())
            for n, path in enumerate(edge.parts, 1):
                yield Mark(
                    f"{piece.name}_{edge.name}_{n}", "line", title, number, path, role="finished", figure=figure, piece=piece.name,
                    edge=edge.name,
                )  # fmt: skip
            for dart in edge.darts:
                path = Path.through(dart.inner, dart.point, dart.outer)
                intake = as_drawn(dart.intake, f"{plain(dart.name)}, at its mouth")
                yield Mark(
                    dart.name, "dart", plain(dart.name), number, path, at=dart.point, role="finished", figure=intake, piece=piece.name,
                    dart=dart,
                )  # fmt: skip


def _demands(garment: Garment, chart: Chart) -> Iterator[Demand]:
    """Where its maker named a level of the body, its room there is looked at."""
    for level, code in LEVELS.items():
        if code in chart and any(piece.level(level) for piece in garment.shell):
            yield Girth(level, f"{level.capitalize()}", chart.values[code], None, LEAST_EASE, SLACK)
