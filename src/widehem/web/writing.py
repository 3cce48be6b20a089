"""Writing in the name of a maker: what is told of it is said in the hem of the next page, with a way to take it back."""

from __future__ import annotations

import secrets
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from flask import Flask, Response, g, request
from flask import session as browser
from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.store.journal import told_of
from widehem.store.models import Event
from widehem.web.door import the_door
from widehem.web.here import current_store

MARK_COOKIE, DONE = "wh_mark", "done"
YEAR = 365 * 24 * 3600


def mark() -> str:
    """The mark of this browser: whose tries and doings are whose."""
    if "mark" not in g:
        given = request.cookies.get(MARK_COOKIE, "")
        g.mark = given if given.isalnum() and given.isascii() and len(given) == 12 else secrets.token_hex(6)
        g.new_mark = g.mark != given
    return str(g.mark)


@contextmanager
def writing() -> Iterator[Session]:
    """A transaction of this maker; what is told in it stands in the hem after it."""
    with current_store().write(mark()) as session:
        yield session
    told = told_of(session)
    if told.number is not None:
        browser[DONE] = [told.number, told.words]


def announce() -> None:
    """Say what was done last in the name of this browser, as by work that was asked for."""
    with current_store().read() as session:
        found = session.scalars(select(Event).where(Event.by == mark()).order_by(Event.id.desc()).limit(1)).first()
    if found is not None and found.undone_by is None:
        browser[DONE] = [found.id, found.words]


def done() -> tuple[int, str] | None:
    """What was done just now: the number of its event and its words; said once."""
    found = browser.pop(DONE, None)
    return (int(found[0]), str(found[1])) if found else None


def set_up(app: Flask) -> None:
    """Make it known to the templates, and let browsers keep their mark."""

    @app.context_processor
    def helpers() -> dict[str, Any]:
        return {"done": done}

    @app.after_request
    def keep_mark(response: Response) -> Response:
        if g.get("new_mark"):
            response.set_cookie(MARK_COOKIE, g.mark, max_age=YEAR, samesite="Strict", httponly=True, secure=the_door().secure)
        return response
