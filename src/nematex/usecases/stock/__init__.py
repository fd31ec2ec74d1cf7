"""The stock as the feed tells it: polled, believed, put on the shelf, and how each cloth sells."""
