"""When: sessions as windows, steps put into them, how early it could end at all, what fits tonight."""
