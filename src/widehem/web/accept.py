"""Accepting a check that is not true, with a word; and taking that back."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, abort, redirect, request, url_for

from widehem.core.pattern.acceptance import LONGEST, Acceptance
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.store.dockets import find_docket
from widehem.store.journal import tell
from widehem.store.making import find_work
from widehem.store.models import Docket
from widehem.web.writing import writing

pages = Blueprint("accept", __name__)


def wrong_word(word: str) -> str:
    """Why this is no word to accept a check with; '' when it is one."""
    if not word:
        return "Say in a word why it is accepted, like: eased by hand."
    if len(word) > LONGEST:
        return f"The word is {len(word)} signs long, {LONGEST} are the most: say it shorter."
    return ""


def _back(docket_id: int, lit: str | None = None, wordless: str | None = None) -> Any:
    return redirect(url_for("board.draft", docket_id=docket_id, slip="checks", lit=lit, wordless=wordless), 303)


def _keep(docket: Docket, found: Mapping[str, Any]) -> None:
    docket.accepted = dict(found)


@pages.post("/dockets/<int:docket_id>/accept")
def accept(docket_id: int) -> Any:
    """Accept one check of the docket as it is kept, with the figure it has now."""
    name, word = request.form.get("check", ""), " ".join(request.form.get("word", "").split())
    by = " ".join(request.form.get("by", "").split())[:40]
    if wrong_word(word):
        return _back(docket_id, lit=name, wordless="1")
    with writing() as session:
        docket, work = find_docket(session, docket_id), find_work(session, docket_id)
        if docket is None or work is None:
            abort(404)
        try:
            checks = work.made().checks
        except (OptionError, CannotDraft):
            return _back(docket_id)
        check = next((check for check in checks if check.name == name and check.verdict != "true"), None)
        if check is not None:
            tell(
                session,
                f"Accepted on {docket.name}: {check.title.lower()}.",
                docket,
            )
            _keep(docket, {**(docket.accepted or {}), name: Acceptance(word[:LONGEST], by, check.figure).as_data()})
    return _back(docket_id, lit=name)


@pages.post("/dockets/<int:docket_id>/accept/back")
def take_back(docket_id: int) -> Any:
    """A check that was accepted is looked at again."""
    name = request.form.get("check", "")
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        tell(session, f"Looked at again on {docket.name}: what was accepted.", docket)
        _keep(docket, {other: data for other, data in (docket.accepted or {}).items() if other != name})
    return _back(docket_id, lit=name)
