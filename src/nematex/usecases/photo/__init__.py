"""Photos: opened safely, read, confirmed by somebody, and only then in force."""
