"""Asking for work that lasts: it is written into the ledger, its name goes through the queue, and a process of its own does
it."""

from __future__ import annotations

import hashlib
import logging
import time
from typing import Any

from huey import Huey, SqliteHuey

from widehem.jobs import (  # noqa: F401 - registers their kinds
    archives,
    cast_files,
    daily,
    gallery,
    hours,
    intake,
    laying,
    materials,
    nest_files,
    outlines,
    papers,
    plotting,
    standing,
    touchiness,
)
from widehem.jobs.kinds import KINDS, At, JobError, StoppedError
from widehem.jobs.ledger import DONE, FAILED, STOPPED, Job, Ledger
from widehem.store.database import Store

QUEUE = "queue.sqlite3"
MOST_TIMES = 2  # a job that is broken off again and again breaks whatever does it
LOOK = 0.02  # seconds between looks whether a job is done
BROKEN = "It broke off. Nothing of it was kept; ask for it again."
log = logging.getLogger(__name__)


class QueueError(Exception):
    """A queue that cannot be used, in a sentence."""


class Works:
    """The work of a house. url: of a Redis that carries the queue, a file beside the data without one. inline: everything is
    done
    at once by whoever asks; for a store that nobody serves."""

    def __init__(self, store: Store, url: str = "", *, inline: bool = False) -> None:
        self.store, self.ledger, self.inline = store, Ledger(store.folder), inline
        self.queue: Huey | None = None if inline else _queue(store, url)
        if self.queue is not None:
            self._send = self.queue.task(name="job")(self.do)

    def ask(self, kind: str, wish: dict[str, Any], words: str, about: str) -> Job:
        """Ask for work. words: its title; about: what tells it from others of its kind, of which only one is done at a time."""
        job, new = self.ledger.ask(kind, wish, words, about)
        if new:
            self._hand_over(job.id, kind)
        return self.ledger.find(job.id)[0] if self.inline else job

    def _hand_over(self, name: str, kind: str) -> None:
        if self.queue is None:
            self.do(name)
        else:
            self._send(name, priority=KINDS[kind].urgent)

    def wait(self, job: Job, seconds: float) -> Job:
        """The job as it is when it ends, or after so many seconds."""
        until = time.monotonic() + seconds
        while job.unfinished and time.monotonic() < until:
            time.sleep(LOOK)
            job = next(iter(self.ledger.find(job.id)), job)
        return job

    def do(self, name: str) -> None:
        """Do a job, and write down how it ended."""
        begun = self.ledger.begin(name)
        if begun is None:
            return
        kind, wish = begun
        try:
            answer = KINDS[kind].work(At(self.store, self.ledger, name), wish)
        except StoppedError:
            self.ledger.end(name, STOPPED)
        except JobError as error:
            self.ledger.end(name, FAILED, trouble=str(error))
        except Exception:
            log.exception("job %s of kind %s failed on %s", name, kind, {key: str(value)[:200] for key, value in wish.items()})
            self.ledger.end(name, FAILED, trouble=f"Something broke in the workroom. In the log it has the number {name[:8]}.")
        else:
            self.ledger.end(name, DONE, answer)

    def take_up(self, *, all_of_them: bool = True) -> None:
        """Take up what a process that is no more left undone: begun anew where that does no harm, told as failed where it may.
        all_of_them: also what only waits, as when the house opens; the queue is emptied first."""
        if self.queue is not None and all_of_them:
            self.queue.storage.flush_queue()
        for name, kind, times in self.ledger.broken_off(waiting=all_of_them):
            if kind not in KINDS or times >= MOST_TIMES or (times and not KINDS[kind].again):
                self.ledger.end(name, FAILED, trouble=BROKEN)
            else:
                self._hand_over(name, kind)

    def close(self) -> None:
        """Let go of everything that is open, as before a process is forked."""
        self.ledger.close()
        if self.queue is not None:
            self.queue.storage.close()


def _queue(store: Store, url: str) -> Huey:
    if not url:
        return SqliteHuey("widehem", filename=str(store.folder / QUEUE), fsync=False, results=False)
    try:
        import redis
        from huey import PriorityRedisHuey
    except ImportError:
        raise QueueError("--queue needs the package redis: install it with `pip install 'widehem[redis]'`.") from None
    try:
        house = hashlib.sha256(str(store.folder.resolve()).encode()).hexdigest()[:12]  # several may share a Redis
        found = PriorityRedisHuey(f"widehem-{house}", url=url, results=False)
        found.storage.conn.ping()
    except (redis.RedisError, ValueError) as error:
        raise QueueError(
            f'--queue "{url}" does not answer: {str(error).rstrip(".")}. Write it like redis://127.0.0.1:6379/0.'
        ) from None
    return found
