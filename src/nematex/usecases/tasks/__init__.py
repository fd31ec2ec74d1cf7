"""The work that is done outside the web process, each kind by the use case it belongs to."""
