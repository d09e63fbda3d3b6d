"""Fit: from surfaces to what goes under, behind, beside and over the units.

- `run`: what stands, where it touches, the surfaces under it
- `surfaces`: side walls and ceiling as draws
- `level`: a datum turned into shims, feet and packing
- `scribe`: cut lines
- `sides`: openings, fillers, doors, face frames
- `tops`: tops and shelves
- `cutouts`: what is in the way
- `overhead`: racks under the ceiling
- `access`: the way in
- `result`, `parts`: all of it, and what is made
- `findings`: what to tell the installer
- `compare`, `divide`: decisions beside each other; equal divisions

May import: gauge, job, facts, and what is under them.
"""
