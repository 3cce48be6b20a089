"""What a docket is handed over with: the words on its labels, its allowances, and the files drawn from it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import tzinfo

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.days import day_in, day_words
from widehem.core.design.make import Made
from widehem.core.making.care import by_use
from widehem.core.marking.finishes import FINISHES
from widehem.core.marking.house import amounts_for
from widehem.core.marking.labels import Heading
from widehem.core.marking.plans import KINDS, PLANS, AllowancePlan, PlanError, plan_named
from widehem.core.marking.wanted import CLOTH, USES, OwnNotch, Wanted
from widehem.core.output.sheets import Paper, calibrated, scale_named
from widehem.core.output.writers import Order
from widehem.core.pattern.acceptance import Acceptance, lines
from widehem.core.pattern.check import Check
from widehem.core.units import Display, parse_length
from widehem.store.house import of_the_house
from widehem.store.house_rows import Printer
from widehem.store.models import Docket, Wearer


def cautions(wearer: Wearer) -> tuple[str, ...]:
    """What to be careful of with a wearer, a line each, for what is printed."""
    notes = (("Allergies", wearer.allergies), ("Movement", wearer.movement))
    return tuple(f"{title}: {' '.join(words.split())}" for title, words in notes if words.strip())


def accepted_of(docket: Docket) -> dict[str, Acceptance]:
    """What was accepted on a docket, by the name of the check; what cannot be read is left out."""
    found: dict[str, Acceptance] = {}
    for name, data in (docket.accepted or {}).items():
        try:
            found[name] = Acceptance.from_data(data)
        except (KeyError, TypeError, ValueError):
            continue
    return found


def heading(docket: Docket, show: Display, zone: tzinfo | None, checks: Sequence[Check] = ()) -> Heading:
    """What stands on the labels of this docket, and what of its checks was accepted. zone: of the house."""
    production = docket.production
    return Heading(
        production.name,
        docket.name,
        docket.wearer.name,
        production.company,
        day_words(day_in(docket.updated_at, zone)),
        f"draft {docket.version}",
        (*cautions(docket.wearer), *by_use_words(docket, show)),
        lines(checks, accepted_of(docket), show),
        of_the_house(docket),
    )


def by_use_words(docket: Docket, show: Display) -> tuple[str, ...]:
    """What is said on its cards of what is done in a garment on stage."""
    uses = (docket.making or {}).get("uses", ())
    return tuple(f"{about[:1].upper()}{about[1:]}: {saying.text(show)}" for about, saying in by_use(uses))


def plan_of(docket: Docket) -> AllowancePlan:
    """The kept plan of the cloth with the house's amounts, and those changed on this docket over them."""
    return _with_own(docket, docket.plan, docket.amounts)


def _with_own(docket: Docket, code: str, own: Mapping[str, str]) -> AllowancePlan:
    try:
        plan = plan_named(code)
    except PlanError:
        plan = PLANS["cloth"]
    changed = {**amounts_for(plan.code, docket.house), **own}
    return plan.with_amounts({kind: parse_length(text, "cm").cm for kind, text in changed.items() if kind in KINDS})


def wanted_of(docket: Docket) -> Wanted:
    """All that is wanted on the pattern of a docket. What cannot be read is left out."""
    kept = docket.marking or {}
    plans = {CLOTH: plan_of(docket)}
    for use, entry in kept.get("plans", {}).items():
        if use in USES and isinstance(entry, dict):
            plans[use] = _with_own(docket, str(entry.get("plan", "")), entry.get("amounts", {}))
    return Wanted(
        plans,
        {name: parse_length(text, "cm").cm for name, text in kept.get("edges", {}).items()},
        {name: finish for name, finish in kept.get("corners", {}).items() if finish in FINISHES},
        tuple(
            OwnNotch(n["piece"], n["edge"], float(n["share"]), count=int(n.get("count", 1))) for n in kept.get("notches", [])
        ),
        str(kept.get("drill", "")),
        bool(kept.get("whole")),
        bool(kept.get("nap")),
        bool(kept.get("room")),
    )


def printers(session: Session) -> list[Printer]:
    """The printers of the workroom, by name."""
    return list(session.scalars(select(Printer).order_by(Printer.name, Printer.id)))


def on_printer(paper: Paper, printer: Printer | None) -> Paper:
    """The paper as it comes out of a printer. Raises PaperError."""
    if printer is None:
        return paper
    return calibrated(paper, parse_length(printer.across, "cm").cm, parse_length(printer.down, "cm").cm)


def order_of(
    docket: Docket, made: Made, show: Display, zone: tzinfo | None, paper: Paper, scale: str, wanted: Wanted | None = None
) -> Order:
    """What is written into a file of this docket. scale: by its code. Raises PaperError."""
    return Order(made, heading(docket, show, zone, made.checks), wanted or wanted_of(docket), paper, scale_named(scale), show)
