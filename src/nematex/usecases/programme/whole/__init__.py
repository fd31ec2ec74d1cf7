"""A programme seen whole: whom it serves, its colours and outfits, what it lacks and what would bring it."""
