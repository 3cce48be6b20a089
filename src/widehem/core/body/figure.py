"""The drawn figures in outline, no face: front and back are one, the side is another. Near centimetres of a 164 cm figure.

In a tape's points x runs from the centre line and y down from the crown. Other builds are the same lines drawn through a
`Build`, and so is the tape that lies on them.
"""

from __future__ import annotations

import re
from bisect import bisect_right
from collections.abc import Callable
from functools import cache

from widehem.core.body.chart import Chart
from widehem.core.body.measure import View
from widehem.core.values import record

BODY = (
    "M37.40 17.50C37.37 18.17 37.08 20.22 37.20 21.50C37.32 22.78 37.22 24.22 38.10 25.20C38.98 26.18 40.87 26.78 "
    "42.50 27.40C44.13 28.02 46.45 28.20 47.90 28.90C49.35 29.60 50.38 30.25 51.20 31.60C52.02 32.95 52.35 34.77 "
    "52.80 37.00C53.25 39.23 53.42 42.33 53.90 45.00C54.38 47.67 55.12 50.50 55.70 53.00C56.28 55.50 56.83 57.50 "
    "57.40 60.00C57.97 62.50 58.53 65.33 59.10 68.00C59.67 70.67 60.30 73.92 60.80 76.00C61.30 78.08 61.65 78.83 "
    "62.10 80.50C62.55 82.17 63.23 84.08 63.50 86.00C63.77 87.92 63.97 90.25 63.70 92.00C63.43 93.75 62.50 96.17 "
    "61.90 96.50C61.30 96.83 60.57 95.33 60.10 94.00C59.63 92.67 59.50 90.50 59.10 88.50C58.70 86.50 58.08 83.92 "
    "57.70 82.00C57.32 80.08 57.35 79.33 56.80 77.00C56.25 74.67 55.18 70.75 54.40 68.00C53.62 65.25 52.77 63.00 "
    "52.10 60.50C51.43 58.00 50.90 55.42 50.40 53.00C49.90 50.58 49.55 47.97 49.10 46.00C48.65 44.03 47.93 42.00 "
    "47.70 41.20C47.73 42.00 48.02 44.37 47.90 46.00C47.78 47.63 47.43 49.17 47.00 51.00C46.57 52.83 45.70 55.20 "
    "45.30 57.00C44.90 58.80 44.53 60.13 44.60 61.80C44.67 63.47 45.15 65.13 45.70 67.00C46.25 68.87 47.23 70.83 "
    "47.90 73.00C48.57 75.17 49.35 77.83 49.70 80.00C50.05 82.17 50.10 83.33 50.00 86.00C49.90 88.67 49.55 92.33 "
    "49.10 96.00C48.65 99.67 48.03 104.17 47.30 108.00C46.57 111.83 45.28 116.17 44.70 119.00C44.12 121.83 43.92 "
    "122.67 43.80 125.00C43.68 127.33 44.18 129.67 44.00 133.00C43.82 136.33 43.27 141.17 42.70 145.00C42.13 148.83 "
    "40.93 153.42 40.60 156.00C40.27 158.58 40.28 159.00 40.70 160.50C41.12 162.00 42.63 163.82 43.10 165.00C43.57 "
    "166.18 43.93 167.03 43.50 167.60C43.07 168.17 41.60 168.33 40.50 168.40C39.40 168.47 37.68 168.65 36.90 "
    "168.00C36.12 167.35 35.95 166.00 35.80 164.50C35.65 163.00 36.02 160.58 36.00 159.00C35.98 157.42 35.85 157.33 "
    "35.70 155.00C35.55 152.67 35.30 148.50 35.10 145.00C34.90 141.50 34.50 137.50 34.50 134.00C34.50 130.50 35.07 "
    "126.83 35.10 124.00C35.13 121.17 34.92 120.00 34.70 117.00C34.48 114.00 34.11 110.58 33.80 106.00C33.49 101.42 "
    "33.01 92.25 32.85 89.50L32.15 89.50C31.99 92.25 31.51 101.42 31.20 106.00C30.89 110.58 30.52 114.00 30.30 "
    "117.00C30.08 120.00 29.87 121.17 29.90 124.00C29.93 126.83 30.50 130.50 30.50 134.00C30.50 137.50 30.10 141.50 "
    "29.90 145.00C29.70 148.50 29.45 152.67 29.30 155.00C29.15 157.33 29.02 157.42 29.00 159.00C28.98 160.58 29.35 "
    "163.00 29.20 164.50C29.05 166.00 28.88 167.35 28.10 168.00C27.32 168.65 25.60 168.47 24.50 168.40C23.40 168.33 "
    "21.93 168.17 21.50 167.60C21.07 167.03 21.43 166.18 21.90 165.00C22.37 163.82 23.88 162.00 24.30 160.50C24.72 "
    "159.00 24.73 158.58 24.40 156.00C24.07 153.42 22.87 148.83 22.30 145.00C21.73 141.17 21.18 136.33 21.00 "
    "133.00C20.82 129.67 21.32 127.33 21.20 125.00C21.08 122.67 20.88 121.83 20.30 119.00C19.72 116.17 18.43 111.83 "
    "17.70 108.00C16.97 104.17 16.35 99.67 15.90 96.00C15.45 92.33 15.10 88.67 15.00 86.00C14.90 83.33 14.95 82.17 "
    "15.30 80.00C15.65 77.83 16.43 75.17 17.10 73.00C17.77 70.83 18.75 68.87 19.30 67.00C19.85 65.13 20.33 63.47 "
    "20.40 61.80C20.47 60.13 20.10 58.80 19.70 57.00C19.30 55.20 18.43 52.83 18.00 51.00C17.57 49.17 17.22 47.63 "
    "17.10 46.00C16.98 44.37 17.27 42.00 17.30 41.20C17.07 42.00 16.35 44.03 15.90 46.00C15.45 47.97 15.10 50.58 "
    "14.60 53.00C14.10 55.42 13.57 58.00 12.90 60.50C12.23 63.00 11.38 65.25 10.60 68.00C9.82 70.75 8.75 74.67 8.20 "
    "77.00C7.65 79.33 7.68 80.08 7.30 82.00C6.92 83.92 6.30 86.50 5.90 88.50C5.50 90.50 5.37 92.67 4.90 94.00C4.43 "
    "95.33 3.70 96.83 3.10 96.50C2.50 96.17 1.57 93.75 1.30 92.00C1.03 90.25 1.23 87.92 1.50 86.00C1.77 84.08 2.45 "
    "82.17 2.90 80.50C3.35 78.83 3.70 78.08 4.20 76.00C4.70 73.92 5.33 70.67 5.90 68.00C6.47 65.33 7.03 62.50 7.60 "
    "60.00C8.17 57.50 8.72 55.50 9.30 53.00C9.88 50.50 10.62 47.67 11.10 45.00C11.58 42.33 11.75 39.23 12.20 "
    "37.00C12.65 34.77 12.98 32.95 13.80 31.60C14.62 30.25 15.65 29.60 17.10 28.90C18.55 28.20 20.87 28.02 22.50 "
    "27.40C24.13 26.78 26.02 26.18 26.90 25.20C27.78 24.22 27.68 22.78 27.80 21.50C27.92 20.22 27.63 18.17 27.60 "
    "17.50 "
)
HEAD = "M27.1 16.6C24.3 12.2 23.7 .4 32.5 .4C41.3 .4 40.7 12.2 37.9 16.6C36.5 19.4 34.9 21 32.5 21C30.1 21 28.5 19.4 27.1 16.6Z"
CENTRE = 32.5  # the front paths stand about this x

