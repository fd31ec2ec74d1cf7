"""What a photograph of cloth tells: light, palette, kind of print, repeats, direction, see-through, draped disc."""
