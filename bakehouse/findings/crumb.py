"""A cut piece measured by its photograph: how open its crumb is, its cells, how even, how high.

scikit-image is fetched when a picture is measured, and by nobody else. Same picture, same numbers.
"""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, Literal

import numpy as np
from PIL import Image, ImageOps, UnidentifiedImageError

from lamination.terms import Fault, Faults, Range

if TYPE_CHECKING:
    from numpy.typing import NDArray

CRUMB_FORMAT: Literal["eight-turn/crumb"] = "eight-turn/crumb"
_WIDE_PX = 760  # larger pictures say no more of cells that one can see
_LEAST_PX = 260  # a piece that is drawn by fewer shows no cells
_LEAST_CELL_MM2 = 0.25  # smaller ones are grain of the picture
_SECTORS = (2, 4)  # rows and columns that the piece is divided into
_CRUST = 0.035  # of its width, that is crust and no crumb
_SHARP = 0.003  # the least that edges vary by in a sharp picture
_APART = 0.55  # how well cells and walls must be told apart, 0 to 1
_SHADOW = 0.16  # of its width: what changes more slowly is light, and no cell
_COARSER = 8  # the light is looked at so many times coarser
_GRAIN = 0.07  # so much of black to white may a picture be grainy
_MOST_PIXELS = 60_000_000


@dataclass(frozen=True, slots=True)
class Crumb:
    """What a photograph says of a cut piece.

    ``openness_pct``: of the area within its crust that is cells; ``cells`` and their ``median_cell_mm2``;
    ``sectors``: the openness of its eighths, upper row first. ``sure``: it can be relied on; ``because``:
    why not.
    """

    openness_pct: float
    cells: int
    median_cell_mm2: float
    height_over_width: float
    sectors: tuple[float, ...]
    sure: bool
    because: tuple[str, ...]
    format: Literal["eight-turn/crumb"] = CRUMB_FORMAT
    version: Literal[1] = 1


def measured(content: bytes, width_mm: float) -> tuple[Crumb, bytes]:
    """What a photograph says of a piece that is so wide, mm; and the picture with what was found drawn over.

    Raises Faults for what is no picture, and where no piece is found in it.
    """
    if message := Range(10, 400, "mm").complaint(width_mm):
        raise Faults(Fault("width_mm", message))
    picture = _opened(content)
    colours = np.asarray(picture, dtype=float) / 255
    piece = _piece(colours)
    grey = colours @ np.array([0.299, 0.587, 0.114])
    return _told(picture, grey, piece, width_mm)


def _opened(content: bytes) -> Image.Image:
    try:
        opened = Image.open(io.BytesIO(content))
        if opened.width * opened.height > _MOST_PIXELS:
            raise Faults(
                Fault("", "This picture is larger than any camera's. Make it smaller first.")
            )
        found = ImageOps.exif_transpose(opened).convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, Image.DecompressionBombError):
        raise Faults(Fault("", "This is no picture that can be read: JPEG or PNG.")) from None
    if found.width > _WIDE_PX:
        found = found.resize(
            (_WIDE_PX, round(found.height * _WIDE_PX / found.width)), Image.Resampling.LANCZOS
        )
    return found


