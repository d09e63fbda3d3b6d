"""How each unit is held: what it asks for, what it gets, and what is said of it."""
