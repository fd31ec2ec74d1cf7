"""A pattern: what its envelope says (envelope, paste), what is made of it (construction), sizes and ease."""
