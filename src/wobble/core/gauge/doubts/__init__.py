"""What the readings are doubted for: misreads and their slips, roughness, edges, knocks and leans."""
