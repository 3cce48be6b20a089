"""Outlines out of an SVG drawing."""

from __future__ import annotations

import math
import re
import xml.etree.ElementTree as ET
from collections.abc import Iterator
from itertools import pairwise
from typing import Any

from fontTools.misc.transform import Transform
from fontTools.pens.basePen import BasePen
from fontTools.svgLib.path import parse_path

from widehem.core.geometry.curves import Cubic, Line, Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.output.outlines_in import KINDS, LARGEST_FILE, Drawn, FileRefusedError, Found, outlines_in

UNITS = {"mm": 0.1, "cm": 1.0, "in": 2.54, "pt": 2.54 / 72, "pc": 2.54 / 6, "px": 2.54 / 96, "": 2.54 / 96}
LENGTH = re.compile(r"\s*([0-9.eE+-]+)\s*(mm|cm|in|pt|pc|px|)\s*$")
TRANSFORM = re.compile(r"(matrix|translate|scale|rotate|skewX|skewY)\s*\(([^)]*)\)")
NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
MOST_ELEMENTS, DEEPEST = 50_000, 60
TEST = "test"
SMALL = 1e-7


def read_svg(data: bytes, per_unit: float | None = None) -> Found:
    """The outlines of an SVG file. per_unit: centimetres of a unit of its drawing, where the file is not to be believed. Raises
    FileRefusedError."""
    if len(data) > LARGEST_FILE:
        raise FileRefusedError(f"The file is {len(data) // 1024 // 1024} MB, {LARGEST_FILE // 1024 // 1024} is the most.")
    head = data[:4000].lower() + data[-4000:].lower()
    if b"<!entity" in data.lower() or (b"<!doctype" in head and b"[" in head.split(b"<!doctype", 1)[1][:400]):
        raise FileRefusedError("The file defines entities of its own: save it as a plain SVG.")
    try:
        root = ET.fromstring(data)
    except (ET.ParseError, ValueError, RecursionError, LookupError) as error:
        raise FileRefusedError(f"The file is no SVG that can be read: {error}.") from None
    if not isinstance(root.tag, str) or root.tag.rpartition("}")[2] != "svg":
        raise FileRefusedError("The file is no SVG: it does not begin with an svg element.")
    factor = Transform().scale(per_unit or _cm_per_unit(root))
    return outlines_in(list(_walk(root, factor)))


def _cm_per_unit(root: Any) -> float:
    """Centimetres of a unit of the drawing: by its width and the width of its view box."""
    width = LENGTH.match(root.get("width") or "")
    box = [float(n) for n in NUMBER.findall(root.get("viewBox") or "")]
    if width and len(box) == 4 and box[2] > 0:
        return float(width[1]) * UNITS[width[2]] / box[2]
    return UNITS["px"]


def _walk(root: Any, factor: Transform) -> Iterator[Drawn]:
    """Every line, with the nearest name and kind above it."""
    waiting = [(root, factor, "piece", "", 0)]
    count = 0
    while waiting:
        element, by, group, kind, deep = waiting.pop()
        count += 1
        if count > MOST_ELEMENTS or deep > DEEPEST:
            raise FileRefusedError("The drawing has too many parts inside each other: flatten it before it is saved.")
        tag = element.tag.rpartition("}")[2] if isinstance(element.tag, str) else ""
        if tag in ("defs", "symbol", "clipPath", "mask", "pattern", "marker", "text", "style", "script", "metadata"):
            continue
        here = _transform(element.get("transform") or "", by)
        name = element.get("id") or group
        if name == TEST:
            continue
        own = next((KINDS[word] for word in (element.get("class") or "").split() if word in KINDS), kind)
        if tag in ("svg", "g", "a"):
            waiting += [(child, here, name if tag == "g" else group, own, deep + 1) for child in reversed(element)]
            continue
        for path in _paths(tag, element):
            moved = path.moved(here)
            if all(math.isfinite(v) and abs(v) < 1e5 for s in moved.segments for p in (s.start, s.end) for v in p):
                yield Drawn(group, own, moved)


