"""`./nematex doctor`: looks at everything that the shop rests on, and says what to do where something is not well."""
