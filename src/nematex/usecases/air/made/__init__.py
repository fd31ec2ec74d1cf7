"""What became of it: garments that were made and washed, and the year looked back on."""
