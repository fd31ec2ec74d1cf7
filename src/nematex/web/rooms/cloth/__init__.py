"""Pages of the shelf, the bench, price lists, sheets to print, and what is missing."""
