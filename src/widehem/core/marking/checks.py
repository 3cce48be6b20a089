"""What must agree on a marked pattern before it is printed."""

from __future__ import annotations

from widehem.core.marking.made import Pattern
from widehem.core.marking.marks import HEM_FOLD
from widehem.core.pattern.block import Block
from widehem.core.pattern.check import SEAM_TRUE, Check
from widehem.core.units import say


def check_pattern(block: Block, pattern: Pattern) -> tuple[Check, ...]:
    """Allowances agreed on both sides of each seam; notches in pairs at equal distances; words clear of the lines."""
    return _allowances(block, pattern), _notches(block, pattern), _labels(pattern)


def _allowances(block: Block, pattern: Pattern) -> Check:
    amounts = {f"{m.piece.name}.{name}": amount for m in pattern.pieces for name, amount in m.amounts.items()}
    apart = [
        (abs(amounts[f"{a.piece}.{a.edge}"] - amounts[f"{b.piece}.{b.edge}"]), seam.title)
        for seam in block.seams
        for a in seam.first
        for b in seam.second
    ]
    bad = [title for off, title in apart if off > 1e-6]
    count = sum(1 for amount in amounts.values() if amount > 0)
    words = (
        f"{bad[0]}: the two sides have different allowances, give both the same."
        if bad
        else "Both sides of every seam have the same."
    )
    brief = say("both sides the same" if not bad else bad[0].lower())
    return Check(
        "allowances", "paper", "Allowances", "not" if bad else "true", "count", count, count, brief, say(words), (), "edges"
    )


def _notches(block: Block, pattern: Pattern) -> Check:
    along = {(m.piece.name, n.edge, n.what): n.along for m in pattern.pieces for n in m.notches}
    pieces = {m.piece.name: m.piece for m in pattern.pieces}
    pairs, apart, alone = 0, 0.0, 0
    for seam in block.seams:
        if len(seam.first) != 1 or len(seam.second) != 1:
            continue  # a chain of edges: its notches mark where they meet
        for a, b in zip(seam.first, seam.second, strict=True):
            whole = pieces[a.piece].edge(a.edge).length, pieces[b.piece].edge(b.edge).length
            for (piece, edge, what), distance in along.items():
                if (piece, edge) != (a.piece, a.edge) or (what == HEM_FOLD and (b.piece, b.edge, what) not in along):
                    continue  # where the other side runs up from its hem the fold shows by itself
                other = along.get((b.piece, b.edge, what))
                if other is None:
                    alone += 1
                else:
                    if seam.against:
                        other = whole[1] - other
                    off = abs(distance - other)
                    if any(seam.ease):  # walked from the end where nothing is eased
                        off = min(off, abs(whole[0] - distance - whole[1] + other))
                    pairs, apart = pairs + 1, max(apart, off)
    good = not alone and apart <= SEAM_TRUE
    words = say("Each meets its partner.") if good else say("{0u} apart at the widest: walk the seam and move one.", apart)
    return Check("notches", "paper", "Notches in pairs", "true" if good else "not", "count", pairs, pairs + alone, say("each meets its partner" if good else "look along the seam"), words, (), f"of {pairs + alone}")  # fmt: skip


def _labels(pattern: Pattern) -> Check:
    short = [m.piece.title for m in pattern.pieces if len(m.label.lines) <= 2]
    count = len(pattern.pieces)
    words = f"{', '.join(short)}: only a short label fits." if short else "Every label is whole and touches no line."
    return Check("labels", "paper", "Labels", "look" if short else "true", "count", count - len(short), count, say("whole, off the lines" if not short else "one is short"), say(words), (), f"of {count}")  # fmt: skip
