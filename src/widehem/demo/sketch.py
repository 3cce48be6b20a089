"""Two pencil sketches in place of pictures of a costume: a back that laces, and a hem over a gangway."""

from __future__ import annotations

import io
from functools import cache


@cache
def sketches() -> list[bytes]:
    """The sketches, as JPEG."""
    return [_laced_back(), _gangway()]


def _laced_back() -> bytes:
    from PIL import Image, ImageDraw  # loaded with the first picture, not at the start

    paper = Image.new("RGB", (900, 1200), "#FBF8F0")
    pencil = ImageDraw.Draw(paper)
    for side in (-1, 1):
        outline = [(450 + side * x, y) for x, y in ((95, 120), (235, 150), (215, 380), (240, 420), (165, 640), (330, 1120))]
        pencil.line(outline, fill="#16223D", width=7, joint="curve")
        pencil.line([(450 + side * 30, 170), (450 + side * 24, 640)], fill="#16223D", width=5)
    for step in range(9):
        y = 190 + step * 50
        pencil.line([(422, y), (478, y + 50)], fill="#BA2C12", width=4)
        pencil.line([(478, y), (422, y + 50)], fill="#BA2C12", width=4)
    pencil.line([(120, 1120), (780, 1120)], fill="#16223D", width=7)
    return _jpeg(paper)


def _gangway() -> bytes:
    from PIL import Image, ImageDraw

    paper = Image.new("RGB", (1200, 800), "#FBF8F0")
    pencil = ImageDraw.Draw(paper)
    pencil.line([(60, 700), (1140, 520)], fill="#16223D", width=9)
    for step in range(9):
        x = 120 + step * 115
        pencil.line([(x, 690 - step * 19), (x, 660 - step * 19)], fill="#16223D", width=6)
    pencil.line([(470, 120), (380, 560), (800, 490), (650, 120)], fill="#16223D", width=7, joint="curve")
    pencil.line([(360, 600), (820, 523)], fill="#BA2C12", width=4)
    return _jpeg(paper)


def _jpeg(paper: object) -> bytes:
    out = io.BytesIO()
    paper.save(out, "JPEG", quality=80)  # type: ignore[attr-defined]
    return out.getvalue()
