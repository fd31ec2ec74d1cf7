"""Laying a pattern out: what is laid, the solver beside our own, and files of pieces in and out."""
