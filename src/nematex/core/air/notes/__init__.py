"""Notes that go out: Markdown that holds, other places to buy, claims that want a ground, what changed since."""
