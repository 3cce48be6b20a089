"""Whether the house is well, for whatever watches over it."""

from __future__ import annotations

from typing import Any

from flask import Blueprint
from sqlalchemy import text
from sqlalchemy.exc import SQLAlchemyError

from widehem import __version__
from widehem.web.here import current_store

pages = Blueprint("health", __name__)


@pages.get("/health")
def look() -> Any:
    """200 while the database answers, 503 when it does not. Tells nothing of the work."""
    try:
        with current_store().read() as session:
            session.execute(text("SELECT count(*) FROM sqlite_master"))
    except SQLAlchemyError:
        return {"well": False, "version": __version__, "error": "The database does not answer."}, 503
    return {"well": True, "version": __version__}
