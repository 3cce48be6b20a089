"""The patterns of a whole cast in one ZIP, drawn by two processes side by side."""

from __future__ import annotations

import io
import re
import zipfile
from pathlib import Path
from typing import Any

from widehem.core.output.refused import CannotWriteError
from widehem.core.output.sheets import PAPERS
from widehem.core.output.writers import WRITERS
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Display
from widehem.jobs.beside import taking_turns
from widehem.jobs.kinds import At, JobError, kind
from widehem.jobs.ledger import MOST_ENTRY
from widehem.jobs.materials import dockets_in
from widehem.jobs.papers import file_key, file_name
from widehem.store.clock import house_zone
from widehem.store.database import Store
from widehem.store.house_rows import Printer
from widehem.store.making import find_work
from widehem.store.models import Production
from widehem.store.papers import on_printer, order_of

CAST = "cast"
WRITTEN = ("pdf", "dxf", "svg", "plot", "card", "json")
SURE = re.compile(r"[^\w .,()'-]")


def write_one(store: Store, wish: dict[str, Any], file: Path) -> dict[str, str]:
    """Write a file of a docket. wish: docket, writer, paper and printer, unit and fraction of the maker. Answers with its name, or with
    what is wrong."""
    with store.read() as session:
        work, zone = find_work(session, wish["docket"]), house_zone(session)
        if work is None:
            return {"name": "", "trouble": ""}
        docket = work.docket
        _ = docket.wearer, docket.production
        printer = session.get(Printer, wish["printer"]) if wish.get("printer") else None
    try:
        made = work.made_once()
    except (OptionError, CannotDraft):
        words = f"{docket.name} for {docket.wearer.name} cannot be drawn as it is kept: its draft says why."
        return {"name": "", "trouble": words}
    paper = on_printer(PAPERS[wish["paper"] or docket.paper], printer)
    order = order_of(docket, made, Display(wish["unit"], wish["fraction"]), zone, paper, "1:1")
    try:
        file.write_bytes(WRITERS[wish["writer"]].write(order))
    except CannotWriteError as error:
        return {"name": "", "trouble": f"{docket.name} for {docket.wearer.name}: {error}"}
    return {"name": file_name(docket, wish["writer"], paper.code, "1:1"), "trouble": ""}


@kind(CAST, urgent=2)
def write_cast(at: At, wish: dict[str, Any]) -> dict[str, str]:
    """Write a file for every garment of a production. wish: production, writer and paper by their codes, printer, unit and fraction of
    the maker. Answers as a single file does."""
    with at.store.read() as session:
        production = session.get(Production, wish["production"])
        if production is None:
            raise JobError("This production was deleted meanwhile.")
        title, numbers = production.name, dockets_in(session, production.id)
    wishes = [{"printer": None, "paper": "", **wish, "docket": number} for number in numbers]
    whole, left_out, taken = io.BytesIO(), list[str](), set[str]()
    with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED) as packed:
        at.step(0, len(wishes))
        for done, (answer, file) in enumerate(taking_turns(at.store, write_one, wishes), 1):
            if answer["name"]:
                packed.writestr(_free(answer["name"], taken), file.read_bytes())
            elif answer["trouble"]:
                left_out.append(answer["trouble"])
            at.step(done, len(wishes))
        if left_out:
            packed.writestr("left out.txt", "\n".join(left_out) + "\n")
    if not taken:
        raise JobError("No garment of this production can be drawn yet.")
    if whole.tell() > MOST_ENTRY:
        raise JobError(
            f"Together they are more than {MOST_ENTRY // 1024 // 1024} MB: write them in parts, or as another kind of file."
        )
    at.ledger.keep(file_key(at.name), whole.getvalue())
    name = f"{title} {WRITERS[wish['writer']].name}.zip"
    return {"key": file_key(at.name), "name": name, "mimetype": "application/zip"}


def _free(name: str, taken: set[str]) -> str:
    """A name for a file that can be unpacked anywhere and is not there yet."""
    stem, dot, ending = SURE.sub("_", name).strip(". ").rpartition(".")
    found, number = f"{stem}{dot}{ending}", 2
    while found.lower() in taken:
        found, number = f"{stem} {number}{dot}{ending}", number + 1
    taken.add(found.lower())
    return found
