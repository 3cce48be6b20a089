"""The made-up production that ships."""
