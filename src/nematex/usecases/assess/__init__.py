"""The command line's `assess`: its input and output as models, one pairing, a matrix, an envelope."""
