"""Who may do what. Nothing lives here yet."""
