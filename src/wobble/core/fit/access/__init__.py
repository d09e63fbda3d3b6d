"""Whether each unit gets in: passages, and the order in which all go."""
