"""Commands of the site."""
