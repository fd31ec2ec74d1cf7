"""Who changed what: written by the database's own triggers, so that no way of writing leaves it out."""
