"""The stock as its feed tells it."""
