"""What a maker tries on a garment and has not kept: found again on return, and said wherever the garment is shown as it is
kept."""

from __future__ import annotations

from dataclasses import dataclass
from urllib.parse import parse_qsl

from flask import Flask

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.drafting.method import METHODS, Method
from widehem.core.setting.option import OptionError
from widehem.store.models import Docket
from widehem.web.board_state import BoardState, known_setting, read_state, setting_of
from widehem.web.here import current_works
from widehem.web.writing import mark

MOST_NAMED = 3  # changes that are named; of more only how many


@dataclass(frozen=True)
class Tries:
    """What is tried on a garment. query: as it stands in the address of its board; words: of it; count: how much."""

    query: str
    words: str
    count: int

    @property
    def counted(self) -> str:
        return f"{self.count} change{'s' if self.count != 1 else ''}"


def remember(docket_id: int, query: str) -> None:
    """Remember what this maker tries; '' for nothing any more."""
    current_works().ledger.keep_tried(docket_id, mark(), query)


def remembered(docket_id: int) -> str:
    """What this maker tried before, as it stands in the address; '' for nothing."""
    return current_works().ledger.tried(docket_id, mark())


def all_remembered() -> set[int]:
    """The numbers of the garments on which this maker tries something."""
    return current_works().ledger.tried_on(mark())


def tries_on(docket: Docket) -> Tries | None:
    """What this maker tries on a garment; None for nothing that could be kept."""
    query = remembered(docket.id)
    method = METHODS.get(docket.method)
    if not query or method is None:
        return None
    state = read_state(method, docket, dict(parse_qsl(query, keep_blank_values=True)))
    return Tries(state.tried_words, tried_words(method, state), len(state.tried)) if state.tried else None


def tried_words(method: Method, state: BoardState) -> str:
    """What is tried, in words; of much only how much."""
    if not 0 < len(state.tried) <= MOST_NAMED:
        return f"{len(state.tried)} changes"
    found = []
    for key, text in state.tried.items():
        try:
            option = setting_of(method, key) if known_setting(method, key) else None
        except OptionError:
            continue
        name = option.name if option is not None else CATALOGUE[key[2:]].name
        ways = {choice.code: choice.name.lower() for choice in option.choices} if option is not None else {}
        found.append(f"{name.lower()} {ways.get(text, text) or 'as by itself'}")
    return ", ".join(found)


def set_up(app: Flask) -> None:
    """Make it known to the templates."""
    app.context_processor(lambda: {"tries_on": tries_on})
