"""A season seen whole: briefs, proposals, coverage, capsules, stand-ins. Nothing lives here yet."""
