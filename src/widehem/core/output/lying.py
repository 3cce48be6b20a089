"""A draft as it lies along the table: turned by a quarter, so that a long garment fills it."""

from __future__ import annotations

import math

from widehem.core.design.make import Made
from widehem.core.drafting.sheet import Mark
from widehem.core.drafting.table import Table
from widehem.core.geometry.points import Point, turn
from widehem.core.values import replace

QUARTER = turn(Point(0.0, 0.0), -math.pi / 2)  # what was on top comes to lie on the left


def lying(made: Made) -> Made:
    """The same garment and drawing along the table; nothing of it is changed but where it lies."""
    table = Table({name: QUARTER.transform(lay) for name, lay in made.table.lay.items()})
    return replace(made, lies=table, shows=tuple(_turned(mark) for mark in made.marks))


def _turned(mark: Mark) -> Mark:
    return replace(
        mark, path=mark.path.moved(QUARTER) if mark.path is not None else None,
        at=mark.at.moved(QUARTER) if mark.at is not None else None, dart=mark.dart.moved(QUARTER) if mark.dart is not None else None,
    )  # fmt: skip
