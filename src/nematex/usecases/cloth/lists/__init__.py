"""Price lists: what their columns mean, what a row says, what it would change, applying it and taking it back."""
