"""A season seen whole: briefs, proposals, coverage, capsules, stand-ins."""
