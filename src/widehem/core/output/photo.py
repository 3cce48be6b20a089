"""A photo drawn anew: small, upright, and without anything the camera wrote into the file."""

from __future__ import annotations

import io
import warnings

LARGEST_FILE = 8 * 1024 * 1024  # bytes
LARGEST_SIDE = 12_000  # pixels of what is sent
MOST_PIXELS = 40_000_000
SIDE = 480  # pixels of what is kept, at most
QUALITY = 82
KINDS = ("JPEG", "PNG", "WEBP")


class PhotoError(ValueError):
    """What was sent cannot be kept as a photo; one sentence."""


def small_photo(data: bytes) -> bytes:
    """A JPEG of at most SIDE pixels from a JPEG, PNG or WebP. Raises PhotoError."""
    if len(data) > LARGEST_FILE:
        raise PhotoError(
            f"The photo has {len(data) / 1024 / 1024:.1f} MB; {LARGEST_FILE // 1024 // 1024} MB is the most: send a smaller "
            f"one."
        )
    from PIL import Image, ImageOps, UnidentifiedImageError  # loaded with the first photo, not at the start

    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            picture = Image.open(io.BytesIO(data), formats=KINDS)
            wide, high = picture.size
            if max(wide, high) > LARGEST_SIDE or wide * high > MOST_PIXELS:
                raise PhotoError(
                    f"The photo is {wide} by {high} points; send one of at most {MOST_PIXELS // 1_000_000} million."
                )
            picture.draft("RGB", (SIDE * 2, SIDE * 2))
            upright = ImageOps.exif_transpose(picture)
            upright.thumbnail((SIDE, SIDE))
            clear = upright.convert("RGBA")
    except PhotoError:
        raise
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise PhotoError("The file is not a photo that can be read: send a JPEG, PNG or WebP.") from None
    plain = Image.new("RGB", clear.size, "white")
    plain.paste(clear, mask=clear.getchannel("A"))
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue()
