"""Straight and cubic pieces of a path: length, point at a length, splitting, crossing with a line."""

from __future__ import annotations

from math import ceil, sqrt

from fontTools.misc.bezierTools import solveCubic
from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point, is_rigid, new
from widehem.core.values import kept, record

# Gauss' four nodes on -1 to 1 and the five that Kronrod sets between them: four to guess, all nine to know.
_G1, _G2 = 0.8611363115940526, 0.3399810435848563
_G1_SQUARE, _G2_SQUARE = _G1 * _G1, _G2 * _G2
_G1_ALONE, _G2_ALONE = 0.3478548451374538, 0.6521451548625461
_K1, _K2 = 0.9765602507375731, 0.6402862174963100
_K1_SQUARE, _K2_SQUARE = _K1 * _K1, _K2 * _K2
_K1_WEIGHT, _G1_WEIGHT, _K2_WEIGHT, _G2_WEIGHT, _MIDDLE_WEIGHT = (
    0.0629773736654730, 0.1700536053357227, 0.2667983404522844, 0.3269491896014516, 0.3464429818901364,
)  # fmt: skip
STRONG = 1.25  # control polygon over chord: a curve that turns strongly
NEAR = 1e-4  # cm: so near, one step of Newton more is as good as exact
_AGREE = 2e-5  # cm: where four and nine nodes agree to this, nine are right to about its square

SMALL_STEP = 0.01  # of a curve: beyond it its speed is another one


@record(frozen=True)
class Line:
    """A straight piece from start to end."""

    start: Point
    end: Point

    @property
    def length(self) -> float:
        return self.start.to(self.end)

    def at(self, t: float) -> Point:
        return self.start.toward(self.end, t)

    def direction(self, t: float) -> Point:
        return (self.end - self.start).unit()

    def bend(self, t: float) -> float:
        """Curvature, 1/cm."""
        return 0.0

    def t_at_length(self, length: float) -> float:
        whole = self.length
        return length / whole if whole else 0.0

    def split(self, t: float) -> tuple[Line, Line]:
        middle = self.at(t)
        return Line(self.start, middle), Line(middle, self.end)

    def reverse(self) -> Line:
        return Line(self.end, self.start)

    def moved(self, by: Transform) -> Line:
        return Line(self.start.moved(by), self.end.moved(by))

    def flat(self, tolerance: float) -> list[Point]:
        return [self.end]

    def crossings(self, point: Point, along: Point) -> list[float]:
        """Where an endless line crosses this piece, as t from 0 to 1."""
        sx, sy, off = -along[1], along[0], along[0] * point[1] - along[1] * point[0]
        a, b = self.start[0] * sx + self.start[1] * sy - off, self.end[0] * sx + self.end[1] * sy - off
        if a == b or (a > 1e-9 and b > 1e-9) or (a < -1e-9 and b < -1e-9):
            return []
        t = a / (a - b)
        return [t] if -1e-9 <= t <= 1 + 1e-9 else []


