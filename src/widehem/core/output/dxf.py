"""A pattern as a DXF drawing: a block for each piece, a layer for each kind of line, millimetres, curves as curves."""

from __future__ import annotations

import io
import re
from collections.abc import Mapping, Sequence
from typing import Any

from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.marking.labels import Heading
from widehem.core.marking.made import Pattern
from widehem.core.output.ink import Dot, Ink, Stroke
from widehem.core.output.laid import Laid
from widehem.core.output.sheets import PAPERS, TEST_CM, TEST_IN, arranged, scale_words
from widehem.core.units import CM_PER_INCH, MM_PER_CM

# layers by number, as apparel patterns are exchanged; with the kind of line that goes on each, and its colour by index
LAYERS: Mapping[str, tuple[str, int]] = {
    "cut": ("1", 7), "notch": ("4", 1), "fold": ("6", 5), "grain": ("7", 3), "balance": ("8", 8), "zone": ("8", 8), "drill": ("13", 1),
    "stitch": ("14", 5), "words": ("15", 7),
}  # fmt: skip
LAYER_WORDS = {
    "1": "cutting line", "4": "notches", "6": "fold", "7": "grain", "8": "inner lines", "13": "drill holes", "14": "stitching lines",
    "15": "words", "test": "test squares",
}  # fmt: skip
TEST = "test"


def pattern_dxf(pattern: Pattern, scale: float = 1.0) -> bytes:
    """The whole pattern, its pieces arranged, in mm; y upwards. scale: 1 is full size."""
    layout = arranged(pattern, PAPERS["one"], scale).on_paper(scale, scale_words(scale))
    drawing = new_drawing()
    model = drawing.modelspace()
    for laid in layout.pieces:
        name = add_block(drawing, laid, scale)
        left, _, _, bottom = laid.marked.bounds
        model.add_blockref(name, (left * MM_PER_CM * scale, -bottom * MM_PER_CM * scale))
    _test_squares(model)
    head = pattern.heading
    words = " - ".join(part for part in (head.costume, head.wearer, head.production, scale_words(scale), "units: mm") if part)
    model.add_text(words, height=8, dxfattribs={"layer": "15"}).set_placement((0, TEST_CM * MM_PER_CM + 30))
    return written(drawing)


def blocks_dxf(blocks: Sequence[tuple[str, Laid]], scale: float, head: Heading) -> bytes:
    """Pieces of several sizes where they lie, each as a block with layers of its size, in mm; y upwards."""
    drawing = new_drawing()
    model = drawing.modelspace()
    for size in dict.fromkeys(size for size, _ in blocks):
        for layer, color in dict.fromkeys(LAYERS.values()):
            drawing.layers.add(f"{layer}_{_safe(size)}", color=color).description = f"{LAYER_WORDS[layer]}, size {size}"
    for size, laid in blocks:
        name = add_block(drawing, laid, scale, of=_safe(size))
        left, _, _, bottom = laid.marked.bounds
        model.add_blockref(name, (left * MM_PER_CM * scale, -bottom * MM_PER_CM * scale))
    _test_squares(model)
    words = " - ".join(part for part in (head.costume, head.version, scale_words(scale), "units: mm") if part)
    model.add_text(words, height=8, dxfattribs={"layer": "15"}).set_placement((0, TEST_CM * MM_PER_CM + 30))
    return written(drawing)


def _safe(size: str) -> str:
    """The name of a size as a layer can carry it."""
    return re.sub(r"[^A-Za-z0-9.-]+", "-", size) or "size"


def new_drawing() -> Any:
    """An empty drawing in millimetres with all layers."""
    drawing = Drawing.new("R2000")
    drawing.units = units.MM
    drawing.header["$MEASUREMENT"] = 1
    for layer, color in dict.fromkeys(LAYERS.values()):
        if layer not in drawing.layers:
            drawing.layers.add(layer, color=color).description = LAYER_WORDS[layer]
    drawing.layers.add(TEST, color=8).description = LAYER_WORDS[TEST]
    return drawing


def written(drawing: Any) -> bytes:
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode()


def add_block(drawing: Any, laid: Laid, scale: float, *, of: str = "") -> str:
    """A piece as a block whose origin is the lower left corner of what it takes; returns its name. of: its size, where there are
    several."""
    left, _, _, bottom = laid.marked.bounds
    factor = MM_PER_CM * scale
    by = Transform(factor, 0.0, 0.0, -factor, -left * factor, bottom * factor)
    name = f"{laid.marked.piece.name}_{of}" if of else laid.marked.piece.name
    block = drawing.blocks.new(name=name)
    for mark in laid.ink:
        _draw(block, mark, by, factor, of)
    return name


def _layer(kind: str, of: str) -> str:
    layer, _ = LAYERS[kind]
    return f"{layer}_{of}" if of else layer


def _draw(block: Any, mark: Ink, by: Transform, factor: float, of: str) -> None:
    look = {"layer": _layer(mark.kind, of)}
    if isinstance(mark, Stroke):
        for path in (path.moved(by) for path in mark.paths):
            _path(block, path, look, closed=mark.closed)
    elif isinstance(mark, Dot):
        block.add_circle(mark.middle.moved(by), mark.radius * factor, dxfattribs=look)
    else:
        text = block.add_text(mark.text, height=mark.size * factor * 0.7, rotation=-mark.turn, dxfattribs=look)
        text.set_placement(mark.at.moved(by), align=TextEntityAlignment.CENTER)


def _path(block: Any, path: Path, look: dict[str, str], *, closed: bool) -> None:
    """Straights that follow each other as one polyline, each curve as it is."""
    run = [path.start]
    for segment in path.segments:
        if isinstance(segment, Line):
            run.append(segment.end)
            continue
        if len(run) > 1:
            block.add_lwpolyline(run, dxfattribs=look)
        spline = block.add_spline(degree=3, dxfattribs=look)
        spline.control_points = [(*spot, 0.0) for spot in (segment.start, segment.out, segment.into, segment.end)]
        spline.knots = [0, 0, 0, 0, 1, 1, 1, 1]
        run = [segment.end]
    if len(run) > 1:
        ring = run[:-1] if closed and run[0].to(run[-1]) < 1e-6 else run
        block.add_lwpolyline(ring, close=closed, dxfattribs=look)


def _test_squares(model: Any) -> None:
    """True 5 cm and 2 inch squares above the work."""
    cm, inch = TEST_CM * MM_PER_CM, TEST_IN * CM_PER_INCH * MM_PER_CM
    for x, side, words in ((0.0, cm, "5 cm"), (cm + 10, inch, "2 in")):
        corners = [(x, 20), (x + side, 20), (x + side, 20 + side), (x, 20 + side)]
        model.add_lwpolyline(corners, close=True, dxfattribs={"layer": TEST})
        model.add_text(words, height=5, dxfattribs={"layer": TEST}).set_placement((x + side / 2 - 8, 20 + side / 2))
