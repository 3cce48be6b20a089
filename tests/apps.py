"""An application for a test; its pages are compiled once for all tests of a process."""

from typing import Any

from flask import Flask
from jinja2.bccache import Bucket, BytecodeCache

from widehem.store.database import Store
from widehem.web.app import create_app


class _Compiled(BytecodeCache):
    def __init__(self) -> None:
        self.kept: dict[str, bytes] = {}

    def load_bytecode(self, bucket: Bucket) -> None:
        if bucket.key in self.kept:
            bucket.bytecode_from_string(self.kept[bucket.key])

    def dump_bytecode(self, bucket: Bucket) -> None:
        self.kept[bucket.key] = bucket.bytecode_to_string()


_COMPILED = _Compiled()


def app_on(store: Store, **more: Any) -> Flask:
    """An application on this store."""
    app = create_app(store, **more)
    app.jinja_env.bytecode_cache = _COMPILED
    return app
