"""Designs of the house: begun, changed step by step, kept under names, handed to wearers."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.core.design.design import Design, Step, steps_from
from widehem.core.design.files import Named
from widehem.core.drafting.method import METHODS
from widehem.core.drafting.outlined_data import edge_names
from widehem.core.setting.option import OptionError, Value
from widehem.core.setting.settings import read_settings
from widehem.core.values import replace
from widehem.store.designs import outlines_of
from widehem.store.house import open_docket
from widehem.store.models import DesignRow, DesignVersion, Docket, Wearer, now

Kept = dict[str, Any]


def designs(session: Session) -> list[DesignRow]:
    """The designs of the house, by name."""
    return list(
        session.scalars(
            select(DesignRow).where(DesignRow.own, DesignRow.binned_at.is_(None)).order_by(DesignRow.name, DesignRow.id)
        )
    )


def find_design(session: Session, design_id: int) -> DesignRow | None:
    """A design of the house; None where there is none, or it is a block."""
    row = session.get(DesignRow, design_id)
    return row if row is not None and row.own and row.binned_at is None else None


def followers(session: Session, design_id: int) -> list[Docket]:
    """The dockets that are drawn by a design, those that follow it first."""
    rows = session.scalars(select(Docket).where(Docket.design_id == design_id, Docket.binned_at.is_(None)).order_by(Docket.id))
    return sorted(rows, key=lambda docket: docket.stays is not None)


def how_many(session: Session) -> dict[int, int]:
    """How many dockets each design has."""
    query = select(Docket.design_id, func.count()).where(Docket.binned_at.is_(None)).group_by(Docket.design_id)
    return {int(design): int(count) for design, count in session.execute(query)}


def named_of(row: DesignRow) -> Named:
    """A design as the core knows it. Raises OptionError where it cannot be read."""
    method = METHODS.get(row.method)
    if method is None:
        raise OptionError(f'There is no method "{row.method}" any more.')
    settings = read_settings(method.options, method.ease, row.options, row.ease)
    return Named(
        row.name,
        Design(row.method, row.rules, settings.options, settings.ease, steps_from(row.steps), outlines_of(row.outlines)),
        row.summary, row.notes,
    )  # fmt: skip


def begin_design(session: Session, named: Named) -> DesignRow:
    """A new design of the house from one that ships or came in a file."""
    design = named.design
    row = DesignRow(
        name=named.name, method=design.method, rules=design.rules or design.drawn_by.rules, options=_written(design.options),
        ease=_written(design.ease), steps=[step.as_data() for step in design.steps], own=True, summary=named.summary, notes=named.notes,
        outlines=design.outlines.data if design.outlines else None,
    )  # fmt: skip
    session.add(row)
    session.flush()
    return row


def _written(values: Any) -> dict[str, str]:
    """Settings as they are kept: written, lengths in cm."""
    return {code: value if isinstance(value, str) else f"{value:g}" for code, value in values.items()}


def copy_of(session: Session, row: DesignRow, name: str) -> DesignRow:
    """Another design of the house that begins as this one is."""
    made = DesignRow(
        name=name, method=row.method, rules=row.rules, options=dict(row.options), ease=dict(row.ease), steps=list(row.steps), own=True,
        summary=row.summary, notes=row.notes, outlines=row.outlines, grading=dict(row.grading),
    )  # fmt: skip
    session.add(made)
    session.flush()
    return made


def own_design(session: Session, docket: Docket) -> DesignRow:
    """The design of a docket, to be changed: where it is just a block, or the docket stays at what a design was, one of its own."""
    if docket.design.own and docket.stays is None:
        return docket.design
    name = docket.name if not docket.design.own else f"{docket.design.name}, for {docket.wearer.name}"
    made = DesignRow(
        name=name[:120], method=docket.method, rules=docket.rules, options=dict(docket.of_design("options")),
        ease=dict(docket.of_design("ease")), steps=list(docket.of_design("steps")), own=True,
        outlines=docket.of_design("outlines"),
    )  # fmt: skip
    session.add(made)
    session.flush()
    docket.design_id, docket.stays = made.id, None
    session.flush()
    session.refresh(docket, ["design"])
    return made


def new_id(row: DesignRow) -> str:
    """An id for a new step."""
    taken = {str(step["id"]) for step in row.steps}
    while (made := secrets.token_hex(3)) in taken:
        pass
    return made


def steps_of(row: DesignRow) -> tuple[Step, ...]:
    return steps_from(row.steps)


def put_steps(row: DesignRow, steps: Sequence[Step]) -> None:
    """Replace the recipe of a design."""
    row.steps = [step.as_data() for step in steps]
    row.updated_at = now()


def with_step(steps: Sequence[Step], step: Step, before: str = "") -> tuple[Step, ...]:
    """A recipe with a step: in place of the one of that id, or else at its end, or before another."""
    if any(old.id == step.id for old in steps):
        return tuple(step if old.id == step.id else old for old in steps)
    at = next((n for n, old in enumerate(steps) if old.id == before), len(steps))
    return (*steps[:at], step, *steps[at:])


def moved(steps: Sequence[Step], step_id: str, by: int) -> tuple[Step, ...]:
    """A recipe with one step further up (less than nothing) or down; as it is where it cannot be."""
    at = next((n for n, step in enumerate(steps) if step.id == step_id), None)
    if at is None or not 0 <= at + by < len(steps):
        return tuple(steps)
    rest = [step for step in steps if step.id != step_id]
    rest.insert(at + by, steps[at])
    return tuple(rest)


def switched(steps: Sequence[Step], step_id: str) -> tuple[Step, ...]:
    """A recipe with one step left out, or done again."""
    return tuple(replace(step, off=not step.off) if step.id == step_id else step for step in steps)


def without(steps: Sequence[Step], step_id: str) -> tuple[Step, ...]:
    return tuple(step for step in steps if step.id != step_id)


def as_it_is(row: DesignRow) -> Kept:
    """What a design is now, to be kept."""
    found: Kept = {"options": dict(row.options), "ease": dict(row.ease), "steps": list(row.steps)}
    return {**found, "outlines": row.outlines} if row.outlines else found


def keep_version(session: Session, row: DesignRow, name: str) -> DesignVersion:
    """Keep what a design is now under a name."""
    made = DesignVersion(design_id=row.id, name=name, data=as_it_is(row))
    session.add(made)
    session.flush()
    return made


def versions_of(session: Session, row: DesignRow) -> list[DesignVersion]:
    """The named versions of a design, the newest first."""
    return list(
        session.scalars(select(DesignVersion).where(DesignVersion.design_id == row.id).order_by(DesignVersion.id.desc()))
    )


def back_to(row: DesignRow, version: DesignVersion) -> None:
    """Make a design what it was."""
    row.options, row.ease, row.steps = (dict(version.data["options"]), dict(version.data["ease"]), list(version.data["steps"]))
    row.outlines = version.data.get("outlines", row.outlines)
    row.updated_at = now()


def hand_out(session: Session, row: DesignRow, wearers: Sequence[Wearer], name: str) -> list[Docket]:
    """A docket by a design for each of these wearers."""
    method = METHODS[row.method]
    marking = came_with(row.outlines) if row.outlines else {}
    return [open_docket(session, wearer, name, method, design=row, rules=row.rules, marking=marking) for wearer in wearers]


def came_with(outlines: Kept) -> Kept:
    """The allowances a pattern from elsewhere came with, as its garments keep them; nothing where they were only taken off."""
    allowance = outlines.get("allowance", {})
    if not allowance.get("kept"):
        return {}
    own = allowance.get("edges", {})
    edges = {
        f"{piece['name']}.{name}": _cm(own.get(f"{piece['name']}.{name}", allowance.get("off", 0.0)))
        for piece in outlines["pieces"]
        for name, edge in zip(edge_names(piece["edges"]), piece["edges"], strict=True)
        if edge["kind"] != "fold"
    }
    return {"edges": edges}


def _cm(amount: float) -> str:
    return f"{amount:g} cm"


def stay(docket: Docket) -> None:
    """A docket leaves off following its design: it stays at what that is now."""
    docket.stays, docket.updated_at = as_it_is(docket.design), now()


def follow(docket: Docket) -> None:
    """A docket follows its design again."""
    docket.stays, docket.updated_at = None, now()


def settings_of(step: Step) -> dict[str, Value]:
    """The settings of a step in force: its own over the defaults."""
    chosen: dict[str, Value] = {option.code: option.default for option in step.operation.options if option.default is not None}
    return {**chosen, **step.settings}
