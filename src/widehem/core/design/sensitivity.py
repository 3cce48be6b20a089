"""How touchy a draft is: what one centimetre more in a measure moves."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from functools import partial

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, Reading
from widehem.core.body.estimates import estimate
from widehem.core.design.design import Design, Step, method_design
from widehem.core.design.make import Made, make
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import Method
from widehem.core.setting.option import OptionError, Value
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Length, ticks_of
from widehem.core.values import record, replace

STEP = 1.0  # cm
WORTH_TELLING = 0.05  # cm


@record(frozen=True)
class Move:
    """An edge that changes: piece, edge, by how much (cm) for one centimetre more."""

    piece: str
    edge: str
    by: float


def filled_in(chart: Chart, only: Collection[str] | None = None) -> Chart:
    """The chart with estimates where nothing was read; only to try things on, never to cut by. only: of these measures, as
    others change a draft by being read at all."""
    found = estimate(chart, chart.table).found if any(chart) else {}
    guesses = {
        code: Reading(code, Length(ticks_of(entry.cm), "", "cm"))
        for code, entry in found.items()
        if only is None or code in only
    }
    return replace(chart, readings={**guesses, **chart.readings})


def looked_at(design: Design, chart: Chart) -> Chart:
    """The chart on which a design is looked at: with estimates for what its method needs and for what its steps may rest on."""
    method = design.drawn_by
    uses = set(method.uses(design.options))
    optional = set(method.reads(design.options)) - uses
    return filled_in(chart, set(CATALOGUE) - optional)


class Touch:
    """A design of which it can be asked what moves it on a body; where nothing was read it rests on estimates."""

    def __init__(self, design: Design, chart: Chart, alterations: Sequence[Step] = (), armhole: Armhole | None = None) -> None:
        self._whole = filled_in(chart, design.drawn_by.uses(design.options))
        self._draw = partial(make, design, alterations=alterations, armhole=armhole)
        try:
            self._before = _lengths(self._draw(self._whole))
        except (CannotDraft, OptionError):
            self._before = {}

    def moves(self, code: str) -> tuple[Move, ...]:
        """Edges that change when this measure is a centimetre more, the most first; nothing when it cannot be drafted."""
        value = self._whole.get(code)
        if value is None or code not in CATALOGUE or not self._before:
            return ()
        try:
            after = _lengths(self._draw(self._whole.with_value(code, Length(ticks_of(value + STEP), "", "cm"))))
        except (CannotDraft, OptionError):
            return ()
        found = [
            Move(piece, edge, after[piece, edge] - length)
            for (piece, edge), length in self._before.items()
            if (piece, edge) in after
        ]
        return tuple(sorted((m for m in found if abs(m.by) >= WORTH_TELLING), key=lambda m: -abs(m.by)))


def what_moves(design: Design, chart: Chart, code: str, armhole: Armhole | None = None) -> tuple[Move, ...]:
    """What one measure moves; see Touch."""
    return Touch(design, chart, (), armhole).moves(code)


def _lengths(made: Made) -> dict[tuple[str, str], float]:
    return {(piece.name, edge.name): edge.length for piece in made.garment.pieces for edge in piece.edges}


def next_to_read(method: Method, chart: Chart, options: Mapping[str, Value] | None = None) -> tuple[str, ...]:
    """The missing measures of a method, those that move the draft most first."""
    missing = method.missing(chart, options)
    touch = Touch(method_design(method, options), chart)
    weight = {code: sum(abs(move.by) for move in touch.moves(code)) for code in missing}
    return tuple(sorted(missing, key=lambda code: -weight[code]))
