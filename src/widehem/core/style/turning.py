"""Darts swung to another place."""

from __future__ import annotations

from widehem.core.setting.option import Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.swing import Share, swing
from widehem.core.units import say

OPTIONS = (
    Option("part", "Part of it", "number", 100.0, "per cent of the dart that is opened at the new place", 10.0, 100.0, 10.0),
    Option(
        "short", "Sewn short of the point", "length", 2.5, "how far before the point it was turned about it ends", 0.0, 6.0, 0.5
    ),
)


@operation(
    "dart.swing", "dart", "Swing a dart", "what a dart takes is opened elsewhere, by turning what lies between about its point",
    options=OPTIONS, wheres={"dart": "the dart", "to": "where it opens"}, names={"dart": "the new dart"},
)  # fmt: skip
def swing_dart(job: Job) -> Change:
    """Turn a dart, or a part of it, to another place on the outline of its piece."""
    dart, to = job.at["dart"], job.at["to"]
    if not dart.spot.dart:
        raise CannotStyle(say("There is no dart at that place."), ("dart",))
    if to.piece.name != dart.piece.name:
        raise CannotStyle(say("A dart is swung within its piece; the new place lies on another."), ("to",))
    if to.piece.edge(to.spot.edge).kind == "fold":
        raise CannotStyle(
            say("A fold cannot open into a dart: choose another place, or open left and right apart first."), ("to",)
        )
    name = job.names.get("dart", dart.spot.dart)
    if name != dart.spot.dart and any(other.name == name for other in dart.piece.darts):
        raise CannotStyle(say(f"There is a dart called {name.replace('_', ' ')} already."), ("dart",))
    part = job.length("part") / 100
    if part < 1 and name == dart.spot.dart:
        name = f"{name}_2"
    made = swing(dart.piece, dart.spot.dart, [Share(to.spot, part, name, job.length("short"))])
    return Change(job.garment.with_piece(made).pieces)
