"""Work outside the web process: asked for here, done by the worker, its state read from anywhere."""
