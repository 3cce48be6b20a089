"""Serving the pages: several processes that answer, others for the work that lasts, and one that keeps them all going."""

from __future__ import annotations

import contextlib
import errno
import logging
import os
import signal
import socket
import sys
import time
from pathlib import Path
from typing import Any

from flask import Flask
from gunicorn.app.base import BaseApplication
from gunicorn.arbiter import Arbiter
from sqlalchemy import select

import widehem.core.drafting.methods  # noqa: F401 - registers them
from widehem.jobs.process import run as do_the_work
from widehem.jobs.works import QueueError, Works
from widehem.settled import settle_down
from widehem.store.database import Store
from widehem.store.keeping import in_use
from widehem.store.models import Docket
from widehem.web import board
from widehem.web.app import create_app
from widehem.web.asked import log_with_numbers
from widehem.web.door import Door
from widehem.web.patient import Patient

BUSY, FINE = 1, 0
LEAST_PROCESSES, MOST_PROCESSES, MOST_WORKERS = 2, 8, 4
AGAIN = 2.0  # seconds before the work is begun again that ended by itself
HUNG = 60  # seconds after which a process that answers nothing is begun anew
LEAVE = 8  # seconds what is begun has to come to an end when the house closes


def processes_by_itself() -> int:
    """How many processes answer pages unless another number is wanted: as many as can work at once."""
    return min(MOST_PROCESSES, max(LEAST_PROCESSES, os.cpu_count() or 1))


def serve(
    data: Path, host: str, port: int, threads: int, *, processes: int = 0, demo: bool = False, door: Door | None = None,
    copies: Path | None = None, queue: str = "",
) -> int:  # fmt: skip
    """Serve until stopped; prints the address. threads: of each process; processes: 0 for as many as the machine can use;
    door: who may
    come in; copies: where daily copies are kept, None for nowhere; queue: address of a Redis in place of a file. Returns an
    exit
    status. Raises StoreError."""
    log_with_numbers()
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    store = Store(data)
    if demo:
        from widehem.demo.load import load_demo

        load_demo(store)
    try:
        listener = _listen(host, port)
    except OSError as error:
        taken = error.errno in (errno.EADDRINUSE, errno.EACCES)
        print(
            f"Port {port} is taken: stop what runs there, or name another with --port."
            if taken
            else f"{host} is no address of this machine: name another with --host.",
            file=sys.stderr,
        )
        store.close()
        return BUSY
    try:
        works = Works(store, queue)
    except QueueError as error:
        print(error, file=sys.stderr)
        store.close()
        return BUSY
    shown = f"[{host}]" if ":" in host else host
    words = f"Wide Hem is at http://{shown}:{listener.getsockname()[1]}  (stop it with Ctrl+C; the work is kept in {data})"
    app = create_app(store, door, copies, works)
    warm_up(app, store)
    house = _House(app, listener, processes or processes_by_itself(), threads, words)
    with in_use(data):
        return _Keeper(house, works, copies).serve()


def _listen(host: str, port: int) -> socket.socket:
    """The socket at this address. Raises OSError."""
    found = socket.getaddrinfo(host, port, type=socket.SOCK_STREAM, flags=socket.AI_PASSIVE)
    family, *_, address = min(found, key=lambda entry: entry[0] != socket.AF_INET)
    return socket.create_server(address[:2], family=family, backlog=1024)


class _House(BaseApplication):  # type: ignore[misc]
    """The application as the keeper is given it."""

    def __init__(self, app: Any, listener: socket.socket, processes: int, threads: int, words: str) -> None:
        self.app, self.listener, self.processes, self.threads, self.words = app, listener, processes, threads, words
        super().__init__()

    def load_config(self) -> None:
        """As it is called before anything runs."""
        settings = {
            "bind": f"fd://{self.listener.fileno()}", "workers": self.processes, "threads": self.threads, "worker_class": Patient,
            "preload_app": True, "timeout": HUNG, "graceful_timeout": LEAVE, "loglevel": "warning", "proc_name": "widehem",
            "control_socket_disable": True, "when_ready": self._open,
        }  # fmt: skip
        for name, value in settings.items():
            self.cfg.set(name, value)

    def load(self) -> Any:
        """As it is called for what answers."""
        return self.app

    def _open(self, _keeper: Any) -> None:
        print(self.words, flush=True)
        settle_down()


class _Keeper(Arbiter):  # type: ignore[misc]
    """Keeps the processes going that answer, and the one that sees to the work that lasts."""

    def __init__(self, house: _House, works: Works, copies: Path | None) -> None:
        self.works, self.copies = works, copies
        self.worker, self.begun = 0, 0.0
        super().__init__(house)

    def serve(self) -> int:
        """Run until stopped. Returns an exit status."""
        try:
            self.run()
        except SystemExit as left:
            return int(left.code or 0) if isinstance(left.code, int) else BUSY
        return FINE

    def manage_workers(self) -> None:
        """As it is called about once a second. Nothing of the store stays open while a process is forked."""
        self.works.store.close()
        self.works.close()
        super().manage_workers()
        if not self._works_on() and time.monotonic() - self.begun > AGAIN:
            self._begin_work()

    def _works_on(self) -> bool:
        try:
            os.kill(self.worker, 0)
        except ProcessLookupError:
            return False
        return self.worker != 0

    def _begin_work(self) -> None:
        self.begun, keeper = time.monotonic(), os.getpid()
        self.worker = os.fork()
        if self.worker:
            return
        status = BUSY
        try:
            for number in (*self.SIGNALS, signal.SIGCHLD):
                signal.signal(number, signal.SIG_DFL)
            for listener in self.LISTENERS:
                listener.sock.close()
            do_the_work(self.works, min(MOST_WORKERS, os.cpu_count() or 1), self.copies, keeper)
            status = FINE
        except BaseException:
            logging.getLogger(__name__).exception("the work that lasts cannot be done")
        finally:
            os._exit(status)

    def stop(self, graceful: bool = True) -> None:
        """As it is called when the house closes."""
        self._tell_work(signal.SIGTERM)
        super().stop(graceful)
        until = time.monotonic() + LEAVE
        while self._works_on() and time.monotonic() < until:
            self.reap_workers()
            time.sleep(0.05)
        self._tell_work(signal.SIGKILL)
        self.works.store.close()

    def _tell_work(self, number: int) -> None:
        if self.worker and self._works_on():
            os.kill(self.worker, number)


def warm_up(app: Flask, store: Store) -> None:
    """Draw a garment and a page once before anybody asks, so that whoever asks first does not wait for it."""
    with store.read() as session:
        first = session.scalar(select(Docket.id).limit(1))
    with app.test_request_context("/"):
        app.jinja_env.get_template("index.html")
        if first is not None:
            with contextlib.suppress(Exception):  # it will say so to whoever opens it
                board.draft(first)
