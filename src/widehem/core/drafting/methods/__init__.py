"""One module per method. Importing this package makes them all known."""

from widehem.core.drafting.methods import skirt_two_panel

__all__ = ["skirt_two_panel"]
