"""Pictures of what came out: looked at, made smaller, and written anew without their metadata."""

from __future__ import annotations

import io
import warnings

from PIL import Image, ImageOps, UnidentifiedImageError

from lamination.terms import Fault, Faults

LARGEST_FILE = 15_000_000  # bytes
LONGEST_SIDE = 1_600  # pixels
_MOST_PIXELS = 80_000_000
_KINDS = ("JPEG", "PNG", "WEBP")


def small_jpeg(content: bytes) -> bytes:
    """A picture as a JPEG of at most 1600 pixels a side, the right way up and without metadata.

    Told by what the file holds, not by its name. Raises Faults for what is no JPEG, PNG or WebP, is
    damaged, or is too large.
    """
    if len(content) > LARGEST_FILE:
        raise Faults(Fault("file", "This picture is larger than 15 MB. Make it smaller first."))
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(content), formats=_KINDS) as opened:
                if opened.width * opened.height > _MOST_PIXELS:
                    raise Faults(
                        Fault("file", "This picture has too many pixels to be a photograph.")
                    )
                # a camera says how it was held in the metadata that is left behind
                upright = ImageOps.exif_transpose(opened).convert("RGB")
    except (UnidentifiedImageError, Image.DecompressionBombWarning, Image.DecompressionBombError):
        raise Faults(Fault("file", "This file is no JPEG, PNG or WebP picture.")) from None
    except (OSError, SyntaxError, ValueError) as wrong:
        if isinstance(wrong, Faults):
            raise
        raise Faults(Fault("file", "This picture is damaged and cannot be read.")) from None
    upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    # a new image carries nothing over but its pixels
    clean = Image.new("RGB", upright.size)
    clean.paste(upright)
    out = io.BytesIO()
    clean.save(out, "JPEG", quality=84)
    return out.getvalue()
