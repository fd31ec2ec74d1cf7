"""Facts in the shop's units and vocabulary."""
