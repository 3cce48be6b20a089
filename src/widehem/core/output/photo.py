"""A photo drawn anew: small, upright, and without anything the camera wrote into the file."""

from __future__ import annotations

import io
import threading
import warnings

LARGEST_FILE = 8 * 1024 * 1024  # bytes
LARGEST_SIDE = 12_000  # pixels of what is sent
MOST_PIXELS = 24_000_000
SIDE, LARGE_SIDE = 480, 1600  # pixels of what is kept, at most
QUALITY = 82
KINDS = ("JPEG", "PNG", "WEBP")
ONE_AT_A_TIME = threading.Lock()  # a photo being decoded may take a hundred megabytes


class PhotoError(ValueError):
    """What was sent cannot be kept as a photo; one sentence."""


def small_photo(data: bytes, side: int = SIDE) -> bytes:
    """A JPEG of at most so many pixels a side from a JPEG, PNG or WebP. Raises PhotoError."""
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
            with ONE_AT_A_TIME:
                picture.draft("RGB", (side * 2, side * 2))
                picture.thumbnail((side, side))  # small first: whatever is done to it after that is cheap
                clear = ImageOps.exif_transpose(picture).convert("RGBA")
    except PhotoError:
        raise
    except Image.DecompressionBombError:
        raise PhotoError(
            f"The photo has far too many points; send one of at most {MOST_PIXELS // 1_000_000} million."
        ) from None
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError):
        raise PhotoError("The file is not a photo that can be read: send a JPEG, PNG or WebP.") from None
    plain = Image.new("RGB", clear.size, "white")
    plain.paste(clear, mask=clear.getchannel("A"))
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue()
