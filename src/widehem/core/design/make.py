"""The one call: a design on a chart makes a garment. Pages, command line, comparing, touchiness and grading all ask here."""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable, Mapping, Sequence

from shapely import Point as SpotOf

from widehem.core.body.chart import Chart
from widehem.core.design.design import Design, Step
from widehem.core.design.replay import Refused, Replay, State, stale
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import Draft, Method, armhole_of, draft, method_named
from widehem.core.drafting.outlined import draft_outlined
from widehem.core.drafting.sheet import Mark
from widehem.core.drafting.table import Table, as_drawn
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Check, Demand
from widehem.core.pattern.checks.body import Girth, asked_girths
from widehem.core.pattern.edge import Edge, Held
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import RIM, Piece
from widehem.core.pattern.truing import check_garment
from widehem.core.pattern.wear import Wear
from widehem.core.setting.option import Value
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.quantity import drawn as as_made
from widehem.core.setting.step import Step as DraftStep
from widehem.core.style.operation import PHASES, Context, DraftOf
from widehem.core.units import Saying
from widehem.core.values import kept, record, replace

APART, ASPECT, LIES_ON = (
    6.0,
    1.35,
    1.0,
)  # cm on the sheet between what was drawn and a piece that was made of it; of the sheet; cm²
# settings of every method that are truing, done last: which operations they ask for
TRUED = {"corners": ("true.corners",), "seams": ("true.seams",), "both": ("true.corners", "true.seams")}
PRESSED = {"side": ("dart.press",)}
WAIST = {"seam": {}, "band": {"high": 3.0}}  # of a garment that runs on over the waist: cut there, first of all


@record(frozen=True)
class Made:
    """A garment made of a design on a chart.

    draft: the drawing it came from. garment: after all steps. demands: what it is held against. notes: of the drawing and of the
    steps. refused: steps that do not fit, each leaving what was before it; stale: pieces drawn for what has changed since. needed: notions the
    steps ask for. told: of the notes, the ids of the steps that said them; '' for the drawing. lies: where the pieces lie on the
    sheet, where that does not follow from the drawing; shows: what is marked there, where that does not.
    """

    design: Design
    chart: Chart
    draft: Draft
    garment: Garment
    demands: tuple[Demand, ...]
    notes: tuple[Saying, ...]
    refused: tuple[Refused, ...] = ()
    stale: tuple[str, ...] = ()
    needed: tuple[Saying, ...] = ()
    told: tuple[str, ...] = ()
    lies: Table | None = None
    shows: tuple[Mark, ...] | None = None

    @property
    def method(self) -> Method:
        return self.draft.method

    @property
    def options(self) -> Mapping[str, Quantity | Value]:
        return self.draft.options

    @property
    def ease(self) -> Mapping[str, Quantity]:
        return self.draft.ease

    @property
    def steps(self) -> tuple[DraftStep, ...]:
        return self.draft.steps

    @property
    def points(self) -> Mapping[str, Point]:
        return self.draft.points

    @property
    def wear(self) -> Wear:
        return self.draft.wear

    @property
    def notions(self) -> tuple[Saying, ...]:
        return (*self.draft.notions, *self.needed)

    @kept
    def table(self) -> Table:
        """Where the pieces lie on the sheet."""
        return _table(self.draft, self.garment) if self.lies is None else self.lies

    @kept
    def marks(self) -> tuple[Mark, ...]:
        """Those of the drawing, with what was changed afterwards drawn again."""
        if self.shows is not None:
            return self.shows
        drawn = self.draft
        return drawn.marks if self.garment is drawn.garment else _drawn_again(drawn, self.garment, self.table)

    @kept
    def laid(self) -> tuple[Piece, ...]:
        """The pieces as they lie on the sheet."""
        return tuple(self.table.laid(piece) for piece in self.garment.pieces)

    @kept
    def checks(self) -> tuple[Check, ...]:
        return check_garment(self.garment, self.demands, self.wear, self.draft.limits)

    @property
    def girths(self) -> tuple[Girth, ...]:
        return asked_girths(self.demands)

    def marks_at(self, step: int) -> tuple[Mark, ...]:
        """What is on the sheet after a step: drawn by then and not rubbed out or drawn over."""
        last, rubbed = len(self.steps) + 1, self.draft.rubbed_out
        return tuple(mark for mark in self.marks if mark.step <= step < rubbed.get(mark.name, last + 1))

    def measures_used(self) -> tuple[str, ...]:
        return tuple(code for code in self.method.reads(self.draft.options_set) if code in self.chart)


