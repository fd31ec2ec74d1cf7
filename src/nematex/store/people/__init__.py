"""People, where they are signed in, invitations and passkeys."""