@record(frozen=True)
class Cubic:
    """A cubic curve: start, the handle leaving it, the handle arriving, end."""

    start: Point
    out: Point
    into: Point
    end: Point

    @kept
    def length(self) -> float:
        """Arc length to about 1e-7 mm; halves until the halves agree."""
        return _arc(self, 0.0, 1.0)

    def at(self, t: float) -> Point:
        s = 1 - t
        a, b, c, d = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
        (px, py), (qx, qy), (rx, ry), (ex, ey) = self.start, self.out, self.into, self.end
        return new(Point, (a * px + b * qx + c * rx + d * ex, a * py + b * qy + c * ry + d * ey))

    def _speed(self, t: float) -> Point:
        s = 1 - t
        a, b, c = 3 * s * s, 6 * s * t, 3 * t * t
        (px, py), (qx, qy), (rx, ry), (ex, ey) = self.start, self.out, self.into, self.end
        return new(Point, (a * (qx - px) + b * (rx - qx) + c * (ex - rx), a * (qy - py) + b * (ry - qy) + c * (ey - ry)))

    def _pull(self, t: float) -> Point:
        """How its speed changes."""
        p, q, r, e = self.start, self.out, self.into, self.end
        s, t = 6 * (1 - t), 6 * t
        return new(
            Point,
            (
                s * (r[0] - 2 * q[0] + p[0]) + t * (e[0] - 2 * r[0] + q[0]),
                s * (r[1] - 2 * q[1] + p[1]) + t * (e[1] - 2 * r[1] + q[1]),
            ),
        )

    def direction(self, t: float) -> Point:
        speed = self._speed(t)
        if speed.size < 1e-9:  # a handle that lies on its end
            speed = self.at(min(t + 1e-4, 1.0)) - self.at(max(t - 1e-4, 0.0))
        return speed.unit()

    def bend(self, t: float) -> float:
        """Curvature, 1/cm."""
        speed = self._speed(t)
        size = speed.size
        return speed.cross(self._pull(t)) / size**3 if size > 1e-9 else 0.0

    def turns(self, count: int) -> tuple[list[float], float]:
        """How far it turns in each of so many equal steps of the parameter, radians, and the sharpest curvature in the
        middle of one, 1/cm.

        A handle that lies on its end has no direction there: the curve is looked at inside its ends only.
        """
        (px, py), (qx, qy), (rx, ry), (ex, ey) = self.start, self.out, self.into, self.end
        cx, cy, bx, by = 3 * (qx - px), 3 * (qy - py), 6 * (rx - 2 * qx + px), 6 * (ry - 2 * qy + py)
        ax, ay = 3 * (ex - px - 3 * (rx - qx)), 3 * (ey - py - 3 * (ry - qy))
        k0, k1, k2 = cx * by - cy * bx, 2 * (cx * ay - cy * ax), bx * ay - by * ax  # speed cross pull
        found, sharpest = [], 0.0
        for number in range(count):
            t = (number + 0.5) / count
            x, y = (ax * t + bx) * t + cx, (ay * t + by) * t + cy
            square, cross = x * x + y * y, (k2 * t + k1) * t + k0
            if square < 1e-12:
                found.append(0.0)
                continue
            found.append(cross / square / count)
            sharp = cross * cross / (square * square * square)
            if sharp > sharpest:
                sharpest = sharp
        return found, sqrt(sharpest)

    def t_at_length(self, length: float) -> float:
        """The parameter this many centimetres along: Newton, kept inside a shrinking bracket."""
        whole = self.length
        if length <= 0 or whole == 0:
            return 0.0
        if length >= whole:
            return 1.0
        low, high, t, last, gone = 0.0, 1.0, length / whole, 0.0, 0.0
        for _ in range(50):
            if t < last:
                gone -= _arc(self, t, last)
            elif t > last:
                gone += _arc(self, last, t)
            last, miss = t, gone - length
            if abs(miss) < 1e-9:
                break
            low, high = (low, t) if miss > 0 else (t, high)
            (x, y), (px, py) = self._speed(t), self._pull(t)
            square = x * x + y * y
            speed = sqrt(square)
            if speed > 1e-9:  # Halley: as the speed itself changes
                slope = speed - miss * (x * px + y * py) / square / 2
                step = t - miss / (slope if slope > speed / 2 else speed)
            else:
                step = -1.0
            inside = low < step < high
            moved = abs(step - t)
            t = step if inside else (low + high) / 2
            if inside and abs(miss) < NEAR and moved < SMALL_STEP:  # the next would be about the cube of this one
                break
        return t

    def split(self, t: float) -> tuple[Cubic, Cubic]:
        """Both parts, exactly: halving the handles keeps ends and directions, which the general splitter lets drift."""
        a, b, c = self.start.toward(self.out, t), self.out.toward(self.into, t), self.into.toward(self.end, t)
        d, e = a.toward(b, t), b.toward(c, t)
        middle = d.toward(e, t)
        return Cubic(self.start, a, d, middle), Cubic(middle, e, c, self.end)

    def reverse(self) -> Cubic:
        return self._as_long(Cubic(self.end, self.into, self.out, self.start))

    def moved(self, by: Transform) -> Cubic:
        xx, xy, yx, yy, dx, dy = by
        corners = self.start, self.out, self.into, self.end
        found = Cubic(*[new(Point, (xx * x + yx * y + dx, xy * x + yy * y + dy)) for x, y in corners])
        return self._as_long(found) if is_rigid(by) else found

    def _as_long(self, other: Cubic) -> Cubic:
        """Another that must be just as long: the length is handed on where it is known."""
        if "length" in self.__dict__:
            other.__dict__["length"] = self.length
        return other

    def flat(self, tolerance: float) -> list[Point]:
        """Points of a chain of straights that stays within the tolerance; the start is left out."""
        (px, py), (qx, qy), (rx, ry), (ex, ey) = self.start, self.out, self.into, self.end
        bx, by, dx, dy = px - 2 * qx + rx, py - 2 * qy + ry, qx - 2 * rx + ex, qy - 2 * ry + ey
        count = ceil(sqrt(0.75 * sqrt(max(bx * bx + by * by, dx * dx + dy * dy)) / tolerance))
        if count < 2:
            return [self.end]
        ax, ay, bx, by, cx, cy = dx - bx, dy - by, 3 * bx, 3 * by, 3 * (qx - px), 3 * (qy - py)
        steps = [number / count for number in range(1, count)]
        found = [new(Point, (((ax * t + bx) * t + cx) * t + px, ((ay * t + by) * t + cy) * t + py)) for t in steps]
        found.append(self.end)
        return found

    def crossings(self, point: Point, along: Point) -> list[float]:
        """Where an endless line crosses this piece, as t from 0 to 1, in order."""
        sy, sx = along
        sx, off = -sx, sy * point[1] - sx * point[0]
        (px, py), (qx, qy), (rx, ry), (ex, ey) = self.start, self.out, self.into, self.end
        a, b, c, d = px * sx + py * sy - off, qx * sx + qy * sy - off, rx * sx + ry * sy - off, ex * sx + ey * sy - off
        if (a > 0 and b > 0 and c > 0 and d > 0) or (a < 0 and b < 0 and c < 0 and d < 0):
            return []
        roots = solveCubic(d - 3 * c + 3 * b - a, 3 * (c - 2 * b + a), 3 * (b - a), a)
        return sorted(t for t in roots if -1e-9 <= t <= 1 + 1e-9)


