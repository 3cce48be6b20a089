"""How one of the serving processes answers: what is sent slowly is read as it comes, so that no thread waits for it; what is
sent too
slowly, or not at all, is shut out."""

from __future__ import annotations

import math
import os
import socket
import time
from collections.abc import Sequence
from typing import Any

from gunicorn.workers.base import Worker
from waitress import create_server, wasyncore
from waitress.channel import HTTPChannel

from widehem.core.output.photo import LARGEST_FILE
from widehem.jobs.process import end_with_parent
from widehem.web.app import LARGEST_REQUEST

SILENT = 20.0  # seconds a connection may say nothing, or take for its first words
LEAST_PACE = 2000  # bytes a second that a longer request comes at, at the least
MOST_CONNECTIONS = 1000  # of one process
CROWDED = MOST_CONNECTIONS * 0.8
TURN = 0.5  # seconds between looks whether to go on
SWEEP = 2.0  # seconds between looks for connections that are too slow
LIMITS: dict[str, Any] = {
    "ident": "Wide Hem",
    "max_request_body_size": LARGEST_FILE + LARGEST_REQUEST,  # more is refused while it is read
    "connection_limit": MOST_CONNECTIONS,
    "asyncore_use_poll": True,  # more than 1,024 open files
}


class Channel(HTTPChannel):  # type: ignore[misc]
    """A connection that knows, by the clock that only goes forward, when it was heard last and when its request began."""

    def __init__(self, *args: Any, **more: Any) -> None:
        self.heard = self.began = time.monotonic()
        self.got = 0
        super().__init__(*args, **more)

    def received(self, data: bytes) -> bool:
        """As it is called with every piece that comes."""
        now = time.monotonic()
        if self.request is None:
            self.began, self.got = now, 0
        self.heard = now
        self.got += len(data)
        return bool(super().received(data))

    def send(self, *args: Any, **more: Any) -> int:
        """As it is called with every piece that goes."""
        sent = int(super().send(*args, **more))
        if sent:
            self.heard = time.monotonic()
        return sent

    def is_too_slow(self, now: float) -> bool:
        """Whether it keeps its place for nothing."""
        if self.requests:
            return False
        if now - self.heard > SILENT:
            return True
        took = now - self.began
        return self.request is not None and took > SILENT and self.got < LEAST_PACE * took


def shut_out(server: Any, now: float) -> None:
    """Close the connections that are too slow, and when nearly all places are taken the ones that have waited longest."""
    idle = [channel for channel in server.active_channels.values() if not channel.requests and not channel.will_close]
    slow = [channel for channel in idle if channel.is_too_slow(now)]
    if len(server.active_channels) > CROWDED:
        waiting = sorted((channel for channel in idle if channel not in slow), key=lambda channel: channel.began)
        slow += [channel for channel in waiting if not channel.total_outbufs_len][: MOST_CONNECTIONS // 4]
    for channel in slow:
        channel.will_close = True


class Desk:
    """What answers at the door in one process. sockets: that are listened at; threads: that answer."""

    def __init__(self, wsgi: Any, sockets: Sequence[socket.socket], threads: int) -> None:
        self.server = create_server(wsgi, sockets=list(sockets), threads=threads, **LIMITS)
        self.server.channel_class = Channel
        self.server.next_channel_cleanup = math.inf  # shut_out does it, by a clock that does not jump
        self._swept = time.monotonic()

    def turn(self) -> None:
        """Take what comes and hand out what is ready, for half a second at the most."""
        wasyncore.loop(timeout=TURN, use_poll=True, map=self.server._map, count=1)
        now = time.monotonic()
        if now - self._swept >= SWEEP or len(self.server.active_channels) > CROWDED:
            self._swept = now
            shut_out(self.server, now)

    def close(self, seconds: float) -> None:
        """Bring to an end what is begun, for so many seconds at the most."""
        self.server.accepting = False
        until = time.monotonic() + seconds
        while any(channel.requests or channel.total_outbufs_len for channel in self.server.active_channels.values()):
            if time.monotonic() > until:
                break
            wasyncore.loop(timeout=TURN / 10, use_poll=True, map=self.server._map, count=1)
        self.server.task_dispatcher.shutdown()


class Patient(Worker):  # type: ignore[misc]
    """One process of several that listen at the same door."""

    def run(self) -> None:
        """Answer until told to stop."""
        end_with_parent(self.ppid)
        desk = Desk(self.wsgi, [listener.sock for listener in self.sockets], self.cfg.threads)
        while self.alive and os.getppid() == self.ppid:
            self.notify()
            desk.turn()
        desk.close(self.cfg.graceful_timeout)
