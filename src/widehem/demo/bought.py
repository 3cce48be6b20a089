"""Paper of the made-up production: a plan of allowances of its own, edges with figures of theirs, printers, and a pattern that came
from outside in three sizes."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.body.sizes import sizes
from widehem.core.design.design import method_design
from widehem.core.design.make import make
from widehem.core.drafting.method import METHODS
from widehem.core.drafting.outlined import CODE
from widehem.core.drafting.outlined_data import checked
from widehem.core.drafting.outlined_edit import pieces_of, proposed_seams
from widehem.core.drafting.outlines import Outline, outline_as_data
from widehem.core.geometry.paths import Path
from widehem.core.marking.house import HouseValue
from widehem.core.pattern.piece import Piece
from widehem.store.house import keep_values
from widehem.store.house_rows import Printer
from widehem.store.models import DesignRow, Docket, Wearer
from widehem.store.recipes import hand_out

SMOCK, WORN_BY = "Lamp child's smock, bought", "Wren Tolliver"
LATELY = 3  # sizes of the nest
MARKED: dict[str, dict[str, Any]] = {
    "Ferry master's waistcoat": {
        "plans": {"lining": {"plan": "lining", "amounts": {"seam": "1.2 cm"}}},
        "edges": {"side_back.side": "2.5 cm", "side_front.side": "2.5 cm"},
        "notches": [{"piece": "peplum_back", "edge": "waist", "share": 0.5, "count": 1}], "nap": True,
    },
}  # fmt: skip
VELVET = {"seam": "1.5 cm", "armhole": "1.2 cm", "hem": "5 cm", "let_out": "2.5 cm"}
PRINTERS = (("Office printer", "4.97 cm", "5.02 cm", ""), ("Roll plotter", "5 cm", "4.99 cm", "127.0.0.1:9100"))


def load_paper(session: Session, wearers: dict[str, Wearer]) -> None:
    """What the Cut station has to show."""
    keep_values(session, [HouseValue("cloth+Velvet", f"a.{kind}", text) for kind, text in VELVET.items()])
    session.add_all(Printer(name=name, across=across, down=down, address=at) for name, across, down, at in PRINTERS)
    for name, marking in MARKED.items():
        for docket in session.scalars(select(Docket).where(Docket.name == name, Docket.costume != "")):
            docket.marking = marking
    row = DesignRow(
        name=SMOCK, method=CODE, rules=1, options={}, ease={}, steps=[], own=True, outlines=nest(),
        summary="From a bought pattern of three sizes, its edges named",
    )  # fmt: skip
    session.add(row)
    session.flush()
    if WORN_BY in wearers:
        hand_out(session, row, [wearers[WORN_BY]], "Lamp child's smock")


def nest() -> dict[str, Any]:
    """A bodice for three sizes of children, as a pattern that was bought would be named by its maker."""
    columns = sizes("child")[-LATELY:]
    outlines: list[Outline] = []
    rows: dict[str, dict[str, Any]] = {}
    names = [words for words, _ in columns]
    for name, chart in columns:
        made = make(method_design(METHODS["bodice.plain"]), chart)
        for piece in made.garment.pieces:
            outline, corners = _outline(piece, f"o{len(outlines) + 1}", name)
            outlines.append(outline)
            row = rows.setdefault(piece.name, _row(piece, corners))
            row["outlines"][name] = outline.id
    data = {
        "outlines": [outline_as_data(o) for o in outlines],
        "pieces": list(rows.values()),
        "seams": [],
        "openings": [],
        "source": "smock.svg",
    }
    pieces, _ = pieces_of(data, names[0])
    return checked({**data, "allowance": {"off": 0.0, "edges": {}}, "seams": proposed_seams(pieces)})


def _outline(piece: Piece, number: str, size: str) -> tuple[Outline, list[float]]:
    gone, corners = 0.0, []
    for edge in piece.edges:
        corners.append(round(gone, 4))
        gone += sum(path.length for path in edge.paths())
    ring = Path(tuple(segment for edge in piece.edges for path in edge.paths() for segment in path.segments))
    return Outline(number, piece.title, ring, size=size), corners


def _row(piece: Piece, corners: list[float]) -> dict[str, Any]:
    return {
        "name": piece.name, "title": piece.title, "part": piece.of if piece.of in ("front", "back") else "other", "stands": piece.stands,
        "layer": piece.layer, "use": True, "outlines": {}, "corners": corners, "levels": {},
        "edges": [{"role": edge.role, "kind": edge.kind, "name": edge.name} for edge in piece.edges],
    }  # fmt: skip
