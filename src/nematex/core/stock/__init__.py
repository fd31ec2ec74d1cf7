"""Stock as a feed tells it: which levels can be believed, how a cloth sells, and how long what is left lasts."""
