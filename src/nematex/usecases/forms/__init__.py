"""Forms: what they showed, what was typed, and what is kept now."""
