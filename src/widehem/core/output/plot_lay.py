"""A lay as a plot file in true size: what is laid on the cloth and cut through."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.geometry.points import Point
from widehem.core.making.lay.placed import Lay
from widehem.core.output.hpgl import EDGE, HEAD, PENS, Plot, plot_line, plot_unit, plot_words
from widehem.core.output.ink import Words
from widehem.core.output.sheets import TEST_CM, Paper

LETTERS = 0.9  # cm


def lay_plot(title: str, lay: Lay, paper: Paper) -> Plot:
    """The cutting lines of a lay on a roll as wide as the cloth, its pieces with their names."""
    table = lay.table
    whole, low = table.width / table.layers, 0.0 if table.folded else table.selvedge
    length = lay.length + HEAD + EDGE
    rows = [
        "IN;", f"PS{plot_unit(length / paper.stretch[1])},{plot_unit(whole + 2 * EDGE)};", "PA;", f"SP{PENS['cut']};",
        *_test(title, paper), *_edges(lay, whole, paper), *_pieces(lay, low, paper), "PU;", "SP0;", "PG;",
    ]  # fmt: skip
    return Plot("\n".join(rows).encode("ascii", "replace"), length)


def _test(title: str, paper: Paper) -> Iterator[str]:
    side = TEST_CM
    yield plot_line([Point(0, 0), Point(side, 0), Point(side, side), Point(0, side), Point(0, 0)], paper)
    for row, text in enumerate((title, "the square has to be 5 cm on every side")):
        yield plot_words(Words(text, Point(side + 1 + 0.25 * len(text), 1.2 + row * 1.2), 0.5), paper)


def _edges(lay: Lay, whole: float, paper: Paper) -> Iterator[str]:
    end = HEAD + lay.length
    yield plot_line([Point(0, HEAD), Point(whole, HEAD), Point(whole, end), Point(0, end), Point(0, HEAD)], paper)


def _pieces(lay: Lay, low: float, paper: Paper) -> Iterator[str]:
    for ring in lay.rings.values():
        spots = [Point(y + low, x + HEAD) for x, y in (*ring, ring[0])]
        yield plot_line(spots, paper)
    yield f"SP{PENS['words']};"
    for put in lay.placed:
        shape, spot = lay.by_id[put.id], lay.polygons[put.id].representative_point()
        words = f"{shape.title}{f' - {shape.of}' if shape.of else ''}"
        yield plot_words(Words(words, Point(spot.y + low, spot.x + HEAD), LETTERS), paper)
