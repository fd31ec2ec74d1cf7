"""`./nematex drill`: faults amid writing, on a made-up shop of the drill's own."""
