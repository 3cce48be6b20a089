"""The test line of a table of rules: what one step of it does to a bodice, a sleeve, a skirt and trousers, against what it should.

An edited table that misses a line is told with the figure; nobody is hindered from keeping it.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import cache

from widehem.core.design.design import method_design
from widehem.core.design.make import armhole_in, make
from widehem.core.drafting.method import METHODS
from widehem.core.geometry.points import Point
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.tables import RuleTable, frame_of, rules_for
from widehem.core.pattern.edge import PatternError
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.shifting.shift import ruled, shifted
from widehem.core.shifting.spots import place_of
from widehem.core.values import record

BLOCKS = {"bodice": "bodice.measured", "skirt": "skirt.two_panel", "trousers": "trousers.frame", "suit": "suit.one_piece", "long": "coat.straight",
    "bare": "bodice.contour"}  # fmt: skip
SLEEVES = {"sleeve": "sleeve.guide_box", "s_head": "sleeve.s_head"}
NEAR = 0.03  # cm


@record(frozen=True)
class Line:
    """One figure of the test: what it is, how it came out, and between what it should lie, cm a step. kinds: of the table, that it
    rests on."""

    title: str
    figure: float
    low: float
    high: float
    kinds: tuple[str, ...]

    @property
    def true(self) -> bool:
        return self.low - 1e-9 <= self.figure <= self.high + 1e-9


@cache
def blocks() -> Mapping[str, Garment]:
    """The blocks a table is tried on, in the base of the curved house chart."""
    chart = HOUSE["curved"]
    body = chart.column(chart.base)
    made = {name: make(method_design(METHODS[code]), body) for name, code in BLOCKS.items()}
    found = {name: one.garment for name, one in made.items()}
    holes = {"sleeve": armhole_in(made["bodice"]), "s_head": armhole_in(make(method_design(METHODS["gown.seam_shaped"]), body))}
    found |= {name: make(method_design(METHODS[code]), body, armhole=holes[name]).garment for name, code in SLEEVES.items()}
    return found


def stepped(table: RuleTable, piece: Piece) -> Piece:
    """A piece one step of a table larger. Raises PatternError."""
    frame, rules = frame_of(piece), rules_for(table, piece)
    moves = {t: frame.vector(place_of(piece, t) or Point(frame.x, 0.0), rule.out, rule.up) for t, rule in rules.items()}
    return shifted(ruled(piece, moves), moves) if moves else piece


class _Tried:
    """The blocks before and after one step."""

    def __init__(self, table: RuleTable) -> None:
        self._pairs = {
            (name, piece.name): (piece, stepped(table, piece)) for name, garment in blocks().items() for piece in garment.pieces
        }

    def grew(self, block: str, piece: str, edge: str) -> float:
        before, after = self._pairs[block, piece]
        return after.edge(edge).length - before.edge(edge).length

    def across(self, block: str, piece: str, level: str) -> float:
        before, after = self._pairs[block, piece]
        return after.across(level) - before.across(level)

    def moved(self, block: str, piece: str, read: Callable[[Piece], Point]) -> tuple[float, float]:
        """Out and up."""
        before, after = self._pairs[block, piece]
        return frame_of(before).rule(read(before), read(after) - read(before))


def proof(table: RuleTable) -> tuple[Line, ...]:
    """The test line of a table, every figure for one step of it. Raises PatternError where a step makes no piece at all."""
    t = _Tried(table)
    back, front = ("upper_back",), ("upper_front",)
    both = back + front
    lines = [
        _line("Neckline, back and front", t.grew("bodice", "back", "neck") + t.grew("bodice", "front", "neck"), 0.52, both),
        _line("Neckline of the back", t.grew("bodice", "back", "neck"), 0.21, back),
        _line("Shoulder of the back", t.grew("bodice", "back", "shoulder"), 0.30, back),
        _line("Shoulder of the front", t.grew("bodice", "front", "shoulder"), 0.30, front),
        _line("Armhole of the back", t.grew("bodice", "back", "armhole"), 0.77, back),
        _line("Armhole of the front", t.grew("bodice", "front", "armhole"), 0.81, front),
        _line("Side seam of the back", t.grew("bodice", "back", "side"), -0.1, back),
        _line("Side seam of the front", t.grew("bodice", "front", "side"), -0.1, front),
        _line("Centre back", t.grew("bodice", "back", "centre_back"), 0.4, back),
        _line("Centre front", t.grew("bodice", "front", "centre_front"), 0.25, front),
        _line(
            "Bust, round the body", 2 * (t.across("bodice", "back", "bust") + t.across("bodice", "front", "bust")), 4.0, both
        ),
        _line("Waist of the back", t.grew("bodice", "back", "waist"), 1.0, back),
        _line("Waist of the front", t.grew("bodice", "front", "waist"), 1.0, front),
        _line("Bust point, out", t.moved("bodice", "front", lambda p: p.marks["bust_point"])[0], 0.2, front),
        _line("Bust point, up", t.moved("bodice", "front", lambda p: p.marks["bust_point"])[1], -0.05, front),
        _line("Across the back, up", t.moved("bodice", "back", lambda p: p.marks["blade"])[1], 0.15, back),
        _line("Across the back", t.moved("bodice", "back", lambda p: p.marks["blade"])[0], 0.5, back),
        _line("Across the chest", _chest(t)[0], 0.48, front),
        _line("Across the chest, up", _chest(t)[1], 0.12, front),
        *_darts(t),
        _line("Cap, before it is solved", t.grew("sleeve", "sleeve", "cap"), 1.48, ("sleeve",)),
        _line("Upper arm", t.across("sleeve", "sleeve", "bicep"), 1.2, ("sleeve",)),
        _line("Sleeve hem", t.grew("sleeve", "sleeve", "wrist"), 0.4, ("sleeve",)),
        _line("Underarm seam", t.grew("sleeve", "sleeve", "underarm_back"), 0.04, ("sleeve",)),
        _line("Crown", t.moved("sleeve", "sleeve", _crown)[1], 0.4, ("sleeve",)),
        _line("Crown, out", t.moved("sleeve", "sleeve", _crown)[0], 0.0, ("sleeve",)),
        _line("Pitch of the cap, out", t.moved("sleeve", "sleeve", _pitch)[0], 0.3, ("sleeve",)),
        _line("Pitch of the cap, up", t.moved("sleeve", "sleeve", _pitch)[1], 0.2, ("sleeve",)),
        *_long(t),
        *_lower(t),
        *_whole(t),
    ]
    return tuple(lines)


def _line(title: str, figure: float, wanted: float, kinds: tuple[str, ...], near: float = NEAR) -> Line:
    return Line(title, figure, wanted - near, wanted + near, kinds)


def _crown(piece: Piece) -> Point:
    return min((segment.end for path in piece.edge("cap").parts for segment in path.segments), key=lambda at: at.y)


def _pitch(piece: Piece) -> Point:
    cap = piece.edge("cap")
    return cap.place(cap.notches[0].along).point


def _long(t: _Tried) -> list[Line]:
    """A garment that runs on over waist and hip."""
    found = []
    for piece in ("back", "front"):
        kind, title = (f"upper_{piece}",), f"Long {piece}"
        found += [
            _line(f"{title}: waist", t.across("long", piece, "waist"), 1.0, kind),
            _line(f"{title}: hip", t.across("long", piece, "hip"), 1.0, kind),
            _line(f"{title}: hem", t.grew("long", piece, "hem"), 1.0, kind),
            _line(f"{title}: side seam", t.grew("long", piece, "side"), -0.1, kind),
            _line(f"{title}: waist line, up", _level(t, "long", piece, "waist"), 0.0, kind),
            _line(f"{title}: hip line, up", _level(t, "long", piece, "hip"), 0.0, kind),
        ]
    front = ("upper_front",)
    return [
        *found, _line("Long back: centre", t.grew("long", "back", "centre_back"), 0.4, ("upper_back",)),
        _line("Front edge", t.grew("long", "front", "front_edge"), 0.25, front), _line("Gorge", t.grew("long", "front", "gorge"), 0.0, front),
    ]  # fmt: skip


def _level(t: _Tried, block: str, piece: str, level: str) -> float:
    return t.moved(block, piece, lambda p: Point(0.0, p.levels[level]))[1]


def _chest(t: _Tried) -> tuple[float, float]:
    """The chest point, which lies on a part that the bust dart has turned."""
    return t.moved("bodice", "front", lambda p: p.marks["chest"])


def _darts(t: _Tried) -> list[Line]:
    found = []
    for piece, name, out, up in (("back", "back_waist_dart_1", 0.45, 0.0), ("front", "front_waist_dart_1", 0.2, -0.05)):
        kinds = (f"upper_{piece}",)
        point = t.moved("bodice", piece, lambda p, name=name: next(d for d in p.darts if d.name == name).point)  # type: ignore[misc]
        middle = t.moved("bodice", piece, lambda p, name=name: _middle(p, name))  # type: ignore[misc]
        title = f"Waist dart of the {piece}"
        found += [
            _line(f"{title}, point out", point[0], out, kinds),
            _line(f"{title}, point up", point[1], up, kinds),
            _line(f"{title}, legs out", middle[0], out, kinds),
            _line(f"{title}, legs up", middle[1], 0.0, kinds),
        ]
    return found


def _middle(piece: Piece, name: str) -> Point:
    dart = next(dart for dart in piece.darts if dart.name == name)
    return dart.inner.toward(dart.outer, 0.5)


def _lower(t: _Tried) -> list[Line]:
    legs = ("leg_back", "leg_front")
    found = [
        _line(f"Skirt, {piece}: {name}", t.grew("skirt", piece, name), 1.0, (f"lower_{piece}",))
        for piece in ("back", "front")
        for name in ("waist", "hem")
    ]
    found += [
        _line(f"Skirt, {piece}: hip", t.across("skirt", piece, "hip"), 1.0, (f"lower_{piece}",)) for piece in ("back", "front")
    ]
    found += [
        _line(f"Skirt, {piece}: side seam", t.grew("skirt", piece, "side"), 0.0, (f"lower_{piece}",))
        for piece in ("back", "front")
    ]
    found += [
        _line(f"Skirt, {piece}: centre", t.grew("skirt", piece, f"centre_{piece}"), 0.0, (f"lower_{piece}",))
        for piece in ("back", "front")
    ]
    found += [
        _line(f"Skirt, {piece}: hip line, up", _level(t, "skirt", piece, "hip"), 0.0, (f"lower_{piece}",))
        for piece in ("back", "front")
    ]
    found += [
        _line(
            "Trouser waist, round the body",
            2 * (t.grew("trousers", "back", "waist") + t.grew("trousers", "front", "waist")),
            3.98,
            legs,
            0.05,
        ),
        _line("Trousers: side of the front", t.grew("trousers", "front", "side"), 0.34, ("leg_front",)),
        _line("Trousers: side of the back", t.grew("trousers", "back", "side"), 0.37, ("leg_back",)),
        _line("Trousers: front inseam", t.grew("trousers", "front", "inseam"), 0.05, ("leg_front",)),
        _line("Trousers: back inseam, before it is solved", t.grew("trousers", "back", "inseam"), 0.05, ("leg_back",)),
        _line("Trousers: front crotch seam", t.grew("trousers", "front", "crotch"), 0.43, ("leg_front",)),
        _line("Trousers: back crotch seam", t.grew("trousers", "back", "crotch"), 0.70, ("leg_back",), 0.06),
    ]
    for piece in ("back", "front"):
        kind = (f"leg_{piece}",)
        found += [
            _line(f"Trousers, {piece}: hem", t.grew("trousers", piece, "hem"), 0.5, kind),
            _line(f"Trousers, {piece}: knee", t.across("trousers", piece, "knee"), 0.5, kind),
            _line(f"Trousers, {piece}: hip", t.across("trousers", piece, "hip"), 1.0, kind, 0.05),
            _line(f"Trousers, {piece}: rise", t.moved("trousers", piece, lambda p: p.edge("waist").start)[1], 0.3, kind),
            _line(f"Trousers, {piece}: waist darts, up", t.moved("trousers", piece, lambda p: p.darts[0].point)[1], 0.3, kind),
            _line(f"Trousers, {piece}: waist darts, out", t.moved("trousers", piece, lambda p: p.darts[0].point)[0], 0.0, kind),
            _line(f"Trousers, {piece}: dart legs, up", t.moved("trousers", piece, _legs)[1], 0.3, kind),
            _line(f"Trousers, {piece}: dart legs, out", t.moved("trousers", piece, _legs)[0], 0.0, kind),
            _line(f"Trousers, {piece}: knee line, up", _level(t, "trousers", piece, "knee"), 0.0, kind),
            _line(f"Trousers, {piece}: hip line, up", _level(t, "trousers", piece, "hip"), 0.1, kind),
            _line(f"Trousers, {piece}: start of the crotch curve, up", t.moved("trousers", piece, _start)[1], 0.05, kind),
        ]
    return found


def _legs(piece: Piece) -> Point:
    return piece.darts[0].inner.toward(piece.darts[0].outer, 0.5)


def _start(piece: Piece) -> Point:
    """Where the crotch begins to bend."""
    return piece.edge("crotch").parts[0].segments[0].end


def _whole(t: _Tried) -> list[Line]:
    found = []
    for piece in ("back", "front"):
        kind = (f"whole_{piece}",)
        found += [
            _line(f"In one with a leg, {piece}: knee", t.across("suit", piece, "knee"), 0.5, kind),
            _line(f"In one with a leg, {piece}: hem", t.grew("suit", piece, "hem"), 0.5, kind),
            _line(f"In one with a leg, {piece}: shoulder", t.grew("suit", piece, "shoulder"), 0.30, kind),
            _line(
                f"Without shoulders, {piece}: hem",
                sum(t.grew("bare", name, "hem") for name in _bare(piece)),
                1.0,
                (f"bare_{piece}",),
            ),
        ]
    found.append(_line("Head in an S: upper arm", t.across("s_head", "sleeve", "bicep"), 1.2, ("s_head",)))
    found.append(_line("Head in an S: sleeve hem", t.grew("s_head", "sleeve", "wrist"), 0.4, ("s_head",)))
    return found


def _bare(piece: str) -> tuple[str, ...]:
    return ("back",) if piece == "back" else ("front", "side_front")


def missed(table: RuleTable) -> tuple[Line, ...]:
    """The lines of the test that a table misses; all of them where a step makes no piece."""
    try:
        return tuple(line for line in proof(table) if not line.true)
    except PatternError:
        return (Line("A step of this table makes an outline that crosses itself", 0.0, 1.0, 1.0, tuple(table.kinds)),)
