"""What must agree on a marked pattern before it is printed."""

from __future__ import annotations

from widehem.core.marking.made import Pattern
from widehem.core.marking.marks import DART_LEGS, HEM_FOLD
from widehem.core.pattern.check import Check
from widehem.core.pattern.garment import Garment, Seam
from widehem.core.pattern.limits import USUAL_LIMITS, Limits
from widehem.core.pattern.meeting import apart_along
from widehem.core.units import say


def check_pattern(garment: Garment, pattern: Pattern, limits: Limits = USUAL_LIMITS) -> tuple[Check, ...]:
    """Allowances agreed on both sides of each seam; notches in pairs at equal distances; words clear of the lines."""
    notches = _notches(garment, pattern, limits)
    return (_allowances(garment, pattern), *((notches,) if notches is not None else ()), _labels(pattern))


def _allowances(garment: Garment, pattern: Pattern) -> Check:
    amounts = {f"{m.piece.name}.{name}": amount for m in pattern.pieces for name, amount in m.amounts.items()}
    apart = [
        (abs(amounts[str(a)] - amounts[str(b)]), seam.title, (str(a), str(b)))
        for seam in garment.seams
        for a in seam.first
        for b in seam.second
    ]
    worst, title, spots = max(apart, key=lambda entry: entry[0], default=(0.0, "", ()))
    words = (
        say(f"{title}: the two sides have allowances {{0u}} apart, give both the same.", worst)
        if worst > 1e-6
        else say("Both sides of every seam have the same.")
    )
    brief = say("both sides the same" if worst <= 1e-6 else title.lower())
    return Check("allowances", "paper", "Allowances", "length", worst, None, 0.0, 0.0, brief, words, spots, "apart")


def _notches(garment: Garment, pattern: Pattern, limits: Limits) -> Check | None:
    """None where no seam of two edges has a notch: there is nothing to judge."""
    found = [_along(pattern, seam) for seam in garment.seams if len(seam.first) == len(seam.second) == 1 and not seam.twin]
    if not any(count for _, _, count in found):
        return None
    apart = max(worst for worst, _, _ in found)
    alone = sum(alone for _, alone, _ in found)
    if alone:
        words, brief = (
            say(f"{alone} {'notch has' if alone == 1 else 'notches have'} no partner on the other side."),
            "look along the seam",
        )
        return Check("notches", "paper", "Notches in pairs", "count", alone, None, 0, 0.0, say(brief), words, (), "alone")
    good = apart <= limits.seam + 1e-6
    words = say("Each meets its partner.") if good else say("{0u} apart at the widest: walk the seam and move one.", apart)
    brief = "each meets its partner" if good else "look along the seam"
    return Check(
        "notches", "paper", "Notches in pairs", "length", apart, None, limits.seam, 0.0, say(brief), words, (), "apart"
    )


def _along(pattern: Pattern, seam: Seam) -> tuple[float, int, int]:
    """How far the notches of a seam of two edges lie apart at most, how many are alone, and how many were looked at."""
    a, b = seam.first[0], seam.second[0]
    pieces = {m.piece.name: m.piece for m in pattern.pieces}
    whole = pieces[a.piece].edge(a.edge).length, pieces[b.piece].edge(b.edge).length
    sides: list[dict[str, float]] = []
    for entry, length in ((a, whole[0]), (b, whole[1])):
        on = {n.what: n.along for m in pattern.pieces for n in m.notches if (n.piece, n.edge) == (entry.piece, entry.edge)}
        sides.append({what: length - along if entry.back else along for what, along in on.items()})
    worst, alone = 0.0, 0
    looked_at = {*sides[0], *sides[1]}
    for what in looked_at:
        if not (what in sides[0] and what in sides[1]):
            # where the other side runs up from its hem the fold shows by itself;
            # a level near the end of one side is its end on the other
            alone += what != HEM_FOLD and not what.endswith(("level", *DART_LEGS))
            continue
        one, two = sides[0][what], sides[1][what]
        off = abs(one - two)
        if seam.eased:  # walked from the end where nothing is eased
            off = apart_along(one, two, whole, eased=True)
        worst = max(worst, off)
    return worst, alone, len(looked_at)


def _labels(pattern: Pattern) -> Check:
    short = [m.piece.title for m in pattern.pieces if not m.written.whole]
    words = f"{', '.join(short)}: only a short label fits." if short else "Every label is whole and touches no line."
    brief = say("whole, off the lines" if not short else "only a short one fits")
    return Check("labels", "paper", "Labels", "count", len(short), None, 0, float("inf"), brief, say(words), (), "short")
