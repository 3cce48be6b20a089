"""What must agree before paper is cut."""

from __future__ import annotations

import widehem.core.pattern.checks  # noqa: F401 - registers the kinds of check
from widehem.core.pattern.block import Block
from widehem.core.pattern.check import CHECKERS, Check


def check_block(block: Block) -> tuple[Check, ...]:
    """Every check that applies to these pieces."""
    return tuple(check for function in CHECKERS for check in function(block))
