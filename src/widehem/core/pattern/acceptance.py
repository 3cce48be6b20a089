"""Checks that are not true and accepted with a word: they stay visible, and come back when their figure changes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from widehem.core.pattern.check import Check, Measure
from widehem.core.units import METRIC, Display
from widehem.core.values import record

CHANGED: Mapping[Measure, float] = {"length": 0.2, "signed": 0.2, "angle": 1.0, "count": 0.0}  # cm, degrees, a count
LONGEST = 200  # signs of a word


@record(frozen=True)
class Acceptance:
    """Why a check was accepted, by whom, and the figure it had then, in the kind of the check."""

    word: str
    by: str
    figure: float

    def holds(self, check: Check) -> bool:
        """Whether it is still what was accepted: not true, and its figure as it was."""
        return check.verdict != "true" and abs(check.figure - self.figure) <= CHANGED[check.kind] + 1e-6

    def words(self) -> str:
        return f"{self.word}, {self.by}" if self.by else self.word

    def sentence(self) -> str:
        """The same with its full stop."""
        words = self.words()
        return words if words.endswith((".", "!", "?")) else f"{words}."

    def as_data(self) -> dict[str, object]:
        return {"word": self.word, "by": self.by, "figure": self.figure}

    @staticmethod
    def from_data(data: Mapping[str, object]) -> Acceptance:
        """Raises KeyError or ValueError for what is not one."""
        return Acceptance(str(data["word"]), str(data["by"]), float(str(data["figure"])))


def accepted(checks: Iterable[Check], kept: Mapping[str, Acceptance]) -> dict[str, Acceptance]:
    """The acceptances that hold, by the name of their check."""
    return {check.name: kept[check.name] for check in checks if check.name in kept and kept[check.name].holds(check)}


def lines(checks: Iterable[Check], kept: Mapping[str, Acceptance], show: Display = METRIC) -> tuple[str, ...]:
    """One line for each check that is accepted, as it stands on the card."""
    found = list(checks)
    holds = accepted(found, kept)
    return tuple(
        f"{check.title}, {_figure(check, show)}: {holds[check.name].words()}" for check in found if check.name in holds
    )


def _figure(check: Check, show: Display) -> str:
    """The figure of a check with its unit and what it is of: '1.5 cm apart'."""
    unit = show.unit if check.kind in ("length", "signed") else ""
    return " ".join(part for part in (check.figure_text(show), unit, check.after) if part)
