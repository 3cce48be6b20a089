"""Operations on a garment: what one is, their registry, and the one way in which they are run."""

from __future__ import annotations

import logging
from collections.abc import Callable, Mapping
from dataclasses import field
from typing import Literal, TypeVar

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.formula import FormulaError, read_formula
from widehem.core.pattern.check import Demand
from widehem.core.pattern.edge import PatternError
from widehem.core.pattern.garment import Chain, EdgeRef, Garment, Opening, Seam
from widehem.core.pattern.limits import USUAL_LIMITS, Limits
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.wear import USUAL_WEAR, Wear
from widehem.core.setting.option import Option, OptionError, Value
from widehem.core.setting.refusal import CannotDraft
from widehem.core.setting.registry import Registry
from widehem.core.style.remap import free_name, remapped
from widehem.core.style.where import Found, LostPlaceError, Where, find
from widehem.core.units import Saying, say
from widehem.core.values import record

LOG = logging.getLogger(__name__)
D = TypeVar("D", bound=Demand)
Phase = Literal["block", "style", "derive", "true"]
PHASES: tuple[Phase, ...] = (
    "block",
    "style",
    "derive",
    "true",
)  # the block first; facings and linings come after every change of shape, truing after all


class CannotStyle(Exception):  # noqa: N818 - the name says what it means at the table
    """An operation that does not fit: saying what, why, and the figure that would. wheres: the places to blame; measures:
    codes; lost: a place it asks for is not there on this body."""

    def __init__(
        self, saying: Saying, wheres: tuple[str, ...] = (), measures: tuple[str, ...] = (), *, lost: bool = False
    ) -> None:
        super().__init__(saying.text())
        self.saying, self.wheres, self.measures, self.lost = saying, wheres, measures, lost


@record(frozen=True)
class Change:
    """What an operation makes of a garment.

    pieces: all of them, as they are now. seams, openings: where they are others than before; seams may still speak of edges
    as they were. renamed: what edges that were there have become, in their own order; dropped: edges that are gone. said:
    what was changed, in words. made: pieces that are new. stale: parts drawn for what has changed.
    """

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...] | None = None
    openings: tuple[Opening, ...] | None = None
    renamed: Mapping[EdgeRef, Chain] = field(default_factory=dict)
    dropped: tuple[EdgeRef, ...] = ()
    said: tuple[Saying, ...] = ()
    made: tuple[str, ...] = ()
    stale: tuple[str, ...] = ()
    asks: Callable[[tuple[Demand, ...]], tuple[Demand, ...]] | None = None
    notions: tuple[Saying, ...] = ()
    whole: Garment | None = None


@record(frozen=True)
class Done:
    """A garment after an operation, in the names its edges have now, and what was done."""

    garment: Garment
    change: Change

    @property
    def said(self) -> tuple[Saying, ...]:
        return self.change.said


DraftOf = Callable[[str, Mapping[str, Value], Mapping[str, Value]], Garment]


@record(frozen=True)
class Context:
    """What an operation may look at besides the garment. draft_of: another garment of this wearer, by method, options and ease;
    sleeve_for: a sleeve by a method, drawn for the armhole of a garment. limits: how near is true. demands: what is asked of
    the garment so far."""

    chart: Chart
    wear: Wear = USUAL_WEAR
    draft_of: DraftOf | None = None
    sleeve_for: Callable[[str, Garment], Garment] | None = None
    limits: Limits = USUAL_LIMITS
    demands: tuple[Demand, ...] = ()

    def asked(self, kind: type[D]) -> D | None:
        """The first demand of a kind there is so far."""
        return next((demand for demand in self.demands if isinstance(demand, kind)), None)


@record(frozen=True)
class Job:
    """One operation with everything it needs, its places found."""

    garment: Garment
    context: Context
    settings: Mapping[str, Value]
    at: Mapping[str, Found]
    names: Mapping[str, str]

    def length(self, code: str) -> float:
        return float(self.settings[code])

    def choice(self, code: str) -> str:
        return str(self.settings[code])

    def free_piece(self, wanted: str, asked: str = "piece") -> str:
        """A name for a new piece: as the maker wants it, or as it usually is, with a number where that is taken."""
        return free_name((piece.name for piece in self.garment.pieces), self.names.get(asked, wanted))

    def free_seam(self, wanted: str) -> str:
        """A name for a new seam."""
        return free_name((seam.name for seam in self.garment.seams), wanted)

    def then(
        self, code: str, garment: Garment, settings: Mapping[str, Value] | None = None, wheres: Mapping[str, Where] | None = None,
        names: Mapping[str, str] | None = None,
    ) -> Garment:  # fmt: skip
        """Another operation done to a garment on the way. Raises CannotStyle."""
        return run(OPERATIONS[code], garment, self.context, settings, wheres, names).garment

    def measure(self, code: str, words: str) -> float:
        """A measure of the wearer, cm. Raises CannotStyle naming it where it was not read."""
        value = self.context.chart.get(code)
        if value is None:
            raise CannotStyle(say(f"It rests on the {words}: measure it and write it on the chart."), (), (code,))
        return float(value)


