"""Every operation there is; importing this registers them."""

from widehem.core.style import facings, joining, lines, pockets, sides, truing, turning, waist_seam  # noqa: F401
