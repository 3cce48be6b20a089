"""Every alteration there is; importing this registers them."""

from widehem.core.altering import cut, darts, lengths, sleeves, trousers, upper  # noqa: F401
