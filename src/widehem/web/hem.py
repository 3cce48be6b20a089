"""The hem: up to five slots of verdicts, the worst first, and the one next step."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass

from markupsafe import Markup

from widehem.core.pattern.check import Check
from widehem.web.show import VERDICT_WORDS, check_unit, display, figure, said

SLOTS, GIRTHS = 5, "girths"
_WORST = ("true", "open", "look", "not")


@dataclass(frozen=True)
class Slot:
    """One place in the hem."""

    title: str
    verdict: str
    figure: Markup | str
    unit: str
    brief: str
    href: str = ""
    count: int = 1

    @property
    def word(self) -> str:
        return VERDICT_WORDS[self.verdict]


@dataclass(frozen=True)
class Next:
    """The one yellow button: what it does, where it goes, what stands below it. fields: of a form, where it changes something;
    form: the one on the page that it sends."""

    words: str
    href: str
    back_words: str = ""
    back_href: str = ""
    file: bool = False
    fields: Mapping[str, str] | None = None
    form: str = ""


def slots_of(checks: Sequence[Check], href: Callable[[Check], str]) -> list[Slot]:
    """One slot per group of checks, showing the worst of the group; the worst of all first."""
    groups: dict[str, list[Check]] = {}
    for check in checks:
        groups.setdefault(check.group, []).append(check)
    if len(groups) > SLOTS:  # all girths in one
        groups = {}
        for check in checks:
            groups.setdefault(GIRTHS if check.name.startswith(("girth.", "room.", "arc.")) else check.group, []).append(check)
    slots = []
    for group in groups.values():
        worst = max(group, key=lambda check: _WORST.index(check.verdict))
        if worst.verdict == "true":
            worst = group[0]
        slots.append(slot_of(worst, href(worst), len(group)))
    return sorted(slots, key=lambda slot: -_WORST.index(slot.verdict))


def slot_of(check: Check, href: str = "", count: int = 1) -> Slot:
    return Slot(
        check.title, check.verdict, figure(check.figure_text(display())), check_unit(check), said(check.brief), href, count
    )


def tally(checks: Sequence[Check], accepted: Collection[str] = ()) -> str:
    """'3 true, 1 look, 1 not, 1 accepted'. accepted: names of those that were accepted with a word."""
    words = []
    for verdict, word in (("true", "true"), ("look", "look"), ("not", "not")):
        count = sum(1 for check in checks if check.verdict == verdict and check.name not in accepted)
        if count or verdict == "true":
            words.append(f"{count} {word}")
    if accepted:
        words.append(f"{len(accepted)} accepted")
    return ", ".join(words)
