"""What a docket is handed over with: the words on its labels, its allowances, and the files drawn from it."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import tzinfo

from widehem.core.days import day_in, day_words
from widehem.core.design.make import Made
from widehem.core.marking.house import amounts_for
from widehem.core.marking.labels import Heading
from widehem.core.marking.plans import KINDS, PLANS, AllowancePlan
from widehem.core.output.sheets import paper_named, scale_named
from widehem.core.output.writers import Order
from widehem.core.pattern.acceptance import Acceptance, lines
from widehem.core.pattern.check import Check
from widehem.core.units import Display, parse_length
from widehem.store.house import of_the_house
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
        cautions(docket.wearer),
        lines(checks, accepted_of(docket), show),
        of_the_house(docket),
    )


def plan_of(docket: Docket) -> AllowancePlan:
    """The kept plan with the house's amounts, and those changed on this docket over them."""
    plan = PLANS.get(docket.plan, PLANS["cloth"])
    changed = {**amounts_for(plan.code, docket.house), **docket.amounts}
    return plan.with_amounts({kind: parse_length(text, "cm").cm for kind, text in changed.items() if kind in KINDS})


def order_of(docket: Docket, made: Made, show: Display, zone: tzinfo | None, paper: str, scale: str) -> Order:
    """What is written into a file of this docket. paper, scale: by their codes. Raises PaperError."""
    return Order(made, heading(docket, show, zone, made.checks), plan_of(docket), paper_named(paper), scale_named(scale), show)
