"""Signing in, one's own sign-in, the people of the shop, and the trail of changes."""