def make(
    design: Design, chart: Chart, alterations: Sequence[Step] = (), *, armhole: Armhole | None = None, worked_on: bool = True
) -> Made:
    """Draw a design for a body: the draft, the steps of the design, the wearer's own alterations, and truing last.

    armhole: what a sleeve is drawn for. worked_on: what stands between its steps is kept for the next redraft. Raises OptionError for a setting out of range, CannotDraft when the measures do not
    make a garment.
    """
    steps = (*design.steps, *alterations)
    drawn = drawn_for(design, chart, armhole)
    context = Context(chart, drawn.wear, _other_garments(chart), _sleeves(chart), drawn.limits)
    base = (design.by_rules(drawn.rules).block_key(), chart_key(chart), armhole) if steps and worked_on else None
    return finished(
        design, drawn, REPLAY.run(base, State(drawn.garment, drawn.demands), _in_order(steps, drawn.options), context)
    )


def finished(design: Design, drawn: Draft, state: State, *, shown: bool = True) -> Made:
    """What comes of a drawing and the garment that its steps have made. shown: it is drawn on a board, with all its marks."""
    garment, old = state.garment, stale(state)
    said = (*drawn.notes, *state.said, *(words for _, words in old))
    told = (*("" for _ in drawn.notes), *state.told, *("stale" for _ in old))
    return Made(
        design, drawn.chart, drawn, garment, state.demands, said, state.refused, tuple(name for name, _ in old), state.notions, told,
        shows=None if shown else (),
    )  # fmt: skip


def drawn_for(design: Design, chart: Chart, armhole: Armhole | None = None) -> Draft:
    """The drawing of a design before its steps. Raises as make."""
    if design.outlines is not None:
        return draft_outlined(design.outlines, chart, design.options, design.ease, design.rules)
    return draft(design.drawn_by, chart, design.options, design.ease, armhole, design.rules)


def styled(design: Design, drawn: Draft, garment: Garment) -> State:
    """The steps of a design done to another garment than was drawn, one in another size: asked of it is what is asked of the
    drawing."""
    chart = drawn.chart
    context = Context(chart, drawn.wear, _other_garments(chart), _sleeves(chart), drawn.limits)
    return REPLAY.run(None, State(garment, drawn.demands), _in_order(design.steps, drawn.options), context)


def with_garment(made: Made, garment: Garment, demands: tuple[Demand, ...]) -> Made:
    """The same with the garment in another size, asked other things, lying where it lay: for the table and for paper, not for the
    board, on which a drawing is followed."""
    return replace(made, garment=garment, demands=demands, lies=None, shows=())


def context_of(made: Made) -> Context:
    """What an operation on a garment that was made may look at."""
    return Context(made.chart, made.wear, _other_garments(made.chart), _sleeves(made.chart), made.draft.limits, made.demands)


REPLAY = Replay()


def chart_key(chart: Chart) -> Hashable:
    """What two charts that draw alike have in common."""
    return tuple(chart.readings.items()), chart.foundation, chart.table


def _in_order(steps: Sequence[Step], options: Mapping[str, object]) -> list[Step]:
    """The steps that are on, in the order of the maker but for those that come later by nature; then the truing that settings
    ask for."""
    on = [step for step in steps if not step.off]
    if (waist := str(options.get("waist_seam", ""))) in WAIST:
        on.insert(0, Step("setting-waist", "waist.seam", WAIST[waist]))
    codes = (*TRUED.get(str(options.get("trued", "no")), ()), *PRESSED.get(str(options.get("pressed", "centre")), ()))
    on += [Step(f"setting-{code}", code) for code in codes]
    return sorted(on, key=lambda step: PHASES.index(step.operation.phase_with(step.settings)))


def _other_garments(chart: Chart) -> DraftOf:
    kept: dict[object, Garment] = {}

    def draft_of(method: str, options: Mapping[str, Value], ease: Mapping[str, Value]) -> Garment:
        key = method, tuple(sorted(options.items())), tuple(sorted(ease.items()))
        if key not in kept:
            kept[key] = draft(method_named(method), chart, options, ease).garment
        return kept[key]

    return draft_of


def armhole_in(made: Made) -> Armhole | None:
    """The armhole of a garment, with the ease its sleeves have; None where it has none."""
    found = armhole_of(made.garment)
    return None if found is None else replace(found, arm=made.method.arm_ease)


def _sleeves(chart: Chart) -> Callable[[str, Garment], Garment]:
    """Sleeves for the armhole of a garment, by a method."""
    return lambda method, garment: draft(method_named(method), chart, armhole=armhole_of(garment)).garment


