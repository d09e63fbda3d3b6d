"""Make: every part of every unit, now or after what, out of which stock, at which setting, bought where."""
