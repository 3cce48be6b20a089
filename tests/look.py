"""Contact sheets of every method and every design that ships on the eight bodies, closed (`make look`): the pieces, every seam joined at both of its ends,
every edge with its darts shut, and the checks that are not true. For looking at; it proves nothing."""

from __future__ import annotations

import argparse
import html
import tempfile
from collections.abc import Iterator
from pathlib import Path as File

from playwright.sync_api import Browser, sync_playwright

import widehem.core.drafting.methods  # noqa: F401 - registers them
from tests.bodies import UPPER, drafted, upper_build
from tests.browser.case import CHROMIUM
from widehem.core.body.chart import Chart
from widehem.core.design.files import Named
from widehem.core.design.make import Made, make
from widehem.core.design.sensitivity import looked_at
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS, Method, armhole_of
from widehem.core.geometry.paths import Path, svg_d
from widehem.core.geometry.points import Point
from widehem.core.pattern.garment import Garment, Seam
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import runs_of, shut
from widehem.core.pattern.walk import walk
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.set_in import set_in

NEAR = 8.0  # cm round the end of a seam
INKS = ("#1d2b4f", "#b3311f")
STYLE = """
body { font: 12px sans-serif; margin: 8px; background: #fff; color: #1d2b4f } h1 { font-size: 18px; margin: 4px 0 }
.row { display: flex; gap: 6px; border-top: 1px solid #999; padding: 4px 0 } .name { width: 90px; font-weight: bold }
.closed { display: flex; flex-wrap: wrap; gap: 4px; width: 1020px } figure { margin: 0 } figcaption { font-size: 9px }
ul { margin: 0; padding-left: 14px; width: 230px; color: #b3311f; font-size: 10px } svg { background: #f6f1e4 }
path { fill: none; stroke-width: 1.4; vector-effect: non-scaling-stroke } .cloth { fill: #1d2b4f14 }
"""


def path(paths: tuple[Path, ...] | list[Path], ink: str, *, closed: bool = True) -> str:
    return f'<path d="{svg_d(paths, closed=closed)}" stroke="{ink}" class="{"cloth" if closed else ""}"/>'


def framed(marks: str, box: tuple[float, float, float, float], size: tuple[int, int], words: str) -> str:
    left, top, wide, high = box
    return (
        f'<figure><svg width="{size[0]}" height="{size[1]}" viewBox="{left:.2f} {top:.2f} {wide:.2f} {high:.2f}">{marks}</svg>'
        f"<figcaption>{html.escape(words)}</figcaption></figure>"
    )


def whole(made: Made) -> str:
    """The pieces as they lie, levels and inner darts with them."""
    boxes = [piece.bounds for piece in made.laid]
    left, top = min(b[0] for b in boxes) - 1, min(b[1] for b in boxes) - 1
    wide, high = max(b[2] for b in boxes) + 1 - left, max(b[3] for b in boxes) + 1 - top
    marks = []
    for piece in made.laid:
        marks.append(path(piece.ring, INKS[0]))
        marks += [path([inner], "#777", closed=False) for inner in piece.inside]
        marks += [path([Path.through(gap.inner, gap.point, gap.outer)], "#777", closed=False) for gap in piece.darts]
        marks += [path([Path.through(*line)], "#bbb", closed=False) for v in piece.levels for line in piece.stretches(v)]
    return framed("".join(marks), (left, top, wide, high), (300, 230), "as drawn")


def joined(garment: Garment, seam: Seam) -> Iterator[str]:
    """A seam at its start and at its end, the second piece laid on the first."""
    for share, words in ((0.0, "start"), (1.0, "end")):
        laid = walk(garment, seam, share)
        at = laid.at
        other: Piece = laid.second.moved(laid.onto)
        marks = path(laid.first.ring, INKS[0]) + path(other.ring, INKS[1])
        box = (at.x - NEAR, at.y - NEAR, 2 * NEAR, 2 * NEAR)
        yield framed(marks, box, (118, 118), f"{seam.title}, {words}")


