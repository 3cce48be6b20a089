"""The pages: one module per station, templates beside it, static files that ship with the application."""
