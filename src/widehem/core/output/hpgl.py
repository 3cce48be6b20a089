"""A pattern as a plot file in HP-GL/2: a pen for each kind of line, the roll unwinding along x."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence

from widehem.core.geometry.points import Point
from widehem.core.marking.made import Pattern
from widehem.core.output.ink import Dot, Ink, Stroke, Words
from widehem.core.output.laid import Layout
from widehem.core.output.refused import CannotWriteError
from widehem.core.output.sheets import TEST_CM, Paper, arranged, scale_words
from widehem.core.output.titles import title_of
from widehem.core.values import record

PER_CM = 400.0  # units of the plotter: 0.025 mm
PENS: Mapping[str, int] = {
    "cut": 1, "stitch": 2, "fold": 2, "notch": 1, "drill": 1, "grain": 3, "balance": 3, "zone": 3, "words": 4,
}  # fmt: skip
DASHED = ("stitch", "fold", "balance", "zone")
FLAT = 0.003  # cm: how far a curve that is drawn in straights may stand off
HEAD, EDGE = 8.0, 1.0  # cm of the roll before the pieces, for the test square and the title; round the work
ETX = "\x03"
ROUND = 36  # straights of a circle


@record(frozen=True)
class Plot:
    """A plot file and the length of roll it takes, cm."""

    data: bytes
    length: float


def pattern_plot(pattern: Pattern, paper: Paper, scale: float = 1.0) -> Plot:
    """The pieces arranged on a roll of this paper. What comes out stretched on it is drawn as much smaller. Raises CannotWriteError
    where a piece is wider than the roll."""
    layout = arranged(pattern, paper, scale).on_paper(scale, scale_words(scale))
    if layout.width * scale > paper.tile[0] + 1e-6:
        widest = max(pattern.pieces, key=lambda m: min(m.bounds[2] - m.bounds[0], m.bounds[3] - m.bounds[1]))
        left, top, right, bottom = widest.bounds
        side, show = min(right - left, bottom - top) * scale, pattern.show
        raise CannotWriteError(
            f"The {widest.piece.title.lower()} is {show.full(side)} wide, too wide for a roll of {show.full(paper.width)}: choose a wider one, or "
            "a smaller scale."
        )
    length = layout.height * scale + HEAD + EDGE
    rows = [
        "IN;", f"PS{plot_unit(length / paper.stretch[1])},{plot_unit(max(paper.width, layout.width * scale + 2 * EDGE))};", "PA;", "SP1;",
        *_test(pattern, paper, scale), *_work(layout, paper, scale), "PU;", "SP0;", "PG;",
    ]  # fmt: skip
    return Plot("\n".join(rows).encode("ascii", "replace"), length)


def plot_unit(cm: float) -> int:
    """A length in the units of the plotter."""
    return round(cm * PER_CM)


def _place(spot: Point, paper: Paper) -> str:
    """A spot of the paper, x across it and y along the roll, cm, as the plotter takes it."""
    wide, high = paper.stretch
    return f"{plot_unit((spot[1] + EDGE) / high)},{plot_unit((spot[0] + EDGE) / wide)}"


def plot_line(points: Sequence[Point], paper: Paper) -> str:
    """A line over spots of the paper, x across it and y along the roll, cm."""
    first, *rest = (_place(point, paper) for point in points)
    return f"PU{first};PD{','.join(rest)};"


def _test(pattern: Pattern, paper: Paper, scale: float) -> Iterator[str]:
    side = TEST_CM
    yield plot_line([Point(0, 0), Point(side, 0), Point(side, side), Point(0, side), Point(0, 0)], paper)
    yield f"SP{PENS['words']};"
    for row, text in enumerate((title_of(pattern), scale_words(scale), "the square has to be 5 cm on every side")):
        yield plot_words(Words(text, Point(side + 1 + 0.25 * len(text), 1.2 + row * 1.2), 0.5), paper)


def _work(layout: Layout, paper: Paper, scale: float) -> Iterator[str]:
    """All ink, pen by pen, so that each is taken up once."""
    ink = [mark for laid in layout.pieces for mark in laid.ink]
    for kind, pen in sorted(PENS.items(), key=lambda entry: entry[1]):
        mine = [mark for mark in ink if mark.kind == kind]
        if mine:
            yield f"SP{pen};"
            yield "LT2,3;" if kind in DASHED else "LT;"
            yield from _marks(mine, paper, scale)


def _marks(ink: Iterable[Ink], paper: Paper, scale: float) -> Iterator[str]:
    for mark in ink:
        if isinstance(mark, Stroke):
            points = [p for n, path in enumerate(mark.paths) for p in path.flat(FLAT)[1 if n else 0 :]]
            yield plot_line([_on_paper(p, scale) for p in points], paper)
        elif isinstance(mark, Dot):
            at, radius = mark.middle, mark.radius
            ring = [at + Point(math.cos(a), math.sin(a)) * radius for n in range(ROUND + 1) for a in (2 * math.pi * n / ROUND,)]
            yield plot_line([_on_paper(p, scale) for p in ring], paper)
        else:
            yield plot_words(Words(mark.text, _on_paper(mark.at, scale), mark.size * scale, mark.turn), paper)


def _on_paper(spot: Point, scale: float) -> Point:
    return Point(spot[0] * scale, spot[1] * scale + HEAD)


def plot_words(words: Words, paper: Paper) -> str:
    """A line of words about its middle. The roll lies on its side, so what reads across it is written upwards."""
    angle = math.radians(90 - words.turn)
    turned = f"PU{_place(words.at, paper)};DI{math.cos(angle):.4f},{math.sin(angle):.4f};"
    return f"{turned}\nSI{words.size * 0.6:.3f},{words.size * 0.72:.3f};LO4;LB{_plain(words.text)}{ETX}"


def _plain(text: str) -> str:
    """Words in the signs a plotter has."""
    return text.translate({ord(sign): other for sign, other in SIGNS.items()}).encode("ascii", "replace").decode()


SIGNS = {"·": "-", "−": "-", "×": "x", "½": "1/2", "¼": "1/4", "¾": "3/4", "“": '"', "”": '"', "’": "'"}
