"""How much cloth: from the requirement table to a length with its receipt. Hacks, lays and kits will live here."""
