"""What carries a unit: lines of structure behind the lining, and what a screw into them holds."""
