"""The lay of the cloth: what is cut from it, where it lies, how much cloth that takes."""
