"""A panel of the seam-shaped gown, and the piece it becomes: its gores, its eyelets, the dart in its armhole."""

from __future__ import annotations

from widehem.core.drafting.bodice import pitch_notch, shaped_neck
from widehem.core.drafting.methods.gown_dart import Darted
from widehem.core.drafting.methods.gown_shape import Levels, level_hem, split_at
from widehem.core.drafting.sheet import Sheet
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge, EdgeKind
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.values import record, replace

HOLE_IN, HOLE_APART, HOLE_FIRST = 1.2, 2.0, 1.5  # cm: eyelets


@record(frozen=True)
class Panel:
    """A panel in its own frame. strap: the neck end of the shoulder; top: the neck at the centre."""

    name: str
    top: Point
    strap: Point
    tip: Point
    centre: Path
    side: Path
    neck: Path
    hole: Path
    dart: Darted | None = None

    @property
    def under(self) -> Point:
        return self.side.start


def piece_of_panel(sheet: Sheet, panel: Panel, levels: Levels, gores: dict[str, float]) -> Piece:
    """The panel as a piece. gores: by edge, from which level a gore is set in."""
    name = panel.name
    opened = sheet.choice("opening_at") == f"centre_{name}"
    hem = level_hem(panel.centre, panel.side, levels.length)
    centre = _cut(f"centre_{name}", panel.centre, gores, "opening" if opened else "seam")
    side = [
        replace(edge, parts=tuple(part.reverse() for part in edge.parts))
        for edge in reversed(_cut("side", panel.side, gores, "seam"))
    ]
    edges = (
        *centre,
        Edge("hem", (hem,), (), "hem"),
        *side,
        _armhole(panel),
        Edge("shoulder", (Path.through(panel.tip, panel.strap),)),
        shaped_neck(Edge("neck", (panel.neck.reverse(),)), sheet.choice("neck_shape") if name == "front" else "round"),
    )
    middle = (split_at(panel.centre, 0.0)[0].end.x + split_at(panel.side, 0.0)[0].end.x) / 2
    grain = Point(middle, -6.0), Point(middle, levels.length * 0.5)
    found = {"bust": levels.bust, "waist": 0.0, "hip": levels.hip}
    high = sheet.chart.get("waist_high_hip")
    if high is not None and sheet.chart.get("high_hip") is not None:
        found["high_hip"] = high
    found = {level: y for level, y in found.items() if y < levels.ends - 0.5}
    marks = {"snp": panel.strap, "tip": panel.tip, "underarm": panel.under}
    return Piece(
        name, f"Gown {name}", edges, balance=tuple(BalanceLine.across(level, y) for level, y in found.items()),
            middle=f"centre_{name}",
        marks=marks, grain=grain, holes=_holes(sheet, panel.centre) if opened else (),
    )  # fmt: skip


def _armhole(panel: Panel) -> Edge:
    """From the underarm up to the shoulder tip, with its dart."""
    if panel.dart is None:
        return Edge("armhole", (panel.hole.reverse(),), notches=(pitch_notch(panel.hole.length, panel.name),))
    parts = panel.dart.lower.reverse(), panel.dart.upper.reverse()
    return Edge("armhole", parts, (panel.dart.dart,), notches=(pitch_notch(panel.dart.length, panel.name),))


def _cut(name: str, path: Path, gores: dict[str, float], kind: EdgeKind) -> list[Edge]:
    if name not in gores:
        return [Edge(name, (path,), (), kind)]
    upper, lower = split_at(path, gores[name])
    return [Edge(name, (upper,), (), kind), Edge(f"{name}_gore", (lower,), role="gore")]


def _holes(sheet: Sheet, centre: Path) -> tuple[Point, ...]:
    """Eyelets along the opening, inside its edge."""
    if not sheet.length("lacing").value:
        return ()
    length = _open_length(sheet, centre)
    count = int((length - HOLE_FIRST) / HOLE_APART) + 1
    spots = [centre.place(HOLE_FIRST + HOLE_APART * number) for number in range(count)]
    return tuple(spot.point + Point(spot.direction.y, -spot.direction.x) * HOLE_IN for spot in spots)


def _open_length(sheet: Sheet, centre: Path) -> float:
    """How far the gown opens along its centre, cm."""
    return split_at(centre, 0.0)[0].length + sheet.length("opening_below").value
