"""Fit: from surfaces to what goes under and behind the units.

- `figures`: a value with its uncertainty and working
- `supports`: where units touch floor and wall
- `ground`: the surfaces under and behind a run, solved once
- `shims`: stacks from the kit, tapered pairs, blocks
- `asked`: what is about to be decided, for the next best reading
- `plan`: a datum turned into shims and packing
- `obstacles`: what is in the way of units and fixings
- `schools`: the ways to decide where level starts, compared
- `verdicts`: what to tell the installer

May import: gauge, job, length, errors.
"""
