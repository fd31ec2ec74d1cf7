"""What the shop does: each act combines core and store. Pages and the command line call these alone."""
