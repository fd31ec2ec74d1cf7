"""Programmes and their picks."""
