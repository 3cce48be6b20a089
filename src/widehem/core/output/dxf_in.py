"""Outlines out of a DXF drawing."""

from __future__ import annotations

import io
import math
from collections.abc import Iterator
from typing import Any

from widehem.core.geometry.curves import Cubic, Line, Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.output.outlines_in import LARGEST_FILE, Drawn, FileRefusedError, Found, outlines_in

CM_PER_UNIT = {
    0: 0.1,
    1: 2.54,
    2: 30.48,
    4: 0.1,
    5: 1.0,
    6: 100.0,
}  # by the units a drawing says; millimetres where it says none
BY_LAYER = {
    "1": "cut", "4": "notch", "5": "", "6": "fold", "7": "grain", "8": "balance", "13": "drill", "14": "stitch", "15": "words",
}  # fmt: skip
LINES = ("LINE", "LWPOLYLINE", "POLYLINE", "SPLINE", "ARC", "CIRCLE", "ELLIPSE")
DEEPEST, MOST_PARTS = 5, 15_000
TEST = "test"


def read_dxf(data: bytes, per_unit: float | None = None) -> Found:
    """The outlines of a DXF file. per_unit: centimetres of a unit of its drawing, where the file is not to be believed. Raises
    FileRefusedError."""
    if len(data) > LARGEST_FILE:
        raise FileRefusedError(f"The file is {len(data) // 1024 // 1024} MB, {LARGEST_FILE // 1024 // 1024} is the most.")
    drawing = _read(data)
    try:
        factor = per_unit or CM_PER_UNIT.get(int(drawing.header.get("$INSUNITS", 0)), 0.1)
        return outlines_in(list(_lines(drawing, factor)))
    except FileRefusedError:
        raise
    except Exception as error:  # what a broken drawing breaks the reader at
        raise FileRefusedError(f"The file is no DXF that can be read: {type(error).__name__}.") from None


def _read(data: bytes) -> Any:
    from ezdxf import recover
    from ezdxf.filemanagement import read

    try:
        return read(io.StringIO(data.decode("utf-8", "surrogateescape")))
    except Exception:
        try:
            return recover.read(io.BytesIO(data))[0]
        except Exception as error:
            raise FileRefusedError(f"The file is no DXF that can be read: {type(error).__name__}.") from None


def _lines(drawing: Any, factor: float) -> Iterator[Drawn]:
    waiting = [(entity, "piece", 0) for entity in drawing.modelspace()]
    count = 0
    while waiting:
        entity, group, deep = waiting.pop(0)
        count += 1
        if count > MOST_PARTS or deep > DEEPEST:
            raise FileRefusedError("The drawing has too many parts inside each other: explode its blocks before it is saved.")
        kind = entity.dxftype()
        if kind == "INSERT":
            if entity.mcount > 50:
                raise FileRefusedError("A block is laid more than 50 times in the drawing: leave one of each.")
            block = drawing.blocks.get(entity.dxf.name)
            if block is not None and len(block) + len(waiting) > MOST_PARTS:
                raise FileRefusedError("The drawing has too many parts: leave out what is no pattern.")
            for one in entity.multi_insert() if entity.mcount > 1 else (entity,):
                waiting += [(part, one.dxf.name, deep + 1) for part in one.virtual_entities()]
        elif kind in LINES:
            layer, _, size = str(entity.dxf.layer).partition("_")
            if layer != TEST:
                own = group if group != "piece" or layer in BY_LAYER else str(entity.dxf.layer)
                yield from (Drawn(own, BY_LAYER.get(layer, ""), path, size) for path in _paths(entity, factor))


def _paths(entity: Any, factor: float) -> list[Path]:
    from ezdxf.path import Curve3To, Curve4To, LineTo, make_path

    try:
        found = make_path(entity)
    except (TypeError, ValueError, ZeroDivisionError):
        return []

    def spot(vector: Any) -> Point:
        x, y = float(vector.x) * factor, -float(vector.y) * factor
        if not (math.isfinite(x) and math.isfinite(y) and abs(x) < 1e5 and abs(y) < 1e5):
            raise FileRefusedError("The drawing has points farther away than any table.")
        return Point(x, y)

    rows: list[Path] = []
    for path in found.sub_paths() if found.has_sub_paths else (found,):
        segments: list[Segment] = []
        at = spot(path.start)
        for command in path.commands():
            end = spot(command.end)
            if isinstance(command, LineTo):
                if at.to(end) > 1e-7:
                    segments.append(Line(at, end))
            elif isinstance(command, Curve4To):
                segments.append(Cubic(at, spot(command.ctrl1), spot(command.ctrl2), end))
            elif isinstance(command, Curve3To):
                ctrl = spot(command.ctrl)
                segments.append(Cubic(at, at.toward(ctrl, 2 / 3), end.toward(ctrl, 2 / 3), end))
            at = end
        if segments:
            rows.append(Path(tuple(segments)))
    return rows
