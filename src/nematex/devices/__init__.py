"""Outside devices: one small protocol for each, and a simulated one that ships. A real one is one file more."""
