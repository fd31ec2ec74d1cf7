"""The command line: start, stop, status, test, bench, assess."""
