"""The made-up shop: the same files a user would import, loaded by the same code."""
