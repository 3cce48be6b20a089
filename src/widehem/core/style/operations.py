"""Every operation there is; importing this registers them."""

from widehem.core.style import truing  # noqa: F401
