"""An application for a test; its pages and addresses are compiled once for all tests of a process."""

from collections.abc import Callable
from typing import Any

from flask import Flask
from jinja2.bccache import Bucket, BytecodeCache
from werkzeug.routing import Rule

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


class _Known(Rule):
    """A rule that puts an address together as its like did in an application before: compiling that is most of making one."""

    known: dict[tuple[Any, ...], Callable[..., tuple[str, str]]] = {}

    def _compile_builder(self, append_unknown: bool = True) -> Callable[..., tuple[str, str]]:
        like = tuple(self._trace), repr(self.defaults), append_unknown
        if like not in self.known:
            self.known[like] = super()._compile_builder(append_unknown)
        return self.known[like]


_COMPILED = _Compiled()
Flask.url_rule_class = _Known


def app_on(store: Store, **more: Any) -> Flask:
    """An application on this store."""
    app = create_app(store, **more)
    app.jinja_env.bytecode_cache = _COMPILED
    return app
