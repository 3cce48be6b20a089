"""Where a garment stands on its way from the tape to the rail, and what is next."""

from __future__ import annotations

from datetime import date
from typing import Literal

from widehem.core.values import record

State = Literal["bare", "half", "done", "stale"]
WAITS: dict[str, str] = {"cloth": "cloth", "fitting": "a fitting", "answer": "an answer", "wearer": "the wearer"}
SOON = 14  # days before it has to be ready in which a garment is told as due


@record(frozen=True)
class Standing:
    """Where a garment stands.

    missing: measures that are still to read. trouble: whether it cannot be drawn. changed: whether the newest chart says
    otherwise than the one it is drawn on. untrue, looks: how many of its checks are not true, and how many want a look; None
    while nobody knows. waits: what it waits for, a code of WAITS. due: when it has to be ready.
    """

    missing: tuple[str, ...] = ()
    trouble: bool = False
    changed: bool = False
    untrue: int | None = None
    looks: int = 0
    waits: str = ""
    cut: bool = False
    fitted: bool = False
    finished: bool = False
    due: date | None = None

    @property
    def measured(self) -> State:
        return "done" if not self.missing else "half"

    @property
    def drafted(self) -> State:
        if self.missing or self.trouble:
            return "bare"
        return "stale" if self.changed else "done"

    @property
    def true(self) -> State:
        if self.drafted == "bare" or self.untrue is None:
            return "bare"
        return "half" if self.untrue or self.looks else "done"

    def stages(self) -> tuple[tuple[str, State], ...]:
        """Every stage with its state, in the order in which they come."""
        ticked = (("cut", self.cut), ("fitted", self.fitted), ("finished", self.finished))
        return (
            ("measured", self.measured),
            ("drafted", self.drafted),
            ("true", self.true),
            *((name, "done" if is_so else "bare") for name, is_so in ticked),
        )

    @property
    def next(self) -> str:
        """What is next: 'read', 'mend', 'redraw', 'true', 'wait', 'cut', 'fit', 'finish', '' for nothing."""
        if self.finished:
            return ""
        if self.missing:
            return "read"
        if self.trouble:
            return "mend"
        if self.changed and not self.cut:
            return "redraw"
        if self.untrue and not self.cut:
            return "true"
        if self.waits:
            return "wait"
        return "cut" if not self.cut else "fit" if not self.fitted else "finish"

    def late(self, today: date) -> int | None:
        """How many days it is late; negative: in so many days. None where no day is set or it is finished."""
        return None if self.due is None or self.finished else (today - self.due).days

    def is_due(self, today: date) -> bool:
        late = self.late(today)
        return late is not None and late >= -SOON


def due_words(late: int) -> str:
    """How late something is, in words. late: days, negative before the day."""
    if late > 0:
        return f"{late} day{'s' if late != 1 else ''} late"
    return "due today" if late == 0 else "due tomorrow" if late == -1 else f"due in {-late} days"
