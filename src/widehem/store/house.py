"""House values in the store, and dockets opened with those of the day."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.drafting.method import METHODS, Method
from widehem.core.marking.house import HouseValue, amounts_for, settings_for, value_words, values_for
from widehem.core.marking.plans import KINDS
from widehem.store.clock import OF_HOUSE
from widehem.store.designs import block_design
from widehem.store.models import Docket, HouseRow, Wearer


def house_values(session: Session) -> tuple[HouseValue, ...]:
    """Every value of the house, in the order they were set."""
    rows = session.scalars(select(HouseRow).where(HouseRow.of != OF_HOUSE).order_by(HouseRow.id))
    return tuple(HouseValue(row.of, row.key, row.text) for row in rows)


def keep_values(session: Session, values: Iterable[HouseValue]) -> None:
    """Set values of the house; one with an empty text is the house's no more."""
    for value in values:
        row = session.scalars(select(HouseRow).where(HouseRow.of == value.of, HouseRow.key == value.key)).first()
        if row is not None and value.text:
            row.text = value.text
        elif row is not None:
            session.delete(row)
        elif value.text:
            session.add(HouseRow(of=value.of, key=value.key, text=value.text))
        session.flush()


def open_docket(session: Session, wearer: Wearer, name: str, method: Method, **more: Any) -> Docket:
    """Open a docket by the rules and the house values of today."""
    usual = {"plan": method.allowances, "rules": method.rules, "options": {}, "ease": {}}
    design = more.pop("design", None) or block_design(session, method)
    docket = Docket(
        production_id=wearer.production_id, wearer_id=wearer.id, name=name, design=design,
        house=values_for(method, house_values(session)), **{**usual, **more},
    )  # fmt: skip
    session.add(docket)
    session.flush()
    return docket


def house_differs(session: Session, docket: Docket) -> dict[str, tuple[str, str]]:
    """What the house says otherwise today than when a docket was opened: its own value and today's, '' for none."""
    today = values_for(METHODS[docket.method], house_values(session))
    keys = dict.fromkeys((*docket.house, *today))
    return {key: (docket.house.get(key, ""), today.get(key, "")) for key in keys if docket.house.get(key) != today.get(key)}


def of_the_house(docket: Docket) -> tuple[str, ...]:
    """What a docket draws as the house has it, in words: values that neither its design nor the docket decides."""
    options = settings_for(docket.method)
    mine = {"o.": {**docket.of_design("options"), **docket.options}, "e.": {**docket.of_design("ease"), **docket.ease}}
    lines = [
        value_words(key, options[key], text)
        for key, text in docket.house.items()
        if key in options and key[2:] not in mine[key[:2]]
    ]
    amounts = amounts_for(docket.plan, docket.house)
    return (
        *lines,
        *(
            f"allowance {KINDS[kind].lower()} {text}"
            for kind, text in amounts.items()
            if kind in KINDS and kind not in docket.amounts
        ),
    )


def take_house(session: Session, docket: Docket) -> None:
    """Draw a docket with the house values of today; what the docket sets itself stays."""
    docket.house = values_for(METHODS[docket.method], house_values(session))
