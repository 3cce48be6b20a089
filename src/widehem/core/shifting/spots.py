"""Spots: how a place of a finished piece is addressed, so that it is found again in every size.

    armhole/shoulder   the corner of two edges           side@hip      an edge where a level crosses it
    armhole#1          a joint within an edge, cap#top   waist~0.33    a share of an edge
                       and #low the highest and lowest
    bust_dart.point    a dart: point apex middle inner   armhole!pitch a notch
                       outer legs, or top bottom of one  roll_line:0   a node of a line inside
                       pointed at both ends              hole:2        an eyelet
    =hip               the height of a level             grain:0       an end of the grain line
    hip^0              where a level bends               +bust_point   a mark of the body

A dart may be asked for by the edge it lies in, *@waist.legs, or as one pointed at both ends, *@inside.top. An edge goes by its name or by its role; in tables also * and ?, and `or` between addresses that stand in for each other.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from fnmatch import fnmatchcase

from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.values import record

DART_PARTS = ("point", "apex", "middle", "inner", "outer", "legs")
DIAMOND_PARTS = ("top", "bottom", "inner", "outer")
SAME = 1e-4  # cm
GRAIN, HOLE, INSIDE = "grain", "hole", "inside"
CORNERS = {
    frozenset(("neck", "shoulder")): "side neck point", frozenset(("armhole", "shoulder")): "shoulder tip",
    frozenset(("armhole", "side")): "underarm point", frozenset(("cap", "underarm")): "underarm point",
    frozenset(("centre_back", "neck")): "nape", frozenset(("centre_front", "neck")): "centre front neck",
    frozenset(("crotch", "inseam")): "fork", frozenset(("underarm", "wrist")): "wrist",
}  # fmt: skip


@record(frozen=True)
class Spot:
    """A place on a piece, by the name of the piece and an address on it."""

    piece: str
    text: str

    def __str__(self) -> str:
        return f"{self.piece} {self.text}"


@record(frozen=True)
class Target:
    """What an address stands for on a piece.

    kind: corner, edge, dart, diamond, line, hole, grain, level, bend or mark. name: of the edge that begins at a corner, the
    edge, the dart, the diamond, the line, the level, the mark. along: of an edge, its darts sewn, cm. number: of a node, a
    hole, an end; part: of a dart or diamond.
    """

    kind: str
    name: str
    along: float = 0.0
    number: int = 0
    part: str = ""


_ADDRESS = re.compile(
    r"^(?:\+(?P<mark>[\w *?]+)|=(?P<level>[\w*?]+)|(?P<bent>[\w*?]+)\^(?P<bend>\d+)|(?P<a>[\w*?]+)/(?P<b>[\w*?]+)|(?P<joint>[\w*?]+)#(?P<n>\d+|top|low)"
    r"|(?P<across>[\w*?]+)@(?P<at>[\w*?]+)(?![\w.])|(?P<edge>[\w*?]+)~(?P<share>\d+(?:\.\d+)?)|(?P<noted>[\w*?]+)!(?P<notch>[\w *?]+)"
    r"|(?P<dart>[\w*?]+)(?:@(?P<on>[\w*?]+))?\.(?P<part>\w+)|(?P<line>[\w*?]+):(?P<node>\d+|\*))$"
)


class SpotError(ValueError):
    """An address that cannot be read: one sentence."""


def targets(piece: Piece, text: str) -> tuple[Target, ...]:
    """What an address means on a piece: nothing where it is not there; several where it is a pattern. Raises SpotError."""
    for one in text.split(" or "):
        found = tuple(dict.fromkeys(_at_corner(piece, target) for target in _targets(piece, one.strip())))
        if found:
            return found
    return ()


def _at_corner(piece: Piece, target: Target) -> Target:
    """A place at the very end of an edge is its corner."""
    if target.kind == "edge":
        edge = piece.edge(target.name)
        if target.along < SAME or target.along > edge.length - SAME:
            return Target("corner", target.name if target.along < SAME else piece.beside(target.name)[1].name)
    return target


def _targets(piece: Piece, text: str) -> Iterator[Target]:
    found = _ADDRESS.match(text)
    if found is None:
        raise SpotError(
            f'"{text}" is no address of a spot: write it like armhole/shoulder, side@hip, waist~0.33, armhole#1, '
            f"armhole!pitch, bust_dart.point, roll_line:0, hole:2 or =hip."
        )
    if found["mark"]:
        yield from (Target("mark", name) for name in piece.marks if fnmatchcase(name, found["mark"]))
    elif found["level"]:
        yield from (Target("level", line.level) for line in piece.balance if fnmatchcase(line.level, found["level"]))
    elif found["bent"]:
        for line in piece.balance:
            if fnmatchcase(line.level, found["bent"]) and int(found["bend"]) < len(line.lines) - 1:
                yield Target("bend", line.level, number=int(found["bend"]))
    elif found["a"]:
        yield from _corners(piece, found["a"], found["b"])
    elif found["joint"]:
        for edge in _edges(piece, found["joint"]):
            if alongs := joints_of(edge):
                number = _joint(edge, alongs, found["n"])
                if 1 <= number <= len(alongs):
                    yield Target("edge", edge.name, alongs[number - 1])
    elif found["across"]:
        for edge in _edges(piece, found["across"]):
            for line in piece.balance:
                if fnmatchcase(line.level, found["at"]) and (along := edge.at_line(*line.straight)) is not None:
                    yield Target("edge", edge.name, along)
    elif found["edge"]:
        yield from (
            Target("edge", edge.name, edge.length * min(float(found["share"]), 1.0)) for edge in _edges(piece, found["edge"])
        )
    elif found["noted"]:
        for edge in _edges(piece, found["noted"]):
            yield from (Target("edge", edge.name, n.along) for n in edge.notches if fnmatchcase(n.name, found["notch"]))
    elif found["dart"]:
        yield from _darts(piece, found["dart"], found["on"] or "*", found["part"])
    elif found["line"]:
        yield from _inside(piece, found["line"], found["node"])


def _edges(piece: Piece, name: str) -> tuple[Edge, ...]:
    """The edge of a name; else those of a role, or of a pattern of either."""
    if piece.has(name):
        return (piece.edge(name),)
    return tuple(edge for edge in piece.edges if fnmatchcase(edge.name, name) or fnmatchcase(edge.role, name))


def _corners(piece: Piece, one: str, two: str) -> Iterator[Target]:
    """The corner at which one edge ends and the next begins; in the other order where there is none in this. Patterns and roles
    that mean several edges find them all."""
    orders = [_in_order(piece, first, second) for first, second in ((one, two), (two, one))]
    exact = piece.has(one) and piece.has(two)
    yield from orders[0] or orders[1] if exact else dict.fromkeys((*orders[0], *orders[1]))


def _in_order(piece: Piece, one: str, two: str) -> list[Target]:
    return [
        Target("corner", after.name) for before, after in piece.corners() if _is(piece, before, one) and _is(piece, after, two)
    ]


def _is(piece: Piece, edge: Edge, name: str) -> bool:
    return edge.name == name if piece.has(name) else fnmatchcase(edge.name, name) or fnmatchcase(edge.role, name)


def _darts(piece: Piece, name: str, on: str, part: str) -> Iterator[Target]:
    for edge in piece.edges:
        if fnmatchcase(edge.name, on) or fnmatchcase(edge.role, on):
            for gap in edge.gaps:
                if (
                    fnmatchcase(gap.name, name)
                    and part in DART_PARTS
                    and (isinstance(gap, Dart) or part in ("inner", "outer", "legs"))
                ):
                    yield Target("dart", gap.name, part=part)
    if on in ("*", INSIDE):
        yield from (
            Target("diamond", d.name, part=part) for d in piece.diamonds if fnmatchcase(d.name, name) and part in DIAMOND_PARTS
        )


def _inside(piece: Piece, name: str, node: str) -> Iterator[Target]:
    if name == HOLE:
        numbers = range(len(piece.holes)) if node == "*" else [int(node)]
        yield from (Target(HOLE, HOLE, number=number) for number in numbers if number < len(piece.holes))
    elif name == GRAIN:
        numbers = range(2) if node == "*" else [int(node)]
        yield from (Target(GRAIN, GRAIN, number=number) for number in numbers if piece.grain is not None and number < 2)
    else:
        for line in piece.lines:
            if fnmatchcase(line.name, name):
                last = len(line.path.segments)
                numbers = range(last + 1) if node == "*" else [int(node)]
                yield from (Target("line", line.name, number=number) for number in numbers if number <= last)


def _joint(edge: Edge, alongs: tuple[float, ...], which: str) -> int:
    """The number of a joint: as it is written, or the one that lies highest or lowest."""
    if which.isdecimal():
        return int(which)
    heights = [edge.place(along).point.y for along in alongs]
    return 1 + heights.index(min(heights) if which == "top" else max(heights))


def joints_of(edge: Edge) -> tuple[float, ...]:
    """How far along an edge its segments are joined, cm, its darts sewn; the legs of darts do not count."""
    found, gone = [], 0.0
    for part in edge.parts:
        for segment in part.segments[:-1]:
            gone += segment.length
            found.append(gone)
        gone += part.segments[-1].length
    return tuple(found)


@record(frozen=True)
class Place:
    """A spot of a piece as it is listed: its address, what it is called, and where it is in the frame of the piece."""

    text: str
    title: str
    at: Point
    target: Target


def places(piece: Piece) -> tuple[Place, ...]:
    """Every spot of a piece that has a place of its own, round the outline first, then what lies inside. Addresses are unique."""
    found: list[Place] = []
    ring = list(piece.corners())
    names = [(before.name, after.name) for before, after in ring]
    first = ring[-1:] + ring[:-1]  # the corner at which an edge begins, edge by edge
    for before, edge in first:
        either = names.count((before.name, edge.name)) == 1 and (edge.name, before.name) not in names
        text = f"{before.name}/{edge.name}"
        found.append(
            Place(text, corner_title(before, edge) if either else _both(before, edge), edge.start, Target("corner", edge.name))
        )
        found += [
            Place(
                f"{edge.name}#{number}",
                f"{edge_title(edge)}, joint {number}",
                edge.place(along).point,
                Target("edge", edge.name, along),
            )
            for number, along in enumerate(joints_of(edge), 1)
        ]
        for gap in edge.gaps:
            title = plain(gap.name).capitalize()
            found += [
                Place(f"{gap.name}.{part}", f"{title}, {part} leg", getattr(gap, part), Target("dart", gap.name, part=part))
                for part in ("inner", "outer")
            ]
            if isinstance(gap, Dart):
                found.append(Place(f"{gap.name}.point", f"{title}, point", gap.point, Target("dart", gap.name, part="point")))
        found += [
            Place(f"{edge.name}!{notch.name}", f"{edge_title(edge)}, notch {notch.name}", edge.place(notch.along).point, Target("edge", edge.name, notch.along))
            for notch in edge.notches
            if sum(other.name == notch.name for other in edge.notches) == 1
        ]  # fmt: skip
    found += _places_inside(piece)
    return tuple(found)


def _places_inside(piece: Piece) -> list[Place]:
    found = [
        Place(
            f"{d.name}.{part}", f"{plain(d.name).capitalize()}, {part}", getattr(d, part), Target("diamond", d.name, part=part)
        )
        for d in piece.diamonds
        for part in DIAMOND_PARTS
    ]
    for line in piece.lines:
        nodes = [line.path.start, *(segment.end for segment in line.path.segments)]
        found += [
            Place(
                f"{line.name}:{number}",
                f"{line.title[:1].upper()}{line.title[1:]}, {'end' if number else 'beginning'}",
                at,
                Target("line", line.name, number=number),
            )
            for number, at in enumerate(nodes)
        ]
    found += [Place(f"{HOLE}:{n}", f"Eyelet {n + 1}", at, Target(HOLE, HOLE, number=n)) for n, at in enumerate(piece.holes)]
    found += [Place(f"+{name}", plain(name).capitalize(), at, Target("mark", name)) for name, at in piece.marks.items()]
    return found


def place_of(piece: Piece, target: Target) -> Point | None:
    """Where a target lies on a piece; None for the height of a level, or where it is not there."""
    if target.kind == "corner":
        return piece.edge(target.name).start
    if target.kind == "edge":
        return piece.edge(target.name).place(target.along).point
    if target.kind == "dart":
        gap = next((gap for edge in piece.edges for gap in edge.gaps if gap.name == target.name), None)
        if gap is None:
            return None
        if target.part == "apex" and isinstance(gap, Dart):
            return gap.turned_about
        if target.part in ("legs", "middle"):
            return gap.inner.toward(gap.outer, 0.5)
        return getattr(gap, target.part, None)
    if target.kind == "diamond":
        return next((getattr(d, target.part) for d in piece.diamonds if d.name == target.name), None)
    if target.kind == "line":
        path = next(line.path for line in piece.lines if line.name == target.name)
        return path.start if not target.number else path.segments[target.number - 1].end
    if target.kind == HOLE:
        return piece.holes[target.number] if target.number < len(piece.holes) else None
    if target.kind == GRAIN and piece.grain is not None:
        return piece.grain[target.number]
    return piece.marks.get(target.name) if target.kind == "mark" else None


def corner_title(before: Edge, after: Edge) -> str:
    """What a maker calls the corner of two edges."""
    known = CORNERS.get(frozenset((before.role, after.role)))
    return known.capitalize() if known else _both(before, after)


def _both(before: Edge, after: Edge) -> str:
    one, two = (edge_title(edge) for edge in (before, after))
    return f"{one} and {two[:1].lower()}{two[1:]}"


def edge_title(edge: Edge) -> str:
    """What a maker calls an edge, at the beginning of a sentence."""
    words = plain(edge.name) if edge.name != edge.role else ROLES[edge.role].words
    return words[:1].upper() + words[1:]


def words_of(text: str) -> str:
    """What an address of a rule means, in words: 'Side neck point'."""
    found = _ADDRESS.match(text.partition(" or ")[0].strip())
    if found is None:
        return ""
    words = _words(found)
    return words[:1].upper() + words[1:]


def _words(found: re.Match[str]) -> str:
    if found["mark"]:
        return _edge_words(found["mark"])
    if found["level"]:
        return f"height of the {_edge_words(found['level'])} line"
    if found["bent"]:
        return f"{_edge_words(found['bent'])} line, where it bends"
    if found["a"]:
        known = CORNERS.get(frozenset((found["a"].rstrip("_*"), found["b"].rstrip("_*"))))
        return known or f"{_edge_words(found['a'])} and {_edge_words(found['b'])}"
    if found["joint"]:
        which = {"top": "highest joint", "low": "lowest joint"}.get(found["n"], f"joint {found['n']}")
        return f"{_edge_words(found['joint'])}, {which}"
    if found["across"]:
        return f"{_edge_words(found['across'])} at the {_edge_words(found['at'])}"
    if found["edge"]:
        return f"{float(found['share']):.0%} along the {_edge_words(found['edge'])}"
    if found["noted"]:
        return f"{_edge_words(found['noted'])}, notch {found['notch'].strip('* ')}"
    if found["dart"]:
        on = found["on"] or ""
        where = (
            "dart pointed at both ends"
            if on == INSIDE
            else f"dart in the {_edge_words(on)}"
            if on
            else _edge_words(found["dart"])
        )
        return f"{where}, {found['part']}"
    node = "all of it" if found["node"] == "*" else f"node {found['node']}"
    return f"{_edge_words(found['line'])}, {node}"


def _edge_words(name: str) -> str:
    bare = name.strip("*_?")
    return ROLES[bare].words if bare in ROLES else {"centre": "centre"}.get(bare, plain(bare))
