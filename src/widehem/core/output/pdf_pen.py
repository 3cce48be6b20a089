"""Drawing ink onto a PDF canvas, and the fonts every PDF carries."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import cache
from pathlib import Path as File
from typing import Any

from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.output.ink import Dot, Ink, Stroke, Words

POINTS_PER_CM = 72 / 2.54
PLAIN, STRONG, FIGURES = "WideHem", "WideHem-Strong", "WideHem-Figures"
_FONTS = {PLAIN: "HankenGrotesk-Regular.ttf", STRONG: "HankenGrotesk-Bold.ttf", FIGURES: "SplineSansMono-Regular.ttf"}

DASHED = 0.55  # of the width of a cutting line, where sizes lie over each other and are told apart by dashes

# width in points, dashes in points
LINES: dict[str, tuple[float, tuple[float, ...]]] = {
    "cut": (2.0, ()),
    "stitch": (1.0, (7, 4)),
    "fold": (1.2, (18, 4, 3, 4, 3, 4)),
    "balance": (0.6, (0.8, 3)),
    "notch": (1.4, ()),
    "drill": (0.8, ()),
    "grain": (1.0, ()),
    "zone": (0.7, (2, 2)),
    "thin": (0.4, ()),
    "frame": (0.5, (2, 2)),
}

Place = Callable[[Point], tuple[float, float]]


@cache
def load_fonts() -> None:
    """Register the fonts once; a fourth name lets paragraphs find the strong cut."""
    folder = File(__file__).parent / "fonts"
    for name, file in _FONTS.items():
        pdfmetrics.registerFont(TTFont(name, str(folder / file)))
    pdfmetrics.registerFontFamily(PLAIN, normal=PLAIN, bold=STRONG, italic=PLAIN, boldItalic=STRONG)


def on_paper(scale: float = 1.0) -> Place:
    """From cm, y down, to points, y up, about the upper left corner."""
    factor = POINTS_PER_CM * scale

    def place(point: Point) -> tuple[float, float]:
        return point[0] * factor, -point[1] * factor

    return place


class _CanvasPen:
    """A pen that builds a canvas path."""

    def __init__(self, path: Any, place: Place) -> None:
        self.path, self.place = path, place

    def moveTo(self, point: Point) -> None:  # noqa: N802 - the pen protocol
        self.path.moveTo(*self.place(point))

    def lineTo(self, point: Point) -> None:  # noqa: N802
        self.path.lineTo(*self.place(point))

    def curveTo(self, out: Point, into: Point, end: Point) -> None:  # noqa: N802
        self.path.curveTo(*self.place(out), *self.place(into), *self.place(end))


def stroke(
    canvas: Canvas, paths: Sequence[Path], kind: str, place: Place, *, closed: bool = False, fill: bool = False, dashed: Sequence[float] = (), fine: float = 1.0,
) -> None:  # fmt: skip
    """Draw paths joined one after another with the look of this kind of line. dashed: in place of its own dashes, points; fine: its
    width and its dashes, of what they are."""
    width, dash = LINES[kind]
    width, dash = width * fine, tuple(part * fine for part in dashed) or dash
    canvas.setLineWidth(width)
    canvas.setDash(list(dash), 0) if dash else canvas.setDash()
    shape = canvas.beginPath()
    pen = _CanvasPen(shape, place)
    for i, path in enumerate(paths):
        if i:
            pen.lineTo(path.start)
        path.draw(pen, move=i == 0)
    if closed:
        shape.close()
    canvas.drawPath(shape, stroke=1, fill=1 if fill else 0)


def draw_ink(canvas: Canvas, ink: Sequence[Ink], scale: float = 1.0, cut: Sequence[float] = ()) -> None:
    """All the ink about the upper left corner of the work. cut: the dashes of its cutting lines, points."""
    place = on_paper(scale)
    fine = DASHED * max(scale, 0.5) if cut else 1.0
    for mark in ink:
        if isinstance(mark, Stroke):
            dashed = cut if mark.kind == "cut" else ()
            stroke(canvas, mark.paths, mark.kind, place, closed=mark.closed, dashed=dashed, fine=fine)
        elif isinstance(mark, Dot):
            width, _ = LINES[mark.kind]
            canvas.setLineWidth(width)
            canvas.setDash()
            canvas.circle(*place(mark.middle), mark.radius * POINTS_PER_CM * scale, stroke=1, fill=0)
        else:
            write(canvas, mark, scale)


def write(canvas: Canvas, words: Words, scale: float = 1.0) -> None:
    """A line of words about its middle."""
    x, y = on_paper(scale)(words.at)
    canvas.saveState()
    canvas.setFont(STRONG if words.strong else PLAIN, words.size * POINTS_PER_CM * scale)
    canvas.translate(x, y)
    canvas.rotate(-words.turn)
    canvas.drawCentredString(0, 0, words.text)
    canvas.restoreState()
