"""The store and the works of the running application, and the day where its house stands."""

from __future__ import annotations

from datetime import date, datetime, tzinfo

from flask import current_app, g

from widehem.core.days import day_in
from widehem.jobs.works import Works
from widehem.store.clock import house_zone
from widehem.store.database import Store
from widehem.store.models import now


def current_store() -> Store:
    """The store this application was made on."""
    store: Store = current_app.extensions["widehem.store"]
    return store


def current_works() -> Works:
    """Who does the work that lasts."""
    works: Works = current_app.extensions["widehem.works"]
    return works


def zone() -> tzinfo | None:
    """The zone of the house, read once for a page; None for that of the machine."""
    if "zone" not in g:
        with current_store().read() as session:
            g.zone = house_zone(session)
    found: tzinfo | None = g.zone
    return found


def today() -> date:
    """Today, where the house stands."""
    return day_in(now(), zone())


def day_of(moment: datetime) -> date:
    """The day of a moment of UTC, where the house stands."""
    return day_in(moment, zone())