def _transform(text: str, by: Transform) -> Transform:
    for name, inside in TRANSFORM.findall(text):
        n = [float(v) for v in NUMBER.findall(inside)]
        if name == "matrix" and len(n) == 6:
            by = by.transform(Transform(*n))
        elif name == "translate" and n:
            by = by.translate(n[0], n[1] if len(n) > 1 else 0.0)
        elif name == "scale" and n:
            by = by.scale(n[0], n[1] if len(n) > 1 else n[0])
        elif name == "rotate" and n:
            about = n[1:3] if len(n) > 2 else [0.0, 0.0]
            by = by.translate(*about).rotate(math.radians(n[0])).translate(-about[0], -about[1])
        elif name in ("skewX", "skewY") and n:
            angle = math.radians(n[0])
            by = by.skew(angle, 0) if name == "skewX" else by.skew(0, angle)
    return by


def _paths(tag: str, element: Any) -> list[Path]:
    if tag == "path":
        pen = _Pen()
        try:
            parse_path(element.get("d") or "", pen)
        except Exception:  # the parser raises whatever it breaks at
            raise FileRefusedError("A path in the drawing cannot be read: save it as a plain SVG.") from None
        return pen.found()
    numbers = [float(v) for v in NUMBER.findall(element.get("points") or "")]
    spots = [Point(x, y) for x, y in zip(numbers[::2], numbers[1::2], strict=False)]
    value = {
        name: _number(element.get(name))
        for name in ("x", "y", "width", "height", "x1", "y1", "x2", "y2", "cx", "cy", "r", "rx", "ry")
    }
    if tag == "line":
        spots = [Point(value["x1"], value["y1"]), Point(value["x2"], value["y2"])]
    elif tag == "rect" and value["width"] > 0 and value["height"] > 0:
        x, y, w, h = value["x"], value["y"], value["width"], value["height"]
        spots = [Point(x, y), Point(x + w, y), Point(x + w, y + h), Point(x, y + h), Point(x, y)]
    elif tag in ("circle", "ellipse"):
        rx, ry = (value["r"], value["r"]) if tag == "circle" else (value["rx"], value["ry"])
        return [_ellipse(value["cx"], value["cy"], rx, ry)] if rx > 0 and ry > 0 else []
    elif tag == "polygon" and len(spots) > 2:
        spots.append(spots[0])
    elif tag not in ("polyline", "polygon"):
        return []
    spots = [spots[0], *(b for a, b in pairwise(spots) if a.to(b) > SMALL)] if spots else []
    return [Path.through(*spots)] if len(spots) > 1 else []


def _number(text: str | None) -> float:
    found = NUMBER.match(text or "")
    return float(found[0]) if found else 0.0


def _ellipse(cx: float, cy: float, rx: float, ry: float) -> Path:
    k = 0.5522847498
    spots = [(1, 0, 1, k, k, 1, 0, 1), (0, 1, -k, 1, -1, k, -1, 0), (-1, 0, -1, -k, -k, -1, 0, -1), (0, -1, k, -1, 1, -k, 1, 0)]
    return Path(
        tuple(Cubic(*(Point(cx + rx * a, cy + ry * b) for a, b in zip(row[::2], row[1::2], strict=True))) for row in spots)
    )


class _Pen(BasePen):  # type: ignore[misc]
    """Collects the parts of a path."""

    def __init__(self) -> None:
        super().__init__(None)
        self._rows: list[list[Segment]] = []
        self._at = Point(0.0, 0.0)
        self._begin = Point(0.0, 0.0)

    def _moveTo(self, spot: tuple[float, float]) -> None:  # noqa: N802 - the pen protocol
        self._at = self._begin = Point(*spot)
        self._rows.append([])

    def _lineTo(self, spot: tuple[float, float]) -> None:  # noqa: N802
        end = Point(*spot)
        if self._at.to(end) > SMALL:
            self._rows[-1].append(Line(self._at, end))
        self._at = end

    def _curveToOne(self, out: Any, into: Any, end: Any) -> None:  # noqa: N802
        self._rows[-1].append(Cubic(self._at, Point(*out), Point(*into), Point(*end)))
        self._at = Point(*end)

    def _closePath(self) -> None:  # noqa: N802
        self._lineTo(self._begin)

    def _endPath(self) -> None:  # noqa: N802
        return

    def found(self) -> list[Path]:
        return [Path(tuple(row)) for row in self._rows if row]
