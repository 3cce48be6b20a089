"""Every operation there is; importing this registers them."""

from widehem.core.style import facings, joining, lines, pockets, sides, truing, turning  # noqa: F401
