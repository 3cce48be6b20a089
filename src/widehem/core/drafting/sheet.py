"""The sheet on which a method draws, step by step."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import AbstractContextManager, nullcontext
from dataclasses import dataclass, field
from typing import Literal

from widehem.core.body.chart import Chart
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.table import Table
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Demand
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.garment import Garment, Opening, Seam
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Option, Value, measured
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.step import Step, Sum
from widehem.core.units import Saying, say
from widehem.core.values import record

INSIDE = nullcontext()  # a step goes on until the next begins

Kind = Literal["point", "line", "level", "dart", "dimension"]
Role = Literal["construction", "finished", "balance"]


@record(frozen=True)
class Mark:
    """One thing drawn on the sheet.

    step: when it is drawn. letter: how it is called on the paper. figure: its length or the number it shows, with working.
    piece: the piece it belongs to, for close views.
    """

    name: str
    kind: Kind
    title: str
    step: int
    path: Path | None = None
    at: Point | None = None
    letter: str = ""
    role: Role = "construction"
    figure: Quantity | None = None
    piece: str = ""
    dart: Dart | None = None
    side: int = 1
    edge: str = ""

    @property
    def spot(self) -> str:
        """How checks refer to it: 'piece.edge', 'piece.dart', or '@level'."""
        if self.kind == "level":
            return f"@{self.edge}"
        return f"{self.piece}.{self.edge or self.name}" if self.edge or self.dart else ""


@record(frozen=True)
class HandedOver:
    """What a method hands over. table: where each piece lies on the sheet. notions: what is needed besides cloth, of its own
    kind."""

    garment: Garment
    table: Table
    demands: tuple[Demand, ...]
    notions: tuple[Saying, ...]


@dataclass
class Sheet:
    """What a method draws on. Lengths in cm, y downwards.

    chart: the measures. options, ease: settings as resolved, defaults filled in. armhole: what a sleeve is drawn for.
    rules: the version of the method's rules by which it is drawn. eased: what ease the maker set. read: the chart as it was read, where it is drawn for a body made of it. made: what is handed over at the end.
    """

    chart: Chart
    options: dict[str, Quantity | Value]
    settings: dict[str, Option]
    ease_plan: dict[str, Quantity]
    marks: list[Mark] = field(default_factory=list)
    steps: list[Step] = field(default_factory=list)
    notes: list[Saying] = field(default_factory=list)
    points: dict[str, Point] = field(default_factory=dict)
    rubbed_out: dict[str, int] = field(default_factory=dict)
    made: HandedOver | None = None
    armhole: Armhole | None = None
    rules: int = 1
    eased: frozenset[str] = frozenset()
    read: Chart | None = None

    def __post_init__(self) -> None:
        self._given = dict(self.options)

    def begin_again(self) -> None:
        """Rub out everything, to draw once more with what came out."""
        for kept in (self.marks, self.steps, self.notes, self.points, self.rubbed_out):
            kept.clear()
        self.options.update(self._given)
        self.made = None

    def scratch(self) -> Sheet:
        """A sheet with the same chart and settings to try something on; nothing that is drawn there is kept."""
        return Sheet(
            self.chart, dict(self.options), self.settings, self.ease_plan, armhole=self.armhole, rules=self.rules,
            eased=self.eased, read=self.read,
        )  # fmt: skip

    def hand_over(
        self,
        pieces: Sequence[Piece],
        table: Table,
        *,
        seams: Sequence[Seam] = (),
        openings: tuple[Opening, ...] = (),
        demands: Sequence[Demand | None] = (),
        notions: Sequence[Saying] = (),
    ) -> None:
        """The pieces in frames of their own, where they lie on this sheet, how they are sewn, what they are held against.

        Raises PatternError when they do not make a garment.
        """
        asked = tuple(demand for demand in demands if demand is not None)
        self.made = HandedOver(Garment(tuple(pieces), tuple(seams), openings), table, asked, tuple(notions))

    def measure(self, code: str) -> Quantity:
        return measured(self.chart, code)

    def ease(self, code: str) -> Quantity:
        return self.ease_plan[code]

    def set_by_hand(self, code: str) -> bool:
        """Whether the maker set an ease; else it is the usual one."""
        return code in self.eased

    def choice(self, code: str) -> str:
        value = self.options[code]
        assert isinstance(value, str)
        return value

    def length(self, code: str) -> Quantity:
        """An option that is a length; it keeps its working when it came from the chart."""
        value = self.options[code]
        if isinstance(value, Quantity):
            return value
        assert not isinstance(value, str)
        return Quantity(value, self.settings[code].name.lower(), code, "option")

    def step(self, title: str, text: str | Saying) -> AbstractContextManager[None]:
        """Begin a step; what is drawn and summed inside belongs to it."""
        saying = text if isinstance(text, Saying) else say(text)
        self.steps.append(Step(len(self.steps) + 1, title, saying))
        return INSIDE

    @property
    def now(self) -> int:
        return len(self.steps)

    def sum(self, name: str, quantity: Quantity) -> None:
        """Show this arithmetic in the current step."""
        here = self.steps[-1]
        self.steps[-1] = Step(here.number, here.title, here.text, (*here.sums, Sum(name, quantity)))

    def note(self, saying: Saying) -> None:
        """Something the maker must be told beside the draft."""
        self.notes.append(saying)

    def point(
        self, name: str, title: str, at: Point, letter: str = "", figure: Quantity | None = None, piece: str = "", step: int = 0
    ) -> Point:
        """Mark a named point. step: when it is drawn, where that is not now; its place may be known only later."""
        self.points[name] = at
        self.marks.append(Mark(name, "point", title, step or self.now, at=at, letter=letter, figure=figure, piece=piece))
        return at

    def line(
        self,
        name: str,
        title: str,
        path: Path,
        *,
        role: Role = "construction",
        figure: Quantity | None = None,
        piece: str = "",
        kind: Kind = "line",
        edge: str = "",
        step: int = 0,
    ) -> Path:
        """Draw a line or curve. step: when it is drawn, where that is not now."""
        self.marks.append(
            Mark(name, kind, title, step or self.now, path=path, role=role, figure=figure, piece=piece, edge=edge)
        )
        return path

    def dimension(
        self, name: str, title: str, start: Point, end: Point, figure: Quantity, *, side: int = 1, piece: str = ""
    ) -> None:
        """Write a figure along a straight; side 1 writes it above (left to right) or right of it, -1 the other way."""
        path = Path.through(start, end)
        self.marks.append(Mark(name, "dimension", title, self.now, path=path, figure=figure, piece=piece, side=side))

    def draw_dart(self, dart: Dart, title: str, letter: str, figure: Quantity, piece: str) -> None:
        path = Path.through(dart.inner, dart.point, dart.outer)
        self.marks.append(
            Mark(
                dart.name,
                "dart",
                title,
                self.now,
                path=path,
                at=dart.point,
                letter=letter,
                role="finished",
                figure=figure,
                piece=piece,
                dart=dart,
            )
        )

    def rub_out(self, *names: str) -> None:
        """These marks are drawn over: gone from the current step on."""
        for name in names:
            self.rubbed_out.setdefault(name, self.now)
