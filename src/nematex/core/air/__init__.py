"""On the air: run sheets; notes, chapters, calendars and practice are still to come."""
