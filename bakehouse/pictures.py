"""Pictures that come in: looked at, made smaller, and written anew without their metadata."""

from __future__ import annotations

import io
import threading

from PIL import Image, ImageOps, UnidentifiedImageError

from lamination.terms import Fault, Faults

LARGEST_FILE = 15_000_000  # bytes
LONGEST_SIDE = 1_600  # pixels
# A JPEG is unpacked at a fraction of its size, the others whole.
_MOST_PIXELS = {"JPEG": 120_000_000, "PNG": 24_000_000, "WEBP": 24_000_000}
# One picture at a time: several large ones together want more memory than a small machine has.
_one_at_a_time = threading.Lock()
Image.MAX_IMAGE_PIXELS = None  # looked at here, before anything is unpacked


def small_jpeg(content: bytes, longest: int = LONGEST_SIDE) -> bytes:
    """A picture as a JPEG of at most ``longest`` pixels a side, the right way up, without metadata.

    Told by what the file holds, not by its name. Raises Faults for what is no JPEG, PNG or WebP, is
    damaged, or is too large.
    """
    if len(content) > LARGEST_FILE:
        raise Faults(Fault("file", "This picture is larger than 15 MB. Make it smaller first."))
    with _one_at_a_time:
        return _made_small(content, longest)


def _made_small(content: bytes, longest: int) -> bytes:
    try:
        with Image.open(io.BytesIO(content), formats=tuple(_MOST_PIXELS)) as opened:
            most = _MOST_PIXELS[opened.format or ""]
            if opened.width * opened.height > most:
                raise Faults(Fault("file", _too_many(opened)))
            # a JPEG is read no larger than twice what is kept of it
            opened.draft("RGB", (2 * longest, 2 * longest))
            opened.load()
            # colours out of a table cannot be mixed
            small = opened.convert("RGBA") if opened.mode == "P" else opened
            small.thumbnail((longest, longest))
            # a camera says how it was held in the metadata that is left behind
            upright = ImageOps.exif_transpose(small).convert("RGB")
    except UnidentifiedImageError:
        raise Faults(Fault("file", "This file is no JPEG, PNG or WebP picture.")) from None
    except (OSError, SyntaxError, ValueError) as wrong:
        if isinstance(wrong, Faults):
            raise
        raise Faults(Fault("file", "This picture is damaged and cannot be read.")) from None
    # a new image carries nothing over but its pixels
    clean = Image.new("RGB", upright.size)
    clean.paste(upright)
    out = io.BytesIO()
    clean.save(out, "JPEG", quality=84)
    return out.getvalue()


def _too_many(picture: Image.Image) -> str:
    has = picture.width * picture.height / 1e6
    most = _MOST_PIXELS[picture.format or ""] / 1e6
    text = f"This picture has {has:.0f} megapixels; a {picture.format} may have {most:.0f}."
    return text if picture.format == "JPEG" else f"{text} Send it as a JPEG."
