"""Where level starts: shims, feet, legs, packing, and the ways compared."""