# The side, facing left, from the crown down in front, under the foot and up behind.
_SIDE = (
    (0.5, 0.4), (-4.6, 2.0), (-7.6, 6.4), (-8.4, 11.2), (-8.0, 16.2), (-6.0, 19.6), (-3.6, 21.4), (-3.8, 25.0), (-5.0, 28.2), (-8.0, 33.5),
    (-11.4, 41.0), (-13.0, 46.5), (-11.6, 50.4), (-9.8, 53.5), (-9.0, 61.8), (-10.2, 71.0), (-10.0, 82.0), (-9.4, 93.0), (-8.8, 104.0),
    (-7.4, 116.0), (-6.8, 122.0), (-5.2, 130.0), (-4.6, 144.0), (-4.2, 156.0), (-6.6, 160.6), (-13.4, 164.6), (-16.6, 166.4), (-16.2, 168.4),
    (-6.0, 168.4), (5.6, 168.4), (7.4, 166.6), (6.4, 162.6), (4.8, 157.0), (5.6, 149.0), (8.2, 137.0), (7.8, 128.6), (5.8, 121.0), (7.4, 110.0),
    (9.6, 99.0), (11.4, 91.6), (14.2, 86.0), (14.4, 80.0), (12.0, 71.6), (7.8, 61.8), (8.6, 53.0), (11.0, 42.0), (10.8, 34.6), (7.6, 27.6),
    (5.2, 23.6), (6.2, 18.0), (9.4, 12.6), (9.0, 6.4), (5.4, 1.8),
)  # fmt: skip
_ARM_ROOT = "M.6 29.6C4.6 30.4 6.2 36.4 4.4 41.2C3.4 43.6 -1.4 43.6 -2.6 41.2C-4.6 36.6 -3.2 30.6 .6 29.6Z"


