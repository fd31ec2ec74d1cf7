"""Kits from bolts."""
