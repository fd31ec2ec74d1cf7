"""Setting up, signing in and out, inviting, and what a person may change of their own sign-in."""