def _smooth(points: tuple[tuple[float, float], ...]) -> str:
    """A closed curve through these points, each left in the direction of its neighbours."""
    count = len(points)
    words = [f"M{points[0][0]:.2f} {points[0][1]:.2f}"]
    for i in range(count):
        (x0, y0), (x1, y1), (x2, y2), (x3, y3) = (points[(i + k) % count] for k in (-1, 0, 1, 2))
        words.append(
            f"C{x1 + (x2 - x0) / 6:.2f} {y1 + (y2 - y0) / 6:.2f} {x2 - (x3 - x1) / 6:.2f} {y2 - (y3 - y1) / 6:.2f} {x2:.2f} {y2:.2f}"
        )
    return "".join(words) + "Z"


Steps = tuple[tuple[float, float], ...]


def _between(steps: Steps, at: float) -> float:
    """The value at a height, in straight lines between the steps."""
    i = min(max(bisect_right([y for y, _ in steps], at), 1), len(steps) - 1)
    (y0, v0), (y1, v1) = steps[i - 1], steps[i]
    part = min(max((at - y0) / (y1 - y0), 0.0), 1.0)
    return v0 + (v1 - v0) * part


TORSO: Steps = (
    (30, 17.6),
    (41, 15.3),
    (46.5, 15.4),
    (61.8, 12.1),
    (71, 14.6),
    (82, 17.3),
    (90, 17.5),
    (97, 16.5),
)  # half its width


@record(frozen=True)
class Build:
    """A way of being built. heights: where each height of the neutral figure comes to lie; widths: how much wider it is
    there; arms: how much thicker the arms are; apart: how far front and back stand from each other."""

    name: str
    heights: Steps
    widths: Steps
    arms: float = 1.0
    apart: float = 65.0

    def point(self, view: View, x: float, y: float) -> tuple[float, float]:
        """Where a point of the neutral figure lies on this one, x from the centre line."""
        wide, down = _between(self.widths, y), _between(self.heights, y)
        torso = _between(TORSO, y)
        if view != "side" and TORSO[0][0] <= y <= TORSO[-1][0] and abs(x) > torso:
            out = torso * wide + (abs(x) - torso) * self.arms
            return (out if x > 0 else -out), down
        return x * wide, down

    def path(self, view: View, d: str, centre: float = 0.0) -> str:
        """An outline drawn through this build, about its centre line."""
        return _through(d, centre, lambda x, y: self.point(view, x, y))


_NUMBER = re.compile(r"-?\d*\.?\d+")


def _through(d: str, centre: float, point: Callable[[float, float], tuple[float, float]]) -> str:
    words = []
    for letter, rest in re.findall(r"([MCLZ])([^MCLZ]*)", d):
        values = [float(number) for number in _NUMBER.findall(rest)]
        moved = [f"{v:.2f}" for x, y in zip(values[::2], values[1::2], strict=True) for v in point(x - centre, y)]
        words.append(letter + " ".join(moved))
    return "".join(words)


NEUTRAL = Build("neutral", ((0, 0), (168.4, 168.4)), ((0, 1), (168.4, 1)))
CHILD = Build(
    "child", ((0, 0), (21, 28), (30, 35.5), (61.8, 68), (82, 86), (90, 92.5), (121, 123.5), (168.4, 168.4)),
    ((0, 1.3), (17, 1.26), (22, 0.9), (30, 0.82), (46.5, 0.86), (61.8, 1.04), (82, 0.86), (100, 0.88), (160, 1.0)), 0.86,
)  # fmt: skip
BROAD = Build(
    "broad", NEUTRAL.heights,
    ((0, 1.04), (17, 1.06), (23, 1.16), (30, 1.12), (46.5, 1.24), (61.8, 1.6), (74, 1.38), (82, 1.26), (92, 1.22), (121, 1.2), (160, 1.08)),
    1.25, 80.0,
)  # fmt: skip
_FULL_WAIST, _FULL_BUST = 0.53, 0.64  # of the height: above these a figure is drawn broad


def build_of(chart: Chart) -> Build:
    """How to draw this wearer: a child, broad, or neither."""
    if chart.table.young:
        return CHILD
    height = chart.get("height") or 164.0
    waist, bust = chart.get("waist") or 0.0, chart.get("bust") or 0.0
    return BROAD if waist > _FULL_WAIST * height or bust > _FULL_BUST * height else NEUTRAL


@cache
def outline(build: Build, view: View) -> tuple[str, ...]:
    """The paths of one view, about its centre line."""
    if view == "side":
        return build.path(view, _smooth(_SIDE)), build.path(view, _ARM_ROOT)
    return build.path(view, BODY + "Z", CENTRE), build.path(view, HEAD, CENTRE)
