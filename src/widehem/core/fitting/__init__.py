"""Toile and fitting: what the toile measures beside the body, where ease lies, what was seen and what may be behind it."""
