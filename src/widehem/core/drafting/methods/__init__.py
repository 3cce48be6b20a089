"""One module per method. Importing this package makes them all known."""

from widehem.core.drafting.methods import bodice_measured, skirt_two_panel

__all__ = ["bodice_measured", "skirt_two_panel"]
