"""What works beside the pages: the worker, its hands in the lanes, who asks the feed, what is done each few minutes."""
