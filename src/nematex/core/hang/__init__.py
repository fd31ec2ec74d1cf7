"""How cloth hangs: the heavy elastica, hems, sleeves and cowls as a model, and words for what it shows."""
