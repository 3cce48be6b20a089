"""Checks along seams: equal lengths, meeting notches."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.block import Block
from widehem.core.pattern.check import SEAM_LOOK, SEAM_TRUE, Check, checker, verdict_on
from widehem.core.units import say


@checker
def seams(block: Block) -> Iterator[Check]:
    """Chains of edges that are sewn together are equally long, or differ by the ease stated."""
    for seam in block.seams:
        a, b = block.length_of(seam.first), block.length_of(seam.second)
        low, high = seam.ease
        out = max(low - (a - b), (a - b) - high, 0.0)
        verdict = verdict_on(out, SEAM_TRUE, SEAM_LOOK)
        names = [ref.piece.replace("_", " ") for ref in (seam.first[0], seam.second[0])]
        words = say(f"{{0}} {names[0]}, {{1}} {names[1]}", a, b)
        tail = say(
            "They sew together."
            if verdict == "true"
            else f"{{0u}} apart: true the longer {seam.title.lower()} down to the shorter.",
            out,
        )
        yield Check(
            f"seam.{seam.name}", "seams", seam.title, verdict, "length", abs(a - b), SEAM_TRUE, words, words.stopped + tail,
            tuple(f"{ref.piece}.{ref.edge}" for ref in (*seam.first, *seam.second)), "apart",
        )  # fmt: skip


@checker
def balance(block: Block) -> Iterator[Check]:
    """Balance lines meet when the seam is walked from its top."""
    for seam in block.seams:
        if len(seam.first) != 1 or len(seam.second) != 1 or seam.first[0].piece == seam.second[0].piece:
            continue
        pieces = [block.piece(seam.first[0].piece), block.piece(seam.second[0].piece)]
        turned = {level for piece in pieces for level in piece.spans}  # a dart crosses it: it meets at the underarm, not across
        for level in sorted((set(pieces[0].levels) & set(pieces[1].levels)) - turned - {"waist"}):
            walked = [
                p.edge(ref.edge).at_level(p.levels[level])
                for p, ref in zip(pieces, (seam.first[0], seam.second[0]), strict=True)
            ]
            if walked[0] is None or walked[1] is None:
                continue
            rest = [
                p.edge(ref.edge).length - (w or 0.0)
                for p, ref, w in zip(pieces, (seam.first[0], seam.second[0]), walked, strict=True)
            ]
            eased = any(seam.ease)  # then it may be walked from either end
            apart = min(abs(walked[0] - walked[1]), abs(rest[0] - rest[1])) if eased else abs(walked[0] - walked[1])
            words = say(f"{{0}} {pieces[0].name}, {{1}} {pieces[1].name}", *(w or 0.0 for w in walked))
            tail = "The notches meet." if apart <= SEAM_TRUE else "The notches do not meet: move the side point of one piece."
            yield Check(
                f"balance.{level}", "seams", f"{level.capitalize()} notches", verdict_on(apart, SEAM_TRUE, 0.4), "length", apart, SEAM_TRUE,
                words, words.stopped + say(tail), tuple(f"{p.name}.{seam.first[0].edge}" for p in pieces), "apart",
            )  # fmt: skip
