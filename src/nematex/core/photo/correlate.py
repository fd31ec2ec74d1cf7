"""How a picture agrees with a shifted copy of another: normalised cross-correlation over the overlap, by FFT."""

from __future__ import annotations

import numpy as np
import scipy

from nematex.core.colour.difference import Array

LEAST_OVERLAP = 0.2
NOT_KNOWN = -2.0  # below any correlation


def overlap_ncc(picture: Array, other: Array) -> Array:
    """NCC (2h−1, 2w−1) of two pictures (h, w, channels) for every shift; row h−1, column w−1 is no shift at all.

    Entry (h−1+dy, w−1+dx) compares picture[y+dy, x+dx] with other[y, x]; NOT_KNOWN where they overlap too little.
    """
    height, width, channels = picture.shape
    shape = (scipy.fft.next_fast_len(2 * height - 1, real=True), scipy.fft.next_fast_len(2 * width - 1, real=True))

    def ahead(values: Array) -> Array:
        return scipy.fft.rfft2(values, shape, workers=2)

    def back(product: Array) -> Array:
        whole = scipy.fft.irfft2(product, shape, workers=2)
        return np.roll(whole, (height - 1, width - 1), axis=(0, 1))[: 2 * height - 1, : 2 * width - 1]

    ones = ahead(np.ones((height, width)))
    count = np.maximum(back(ones * ones.conj()), 1)
    numerator = np.zeros_like(count)
    energy, energy_other = back(ahead((picture**2).sum(-1)) * ones.conj()), back(ones * ahead((other**2).sum(-1)).conj())
    for each in range(channels):
        first, second = ahead(picture[..., each]), ahead(other[..., each])
        sums, sums_other = back(first * ones.conj()), back(ones * second.conj())
        numerator += back(first * second.conj()) - sums * sums_other / count
        energy -= sums**2 / count
        energy_other -= sums_other**2 / count
    floor = 1e-4 * float((picture**2).sum())
    ncc: Array = numerator / np.sqrt(np.maximum(energy, floor) * np.maximum(energy_other, floor))
    ncc[count < LEAST_OVERLAP * height * width] = NOT_KNOWN
    return ncc
