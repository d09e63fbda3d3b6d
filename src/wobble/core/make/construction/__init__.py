"""Construction: the boards of every unit, each where it stands, by the way in which the unit is built."""
