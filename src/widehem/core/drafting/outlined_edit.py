"""Saying more of an outlined pattern: corners set and taken away, seams proposed, outlines traced from a picture."""

from __future__ import annotations

import copy
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Any

from widehem.core.drafting.outlined import piece_of
from widehem.core.drafting.outlined_data import edge_names
from widehem.core.drafting.outlines import Outline, OutlineError, outline_from_data
from widehem.core.geometry.curves import Line, Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.spline import spline
from widehem.core.pattern.piece import Piece

LEAST, ALIKE = 0.5, 2.5  # cm: of an edge; by which two edges that are sewn together may differ
ALONG = ("side", "shoulder", "inseam", "underarm", "panel", "gore", "waist_seam")  # roles that are sewn to one of their own
TWINS = ("centre_front", "centre_back", "crotch")  # roles that are sewn to their own mirror
MOST_SPOTS = 400


def pieces_of(data: Mapping[str, Any], size: str) -> tuple[dict[str, Piece], dict[str, str]]:
    """Every piece that can be made, by name, and why the others cannot."""
    there = {row["id"]: outline_from_data(row) for row in data.get("outlines", [])}
    found: dict[str, Piece] = {}
    wrong: dict[str, str] = {}
    for row in data.get("pieces", []):
        try:
            found[row["name"]] = piece_of(row, there, size, data)
        except (OutlineError, ValueError) as error:
            wrong[row["name"]] = str(error)
    return found, wrong


def base_of(data: Mapping[str, Any], row: Mapping[str, Any]) -> Outline:
    """The outline that the corners of a piece were said on."""
    number = next(iter(row["outlines"].values()))
    return outline_from_data(next(entry for entry in data["outlines"] if entry["id"] == number))


def _row(data: Mapping[str, Any], piece: str) -> dict[str, Any]:
    found = next((row for row in data["pieces"] if row["name"] == piece), None)
    if found is None:
        raise OutlineError(f"There is no piece {piece[:40]}.")
    return dict(found)


def with_row(data: Mapping[str, Any], row: Mapping[str, Any]) -> dict[str, Any]:
    """With what is said of a piece replaced."""
    return {**data, "pieces": [dict(row) if old["name"] == row["name"] else old for old in data["pieces"]]}


def with_corner(data: Mapping[str, Any], piece: str, edge: int, along: float) -> dict[str, Any]:
    """An edge made into two, so far (cm) from where it begins on the outline. Raises OutlineError."""
    row = copy.deepcopy(_row(data, piece))
    corners, said = row["corners"], row["edges"]
    if not 0 <= edge < len(corners):
        raise OutlineError("There is no such edge.")
    whole = base_of(data, row).length
    begin, end = corners[edge], corners[(edge + 1) % len(corners)]
    long = (end - begin) % whole or whole
    if not LEAST <= along <= long - LEAST:
        raise OutlineError(
            f"A corner lies {LEAST:g} to {long - LEAST:.1f} cm from where this edge begins: {along:g} is not between."
        )
    at = round((begin + along) % whole, 4)
    corners.insert(edge + 1, at)
    said.insert(edge + 1, {key: value for key, value in said[edge].items() if key != "name"})
    order = sorted(range(len(corners)), key=lambda n: corners[n])
    row["corners"], row["edges"] = [corners[n] for n in order], [said[n] for n in order]
    return with_row(data, row)


def joined(data: Mapping[str, Any], piece: str, edge: int) -> dict[str, Any]:
    """An edge and the one after it made into one. Raises OutlineError."""
    row = copy.deepcopy(_row(data, piece))
    count = len(row["corners"])
    if count < 2 or not 0 <= edge < count:
        raise OutlineError("A piece has at least one edge.")
    row["corners"].pop((edge + 1) % count)
    row["edges"].pop((edge + 1) % count)
    return with_row(data, row)


def proposed_seams(pieces: Mapping[str, Piece]) -> list[dict[str, Any]]:
    """Edges of one role and nearly one length on two pieces, each with the one that is nearest to it."""
    open_ = [
        (piece, edge) for piece in pieces.values() for edge in piece.edges if edge.kind == "seam" and edge.role in (*ALONG, *TWINS)
    ]  # fmt: skip
    found: list[dict[str, Any]] = []
    taken: set[str] = set()
    pairs = [
        (abs(a.length - b.length), f"{p.name}.{a.name}", f"{q.name}.{b.name}", a.length - b.length)
        for n, (p, a) in enumerate(open_)
        for q, b in open_[n + 1 :]
        if p.name != q.name
        and p.layer == q.layer
        and a.role == b.role
        and a.role not in TWINS
        and abs(a.length - b.length) <= ALIKE
    ]
    for _, first, second, _ in sorted(pairs):
        if first not in taken and second not in taken:
            taken |= {first, second}
            found.append({"first": first, "second": second, "ease": 0.0})
    for piece, edge in open_:
        if edge.role in TWINS and piece.stands == "pair":
            found.append({"first": f"{piece.name}.{edge.name}", "second": f"{piece.name}.{edge.name}", "ease": 0.0})
    return found


def names_in(row: Mapping[str, Any]) -> list[str]:
    """The names of the edges of a piece, in their order."""
    return edge_names(row["edges"])


def traced(name: str, spots: Sequence[tuple[float, float, bool]], number: int) -> Outline:
    """An outline through spots that were set on a picture, cm; those that are corners, and others on a curve. Raises OutlineError."""
    if len(spots) < 3:
        raise OutlineError("Set at least three points round the piece.")
    if len(spots) > MOST_SPOTS:
        raise OutlineError(f"{len(spots)} points are more than the {MOST_SPOTS} that are taken.")
    first = next((n for n, (_, _, corner) in enumerate(spots) if corner), None)
    if first is None:
        raise OutlineError("A piece needs a corner somewhere: make one of the points a corner.")
    row = [*spots[first:], *spots[:first]]
    runs: list[list[Point]] = []
    for x, y, corner in row:
        if corner:
            if runs:
                runs[-1].append(Point(x, y))
            runs.append([Point(x, y)])
        else:
            runs[-1].append(Point(x, y))
    runs[-1].append(runs[0][0])
    segments: list[Segment] = [segment for run in runs for segment in _through(run)]
    found = Outline(f"t{number}", name, Path(tuple(segments)))
    if not found.surface.is_valid:
        raise OutlineError(f"The outline of {name} crosses itself: look at the order of its points.")
    if found.surface.area < 4:
        raise OutlineError(f"The outline of {name} is smaller than 2 by 2 cm: set the scale mark first.")
    return found


def _through(run: Sequence[Point]) -> tuple[Segment, ...]:
    if any(a.to(b) < 0.02 for a, b in pairwise(run)):
        raise OutlineError("Two points lie on each other: take one of them away.")
    if len(run) == 2:
        return (Line(run[0], run[1]),)
    return spline(run, _leaving(run), -_leaving(run[::-1]))


def _leaving(run: Sequence[Point]) -> Point:
    """The direction of the arc through the first three points, at the first."""
    a, b, c = run[:3]
    one, two = (b - a).unit(), (c - b).unit()
    share = a.to(b) / (a.to(b) + b.to(c))
    return (one + (one - two) * share).unit()
