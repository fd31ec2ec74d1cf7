"""On the air: run sheets, notes, chapters, calendars, practice. Nothing lives here yet."""
