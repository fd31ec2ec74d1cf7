"""Sewing along: parts on days, and until when the cloth must be ordered so that everybody can cut."""
