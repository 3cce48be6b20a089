"""Wide Hem: from the tape to the cloth."""

__version__ = "0.16.0"
