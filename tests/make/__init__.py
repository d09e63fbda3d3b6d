"""Make: parts, cutting, settings, buying."""
