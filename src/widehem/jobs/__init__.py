"""Work that lasts: asked for by a page, done by processes of their own, with progress and a way to stop it."""