def darts_shut(piece: Piece) -> Iterator[str]:
    """Each edge that has darts, with them shut."""
    for edge in piece.edges:
        if edge.darts:
            runs, _ = shut(runs_of(edge))
            line = Path(tuple(segment for run in runs for segment in run.path.segments))
            spots = line.flat(0.2)
            left, top = min(p.x for p in spots) - 1, min(p.y for p in spots) - 1
            wide, high = max(p.x for p in spots) + 1 - left, max(p.y for p in spots) + 1 - top
            ends = [run.path.start for run in runs[1:]]
            marks = path([line], INKS[0], closed=False) + "".join(_dot(end) for end in ends)
            yield framed(marks, (left, top, wide, high), (150, 118), f"{piece.name} {edge.name}, shut")


def folded(piece: Piece) -> Iterator[str]:
    """What turns over a line, as it lies once it is turned: a lapel on its front."""
    for line in piece.lines:
        if line.folded is not None:
            spots = [*line.folded.flat(0.2), *(edge.start for edge in piece.edges_of("neck", "shoulder", "armhole"))]
            left, top = min(p.x for p in spots) - 1, min(p.y for p in spots) - 1
            wide, high = max(p.x for p in spots) + 1 - left, max(p.y for p in spots) + 3 - top
            marks = path(piece.ring, INKS[0]) + path([line.folded], INKS[1]) + path([line.path], "#777", closed=False)
            yield framed(marks, (left, top, wide, high), (150, 180), f"{piece.name}, folded along the {line.title.lower()}")


def _dot(at: Point) -> str:
    return f'<circle cx="{at.x:.2f}" cy="{at.y:.2f}" r="0.3" fill="{INKS[1]}"/>'


def closed(made: Made, bodice: Garment | None) -> list[str]:
    """Everything that only shows when the garment is closed."""
    garment = made.garment if bodice is None else set_in(bodice, made.garment) or made.garment
    names = {piece.name for piece in made.garment.pieces}
    seams = [*made.garment.seams, *(s for s in garment.seams if {e.piece for e in (*s.first, *s.second)} & names)]
    found = [figure for seam in dict.fromkeys(seams) if not seam.faced for figure in joined(garment, seam)]
    found += [figure for piece in made.garment.shell for figure in darts_shut(piece)]
    return found + [figure for piece in made.garment.shell for figure in folded(piece)]


def row(method: Method, build: str, chart: Chart) -> str:
    try:
        bodice = drafted(METHODS[method.made_for], chart).garment if method.for_armhole else None
        made = drafted(method, chart, armhole=armhole_of(bodice) if bodice else None)
    except CannotDraft as refusal:
        return f'<div class="row"><div class="name">{build}</div>refused: {html.escape(refusal.saying.text())}</div>'
    return row_of(made, bodice, build)


def row_of(made: Made, bodice: Garment | None, build: str) -> str:
    untrue = [check for check in made.checks if check.verdict != "true"]
    items = "".join(f"<li>{html.escape(entry.saying.text())}</li>" for entry in made.refused) + "".join(
        f"<li>{check.name} ({check.verdict}): {html.escape(check.message.text())}</li>" for check in untrue
    )
    pictures = "".join(closed(made, bodice))
    return f'<div class="row"><div class="name">{build}</div>{whole(made)}<div class="closed">{pictures}</div><ul>{items}</ul></div>'


def design_row(named: Named, build: str) -> str:
    try:
        made = make(named.design, looked_at(named.design, upper_build(build)))
    except CannotDraft as refusal:
        return f'<div class="row"><div class="name">{build}</div>refused: {html.escape(refusal.saying.text())}</div>'
    return row_of(made, None, build)


def sheet(browser: Browser, name: str, rows: str, out: File) -> File:
    """One picture of a method or a design on all bodies."""
    page = browser.new_page(viewport={"width": 1700, "height": 900})
    page.set_content(f"<style>{STYLE}</style><h1>{name}</h1>{rows}")
    page.screenshot(path=str(out), full_page=True)
    page.close()
    return out


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("codes", nargs="*", help="of methods and of designs; all of them without any")
    parser.add_argument("--to", type=File, default=File(tempfile.gettempdir()) / "widehem-look", help="folder for the pictures")
    given = parser.parse_args()
    given.to.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox"])
        for code in given.codes or [*METHODS, *shipped()]:
            if code in METHODS:
                name = f"{METHODS[code].name} ({code})"
                rows = "".join(row(METHODS[code], build, upper_build(build)) for build in UPPER)
            else:
                name, rows = shipped()[code].name, "".join(design_row(shipped()[code], build) for build in UPPER)
            print(sheet(browser, name, rows, given.to / f"{code}.png"))
        browser.close()


if __name__ == "__main__":
    main()
