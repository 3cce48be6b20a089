"""Commands of the house: serving it, looking it over, copies and putting them back."""

from __future__ import annotations

import argparse
import gc
import os
import shutil
import sys
from pathlib import Path
from typing import Any

FINE, BAD_INPUT, REFUSED = 0, 2, 3
PASSWORD = "WIDEHEM_PASSWORD"


class UsageError(Exception):
    """Bad input; one sentence for stderr."""


def hand_over(data: bytes, out: Path | None) -> int:
    """Write what was made to a file, or to standard output. Raises UsageError."""
    if out is not None:
        try:
            out.write_bytes(data)
        except OSError as error:
            raise UsageError(f"{out} cannot be written: {error.strerror}.") from None
    else:
        sys.stdout.buffer.write(data)
        sys.stdout.flush()
    return FINE


def add_commands(commands: Any) -> None:
    """The commands of the house, with what each takes."""
    serve = commands.add_parser("serve", help="serve the pages on 127.0.0.1")
    serve.add_argument("--data", type=Path, default=Path("data"), help="the data folder")
    serve.add_argument(
        "--host", default="127.0.0.1", help="where it listens; beyond this machine only with --name and a password"
    )
    serve.add_argument(
        "--name", action="append", default=[], metavar="HOST", help="a name browsers reach it by; may be repeated"
    )
    serve.add_argument("--password-file", type=Path, metavar="FILE", help=f"the password of the house; or in {PASSWORD}")
    serve.add_argument("--https", action="store_true", help="it is reached over TLS only, through a proxy")
    serve.add_argument("--port", type=int, default=8420)
    serve.add_argument(
        "--processes", type=int, default=0, help="that answer pages; as many as the machine has processors by itself"
    )
    serve.add_argument("--threads", type=int, default=8, help="of each process")
    serve.add_argument("--queue", default="", metavar="URL", help="a Redis that carries the work that lasts; a file by itself")
    serve.add_argument(
        "--copies", type=Path, metavar="FOLDER", help="where daily copies are kept; in the data folder by itself"
    )
    serve.add_argument("--demo", action="store_true", help="load the demo first when there is no data")
    serve.set_defaults(run=_serve)

    demo = commands.add_parser("demo", help="load the demo into a data folder that has none")
    demo.add_argument("--data", type=Path, default=Path("data"))
    demo.set_defaults(run=_demo)

    backup = commands.add_parser("backup", help="copy the whole database to a file, also while it is in use")
    backup.add_argument("--data", type=Path, default=Path("data"))
    backup.add_argument("--out", type=Path, required=True)
    backup.set_defaults(run=_backup)

    restore = commands.add_parser("restore", help="put a copy in the place of the database; the old one is kept aside")
    restore.add_argument("copy", type=Path, metavar="FILE")
    restore.add_argument("--data", type=Path, default=Path("data"))
    restore.set_defaults(run=_restore)

    check = commands.add_parser("check", help="look the data folder over: whole, writable, of today's tables, copied lately")
    check.add_argument("--data", type=Path, default=Path("data"))
    check.add_argument("--copies", type=Path, metavar="FOLDER")
    check.set_defaults(run=_check)


def _serve(arguments: argparse.Namespace) -> int:
    from widehem.store.copies import FOLDER

    gc.disable()  # what is loaded now stays: it is looked at once, when all of it is there
    from widehem.web.serve import serve

    if not 0 <= arguments.port <= 65535:
        raise UsageError(f"--port {arguments.port} is no port: 1 to 65535, or 0 for a free one.")
    if not 1 <= arguments.threads <= 200:
        raise UsageError(f"--threads {arguments.threads}: 1 to 200.")
    if not 0 <= arguments.processes <= 64:
        raise UsageError(f"--processes {arguments.processes}: 1 to 64, or 0 for as many as the machine has processors.")
    return serve(
        arguments.data, arguments.host, arguments.port, arguments.threads, processes=arguments.processes, demo=arguments.demo,
        door=_door(arguments), copies=arguments.copies or arguments.data / FOLDER, queue=arguments.queue,
    )  # fmt: skip


def _door(arguments: argparse.Namespace) -> Any:
    """The door of the house: none is needed on this machine alone; beyond it a name and a password. Raises UsageError."""
    from widehem.web.door import LEAST_PASSWORD, LOOPBACK, Door, hostname

    names = {name.strip().lower().rstrip(".") for name in arguments.name}
    for name in names:
        if hostname(f"[{name}]" if ":" in name else name) != name:
            raise UsageError(f'--name "{name}" is no host name: write it without port or slashes, like workroom.example.')
    host = arguments.host.strip("[]").lower()
    beyond = host not in LOOPBACK
    if beyond and not names:
        raise UsageError(
            f"--host {arguments.host} can be reached from other machines: name the address browsers use with --name HOST."
        )
    password = _password(arguments)
    if beyond and password is None:
        raise UsageError(
            f"--host {arguments.host} can be reached from other machines: give the house a password, in a file with "
            f"--password-file FILE or in {PASSWORD}."
        )
    if password is not None and len(password) < LEAST_PASSWORD:
        raise UsageError(f"The password has {len(password)} signs: {LEAST_PASSWORD} is the least.")
    return Door(LOOPBACK | names, password, arguments.https)