def _table(drawn: Draft, garment: Garment) -> Table:
    """Where the pieces lie: those that were drawn where they were drawn, others, and those that grew into them, at their right and in
    rows below."""
    table, kept, new = drawn.table, list[Piece](), list[Piece]()
    before = {piece.name: piece for piece in drawn.garment.pieces}
    for piece in garment.pieces:
        laid = table.laid(piece) if piece.name in table.lay else None
        if laid is None or (piece is not before.get(piece.name) and any(_over(laid, other) for other in kept)):
            new.append(piece)
        else:
            kept.append(laid)
    if not new:
        return table
    there = [*drawn.laid, *kept]
    lefts, tops, rights, bottoms = zip(*(piece.bounds for piece in there), strict=True)
    left, deep = min(lefts), max(bottoms)
    whole = (max(rights) - left) * (deep - min(tops)) + sum(
        (far - near + APART) * (low - high + APART) for near, high, far, low in (piece.bounds for piece in new)
    )
    most = left + max(max(rights) - left, math.sqrt(whole * ASPECT))
    x, y, lowest = max(rights) + APART, min(tops), deep
    for piece in new:
        near, high, far, low = piece.bounds
        if x > left and x + far - near > most:
            x, y = left, lowest + APART
        table = table.with_piece(piece.name, as_drawn(x - near, y - high))
        x, lowest = x + far - near + APART, max(lowest, y + low - high)
    return table


def _over(piece: Piece, other: Piece) -> bool:
    """Whether a piece lies on another."""
    left, top, right, bottom = piece.bounds
    near, high, far, low = other.bounds
    apart = right <= near or far <= left or bottom <= high or low <= top
    return not apart and bool(piece.surface.intersection(other.surface).area > LIES_ON)


def _drawn_again(drawn: Draft, garment: Garment, table: Table) -> tuple[Mark, ...]:
    """The marks with finished lines and darts as they are on the pieces now; what is gone is left out, what is new comes
    last."""
    now = {piece.name: table.laid(piece) for piece in garment.pieces}
    before = {piece.name: piece for piece in drawn.laid}
    found: list[Mark] = []
    for mark in drawn.marks:
        piece = now.get(mark.piece)
        if piece is None or (mark.role != "finished" and not _left(mark, before[mark.piece], piece)):
            found += [mark] if piece is None else []
        elif mark.role != "finished":
            found.append(mark)
        elif mark.dart is not None:
            found += [replace(mark, dart=dart, path=mark.path) for dart in piece.darts if dart.name == mark.dart.name]
        elif not mark.edge or not piece.has(mark.edge):
            found += [mark] if not mark.edge or mark.edge in {d.name for d in piece.diamonds} else []
        else:
            parts = piece.edge(mark.edge).parts
            held = [gap for gap in piece.edge(mark.edge).gaps if mark.name == f"{mark.piece}_{gap.name}"]
            if held:
                found.append(replace(mark, path=held[0].cap))
                continue
            number = int(tail) if (tail := mark.name.rsplit("_", 1)[-1]).isdecimal() else 1
            found += [replace(mark, path=parts[number - 1])] if number <= len(parts) else []
    shown = {(mark.piece, mark.edge) for mark in found if mark.role == "finished"}
    for piece in now.values():
        if piece != before.get(piece.name):
            found += [
                mark for edge in piece.edges if (piece.name, edge.name) not in shown for mark in _lines(drawn, piece, edge)
            ]
    return tuple(found)


def _left(mark: Mark, before: Piece, now: Piece) -> bool:
    """Whether what was marked is still there: not a point of an outline that runs elsewhere now."""
    return mark.kind != "point" or mark.at is None or not _on_outline(before, mark.at) or _on_outline(now, mark.at)


def _on_outline(piece: Piece, spot: Point) -> bool:
    return bool(piece.rim.distance(SpotOf(spot.x, spot.y)) < 2 * RIM)


def _lines(drawn: Draft, piece: Piece, edge: Edge) -> list[Mark]:
    """An edge that came with a step of the design, with its darts, drawn last of all."""
    title = f"{piece.title}, {edge.name.replace('_', ' ')}"
    figure = as_made(edge.length, title.lower())
    last = len(drawn.steps)
    paths = [*edge.parts, *(Path.through(dart.inner, dart.point, dart.outer) for dart in edge.darts)]
    paths += [gap.cap for gap in edge.gaps if isinstance(gap, Held)]
    return [
        Mark(f"{piece.name}_{edge.name}_{number}", "line", title, last, path, role="finished", figure=figure, piece=piece.name,
            edge=edge.name)
        for number, path in enumerate(paths, 1)
    ]  # fmt: skip
