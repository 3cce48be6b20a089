"""A draft that cannot be: refused with the measures to blame, never drawn wrong."""

from __future__ import annotations

from widehem.core.units import Saying


class CannotDraft(Exception):  # noqa: N818 - the name says what it means at the table
    """measures: codes of the measures to look at. saying: what, why and what to do, with figures."""

    def __init__(self, measures: tuple[str, ...], saying: Saying) -> None:
        super().__init__(saying.text())
        self.measures = measures
        self.saying = saying
