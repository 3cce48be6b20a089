"""Checks against the body: girths with their ease, getting in, walking."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.block import OPENING_WORDS, Block, Level
from widehem.core.pattern.check import FINE, Check, Verdict, checker
from widehem.core.pattern.wear import Wear
from widehem.core.units import Saying, say


@checker
def girths(block: Block) -> Iterator[Check]:
    """The finished girth at each level: as planned, and with the least ease the cloth wants."""
    for level in block.levels:
        finished = block.girth(level)
        ease, off = finished - level.body, abs(finished - level.body - level.planned)
        words = say("{0} on {1}", finished, level.body)
        verdict: Verdict
        if off > level.slack + FINE:
            verdict = "not"
            tail = say("Planned was {0s}: the drawing is {1u} out.", level.planned, off)
        else:
            verdict, tail = _room(level, block.wear, finished)
        yield Check(
            f"girth.{level.name}", level.name, f"{level.title} on the body", verdict, "signed", ease, level.slack, words, words.stopped + tail,
            tuple(f"{piece.name}.{level.edge}" for piece in block.pieces) if level.edge else (f"@{level.name}",), "ease",
        )  # fmt: skip


def _room(level: Level, wear: Wear, finished: float) -> tuple[Verdict, Saying]:
    """Whether the garment closes over the body and what is worn underneath, and with the ease its cloth wants."""
    under = wear.under(level.around)
    least = wear.least(level.body, level.least, level.around)
    over = say("What is worn underneath takes {0}.", under) if under else None
    if finished < wear.smallest(level.body, level.around) - level.slack:
        if wear.knit:
            tail = say(
                f"It does not go on: stretched by all of its {wear.stretch:g} per cent it is {{0}}, and {{1u}} must go in.",
                finished * (1 + wear.stretch / 100), level.body + under,
            )  # fmt: skip
        elif under:
            tail = say("It will not close over what is worn underneath: give at least {0u}.", least)
        else:
            tail = say("It has no ease and will not close: give at least {0u}.", least)
        return "not", over + tail if over else tail
    if level.planned < least - FINE:
        if wear.knit:
            tail = say(
                f"{{0s}} planned; a knit that gives {wear.stretch:g} per cent may go down to {{1s}}. Give more, or take one that gives more.",
                level.planned, least,
            )  # fmt: skip
        else:
            tail = say(
                "{0s} planned; woven cloth wants {1u} at least. Give more, or keep it for a stay or a close band.",
                level.planned, least,
            )  # fmt: skip
        return "look", over + tail if over else tail
    return "true", say("Planned {0s}, least {1s}.", level.planned, least) if least < 0 else say(
        "Planned {0s}, least {1u}.", level.planned, least
    )


@checker
def opening(block: Block) -> Iterator[Check]:
    """The body passes the closed part of the garment when it is put on."""
    if block.passes is None or block.opening is None:
        return
    name, body = block.passes
    top = next((level for level in block.levels if level.edge), None)
    if top is None:
        return
    where = OPENING_WORDS[block.opening.at]
    waist = block.girth(top)
    if waist >= body:
        girth, brief = waist, say("the waist passes the hips")
        verdict: Verdict = "true"
        tail = say("Waist {0} passes hip {1u}: no opening is needed.", waist, body)
    else:
        down = block.opening.length if block.opening.at != "none" else 0.0
        girth = block.girth_below(top.name, down) if down else waist
        verdict = "true" if girth >= body - FINE else "not"
        brief = say(f"{{0}} {where}, passes {{1}}", down, girth) if down else say("none, passes {0}", girth)
        if verdict == "true":
            tail = say(f"Open {{0}} down the {where}, {{1}} passes {name} {{2u}}.", down, girth, body)
        else:
            tail = say(
                f"{name.capitalize()} {{0}} does not pass {{1u}}: open it further down, or at the {'side' if down == 0 else where}.",
                body,
                girth,
            )
    names = ("side",) if block.opening.at in ("side", "none") else (block.opening.at, "crotch")
    edges = tuple(f"{piece.name}.{edge.name}" for piece in block.pieces for edge in piece.edges if edge.name in names)
    yield Check(
        "opening",
        "movement",
        "Opening for the hips",
        verdict,
        "signed",
        girth - body,
        0.0,
        brief,
        tail,
        edges,
        "spare",
    )


@checker
def stride(block: Block) -> Iterator[Check]:
    """The hem lets the wearer walk."""
    hems = [(piece, edge) for piece in block.pieces for edge in piece.edges if edge.kind == "hem"]
    if block.stride is None or not hems:
        return
    girth = 2 * sum(edge.length for _, edge in hems)
    spare = girth - block.stride
    verdict: Verdict = "true" if spare >= 0 else "look"
    tail = say("A stride at this length wants {0}, the hem has {1u}.", block.stride, girth)
    if spare < 0:
        tail += say("Leave a vent or a slit, or flare the sides.")
    brief = say("wants {0}", block.stride) if spare >= 0 else say("wants {0} or a vent", block.stride)
    yield Check(
        "stride",
        "movement",
        "Stride at the hem",
        verdict,
        "signed",
        spare,
        0.0,
        brief,
        tail,
        tuple(f"{p.name}.{e.name}" for p, e in hems),
        "",
    )
