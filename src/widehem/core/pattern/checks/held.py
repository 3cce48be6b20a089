"""Checks of what the body fixes: corners on its points, notches at their distances."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Literal

from widehem.core.pattern.check import SEAM_LOOK, Case, Check, Demand, answers
from widehem.core.pattern.garment import EdgeRef
from widehem.core.pattern.meeting import notches_along
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.places import apart, on_one_side
from widehem.core.pattern.roles import plain
from widehem.core.units import say
from widehem.core.values import record

CORNERS = {
    "nape": "neck.end",
    "snp": "shoulder.end",
    "tip": "armhole.end",
    "underarm": "armhole.start",
}  # of an upper piece, in the order of its outline


@record(frozen=True)
class OnTheBody(Demand):
    """Corners that lie on places of the body: of a piece, the mark, and the corner ('shoulder.end') as drafted."""

    places: tuple[tuple[str, str, str], ...]

    @staticmethod
    def upper(*pieces: Piece, more: Iterable[tuple[str, str, str]] = ()) -> OnTheBody:
        """Side neck point, shoulder tip and underarm of these pieces, as far as they are marked; and more places."""
        found = [(piece.name, mark, corner) for piece in pieces for mark, corner in CORNERS.items() if mark in piece.marks]
        return OnTheBody((*found, *more))


@answers(OnTheBody)
def on_the_body(case: Case, asked: OnTheBody) -> Iterator[Check]:
    """Corners lie where the places of the body were drawn."""
    found = []
    for piece, mark, corner in asked.places:
        off = apart(case.garment, piece, mark, corner)
        if off is not None:
            found.append((off[0], mark, piece, off[1]))
    if not found:
        return
    worst, mark, piece, _ = max(found, key=lambda entry: entry[0])
    words = say(f"{plain(mark)} of the {plain(piece)}, {{0}} off", worst)
    tail = (
        say("Every corner lies on its place.")
        if worst <= case.limits.seam + 1e-6
        else say("Draw the corner where the place is marked.")
    )
    bad = [entry for entry in found if entry[0] > case.limits.seam + 1e-6] or found
    yield Check(
        "marks.held", "body", "Corners on the body", "length", worst, None, case.limits.seam, SEAM_LOOK - case.limits.seam, words,
            words.stopped + tail,
        tuple(dict.fromkeys(spot for entry in bad for spot in entry[3])), "off",
    )  # fmt: skip


@record(frozen=True)
class NotchAt(Demand):
    """Where notches of an edge belong: name, single or double, and how far (cm) from an end of what is left of the edge, or
    what part (0 to 1) of it from that end."""

    ref: EdgeRef
    name: str
    count: int
    along: float | None = None
    part: float | None = None
    end: Literal["start", "end"] = "start"


@answers(NotchAt)
def notch_at(case: Case, asked: NotchAt) -> Iterator[Check]:
    """A notch stands as far along as it was set."""
    chain = tuple(entry for entry in on_one_side(case.garment, asked.ref))
    whole = case.garment.length_of(chain)
    wanted = asked.along if asked.along is not None else (asked.part or 0.0) * whole
    places = [
        along if asked.end == "start" else whole - along
        for name, count, along in notches_along(case.garment, chain)
        if (name, count) == (asked.name, asked.count)
    ]
    if not places:
        return
    there = min(places, key=lambda place: abs(place - wanted))
    off = abs(there - wanted)
    kind, where = plain(asked.name), plain(asked.ref.piece)
    title = f"Notch, {where} {kind}"
    words = say(f"{kind.capitalize()} at {{0}}, wanted at {{1}}", there, wanted)
    tail = say("It stands where it was set.") if off <= case.limits.seam + 1e-6 else say("Move it: {0u} off.", off)
    number = "" if asked.count == 1 else f".{asked.count}"
    far = f".{wanted:.0f}" if asked.along is not None else ""
    yield Check(
        f"notch.{asked.ref}.{asked.name}{number}{far}".replace(" ", "_"), "seams", title, "length",
            off, None, case.limits.seam, 0.0,
        words, words.stopped + tail, tuple(str(entry) for entry in chain), "off",
    )  # fmt: skip
