"""A nest: one design in every size of a chart, by rules, drawn anew, or by proposed rules; judged in every size."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterable, Mapping, Sequence
from contextlib import suppress
from typing import Any, Generic, Literal, TypeVar

from widehem.core.body.chart import Chart
from widehem.core.design.design import Design, Step, method_design
from widehem.core.design.make import Made, armhole_in, chart_key, drawn_for, finished, make, styled
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, Draft
from widehem.core.drafting.outlined import outlined
from widehem.core.drafting.outlined_data import sizes_of
from widehem.core.drafting.outlines import OutlineError
from widehem.core.grading.apply import Grader, Shifted, unruled
from widehem.core.grading.own import OwnRule, with_own
from widehem.core.grading.propose import Proposal, proposed, shape_differs
from widehem.core.grading.proposing import by_proposal
from widehem.core.grading.size_chart import SizeChart
from widehem.core.grading.sized import Sized
from widehem.core.grading.tables import RuleTable
from widehem.core.pattern.edge import PatternError
from widehem.core.setting.option import OptionError, Value
from widehem.core.setting.refusal import CannotDraft
from widehem.core.shifting.demands import asked_in_size, notches_laid
from widehem.core.units import Saying, say
from widehem.core.values import kept, record, replace

Way = Literal["rules", "redraft", "proposed", "own"]
WAYS: Mapping[Way, str] = {
    "rules": "Shift rules", "redraft": "Drawn anew", "proposed": "Proposed rules", "own": "Its own sizes",
}  # fmt: skip
FAR = 3  # steps from the base, in woven cloth
KEPT = 96


@record(frozen=True)
class Break:
    """A setting that goes another way from a size on: pockets, buttons, straps. where: the id of a step, '' for the drawing itself.
    size: the number of the first size that has it; value: cm or a choice."""

    where: str
    setting: str
    size: int
    value: Value


@record(frozen=True)
class Grading:
    """How a design is graded. own: rules of the maker for single spots of its finished pieces. breaks: see there."""

    design: Design
    chart: SizeChart
    way: Way
    table: RuleTable
    own: tuple[OwnRule, ...] = ()
    breaks: tuple[Break, ...] = ()

    def design_at(self, size: int) -> Design:
        """The design with what is set for a size. Towards the base the setting of the base holds."""
        return broken(self.design, self.breaks, size)


@record(frozen=True)
class Nest:
    """names: what the sizes are called; base: the number of the one it was graded from. failed: sizes that cannot be drawn, with why.
    chart: what they are sizes of; None for those that came with a pattern."""

    names: tuple[str, ...]
    base: int
    way: Way
    sizes: Mapping[int, Sized]
    failed: Mapping[int, Saying]
    chart: SizeChart | None = None
    proposal: Proposal | None = None
    unruled: tuple[str, ...] = ()

    @kept
    def shaped(self) -> frozenset[int]:
        """The sizes that have the shape of the base, spot for spot."""
        base = self.sizes[self.base].garment
        return frozenset(size for size, one in self.sizes.items() if shape_differs(base, one.garment) is None)

    @kept
    def looked_up(self) -> dict[str, Any]:
        """What views have found out about its pieces, by the name of the piece."""
        return {}

    @property
    def cautions(self) -> tuple[Saying, ...]:
        """What is to be known of the whole: too far from the base, sizes that want another base."""
        found = []
        drawn = [size for size in self.sizes if not self.sizes[size].fails]
        far = [self.names[size] for size in drawn if abs(size - self.base) > FAR]
        base = self.sizes.get(self.base)
        if far and self.way in ("rules", "proposed") and base is not None and not base.wear.knit:
            found.append(
                say(
                    f"Size {', '.join(far)}: more than {FAR} steps from the base. In woven cloth another body has another shape, more cup "
                    f"or another balance: draw a base of its own there, or look at the first toile with care."
                )
            )
        for size, why in self.failed.items():
            found.append(say(f"Size {self.names[size]}:") + why)
        return tuple(found)


Thing = TypeVar("Thing")


class _Kept(Generic[Thing]):
    """The latest of what was drawn for a size, by everything it depends on."""

    def __init__(self, work: Callable[[Design, Chart, Armhole | None], Thing]) -> None:
        self._work, self._kept = work, OrderedDict[Hashable, Thing]()

    def of(self, key: Hashable, design: Design, chart: Chart, armhole: Armhole | None) -> Thing:
        whole = key, chart_key(chart), armhole
        found = self._kept.get(whole)
        if found is None:
            found = self._kept[whole] = self._work(design, chart, armhole)
            while len(self._kept) > KEPT:
                with suppress(KeyError):  # another thread was faster
                    self._kept.popitem(last=False)
        return found

    def clear(self) -> None:
        self._kept.clear()


REDRAWN = _Kept[Made](lambda design, chart, armhole: make(design, chart, armhole=armhole, worked_on=False))
DRAWN = _Kept[Draft](drawn_for)


def redrawn(design: Design, chart: Chart, armhole: Armhole | None = None) -> Made:
    """A design drawn on a body."""
    return REDRAWN.of(design.key(), design, chart, armhole)


def drawing(design: Design, chart: Chart, armhole: Armhole | None = None) -> Draft:
    """The drawing of a design on a body, before its steps."""
    return DRAWN.of(design.block_key(), design, chart, armhole)


def broken(design: Design, breaks: Iterable[Break], size: int) -> Design:
    """A design with the settings that hold in a size: of each the break nearest below it."""
    holding: dict[tuple[str, str], Break] = {}
    for one in sorted(breaks, key=lambda one: one.size):
        if one.size <= size:
            holding[one.where, one.setting] = one
    options = {one.setting: one.value for one in holding.values() if not one.where}
    steps = tuple(_broken(step, [one for one in holding.values() if one.where == step.id]) for step in design.steps)
    return replace(design, options={**design.options, **options}, steps=steps) if holding else design


def _broken(step: Step, breaks: Sequence[Break]) -> Step:
    return replace(step, settings={**step.settings, **{one.setting: one.value for one in breaks}}) if breaks else step


def ways_of(design: Design) -> tuple[Way, ...]:
    """The ways a design can be graded: what has no method is not drawn anew; what came in sizes has its own."""
    if design.outlines is None:
        return ("rules", "redraft", "proposed")
    return ("own", "rules") if len(sizes_of(design.outlines.data)) > 1 else ("rules",)


def grade(grading: Grading, sizes: Iterable[int] | None = None) -> Nest:
    """The nest of a design: all sizes of the chart, or these and the base."""
    if grading.way == "own":
        return _own_sizes(grading)
    chart = grading.chart
    wanted = sorted({*(range(len(chart)) if sizes is None else sizes), chart.base})
    done: dict[int, Sized] = {}
    failed: dict[int, Saying] = {}
    proposal = None
    try:
        base = _base(grading)
    except (CannotDraft, OptionError, OutlineError, PatternError) as error:
        return Nest(chart.sizes, chart.base, grading.way, {}, {chart.base: said(error)}, chart)
    if grading.way == "rules":
        done, failed = _by_rules(grading, base, wanted)
    else:
        near = wanted if grading.way == "redraft" else range(min(wanted), max(wanted) + 1)
        done, failed = _redrawn(grading, near)
        if grading.way == "proposed":
            steps = chart.steps(chart.key)
            proposal = proposed({size: one.garment for size, one in done.items()}, chart.base, steps)
            failed |= proposal.shapes
            done, none = _proposed(grading, done, proposal, wanted)
            failed |= none
    if grading.own and chart.base in done:
        done = {size: with_own(done[chart.base], one, grading.own, grading.table, chart) for size, one in done.items()}
    return Nest(
        chart.sizes, chart.base, grading.way, done, failed, chart, proposal, base.unruled if grading.way == "rules" else ()
    )


@record(frozen=True)
class _Base:
    """What everything is graded from: the drawing and its garment, ready to be shifted, and the armhole of a sleeve."""

    drawn: Draft
    grader: Grader
    armhole: Armhole | None
    unruled: tuple[str, ...]


def _armhole(grading: Grading, size: int) -> Armhole | None:
    """The armhole that a sleeve is drawn for in a size: of the bodice its method is made for."""
    method = grading.design.drawn_by
    if not method.for_armhole:
        return None
    return armhole_in(redrawn(method_design(METHODS[method.made_for]), grading.chart.column(size), None))


def _base(grading: Grading) -> _Base:
    chart = grading.chart
    armhole = _armhole(grading, chart.base)
    drawn = drawing(grading.design_at(chart.base), chart.column(chart.base), armhole)
    return _Base(drawn, Grader(drawn.garment, grading.table, chart), armhole, unruled(drawn.garment))


def _by_rules(grading: Grading, base: _Base, wanted: Iterable[int]) -> tuple[dict[int, Sized], dict[int, Saying]]:
    """The drawing of the base shifted by the table, the steps of the design done to it in every size."""
    done: dict[int, Sized] = {}
    failed: dict[int, Saying] = {}
    for size in wanted:
        try:
            armhole = _armhole(grading, size)
            drawn = drawing(grading.design_at(size), grading.chart.column(size), armhole)
            holes = None if armhole is None or base.armhole is None else (base.armhole.whole, armhole.whole)
            moved = base.grader.at(size, holes) if size != grading.chart.base else Shifted(base.drawn.garment, {}, {})
            garment = moved.garment
            if size != grading.chart.base:
                garment = notches_laid(replace(garment, openings=drawn.garment.openings), drawn.demands)
            state = styled(grading.design_at(size), drawn, garment)
        except (CannotDraft, OptionError, OutlineError, PatternError) as error:
            failed[size] = said(error)
            continue
        if size != grading.chart.base:
            state = replace(state, garment=notches_laid(state.garment, state.demands), demands=asked_in_size(state.demands))
        done[size] = Sized(size, finished(grading.design_at(size), drawn, state, shown=False), moved)
    return done, failed


def _redrawn(grading: Grading, wanted: Iterable[int]) -> tuple[dict[int, Sized], dict[int, Saying]]:
    """The design drawn anew on the column of every size."""
    done: dict[int, Sized] = {}
    failed: dict[int, Saying] = {}
    for size in wanted:
        try:
            made = redrawn(grading.design_at(size), grading.chart.column(size), _armhole(grading, size))
        except (CannotDraft, OptionError, OutlineError, PatternError) as error:
            failed[size] = said(error)
            continue
        done[size] = Sized(size, made)
    return done, failed


def _proposed(
    grading: Grading, drawn: Mapping[int, Sized], proposal: Proposal, wanted: Iterable[int]
) -> tuple[dict[int, Sized], dict[int, Saying]]:
    """The base moved by what is proposed, in every size that has its shape."""
    done: dict[int, Sized] = {}
    failed: dict[int, Saying] = {}
    base = drawn[grading.chart.base]
    hole = _armhole(grading, base.size)
    for size in wanted:
        if size not in drawn or size not in proposal.moves:
            continue
        try:
            done[size] = (
                drawn[size]
                if size == base.size
                else by_proposal(base, drawn[size], proposal.moves[size], (hole, _armhole(grading, size)))
            )
        except PatternError as error:
            failed[size] = said(error)
    return done, failed


def _own_sizes(grading: Grading) -> Nest:
    """The sizes an outlined pattern came in, with the steps of the design done to each."""
    outlines = grading.design.outlines
    assert outlines is not None
    names = tuple(sizes_of(outlines.data))
    base = len(names) // 2
    done: dict[int, Sized] = {}
    failed: dict[int, Saying] = {}
    for size in range(len(names)):
        design = replace(grading.design, options={**grading.design.options, "size": float(size + 1)})
        try:
            outlined(outlines, size + 1)
            done[size] = Sized(size, redrawn(design, grading.chart.column(grading.chart.base), None))
        except (CannotDraft, OptionError, OutlineError, PatternError) as error:
            failed[size] = said(error)
    return Nest(names, base, "own", done, failed)


def said(error: Exception) -> Saying:
    """A refusal in words."""
    saying = getattr(error, "saying", None)
    return saying if isinstance(saying, Saying) else say(str(error).replace("{", "(").replace("}", ")"))
