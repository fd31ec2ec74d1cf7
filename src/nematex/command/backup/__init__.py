"""`./nematex backup` and `restore`: one file that holds the whole shop, proved by putting it back before it is called good."""
