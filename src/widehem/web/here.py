"""The store of the running application."""

from __future__ import annotations

from flask import current_app

from widehem.store.database import Store


def current_store() -> Store:
    """The store this application was made on."""
    store: Store = current_app.extensions["widehem.store"]
    return store
