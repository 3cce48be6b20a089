"""Designs in the store: rows turned into core values, and the block design that a new docket begins with."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.design.design import Design, Step, steps_from
from widehem.core.drafting.method import Method, method_named
from widehem.core.drafting.outlined_data import Outlined
from widehem.core.setting.option import OptionError
from widehem.core.setting.settings import read_settings
from widehem.store.models import DesignRow, Docket


def block_design(session: Session, method: Method) -> DesignRow:
    """The design that is just a block by this method and its rules of today; made when there is none."""
    query = select(DesignRow).where(DesignRow.method == method.code, DesignRow.rules == method.rules).order_by(DesignRow.id)
    for row in session.scalars(query):
        if not row.own and not row.options and not row.ease and not row.steps:
            return row
    row = DesignRow(name=method.name, method=method.code, rules=method.rules, options={}, ease={}, steps=[])
    session.add(row)
    session.flush()
    return row


def core_design(docket: Docket) -> Design:
    """What a docket draws: its design with its own settings over it, by the rules it is drawn by. Raises OptionError."""
    method = method_named(docket.method)
    settings = read_settings(method.options, method.ease, docket.all_options, docket.all_ease)
    return Design(
        method.code,
        docket.rules,
        settings.options,
        settings.ease,
        design_steps(docket),
        outlines_of(docket.of_design("outlines")),
    )


def bare_design(docket: Docket, rules: int | None = None) -> Design:
    """The design of a docket without any settings: its method, its steps, what it is made of. rules: other ones than those the docket is
    drawn by. Raises OptionError."""
    chosen = docket.rules if rules is None else rules
    return Design(docket.method, chosen, steps=design_steps(docket), outlines=outlines_of(docket.of_design("outlines")))


def outlines_of(data: dict[str, Any] | None) -> Outlined | None:
    """What a design is made of, as the core knows it."""
    return Outlined.of(data) if data else None


def design_steps(docket: Docket) -> tuple[Step, ...]:
    """The steps of a docket's design. Raises OptionError."""
    return _steps(docket.of_design("steps"))


def alterations_of(docket: Docket) -> tuple[Step, ...]:
    """The wearer's own alterations. Raises OptionError."""
    return _steps(docket.alterations)


def _steps(data: list[dict[str, object]]) -> tuple[Step, ...]:
    try:
        return steps_from(data)
    except (KeyError, ValueError, TypeError) as error:
        raise OptionError(f"A step of this design cannot be read: {error}") from None


def keep_own_settings(docket: Docket, options: dict[str, str], ease: dict[str, str]) -> None:
    """Settings in force become the docket's own: only what house and design do not say already, '' where it says too much."""
    docket.options, docket.ease = _own(docket.given_options, options), _own(docket.given_ease, ease)


def _own(given: dict[str, str], wanted: dict[str, str]) -> dict[str, str]:
    changed = {code: text for code, text in wanted.items() if given.get(code) != text}
    return {**changed, **{code: "" for code in given if code not in wanted}}
