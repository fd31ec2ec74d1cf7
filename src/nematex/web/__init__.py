"""Pages and forms: parse, call one use case, render."""
