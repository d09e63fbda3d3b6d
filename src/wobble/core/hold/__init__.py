"""Hold: what carries a unit, and what every screw goes into.

- `structure`: studs and joists from what was found
- `capacity`: what a screw carries
- `services`, `loads`: what is kept clear of; what pulls
- `screws`: the one routine for all that is screwed
- `rests`: ledgers, battens, cleats; furring and grids on asking
- `joins`, `overhead`, `underfoot`, `known`: neighbours, racks, the floor, what is known behind each unit
- `fastened`: how each unit is held
- `parts`, `findings`, `result`: what is made, what is told, all of it

May import: fit and what is under it.
"""