def _piece(colours: NDArray[Any]) -> NDArray[Any]:
    """Where the piece is: what differs from the ground, of which the picture's edge is an example."""
    from scipy import ndimage
    from skimage import filters, measure

    edge = np.concatenate([colours[:4].reshape(-1, 3), colours[-4:].reshape(-1, 3),
                           colours[:, :4].reshape(-1, 3), colours[:, -4:].reshape(-1, 3)])  # fmt: skip
    apart = np.linalg.norm(colours - np.median(edge, axis=0), axis=2)
    smooth = filters.gaussian(apart, sigma=colours.shape[1] / 220)
    there = smooth > filters.threshold_otsu(smooth)
    there = ndimage.binary_closing(there, iterations=max(colours.shape[1] // 120, 2))
    labels = measure.label(ndimage.binary_fill_holes(there))
    regions = sorted(measure.regionprops(labels), key=lambda r: -r.area)
    if not regions or regions[0].area < 0.02 * apart.size:
        raise Faults(Fault("", "No piece is found: lay it on a plain ground of another colour."))
    found: NDArray[Any] = labels == regions[0].label
    return found


def _told(
    picture: Image.Image, grey: NDArray[Any], piece: NDArray[Any], width_mm: float
) -> tuple[Crumb, bytes]:
    from scipy import ndimage
    from skimage import filters

    long_px, high_px, angle = _sides(piece)
    mm_px = width_mm / long_px
    inside = ndimage.distance_transform_edt(piece) > _CRUST * long_px
    light = _light(grey, inside, _SHADOW * long_px)
    flat = np.where(inside, grey / np.maximum(light, 1e-6), 1.0)
    smooth = filters.gaussian(flat, sigma=0.7)
    values = smooth[inside]
    threshold = filters.threshold_otsu(values)
    cells = _cells(smooth, inside, threshold, mm_px)
    count = int(cells.max())
    areas = np.bincount(cells.ravel())[1:] * mm_px**2
    because = tuple(_doubts(grey, piece, values, threshold, long_px))
    openness = 100 * float((cells > 0).sum()) / max(float(inside.sum()), 1.0)
    crumb = Crumb(
        round(openness, 2), count, round(float(np.median(areas)) if count else 0.0, 3),
        round(high_px / long_px, 3), _sectors(cells > 0, inside, angle), not because, because,
    )  # fmt: skip
    return crumb, _drawn(picture, cells, piece)


def _sides(piece: NDArray[Any]) -> tuple[float, float, float]:
    """Its two sides along its own axes, px, and by how much it is tilted, radians."""
    from skimage import measure

    region = measure.regionprops(piece.astype(int))[0]
    angle = float(np.pi / 2 - region.orientation)
    angle = (angle + np.pi / 4) % (np.pi / 2) - np.pi / 4
    rows, columns = np.nonzero(piece)
    along = columns * np.cos(angle) + rows * np.sin(angle)
    across = -columns * np.sin(angle) + rows * np.cos(angle)
    long, high = float(np.ptp(along)) + 1, float(np.ptp(across)) + 1
    return long, high, angle


def _light(grey: NDArray[Any], inside: NDArray[Any], sigma: float) -> NDArray[Any]:
    """How the light falls: the brightness of the walls, which changes slowly."""
    from skimage import filters, transform

    # it changes slowly: a picture of an eighth of the sides shows it as well
    small = grey.shape[0] // _COARSER, grey.shape[1] // _COARSER
    coarse = transform.resize(grey, small, anti_aliasing=True)
    there = transform.resize(inside.astype(float), small, anti_aliasing=True) > 0.5
    weight = there.astype(float)
    for _ in range(3):
        mean = filters.gaussian(coarse * weight, sigma / _COARSER) / np.maximum(
            filters.gaussian(weight, sigma / _COARSER), 1e-6
        )
        # what is darker than the walls about it is a cell, and says nothing of the light
        weight = (there & (coarse > 0.94 * mean)).astype(float)
    found: NDArray[Any] = transform.resize(mean, grey.shape, order=1)
    return found


def _cells(
    smooth: NDArray[Any], inside: NDArray[Any], threshold: float, mm_px: float
) -> NDArray[Any]:
    """Each cell by a number of its own; those that touch are parted where they are narrow."""
    from scipy import ndimage
    from skimage import measure, morphology, segmentation

    holes = inside & (smooth < threshold)
    least = max(int(_LEAST_CELL_MM2 / mm_px**2), 4)
    holes = morphology.remove_small_objects(holes, max_size=least)
    deep = ndimage.gaussian_filter(ndimage.distance_transform_edt(holes), 1.0)
    # a top that is hardly higher than the pass to the next is no cell of its own
    tops = morphology.h_maxima(deep, 0.8) & holes
    found: NDArray[Any] = segmentation.watershed(-deep, measure.label(tops), mask=holes)
    return found


def _sectors(cells: NDArray[Any], inside: NDArray[Any], angle: float) -> tuple[float, ...]:
    rows, columns = np.nonzero(inside)
    along = columns * np.cos(angle) + rows * np.sin(angle)
    across = -columns * np.sin(angle) + rows * np.cos(angle)
    down, wide = _SECTORS

    def part(of: NDArray[Any], n: int) -> NDArray[Any]:
        found: NDArray[Any] = np.minimum(
            (n * (of - of.min()) / (np.ptp(of) + 1e-9)).astype(int), n - 1
        )
        return found

    which = part(across, down) * wide + part(along, wide)
    there = cells[rows, columns]
    return tuple(
        round(100 * float(there[which == n].mean()) if (which == n).any() else 0.0, 1)
        for n in range(down * wide)
    )


def _doubts(
    grey: NDArray[Any], piece: NDArray[Any], values: NDArray[Any], threshold: float, long_px: float
) -> list[str]:
    from skimage import filters

    said = []
    if long_px < _LEAST_PX:
        said.append("The piece is too small in the picture: go nearer.")
    # what was closed has drawn back from the edge by as much
    k = max(piece.shape[1] // 60, 4)
    if piece[:k].any() or piece[-k:].any() or piece[:, :k].any() or piece[:, -k:].any():
        said.append("The piece is cut off by the picture's edge.")
    edges = filters.laplace(filters.gaussian(grey, 0.6))
    contrast = max(float(np.std(grey[piece])), 1e-6)
    if float(np.var(edges[piece])) / contrast**2 < _SHARP:
        said.append("The picture is not sharp: hold still, or more light.")
    grain = np.median(np.abs(grey - filters.gaussian(grey, 1.5))[piece]) / 0.6745
    if grain > _GRAIN:
        said.append("The picture is too grainy: more light.")
    low, high = values[values < threshold], values[values >= threshold]
    between = 0.0
    if len(low) and len(high):
        share = len(low) / len(values)
        between = share * (1 - share) * (low.mean() - high.mean()) ** 2 / max(values.var(), 1e-9)
    if between < _APART:
        said.append("Cells and walls are hardly told apart: light it from one side.")
    if float(np.mean(grey[piece] > 0.985)) > 0.2:
        said.append("The picture is too bright: its walls are all white.")
    return said


def _drawn(picture: Image.Image, cells: NDArray[Any], piece: NDArray[Any]) -> bytes:
    """The picture with the edges of every cell, and of the piece, drawn over it."""
    from skimage import segmentation

    drawn = np.asarray(picture).copy()
    drawn[segmentation.find_boundaries(cells, mode="outer")] = (242, 185, 29)
    drawn[segmentation.find_boundaries(piece, mode="outer")] = (139, 74, 32)
    out = io.BytesIO()
    Image.fromarray(drawn).save(out, "JPEG", quality=88)
    return out.getvalue()
