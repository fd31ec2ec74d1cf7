"""Who is let in, and to what: one table, one place that asks it."""
