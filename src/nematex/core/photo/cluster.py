"""Clusters of colours: scipy's k-means, always the same for the same picture, also where there are few colours."""

from __future__ import annotations

import warnings

import numpy as np
import numpy.typing as npt
import scipy

from nematex.core.colour.difference import Array


def clusters(points: Array, count: int, rounds: int) -> npt.NDArray[np.int32]:
    """The cluster number of each point (n, d); numbers may stay unused."""
    # A hair of jitter keeps the seeding well defined where fewer than `count` different points are given.
    jittered = points + np.random.default_rng(0).normal(scale=1e-7, size=points.shape)
    with warnings.catch_warnings():
        warnings.simplefilter("ignore", UserWarning)  # an empty cluster is no fault here
        _, labels = scipy.cluster.vq.kmeans2(jittered, min(count, len(points)), minit="++", rng=0, missing="warn", iter=rounds)
    found: npt.NDArray[np.int32] = labels
    return found
