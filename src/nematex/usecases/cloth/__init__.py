"""The shelf: one state of it, looking along it, the form, readings, what is missing; `bench` is the cutting table,
`lists` are price lists.
"""
