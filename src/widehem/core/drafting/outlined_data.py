"""What is kept of pieces without a method: the outlines as they were found, and what was said of them, as plain data that is read
back with care. docs/file-formats.md describes it."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from functools import lru_cache
from itertools import pairwise
from typing import Any

from widehem.core.drafting.outlines import FoundDart, Outline, OutlineError, darts_of, outline_as_data, outline_from_data
from widehem.core.pattern.piece import HOW_OFTEN
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.values import record

KINDS = ("seam", "fold", "hem", "opening", "faced", "slit")
LAYERS = ("shell", "facing", "lining", "interfacing", "inside")
MOST_PIECES, MOST_CORNERS = 80, 60
LEVELS = {"bust": "bust", "waist": "waist", "hip": "hip"}  # levels with the girth of the body they go round


@record(frozen=True)
class Outlined:
    """What an outlined pattern is made of, as it is kept: text, so that two alike are one."""

    text: str

    @property
    def data(self) -> dict[str, Any]:
        return _parsed(self.text)

    @staticmethod
    def of(data: Mapping[str, Any]) -> Outlined:
        return Outlined(json.dumps(data, sort_keys=True, ensure_ascii=False, separators=(",", ":")))


@lru_cache(maxsize=16)
def _parsed(text: str) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(text)
    return found


def proposed(outlines: Sequence[Outline], allowance: float = 0.0) -> dict[str, Any]:
    """What can be said of outlines before a maker says more: a piece of each name, its edges where it turns."""
    pieces: dict[str, dict[str, Any]] = {}
    for outline in outlines:
        name = _code(outline.name, "piece")
        size = outline.size
        number, free = 2, name
        while free in pieces and size in pieces[free]["outlines"]:
            free, number = f"{name}_{number}", number + 1
        if free in pieces:
            pieces[free]["outlines"][size] = outline.id
            continue
        corners = edge_corners(outline)
        part = next((word for word in ("front", "back", "sleeve") if word in outline.name.lower()), "other")
        pieces[free] = {
            "name": free, "title": plain(free).capitalize(), "part": part, "stands": "pair", "layer": "shell", "use": True,
            "outlines": {size: outline.id}, "corners": [round(c, 4) for c in corners],
            "edges": [{"role": role, "kind": "hem" if role == "hem" else "seam"} for role in _roles(outline, corners, part)], "levels": {},
        }  # fmt: skip
    return {"pieces": list(pieces.values()), "seams": [], "allowance": {"off": allowance, "edges": {}}, "openings": []}


def edge_corners(outline: Outline) -> tuple[float, ...]:
    """Where the edges of an outline begin: where it turns, but for the mouths of its darts."""
    found = outline.corners
    for dart in darts_of(outline):
        found = tuple(c for c in found if not within(c, dart, outline.length))
    return found or (0.0,)


def within(along: float, dart: FoundDart, whole: float) -> bool:
    """Whether a corner belongs to the mouth of a dart: also its ends, and what lies hardly beyond them."""
    wide = (dart.end - dart.start) % whole
    return (along - dart.start + 0.05) % whole <= wide + 0.1


def _roles(outline: Outline, corners: Sequence[float], part: str) -> list[str]:
    """A guess at what its edges are: the lowest is the hem, the longest upright straight the middle."""
    sides = [outline.between(a, b) for a, b in pairwise((*corners, corners[0]))]
    roles = ["cut"] * len(sides)
    low = max(range(len(sides)), key=lambda n: sides[n].start.y + sides[n].end.y)
    roles[low] = "hem"
    upright = [
        n for n, side in enumerate(sides)
        if abs(side.end.x - side.start.x) < 0.02 * side.length and side.length - side.start.to(side.end) < 0.05 and n != low
    ]  # fmt: skip
    if upright and part in ("front", "back"):
        roles[max(upright, key=lambda n: sides[n].length)] = f"centre_{part}"
    return roles


def _code(text: str, otherwise: str) -> str:
    found = "".join(sign if sign.isascii() and sign.isalnum() else "_" for sign in text.lower()).strip("_")
    return found[:40] or otherwise


def sizes_of(data: Mapping[str, Any]) -> list[str]:
    """The sizes of a nest, as they are called, in the order they were found; one without a name where there is no nest."""
    found: dict[str, None] = {}
    for piece in data.get("pieces", []):
        found.update(dict.fromkeys(piece.get("outlines", {})))
    return list(found) or [""]


def edge_names(said: Sequence[Mapping[str, Any]]) -> list[str]:
    found: list[str] = []
    for entry in said:
        name, number = str(entry.get("name") or entry["role"]), 2
        while name in found:
            name, number = f"{entry.get('name') or entry['role']}_{number}", number + 1
        found.append(name)
    return found


# ---- what is kept, read back ----


def checked(data: object) -> dict[str, Any]:
    """What a file or a form says of an outlined pattern, with nothing in it but what belongs there. Raises OutlineError."""
    found = _fields(data, "The pattern")
    rows = _list(found, "outlines", MOST_OUTLINES)
    outlines = [outline_from_data(row) for row in rows]
    known = {outline.id: outline for outline in outlines}
    if len(known) != len(outlines):
        raise OutlineError("Two outlines have one id.")
    pieces = [_checked_piece(row, known) for row in _list(found, "pieces", MOST_PIECES)]
    if len({piece["name"] for piece in pieces}) != len(pieces):
        raise OutlineError("Two pieces have one name.")
    allowance = _fields(found.get("allowance", {}), "The allowance")
    own = {
        _word(k, "edge", 90): _figure(v, "allowance", 0.0, 15.0)
        for k, v in _fields(allowance.get("edges", {}), "The allowance").items()
    }
    seams = [
        {"first": _word(row.get("first"), "seam", 90), "second": _word(row.get("second"), "seam", 90), "ease": _figure(row.get("ease", 0.0), "ease", -30.0, 300.0)}
        for row in (_fields(row, "A seam") for row in _list(found, "seams", 400))
    ]  # fmt: skip
    openings = [
        {"at": _one_of(row.get("at"), ("centre_front", "centre_back", "side"), "opening"), "length": _figure(row.get("length"), "opening", 0.0, 200.0)}
        for row in (_fields(row, "An opening") for row in _list(found, "openings", 6))
    ]  # fmt: skip
    return {
        "outlines": [outline_as_data(outline) for outline in outlines], "pieces": pieces, "seams": seams, "openings": openings,
        "allowance": {"off": _figure(allowance.get("off", 0.0), "allowance", 0.0, 15.0), "edges": own, "kept": bool(allowance.get("kept"))},
        "source": str(found.get("source", ""))[:120],
    }  # fmt: skip


MOST_OUTLINES = 300


def _checked_piece(data: object, known: Mapping[str, Outline]) -> dict[str, Any]:
    row = _fields(data, "A piece")
    name = _code(_word(row.get("name"), "piece", 40), "piece")
    ids = {
        _word(size, "size", 20): _word(number, "outline", 40)
        for size, number in _fields(row.get("outlines"), "A piece").items()
    }
    if not ids or not set(ids.values()) <= set(known):
        raise OutlineError(f"The piece {name} has no outline.")
    base = known[next(iter(ids.values()))]
    corners = [_figure(corner, "corner", 0.0, base.length) for corner in _list(row, "corners", MOST_CORNERS)]
    edges = [
        {
            "role": _one_of(edge.get("role"), tuple(ROLES), "role"), "kind": _one_of(edge.get("kind", "seam"), KINDS, "kind"),
            **({"name": _code(_word(edge["name"], "edge", 40), "edge")} if edge.get("name") else {}),
        }
        for edge in (_fields(edge, "An edge") for edge in _list(row, "edges", MOST_CORNERS))
    ]  # fmt: skip
    if len(edges) != len(corners) or not corners or any(b <= a for a, b in pairwise(sorted(corners))):
        raise OutlineError(f"The piece {name} has {len(edges)} edges and {len(corners)} corners.")
    levels = {
        str(int(index)): _one_of(level, tuple(LEVELS), "level")
        for index, level in _fields(row.get("levels", {}), "A piece").items()
        if str(index).isdecimal()
    }
    return {
        "name": name, "title": _word(row.get("title") or plain(name).capitalize(), "piece", 60), "outlines": ids, "corners": corners, "edges": edges,
        "part": _one_of(row.get("part", "other"), PARTS, "part"), "stands": _one_of(row.get("stands", "pair"), tuple(HOW_OFTEN), "way to cut"),
        "layer": _one_of(row.get("layer", "shell"), LAYERS, "layer"), "use": bool(row.get("use", True)), "levels": levels,
    }  # fmt: skip


PARTS = ("front", "back", "sleeve", "other")


def _fields(data: object, what: str) -> dict[str, Any]:
    if not isinstance(data, dict) or len(data) > 1000:
        raise OutlineError(f"{what} is not written as fields.")
    return data


def _list(row: Mapping[str, Any], name: str, most: int) -> list[Any]:
    found = row.get(name, [])
    if not isinstance(found, list) or len(found) > most:
        raise OutlineError(f'"{name}" is no list of {most} at most.')
    return found


def _word(value: object, what: str, most: int) -> str:
    if not isinstance(value, str) or len(value) > most:
        raise OutlineError(f"The name of a {what} is no text of {most} signs at most.")
    return " ".join(value.split())


def _figure(value: object, what: str, low: float, high: float) -> float:
    if not isinstance(value, int | float) or isinstance(value, bool) or not low - 1e-6 <= value <= high + 1e-3:
        raise OutlineError(f"The {what} {str(value)[:20]} is no figure between {low:g} and {high:g}.")
    return float(value)


def _one_of(value: object, known: tuple[str, ...], what: str) -> str:
    if value not in known:
        raise OutlineError(f'There is no {what} "{str(value)[:30]}": there are {", ".join(known)}.')
    return str(value)
