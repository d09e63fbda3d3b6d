"""What is printed at its size or as a sheet: cut lines and rods as tiles, and papers as PDF."""
