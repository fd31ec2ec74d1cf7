"""The motifs of a print: connected parts that are not ground, their size, and each one seen from its middle."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import scipy

from nematex.core.colour.difference import Array

SMALLEST_PX = 12
MOST = 400
RINGS, ANGLES = 10, 48


@dataclass(frozen=True)
class Motifs:
    """n whole motifs: height and width of their boxes in px (n, 2), area (n,), contrast around them (n, 3, ring, angle)."""

    boxes: Array
    areas: Array
    around: Array

    def __len__(self) -> int:
        return len(self.areas)

    def size_px(self) -> float | None:
        """The longer side of the typical motif: the median, each motif counting by its area."""
        if not len(self):
            return None
        longer = self.boxes.max(axis=1)
        order = np.argsort(longer)
        mass = np.cumsum(self.areas[order])
        return float(longer[order][np.searchsorted(mass, mass[-1] / 2)])


NO_MOTIFS = Motifs(np.empty((0, 2)), np.empty(0), np.empty((0, 3, 1, 1)))


def _closed(mask: npt.NDArray[np.bool_], reach: int) -> npt.NDArray[np.bool_]:
    """Gaps narrower than the reach are bridged, so that a stem stays with its leaf."""
    if reach < 1:
        return mask
    distance = scipy.ndimage.distance_transform_edt(~mask)
    grown = distance <= reach
    return scipy.ndimage.distance_transform_edt(grown) > reach


def _around(mask: npt.NDArray[np.bool_], picture: Array, ground: Array) -> Array:
    """One motif as contrast over (ring, angle) about its middle: a turn of the motif is a shift along the angles."""
    y, x = np.nonzero(mask)
    cy, cx = y.mean(), x.mean()
    reach = float(np.hypot(y - cy, x - cx).max())
    ring, angle = np.meshgrid((np.arange(RINGS) + 0.5) / RINGS * reach, np.arange(ANGLES) * 2 * np.pi / ANGLES, indexing="ij")
    at = np.stack([cy + ring * np.sin(angle), cx + ring * np.cos(angle)])
    contrast = np.where(mask[..., None], picture - ground, 0.0)
    around: Array = np.stack([scipy.ndimage.map_coordinates(contrast[..., each], at, order=1) for each in range(3)])
    return around * np.sqrt(ring)


def find_motifs(labels: npt.NDArray[np.int32], ground: int, linear: Array, join_px: int) -> Motifs:
    """Whole motifs (those that touch no edge) of a picture labelled by colour."""
    mask = _closed(scipy.ndimage.binary_opening(labels != ground, iterations=1), join_px)
    parts, _ = scipy.ndimage.label(mask, structure=np.ones((3, 3)))
    height, width = labels.shape
    middle = np.median(linear[labels == ground], axis=0) if (labels == ground).any() else linear.mean(axis=(0, 1))
    found = []
    for at, box in enumerate(scipy.ndimage.find_objects(parts)[:MOST], start=1):
        rows, columns = box
        inside = rows.start > 1 and columns.start > 1 and rows.stop < height - 1 and columns.stop < width - 1
        piece = parts[box] == at
        if not inside or piece.sum() < SMALLEST_PX:
            continue
        around = _around(piece, linear[box], middle)
        found.append(((rows.stop - rows.start, columns.stop - columns.start), piece.sum(), around))
    if not found:
        return NO_MOTIFS
    boxes, areas, around = (np.array(row, dtype=np.float64) for row in zip(*found, strict=True))
    large = areas >= 0.08 * np.percentile(areas, 90)  # crumbs between motifs tell nothing
    return Motifs(boxes[large], areas[large], around[large])