def _password(arguments: argparse.Namespace) -> str | None:
    if arguments.password_file is None:
        return os.environ.get(PASSWORD) or None
    try:
        found = arguments.password_file.read_text(encoding="utf-8").strip()
    except (OSError, UnicodeError) as error:
        raise UsageError(f"--password-file {arguments.password_file} cannot be read: {_why(error)}.") from None
    if not found:
        raise UsageError(f"--password-file {arguments.password_file} is empty: write the password into it.")
    return str(found)


def _why(error: Exception) -> str:
    return str(getattr(error, "strerror", None) or error).rstrip(".")


def _demo(arguments: argparse.Namespace) -> int:
    from widehem.demo.load import load_demo
    from widehem.store.database import Store

    store = Store(arguments.data)
    loaded = load_demo(store)
    print(f"The demo is in {arguments.data}." if loaded else f"{arguments.data} has work in it already; nothing was changed.")
    return FINE


def _backup(arguments: argparse.Namespace) -> int:
    from widehem.store.database import Store
    from widehem.store.keeping import FILE

    if not (arguments.data / FILE).exists():
        raise UsageError(f"There is no data in {arguments.data}: name the folder with --data.")
    try:
        Store(arguments.data).backup(arguments.out)
    except FileExistsError:
        raise UsageError(f"{arguments.out} exists already: name another file.") from None
    except OSError as error:
        raise UsageError(f"{arguments.out} cannot be written: {_why(error)}.") from None
    print(f"Copied to {arguments.out}.")
    return FINE


def _restore(arguments: argparse.Namespace) -> int:
    from widehem.store.database import versions
    from widehem.store.keeping import restore

    aside = restore(arguments.data, arguments.copy, versions())
    print(f"{arguments.copy} is in its place." + (f" What was there before is kept as {aside}." if aside else ""))
    return FINE


def _check(arguments: argparse.Namespace) -> int:
    """One line for each thing that is looked at; 3 where one of them is not well."""
    from widehem.store.copies import FOLDER, copies, last_failure, overdue
    from widehem.store.database import HEAD
    from widehem.store.keeping import FILE, StoreError, refuse_unfit, troubles, version_of
    from widehem.store.mending import differences
    from widehem.store.models import now

    data, file = arguments.data, arguments.data / FILE
    if not file.exists():
        raise UsageError(f"There is no data in {data}: name the folder with --data.")
    found: list[tuple[bool, str]] = []
    try:
        refuse_unfit(data)
        free = shutil.disk_usage(data).free // 1024 // 1024
        found.append((True, f"{data} can be written to, with {free} MB free."))
        mode = data.stat().st_mode & 0o777
        found.append((not mode & 0o077, f"{data} is open to its owner only." if not mode & 0o077 else
            f"{data} is open to others (mode {mode:o}): opening it once with `widehem serve` closes it."))  # fmt: skip
        wrong = troubles(file)
        found.append((not wrong, f"{file} is whole." if not wrong else f"{file} is not whole: {'; '.join(wrong)}."))
        version = version_of(file)
        said = "today's" if version == HEAD else f"of version {version}; they are brought up to date when it is opened"
        found.append((version is not None, f"Its tables are {said}." if version else f"{file} says nothing of its version."))
        if not wrong and version == HEAD:
            odd = differences(file, HEAD)
            found.append(
                (not odd, "They are as they should be." if not odd else f"They are not as they should be: {'; '.join(odd)}.")
            )
        kept = arguments.copies or data / FOLDER
        row, failed = copies(kept), last_failure(kept)
        if failed:
            found.append((False, f"The copy of {failed['day']} failed: {failed['why']}."))
        late = overdue(kept, now().date())
        found.append(
            (not late, f"There are {len(row)} daily copies in {kept}" + (f", the newest {row[0].name}." if row else "."))
        )
    except StoreError as error:
        found.append((False, str(error)))
    for well, words in found:
        print(f"{'well ' if well else 'look!'}  {words}")
    return FINE if all(well for well, _ in found) else REFUSED


def excused(error: Exception) -> str | None:
    """The sentence for what the machine refuses: a full disk, a folder that may not be read; None for what is our own
    mistake."""
    from widehem.store.keeping import StoreError

    if isinstance(error, StoreError):
        return str(error)
    if isinstance(error, OSError):
        where = f"{error.filename}: " if error.filename else ""
        return f"{where}{_why(error)}. Nothing more was done."
    if isinstance(error, UnicodeError):
        return "What was given is no text that can be read: write it in UTF-8."
    return None


if __name__ == "__main__":
    sys.exit("This is part of the `widehem` command.")