Segment = Line | Cubic


def _arc(curve: Cubic, low: float, high: float) -> float:
    """Arc length between two parameters, to about 1e-7 mm: halves until four and nine nodes agree."""
    (px, py), (qx, qy), (rx, ry), (ex, ey) = curve.start, curve.out, curve.into, curve.end
    ux, uy, wx, wy, zx, zy, vx, vy = qx - px, qy - py, rx - qx, ry - qy, ex - rx, ey - ry, ex - px, ey - py
    onward = (vx or vy) and ux * vx + uy * vy >= 0 and wx * vx + wy * vy >= 0 and zx * vx + zy * vy >= 0
    strict = onward and sqrt(ux * ux + uy * uy) + sqrt(wx * wx + wy * wy) + sqrt(zx * zx + zy * zy) > STRONG * sqrt(
        vx * vx + vy * vy
    )
    # the direction of travel as a square polynomial: a t^2 + b t + c
    cx, cy, bx, by = 3 * ux, 3 * uy, 6 * (wx - ux), 6 * (wy - uy)
    ax, ay = 3 * (zx - 2 * wx + ux), 3 * (zy - 2 * wy + uy)
    # a curve that turns back, or sharply, may fool the rule: look at it in parts, as small for a part of it
    count = (ceil(4 * (high - low)) if strict else 1) if onward else ceil(64 * (high - low))
    half = (high - low) / count / 2
    pending = [(low + half, half, 12)] if count == 1 else [(low + (2 * i + 1) * half, half, 12) for i in range(count)]
    total = 0.0
    while pending:
        at, half, depth = pending.pop()
        # the square of the speed round the middle, u from -1 to 1: s0 + s1 u + s2 u^2 + s3 u^3 + s4 u^4
        x0, x1, x2 = (ax * at + bx) * at + cx, (2 * ax * at + bx) * half, ax * half * half
        y0, y1, y2 = (ay * at + by) * at + cy, (2 * ay * at + by) * half, ay * half * half
        s0, s1 = x0 * x0 + y0 * y0, 2 * (x0 * x1 + y0 * y1)
        s2 = x1 * x1 + y1 * y1 + 2 * (x0 * x2 + y0 * y2)
        s3, s4 = 2 * (x1 * x2 + y1 * y2), x2 * x2 + y2 * y2
        even, odd = s0 + _G1_SQUARE * (s2 + _G1_SQUARE * s4), _G1 * (s1 + _G1_SQUARE * s3)
        outer = sqrt(abs(even + odd)) + sqrt(abs(even - odd))
        even, odd = s0 + _G2_SQUARE * (s2 + _G2_SQUARE * s4), _G2 * (s1 + _G2_SQUARE * s3)
        inner = sqrt(abs(even + odd)) + sqrt(abs(even - odd))
        even, odd = s0 + _K1_SQUARE * (s2 + _K1_SQUARE * s4), _K1 * (s1 + _K1_SQUARE * s3)
        known = _K1_WEIGHT * (sqrt(abs(even + odd)) + sqrt(abs(even - odd)))
        even, odd = s0 + _K2_SQUARE * (s2 + _K2_SQUARE * s4), _K2 * (s1 + _K2_SQUARE * s3)
        known += _K2_WEIGHT * (sqrt(abs(even + odd)) + sqrt(abs(even - odd)))
        known += _G1_WEIGHT * outer + _G2_WEIGHT * inner + _MIDDLE_WEIGHT * sqrt(s0)
        guess = _G1_ALONE * outer + _G2_ALONE * inner
        if depth == 0 or abs(known - guess) * half < _AGREE:
            total += known * half
        else:
            half /= 2
            pending += [(at - half, half, depth - 1), (at + half, half, depth - 1)]
    return total


def curve_between(start: Point, leaving: Point, end: Point, arriving: Point, out: float = 0.0, into: float = 0.0) -> Cubic:
    """A cubic from start to end with these directions at its ends.

    out, into: lengths of the two handles in cm; 0 means a third of the straight distance.
    """
    third = start.to(end) / 3
    return Cubic(start, start + leaving.unit() * (out or third), end - arriving.unit() * (into or third), end)
