"""The drawer: one state of it with every envelope read, the form, sizes, patterns in and out."""
