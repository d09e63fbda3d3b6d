"""Between the walls: openings, fillers, face frames, what opens beside them."""
