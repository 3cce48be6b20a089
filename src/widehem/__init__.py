"""Wide Hem: from the tape to the cloth."""

__version__ = "0.18.0"
