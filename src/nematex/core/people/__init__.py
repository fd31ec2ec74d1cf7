"""Who may do what, which passwords will do, and how long to wait after wrong ones."""
