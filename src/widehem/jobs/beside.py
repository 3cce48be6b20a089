"""A second process beside the one that does a job, which takes its turns of what the job is made of."""

from __future__ import annotations

import contextlib
import importlib
import json
import os
import subprocess
import sys
import tempfile
import threading
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from queue import Empty, SimpleQueue
from typing import Any

from widehem.store.database import Store

Answer = dict[str, Any]
Turn = Callable[[Store, dict[str, Any], Path], Answer]
PATIENCE = 120.0  # seconds that one turn may take in the process beside


def taking_turns(store: Store, turn: Turn, wishes: Sequence[dict[str, Any]]) -> Iterator[tuple[Answer, Path]]:
    """Do every wish by a function of a module, here and in a process beside this one. Gives each answer
    with the file it wrote, in the order they become ready; that file is gone when the next is asked for."""
    waiting: SimpleQueue[int] = SimpleQueue()
    for number in range(len(wishes)):
        waiting.put(number)
    ready: SimpleQueue[tuple[Answer, Path] | BaseException] = SimpleQueue()
    with tempfile.TemporaryDirectory(prefix="widehem-") as folder:
        there = Path(folder)
        with _other(store, turn) as other:
            helper = threading.Thread(target=_through, args=(other, wishes, waiting, ready, there), daemon=True)
            helper.start()
            for _ in wishes:
                yield _next(store, turn, wishes, waiting, ready, there)


def _next(
    store: Store, turn: Turn, wishes: Sequence[dict[str, Any]], waiting: SimpleQueue[int], ready: Any, folder: Path
) -> tuple[Answer, Path]:
    """What became ready beside, or else one that is done here."""
    with contextlib.suppress(Empty):
        return _told(ready.get_nowait())
    with contextlib.suppress(Empty):
        number = waiting.get_nowait()
        file = folder / str(number)
        return turn(store, wishes[number], file), file
    return _told(ready.get(timeout=PATIENCE))


def _told(found: Any) -> tuple[Answer, Path]:
    if isinstance(found, BaseException):
        raise found
    answer, file = found
    return answer, file


@contextlib.contextmanager
def _other(store: Store, turn: Turn) -> Iterator[subprocess.Popen[str] | None]:
    """The process beside; none on a machine that has nothing to do two things with."""
    if (os.cpu_count() or 1) < 2:
        yield None
        return
    process = subprocess.Popen(
        [sys.executable, "-m", "widehem.jobs.beside", turn.__module__, turn.__name__, str(store.folder), str(os.getpid())], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True,
    )  # fmt: skip
    try:
        yield process
    finally:
        process.kill()
        process.wait()
        for end in (process.stdin, process.stdout):
            if end is not None:
                with contextlib.suppress(OSError):
                    end.close()


def _through(
    other: subprocess.Popen[str] | None, wishes: Sequence[dict[str, Any]], waiting: SimpleQueue[int], ready: Any, folder: Path
) -> None:
    """Hand wishes to the process beside, one after another. One that it breaks over goes back, to be done here."""
    if other is None or other.stdin is None or other.stdout is None:
        return
    with contextlib.suppress(OSError, ValueError):
        if not other.stdout.readline():  # it says that it is there
            return
        while True:
            try:
                number = waiting.get_nowait()
            except Empty:
                return
            file = folder / str(number)
            try:
                other.stdin.write(json.dumps({"wish": wishes[number], "file": str(file)}) + "\n")
                other.stdin.flush()
                ready.put((json.loads(other.stdout.readline()), file))
            except (OSError, ValueError) as error:
                waiting.put(number)
                if waiting.qsize() == 1:  # nobody may look again
                    ready.put(RuntimeError(f"The process beside broke off: {error}."))
                return


def serve(module: str, name: str, folder: str, parent: str) -> None:
    """Take turns until nobody hands any more: what the process beside runs."""
    import widehem.core.drafting.methods  # noqa: F401 - registers them
    from widehem.jobs.process import end_with_parent

    end_with_parent(int(parent))
    os.nice(2)
    turn: Turn = getattr(importlib.import_module(module), name)
    store = Store(Path(folder))
    print("{}", flush=True)
    for line in sys.stdin:
        asked = json.loads(line)
        print(json.dumps(turn(store, asked["wish"], Path(asked["file"]))), flush=True)


if __name__ == "__main__":
    serve(*sys.argv[1:5])
