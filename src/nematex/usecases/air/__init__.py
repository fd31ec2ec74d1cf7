"""On the air: what is said of each place, how long it takes, what lies on the table."""
