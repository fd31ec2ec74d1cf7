"""The cutting table: which measurements there are, what they come to, what they would change, simulated instruments."""
