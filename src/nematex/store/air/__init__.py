"""What happens on air: takes, remotes."""
