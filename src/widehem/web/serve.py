"""Serving the pages with a production server."""

from __future__ import annotations

import errno
import gc
import logging
import sys
import threading
from datetime import date
from pathlib import Path
from typing import Any

from waitress import create_server

import widehem.core.drafting.methods  # noqa: F401 - registers them
from widehem.core.output.photo import LARGEST_FILE
from widehem.store.copies import copies as copies_in
from widehem.store.copies import copy_of_today
from widehem.store.database import Store
from widehem.store.keeping import StoreError, in_use
from widehem.web.app import LARGEST_REQUEST, create_app
from widehem.web.door import Door

BUSY, FINE = 1, 0
LIMITS: dict[str, Any] = {
    "ident": "Wide Hem",
    "max_request_body_size": LARGEST_FILE + LARGEST_REQUEST,  # more is refused while it is read
    "connection_limit": 1000,  # those that say nothing are closed after channel_timeout seconds
    "channel_timeout": 20,
    "cleanup_interval": 5,
    "asyncore_use_poll": True,  # more than 1,024 open files
}
FIRST_COPY, BETWEEN = 20.0, 600.0  # seconds after the start, and between looks whether one is due


def serve(
    data: Path, host: str, port: int, threads: int, *, demo: bool = False, door: Door | None = None, copies: Path | None = None
) -> int:
    """Serve until stopped; prints the address. door: who may come in; copies: where daily copies are kept, None for nowhere.
    Returns an exit status. Raises StoreError."""
    logging.basicConfig(level=logging.WARNING, format="%(levelname)s %(message)s")
    store = Store(data)
    if demo:
        from widehem.demo.load import load_demo

        load_demo(store)
    try:
        server = create_server(create_app(store, door, copies), host=host, port=port, threads=threads, **LIMITS)
    except OSError as error:
        taken = error.errno in (errno.EADDRINUSE, errno.EACCES)
        print(
            f"Port {port} is taken: stop what runs there, or name another with --port."
            if taken
            else f"{host} is no address of this machine: name another with --host.",
            file=sys.stderr,
        )
        return BUSY
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    number = getattr(server, "effective_port", port)
    shown = f"[{host}]" if ":" in host else host
    print(f"Wide Hem is at http://{shown}:{number}  (stop it with Ctrl+C; the work is kept in {data})", flush=True)
    settle_down()
    stopped = threading.Event()
    if copies is not None:
        threading.Thread(target=keep_copying, args=(store, copies, stopped), name="copies", daemon=True).start()
    try:
        with in_use(data):
            server.run()
    except KeyboardInterrupt:
        pass
    finally:
        stopped.set()
        server.close()
        store.close()
    return FINE


def keep_copying(store: Store, folder: Path, stopped: threading.Event) -> None:
    """A copy a day, as long as the house is open; one that fails is told in the folder and tried again."""
    while not stopped.wait(FIRST_COPY if not copies_in(folder) else BETWEEN):
        try:
            copy_of_today(store.file, folder, date.today())
        except (OSError, StoreError):
            logging.getLogger(__name__).exception("the copy of today failed")


def settle_down() -> None:
    """What was loaded at the start stays: collecting it again and again would cost every hundredth redraft."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)
