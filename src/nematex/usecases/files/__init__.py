"""Files that come in and go out: which format a file is, and its rows as text. A new format is one row in `formats`."""
