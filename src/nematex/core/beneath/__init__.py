"""What goes beneath and into a garment: lining, interfacing, thread, notions."""
