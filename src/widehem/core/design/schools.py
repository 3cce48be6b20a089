"""What each way of an option does on one body: the figures it changes most, and the checks that are not true by it."""

from __future__ import annotations

from collections.abc import Callable

from widehem.core.design.compare import compare_made
from widehem.core.design.make import Made
from widehem.core.setting.option import Choice, Option, OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Saying, say
from widehem.core.values import record

TOLD = 3  # figures that are told of a way


@record(frozen=True)
class Way:
    """One way of an option on a body. now: it is the one that is drawn; saying: what it does here."""

    choice: Choice
    now: bool
    saying: Saying


def ways(option: Option, made: Made, draw: Callable[[str], Made]) -> tuple[Way, ...]:
    """Every way of an option. made: as it is drawn now; draw: the same by another way."""
    now = str(made.options.get(option.code, ""))
    return tuple(Way(choice, choice.code == now, _told(choice, now, made, draw)) for choice in option.choices)


def _told(choice: Choice, now: str, made: Made, draw: Callable[[str], Made]) -> Saying:
    if choice.code == now:
        return say("As it is drawn now.")
    try:
        other = draw(choice.code)
    except CannotDraft as refusal:
        return refusal.saying
    except OptionError as error:
        return say(str(error))
    rows = [row for row in compare_made(made, other) if row.differs and row.by is not None and not row.area]
    rows.sort(key=lambda row: -abs(row.by or 0.0))
    if not rows:
        words = say("Nothing changes on this body.")
    else:
        words = say(
            ", ".join(f"{row.name} {{{n}s}}" for n, row in enumerate(rows[:TOLD])), *(row.by or 0.0 for row in rows[:TOLD])
        ).stopped
    worse = _untrue(other) - _untrue(made)
    if worse:
        words += say(f"Not true by it: {', '.join(sorted(worse)).lower()}.")
    better = _untrue(made) - _untrue(other)
    if better:
        words += say(f"True by it: {', '.join(sorted(better)).lower()}.")
    return words


def _untrue(made: Made) -> set[str]:
    return {check.title for check in made.checks if check.verdict == "not"}
