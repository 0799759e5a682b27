"""Cut pieces drawn with cells of known number and size: what a photograph is measured against."""

import io
import math
import random

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

SCALE = 2  # drawn so much larger, and then made smaller: edges are soft as in a photograph
W, H = 660, 460
RX, RY = 262, 150  # the piece


def honeycomb(
    cells=60, size=12.7, seed=1, noise=0.0, blur=0.0, shadow=0.0, tilt=0.0, flat=1.0,
):  # fmt: skip
    """A picture as JPEG, its openness within the crust, %, its cells, and their median area, px²."""
    dice = random.Random(seed)
    image = Image.new("RGB", (W * SCALE, H * SCALE), (74, 86, 92))
    draw = ImageDraw.Draw(image)
    cx, cy, ry = W / 2, H / 2, RY * flat
    box = [(cx - RX) * SCALE, (cy - ry) * SCALE, (cx + RX) * SCALE, (cy + ry) * SCALE]
    draw.ellipse(box, fill=(176, 118, 60))
    inner = [box[0] + 6 * SCALE, box[1] + 6 * SCALE, box[2] - 6 * SCALE, box[3] - 6 * SCALE]
    draw.ellipse(inner, fill=(236, 214, 168))
    placed = []
    for _ in range(8_000):
        if len(placed) == cells:
            break
        r = size * dice.uniform(0.6, 1.35)
        angle, out = dice.uniform(0, 2 * math.pi), math.sqrt(dice.random())
        x, y = (
            cx + (RX - 30 - r) * out * math.cos(angle),
            cy + (ry - 30 - r) * out * math.sin(angle),
        )
        if all(math.hypot(x - a, y - b) > r + s + 3.0 for a, b, s in placed):
            placed.append((x, y, r))
    hole = Image.new("1", image.size)
    ink = ImageDraw.Draw(hole)
    areas = []
    for x, y, r in placed:
        wide, high = r, r * dice.uniform(0.75, 1.0)
        at = [(x - wide) * SCALE, (y - high) * SCALE, (x + wide) * SCALE, (y + high) * SCALE]
        draw.ellipse(at, fill=(150, 116, 74))
        ink.ellipse(at, fill=1)
        areas.append(math.pi * wide * high)
    image = image.resize((W, H), Image.Resampling.LANCZOS)
    crust = 0.035 * 2 * RX
    crumb = math.pi * (RX - crust) * (ry - crust)
    if tilt:
        image = image.rotate(tilt, Image.Resampling.BICUBIC, fillcolor=(74, 86, 92))
    if blur:
        image = image.filter(ImageFilter.GaussianBlur(blur))
    pixels = np.asarray(image, float)
    if shadow:
        pixels *= 1 - shadow * np.linspace(0, 1, W)[None, :, None]
    if noise:
        pixels += np.random.default_rng(seed).normal(0, noise, pixels.shape)
    out = io.BytesIO()
    Image.fromarray(np.clip(pixels, 0, 255).astype("uint8")).save(out, "JPEG", quality=93)
    return out.getvalue(), 100 * sum(areas) / crumb, len(placed), float(np.median(areas))
