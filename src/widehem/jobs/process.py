"""The processes that do the work that lasts, beside those that answer pages; they also look after the daily copies."""

from __future__ import annotations

import contextlib
import ctypes
import gc
import logging
import os
import signal
import time
from pathlib import Path
from typing import Any

from huey.consumer import Consumer
from sqlalchemy.exc import DatabaseError

from widehem.jobs.daily import BIN, COPY
from widehem.jobs.works import Works
from widehem.store.copies import copies as copies_in
from widehem.store.taking_in import sweep

NICER = 10  # than what answers pages
LOOK = 0.1  # seconds between looks into the queue
LEAVE = 5.0  # seconds a job has to come to an end when the house closes
BIN_EACH = 6 * 3600.0  # seconds between looks into the bin
FIRST_COPY, BETWEEN = 20.0, 600.0  # seconds after the start, and between looks whether a copy is due
_PARENT_DIES = 1  # PR_SET_PDEATHSIG
log = logging.getLogger(__name__)


def end_with_parent(parent: int, how: int = signal.SIGTERM) -> None:
    """Let a process end when the one that began it dies, however that dies; where the system knows how."""
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).prctl(_PARENT_DIES, how, 0, 0, 0)
    if os.getppid() != parent:  # it died before this was said
        os._exit(0)


class _Workroom(Consumer):  # type: ignore[misc]
    """The processes, and what is looked at once a second: whether one of them died, and whether a copy is due."""

    def __init__(self, works: Works, copies: Path | None, **more: Any) -> None:
        super().__init__(works.queue, **more)
        self.works, self.copies = works, copies
        self.bin_at = time.monotonic() + BETWEEN
        self.copy_at = time.monotonic() + (BETWEEN if copies is not None and copies_in(copies) else FIRST_COPY)

    def check_worker_health(self) -> None:
        """As it is called by the loop. Nothing stays open, as a process may be forked next."""
        super().check_worker_health()
        try:
            self.works.take_up(all_of_them=False)
            if self.copies is not None and time.monotonic() >= self.copy_at:
                self.copy_at = time.monotonic() + BETWEEN
                self.works.ask(COPY, {"folder": str(self.copies.absolute())}, "The daily copy", COPY)
            if time.monotonic() >= self.bin_at:
                self.bin_at = time.monotonic() + BIN_EACH
                self.works.ask(BIN, {}, "Looking through the bin", BIN)
        except DatabaseError:
            log.exception("the ledger cannot be looked at")
        finally:
            self.works.close()


def run(works: Works, processes: int, copies: Path | None, keeper: int) -> None:
    """Do the work of a house until it closes. copies: where daily copies are kept, None for nowhere; keeper: the process that
    began
    this one."""
    if works.queue is None:
        raise ValueError("What is done inline needs no process.")
    end_with_parent(keeper)
    forking: list[int] = []
    os.register_at_fork(
        before=lambda: forking.append(os.getpid()), after_in_parent=forking.clear,
        after_in_child=lambda: end_with_parent(forking.pop(), signal.SIGKILL),
    )  # fmt: skip
    os.nice(NICER)
    sweep(works.store)
    works.take_up()
    works.store.close()
    works.close()
    works.queue.on_startup()(gc.freeze)
    _Workroom(
        works, copies, workers=processes, worker_type="process", periodic=False, initial_delay=LOOK, max_delay=LOOK,
        check_worker_health=True, health_check_interval=1, shutdown_timeout=LEAVE,
    ).run()  # fmt: skip
