"""What a programme may sell against what is left, what stands in for what runs out, and the look before it is shown."""
