"""How much room words take, before any of the formats draws them."""

from __future__ import annotations

from collections.abc import Sequence

from widehem.core.values import record

ROW = 1.45  # from line to line, of the height of a letter
_THIN, _WIDE = frozenset("iIljft.,:;'|!()[]1/ -·"), frozenset("mMwW@%½¼¾⅛⅜⅝⅞")
_SHARES = {"thin": 0.36, "wide": 0.98, "capital": 0.74, "other": 0.6}


def wide(text: str, size: float) -> float:
    """How wide a line of words is at most, cm. size: height of its letters, cm."""
    return size * sum(
        _SHARES["thin" if sign in _THIN else "wide" if sign in _WIDE else "capital" if sign.isupper() else "other"]
        for sign in text
    )


@record(frozen=True)
class Block:
    """Lines of words at a size, cm."""

    lines: tuple[str, ...]
    size: float

    @property
    def width(self) -> float:
        return max(wide(line, self.size) for line in self.lines)

    @property
    def height(self) -> float:
        return self.size * ROW * len(self.lines)


def wrapped(lines: Sequence[str], width: float, size: float) -> tuple[str, ...]:
    """Lines broken at their spaces so that none is wider than this, cm, where that can be done."""
    found: list[str] = []
    for line in lines:
        row = ""
        for word in line.split(" "):
            longer = f"{row} {word}" if row else word
            if row and wide(longer, size) > width:
                found.append(row)
                row = word
            else:
                row = longer
        found.append(row)
    return tuple(found)