@record(frozen=True)
class Operation:
    """wheres: the places it asks for, with words; all of them but those in spare. names: what it lets the maker name, with
    what each must hold. rules: their version. fitted: what it makes is drawn for what is there, and is stale when that changes. halves: it is done to both sides
    of the body at once."""

    code: str
    family: str
    title: str
    why: str
    apply: Callable[[Job], Change]
    options: tuple[Option, ...] = ()
    wheres: Mapping[str, str] = field(default_factory=dict)
    names: Mapping[str, str] = field(default_factory=dict)
    phase: Phase = "style"
    rules: int = 1
    spare: tuple[str, ...] = ()
    fitted: bool = False
    halves: bool = False

    def phase_with(self, settings: Mapping[str, Value]) -> Phase:
        """When it is done: what changes one side only comes last, when everything is there that is done to both."""
        return "derive" if self.phase == "block" and settings.get("hand", "both") != "both" else self.phase

    def option(self, code: str) -> Option:
        """Raises KeyError."""
        return next(option for option in self.options if option.code == code)


OPERATIONS: Registry[Operation] = Registry("operation")


def operation(
    code: str, family: str, title: str, why: str, *, options: tuple[Option, ...] = (), wheres: Mapping[str, str] | None = None,
    names: Mapping[str, str] | None = None, phase: Phase = "style", rules: int = 1, spare: tuple[str, ...] = (),
    fitted: bool = False,
    halves: bool = False,
) -> Callable[[Callable[[Job], Change]], Callable[[Job], Change]]:  # fmt: skip
    """Register an operation by the function that does it."""

    def register(apply: Callable[[Job], Change]) -> Callable[[Job], Change]:
        OPERATIONS.add(
            code,
            Operation(
                code,
                family,
                title,
                why,
                apply,
                options,
                wheres or {},
                names or {},
                phase,
                rules,
                spare,
                fitted or phase == "derive",
                halves,
            ),
        )
        return apply

    return register


def is_formula(option: Option, value: Value) -> bool:
    """Whether a setting is a formula of measures, to be worked out on each body."""
    return option.kind == "length" and isinstance(value, str) and any(sign.isalpha() for sign in value.replace("cm", ""))


def _worked(option: Option, value: Value, chart: Chart) -> Value:
    """A setting in cm: as it is, or a formula of measures worked out on this body. Raises CannotStyle; OptionError
    for a figure out of range."""
    if not isinstance(value, str) or not is_formula(option, value):
        return option.check(value)
    try:
        formula = read_formula(value)
    except FormulaError:
        return option.check(value)
    lacking = [name for name in formula.names if name not in chart]
    if lacking:
        known = [name for name in lacking if name in CATALOGUE]
        if len(known) < len(lacking):
            unknown = ", ".join(sorted({*lacking} - {*known}))
            raise CannotStyle(
                say(
                    f"{option.name}: the formula names {unknown}, which is no measure: write a figure, or measures as in waist / 4."
                )
            )
        words = ", ".join(CATALOGUE[name].name.lower() for name in known)
        raise CannotStyle(say(f"{option.name} rests on {words}: measure it and write it on the chart."), (), tuple(known))
    came_to = formula.value(lambda name: chart.values[name])
    try:
        return option.check(came_to)
    except OptionError:
        raise CannotStyle(
            say(f"{option.name} comes to {{0}} on this body: it may be {{1}} to {{2}}.", came_to, option.low, option.high)
        ) from None


def run(
    asked: Operation, garment: Garment, context: Context, settings: Mapping[str, Value] | None = None,
    wheres: Mapping[str, Where] | None = None, names: Mapping[str, str] | None = None,
) -> Done:  # fmt: skip
    """Do an operation: find its places, do it, and rewrite what speaks of edges that changed.

    settings: what differs from the defaults. Raises CannotStyle when a place is not there any more or there is no room.
    """
    chosen: dict[str, Value] = {option.code: option.default for option in asked.options if option.default is not None}
    for code, value in (settings or {}).items():
        chosen[code] = _worked(asked.option(code), value, context.chart)
    if asked.halves and any(piece.stands in ("left", "right") for piece in garment.shell):
        raise CannotStyle(say(f"{asked.title} is done to both sides at once: do it before left and right are parted."))
    for code, words in asked.wheres.items():
        if code not in (wheres or {}) and code not in asked.spare:
            raise CannotStyle(say(f"{asked.title} wants a place: {words}."), (code,))
    at: dict[str, Found] = {}
    for code, where in (wheres or {}).items():
        try:
            at[code] = find(garment, where)
        except LostPlaceError as lost:
            raise CannotStyle(lost.saying, (code,), lost=True) from None
    try:
        change = asked.apply(Job(garment, context, chosen, at, names or {}))
        seams = garment.seams if change.seams is None else change.seams
        openings = garment.openings if change.openings is None else change.openings
        whole = change.whole or remapped(garment, change.pieces, seams, openings, change.renamed, change.dropped)
    except PatternError as error:
        raise CannotStyle(say(f"{asked.title}: {error}"), tuple(at)) from None
    except (CannotStyle, CannotDraft, LostPlaceError, OptionError):
        raise
    except Exception as error:
        LOG.exception(
            "%s broke: settings %s, places %s, measures %s", asked.code, chosen, dict(wheres or {}), context.chart.values
        )
        raise CannotStyle(
            say(f"{asked.title} cannot be done on these pieces: another place or amount, or the measures read again, may do."),
            tuple(at),
        ) from error
    return Done(whole, change)
