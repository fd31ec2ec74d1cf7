"""The practice room: when a question comes again, and how near an answer was."""
