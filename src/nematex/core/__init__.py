"""The rules of the trade as pure values and functions: no files, no clock, no network, no database."""
