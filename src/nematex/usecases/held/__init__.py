"""What is held in hand of the shop: one state of shelf, drawer and programmes, and what was worked out for it."""
