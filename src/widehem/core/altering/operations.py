"""Every alteration there is; importing this registers them."""

from widehem.core.altering import darts, lengths, sleeves, trousers, upper  # noqa: F401
