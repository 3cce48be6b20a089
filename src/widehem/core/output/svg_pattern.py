"""A pattern as an SVG file in true millimetres, one named group per piece and kind of line."""

from __future__ import annotations

import re
from collections.abc import Sequence
from html import escape

from widehem.core.geometry.paths import Path, svg_d
from widehem.core.geometry.points import Point
from widehem.core.marking.made import Pattern
from widehem.core.output.ink import KINDS, Dot, Ink, Stroke
from widehem.core.output.laid import Layout
from widehem.core.output.sheets import PAPERS, arranged, scale_words
from widehem.core.units import CM_PER_INCH, MM_PER_CM

_LOOK = {
    "cut": 'stroke-width="0.7"',
    "stitch": 'stroke-width="0.35" stroke-dasharray="4 2"',
    "fold": 'stroke-width="0.5" stroke-dasharray="12 3 2 3 2 3"',
    "balance": 'stroke-width="0.25" stroke-dasharray="0.5 1.5"',
    "notch": 'stroke-width="0.5"',
    "drill": 'stroke-width="0.3"',
    "grain": 'stroke-width="0.4"',
    "zone": 'stroke-width="0.3" stroke-dasharray="1 1"',
}
TEST_CM, TEST_IN = 5.0, 2.0
MM_PER_POINT = 25.4 / 72


def pattern_svg(pattern: Pattern, scale: float = 1.0) -> str:
    """The whole pattern, pieces side by side, above them the test squares.

    scale: 1 is full size, 0.5 half. Sizes are in mm on paper.
    """
    layout = arranged(pattern, PAPERS["one"], scale).on_paper(scale, scale_words(scale))
    groups = [(laid.marked.piece.name, "", laid.ink, ()) for laid in layout.pieces]
    return layers_svg(groups, layout, _title(pattern), scale)


def layers_svg(
    groups: Sequence[tuple[str, str, Sequence[Ink], Sequence[float]]], layout: Layout, title: str, scale: float = 1.0
) -> str:
    """Ink in groups with a name, words and the dashes of the cutting lines (points) each, below the test squares."""
    factor = MM_PER_CM * scale
    top = TEST_CM + 2.0
    width, height = max(layout.width, TEST_CM + TEST_IN * CM_PER_INCH + 14), layout.height + top
    rows = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width * factor:.3f}mm" height="{height * factor:.3f}mm" '
        f'viewBox="0 0 {width * factor:.3f} {height * factor:.3f}" fill="none" stroke="#000" stroke-linejoin="round">',
        f"<title>{escape(title)}</title>",
        _test_squares(scale),
        f'<g transform="translate(0 {top * factor:.3f}) scale({factor:g})" id="pieces">',
    ]
    for name, words, ink, dash in groups:
        rows.append(f'<g id="{escape(name)}">' + (f"<title>{escape(words)}</title>" if words else ""))
        for kind in KINDS:
            inside = [_draw(mark) for mark in ink if mark.kind == kind]
            if inside:
                look = (
                    'fill="#000" stroke="none" font-family="sans-serif" text-anchor="middle"'
                    if kind == "words"
                    else _LOOK[kind]
                    + (
                        f' stroke-dasharray="{" ".join(f"{step * MM_PER_POINT:.2f}" for step in dash)}"'
                        if dash and kind == "cut"
                        else ""
                    )
                )
                rows.append(f'<g class="{kind}" {_scaled(look, factor)}>' + "".join(inside) + "</g>")
        rows.append("</g>")
    rows += ["</g>", "</svg>"]
    return "\n".join(rows)


def _title(pattern: Pattern) -> str:
    head = pattern.heading
    return " · ".join(part for part in (head.costume, head.wearer, head.production, pattern.plan.name) if part)


def _scaled(look: str, factor: float) -> str:
    """Widths and dashes are given in mm on paper; inside the scaled group they must be in cm of the body."""

    def shrink(found: re.Match[str]) -> str:
        return f'{found[1]}="{" ".join(f"{float(n) / factor:.5g}" for n in found[2].split())}"'

    return re.sub(r'(stroke-width|stroke-dasharray)="([^"]+)"', shrink, look)


def _draw(mark: Ink) -> str:
    if isinstance(mark, Stroke):
        return f'<path d="{svg_d(mark.paths, closed=mark.closed)}"/>'
    if isinstance(mark, Dot):
        return f'<circle cx="{mark.middle.x:.3f}" cy="{mark.middle.y:.3f}" r="{mark.radius:.3f}"/>'
    weight = ' font-weight="bold"' if mark.strong else ""
    turn = f' transform="rotate({mark.turn:g} {mark.at.x:.3f} {mark.at.y:.3f})"' if mark.turn else ""
    return f'<text x="{mark.at.x:.3f}" y="{mark.at.y:.3f}" font-size="{mark.size:g}"{weight}{turn}>{escape(mark.text)}</text>'


def _test_squares(scale: float) -> str:
    """True 5 cm and 2 inch squares: they stay true at any scale of the drawing."""
    cm, inch = TEST_CM * MM_PER_CM, TEST_IN * CM_PER_INCH * MM_PER_CM
    words = "drawn full size" if scale == 1 else f"drawn 1:{1 / scale:g}"
    square = svg_d([Path.through(Point(0, 0), Point(cm, 0), Point(cm, cm), Point(0, cm))], closed=True)
    inches = svg_d([Path.through(Point(0, 0), Point(inch, 0), Point(inch, inch), Point(0, inch))], closed=True)
    return (
        '<g id="test" stroke-width="0.35" font-family="sans-serif" font-size="4">'
        f'<path id="test-5cm" transform="translate(5 5)" d="{square}"/>'
        f'<path id="test-2in" transform="translate({cm + 12:g} 5)" d="{inches}"/>'
        f'<g fill="#000" stroke="none"><text x="9" y="31">5 cm</text><text x="{cm + 16:g}" y="31">2 in</text>'
        f'<text x="{cm + inch + 20:g}" y="14">{words}</text>'
        f'<text x="{cm + inch + 20:g}" y="21">print at 100 %</text></g></g>'
    )
