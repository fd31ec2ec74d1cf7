"""`start`, `stop`, `status`, `watch`: the shop's processes: database, web servers, worker, simulated till, who watches them."""
