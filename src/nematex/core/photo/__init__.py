"""What a photo of flat or draped cloth tells: light, palette, kind of print, direction, repeats, see-through, folds."""
