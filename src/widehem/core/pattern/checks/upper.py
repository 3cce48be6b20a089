"""Checks of the upper body: armhole front on back, the neck, corners joined across seams."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.geometry.points import angle_between
from widehem.core.pattern.block import Block
from widehem.core.pattern.check import CORNER_LOOK, CORNER_TRUE, FINE, SEAM_TRUE, Check, Verdict, checker, verdict_on
from widehem.core.pattern.piece import Edge, Piece
from widehem.core.units import say

FRONT_OVER_MOST = 0.5  # cm: without a bust dart a woven front may keep so much
NECK_MOST = 1.0


@checker
def armholes(block: Block) -> Iterator[Check]:
    """The front armhole is not longer than the back: it would gape."""
    if block.armhole is None:
        return
    front, back = (block.length_of((ref,)) for ref in block.armhole)
    over = front - back
    darted = any(dart.apex is not None for piece in block.pieces for dart in piece.darts)
    most = block.front_over
    verdict = (
        verdict_on(over, SEAM_TRUE if darted else FRONT_OVER_MOST, FRONT_OVER_MOST)
        if most is None
        else verdict_on(over, most, over)
    )
    words = say("{0} front, {1} back", front, back)
    tail = (
        (say("The front does not gape.") if most is None else say("The front may be {0u} longer here.", most))
        if verdict == "true"
        else say("The front is {0u} longer and gapes: take it into the bust dart, or true it.", over)
        if most is None
        else say(
            "The front is {0} longer, {1u} is usual here: ease it in over the front of the arm, or take a darted bodice.",
            over,
            most,
        )
    )
    spots = tuple(f"{ref.piece}.{ref.edge}" for ref in block.armhole)
    yield Check(
        "armhole.balance",
        "shapes",
        "Armhole, front on back",
        verdict,
        "signed",
        over,
        SEAM_TRUE if most is None else most,
        words,
        words.stopped + tail,
        spots,
        "",
    )
    if block.armscye is None:
        return
    spare = front + back - block.armscye
    least, most = block.room
    fits: Verdict = "true" if least - FINE <= spare <= most + FINE else "look" if spare > 0 else "not"
    words = say("{0} on armscye {1}", front + back, block.armscye)
    tail = say("Usual is {0} to {1u} more.", least, most)
    yield Check(
        "armhole.round",
        "body",
        "Armhole on the arm",
        fits,
        "signed",
        spare,
        least,
        words,
        words.stopped + tail,
        spots,
        "ease",
    )


@checker
def neckline(block: Block) -> Iterator[Check]:
    """The neckline is not tighter than the neck."""
    if block.neck is None:
        return
    necks = [(piece, edge) for piece in block.pieces for edge in piece.edges if edge.name == "neck"]
    girth = 2 * sum(edge.length for _, edge in necks)
    spare = girth - block.neck
    verdict: Verdict = "not" if spare < -0.05 else "true"
    words = say("{0} on {1}", girth, block.neck)
    tail = (
        say("Tighter than the neck: widen or lower it.")
        if verdict == "not"
        else say("A block lies on the neck with 0 to {0u} to spare.", NECK_MOST)
    )
    yield Check(
        "neck.girth", "body", "Neckline on the neck", verdict, "signed", spare, 0.0, words, words.stopped + tail,
        tuple(f"{piece.name}.{edge.name}" for piece, edge in necks), "spare",
    )  # fmt: skip


@checker
def corners(block: Block) -> Iterator[Check]:
    """Where a seam ends, the joined outline runs on: at neck and armhole over the shoulder, at the underarm over the side."""
    worst, where, spots = 0.0, "", []
    for seam in block.seams:
        if seam.faced:
            continue
        for end in (0, -1):
            found = [_corner(block.piece(chain[end].piece), chain[end].edge, end) for chain in (seam.first, seam.second)]
            names = {name for name, _ in found}
            if (
                len(names) != 1
                or names & {"waist", "hem", "vent"}
                or any(edge.startswith("centre") or edge.endswith("_gore") for edge in names)
            ):
                continue
            (name,) = names
            bend = abs(sum(angle for _, angle in found) - 180)
            spots += [f"{chain[end].piece}.{name}" for chain in (seam.first, seam.second)]
            if bend >= worst:
                worst, where = bend, f"{name} at the {seam.title.lower()}"
    if not spots:
        return
    verdict = verdict_on(worst, CORNER_TRUE, CORNER_LOOK)
    tail = (
        "The outline runs on over every seam."
        if verdict == "true"
        else f"The {where} bends {worst:.1f}°: join the pieces there and draw the curve again."
    )
    yield Check(
        "corners.joined",
        "shapes",
        "Corners over seams",
        verdict,
        "angle",
        worst,
        CORNER_TRUE,
        say(where),
        say(tail),
        tuple(dict.fromkeys(spots)),
        "bend",
    )


def _corner(piece: Piece, edge_name: str, end: int) -> tuple[str, float]:
    """The edge that meets this one at its start (0) or end (-1), and the inside angle between them, degrees."""
    ring = piece.edges
    at = next(i for i, edge in enumerate(ring) if edge.name == edge_name)
    other: Edge = ring[at - 1] if end == 0 else ring[(at + 1) % len(ring)]
    before, after = (other, ring[at]) if end == 0 else (ring[at], other)
    return other.name, 180 - angle_between(before.parts[-1].arriving, after.parts[0].leaving)


@checker
def heads(block: Block) -> Iterator[Check]:
    """The head passes the closed neck of what is pulled on, or there is an opening."""
    if block.head is None:
        return
    necks = [(piece, edge) for piece in block.pieces for edge in piece.edges if edge.name == "neck"]
    drawn = 2 * sum(edge.length for _, edge in necks)
    opened = block.opening.length if block.opening is not None and block.opening.at in ("centre_back", "centre_front") else 0.0
    girth = drawn + 2 * opened
    if block.wear.knit:
        girth += drawn * block.wear.stretch / 100
    spare = girth - block.head
    verdict: Verdict = "true" if spare >= -FINE else "not"
    words = say("{0} on head {1}", girth, block.head)
    if verdict == "true":
        tail = say("The head passes.") if not opened else say("With its opening of {0u} the head passes.", opened)
    else:
        tail = say(
            "The neck is {0}, and the head does not pass: widen the neck, or open it by {1u}.", drawn, max(-spare / 2, 4.0)
        )
    if block.wear.knit:
        tail = say(f"Neck {{0u}}, stretched by {block.wear.stretch:g} per cent.", drawn) + tail
    yield Check(
        "head.passes", "movement", "Head through the neck", verdict, "signed", spare, 0.0, words, words.stopped + tail,
        tuple(f"{piece.name}.{edge.name}" for piece, edge in necks), "spare",
    )  # fmt: skip


CAP_SLACK = 0.1


@checker
def caps(block: Block) -> Iterator[Check]:
    """The cap is longer than its armhole by the ease that was wanted, and the cloth can be eased by so much."""
    if block.cap is None:
        return
    fit = block.cap
    length = block.piece("sleeve").edge("cap").length
    ease = length - fit.armhole
    low, high = fit.own or block.wear.cap_ease(fit.share)
    words = say("{0} on armhole {1}", length, fit.armhole)
    verdict: Verdict = "not"
    if abs(ease - fit.wanted) > CAP_SLACK + FINE:
        tail = say("Wanted was {0s}: the cap does not come out.", fit.wanted)
    elif ease < low - CAP_SLACK - FINE:
        tail = say("Woven cloth wants {0} to {1u} here, or the sleeve drags over the shoulder.", low, high)
    elif ease > high + CAP_SLACK + FINE:
        kind = {"woven": "Woven", "crisp": "Crisp", "knit": "Knitted"}[block.wear.cloth]
        tail = say(f"{kind} cloth takes {{0u}} at most here: it would pucker.", high)
    else:
        verdict = "true"
        tail = (
            say("Wanted was {0s}; gather it between the pitch notches, more at the back.", fit.wanted)
            if fit.wanted
            else say("Set in flat, without ease.")
        )
    yield Check(
        "cap.ease",
        "seams",
        "Cap in its armhole",
        verdict,
        "signed",
        ease,
        CAP_SLACK,
        words,
        words.stopped + tail,
        ("sleeve.cap",),
        "ease",
    )


@checker
def hands(block: Block) -> Iterator[Check]:
    """The closed hand passes the hem of a sleeve."""
    if block.hand is None:
        return
    girth = block.piece("sleeve").edge("wrist").length
    if block.wear.knit:
        girth *= 1 + block.wear.stretch / 100
    spare = girth - block.hand
    verdict: Verdict = "true" if spare >= -FINE else "look"
    words = say("{0} on hand {1}", girth, block.hand)
    tail = (
        say("The hand passes.")
        if verdict == "true"
        else say("The hand does not pass: widen the hem, or leave an opening of {0u}.", 8.0)
    )
    yield Check(
        "hand.passes",
        "movement",
        "Hand through the hem",
        verdict,
        "signed",
        spare,
        0.0,
        words,
        words.stopped + tail,
        ("sleeve.wrist",),
        "spare",
    )
