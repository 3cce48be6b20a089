"""Serving the pages with a production server."""

from __future__ import annotations

import gc
import logging
import sys
from pathlib import Path

from waitress import create_server

import widehem.core.drafting.methods  # noqa: F401 - registers them
from widehem.store.database import Store
from widehem.web.app import create_app

BUSY, FINE = 1, 0


def serve(data: Path, host: str, port: int, threads: int, *, demo: bool = False) -> int:
    """Serve until stopped; prints the address. Returns an exit status."""
    logging.basicConfig(level=logging.WARNING, format="%(levelname)s %(message)s")
    store = Store(data)
    if demo:
        from widehem.demo.load import load_demo

        load_demo(store)
    try:
        server = create_server(create_app(store), host=host, port=port, threads=threads, ident="Wide Hem")
    except OSError:
        print(f"Port {port} is taken: stop what runs there, or name another with --port.", file=sys.stderr)
        return BUSY
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    number = getattr(server, "effective_port", port)
    shown = f"[{host}]" if ":" in host else host
    print(f"Wide Hem is at http://{shown}:{number}  (stop it with Ctrl+C; the work is kept in {data})", flush=True)
    settle_down()
    try:
        server.run()
    except KeyboardInterrupt:
        pass
    finally:
        server.close()
        store.close()
    return FINE


def settle_down() -> None:
    """What was loaded at the start stays: collecting it again and again would cost every hundredth redraft."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)
